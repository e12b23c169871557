<script lang="ts">
  import { Columns2, Download, Eye, Layers } from '@lucide/svelte';
  import { Checkbox, Popover } from 'flowbite-svelte';
  import { shapeNames } from '$core/setup/shapes';
  import { overlays, type Overlay } from '$lib/data';
  import Picker from '$lib/controls/Picker.svelte';
  import ToolButton from '$lib/controls/ToolButton.svelte';
  import { getApp } from '$lib/state/app.svelte';

  interface Props {
    caption: string;
    onloupe: () => void;
    oncompare: () => void;
    onexport: () => void;
  }
  let { caption, onloupe, oncompare, onexport }: Props = $props();
  const app = getApp();
  const id = $props.id();

  const names: Readonly<Record<Overlay, string>> = {
    points: 'Focus points of this body',
    thirds: 'Thirds',
    crop: 'Print crop',
    edges: 'Edges to check',
    level: 'Level'
  };
  function toggle(overlay: Overlay) {
    const now = app.settings.now.overlays;
    const next = now.includes(overlay) ? now.filter((item) => item !== overlay) : [...now, overlay];
    app.settings.set({ overlays: next });
  }
  const shapes = shapeNames.map((value) => ({ value, name: `${value} print` }));
</script>

<div class="flex h-7 items-center gap-1 bg-[#3f3f3f] px-2 text-[11.5px] text-white">
  <p class="min-w-0 flex-1 truncate" data-testid="finder-caption">{caption}</p>
  <ToolButton {id} icon={Layers} name="Marks over the preview" />
  <ToolButton icon={Eye} name="Eyes at 100% (H)" onclick={onloupe} />
  <ToolButton icon={Columns2} name="Compare apertures, lenses or focus" onclick={oncompare} />
  <ToolButton icon={Download} name="Save this preview" onclick={onexport} />
</div>
<Popover
  triggeredBy="#{id}"
  trigger="click"
  placement="bottom-end"
  arrow={false}
  class="z-30 w-auto border-line bg-raised text-ink dark:bg-raised"
>
  <div class="space-y-2">
    {#each overlays as overlay (overlay)}
      <Checkbox checked={app.settings.now.overlays.includes(overlay)} onchange={() => toggle(overlay)}
        >{names[overlay]}</Checkbox
      >
    {/each}
    <Picker
      label="Print shape"
      items={shapes}
      value={app.settings.now.printShape}
      onchange={(printShape) => app.settings.set({ printShape })}
    />
  </div>
</Popover>
