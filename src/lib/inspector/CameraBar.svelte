<script lang="ts">
  import { framings, type Framing, type Lens } from '$core/setup/schema';
  import Choice from '$lib/controls/Choice.svelte';
  import LengthField from '$lib/controls/LengthField.svelte';
  import NumberField from '$lib/controls/NumberField.svelte';
  import Picker from '$lib/controls/Picker.svelte';
  import { getWorkspace } from '$lib/state/workspace.svelte';
  import { framingWords } from './words';

  const workspace = getWorkspace();
  const camera = $derived(workspace.setup.camera);
  const kit = $derived(workspace.app.kit);
  const lens = $derived(workspace.lens);
  const named = <T extends { id: string; name: string }>(items: readonly T[]) =>
    items.map((item) => ({ value: item.id, name: item.name }));

  type FramingChoice = Framing | 'byDistance';
  const framing = $derived<FramingChoice>(
    camera.placement.kind === 'framing' ? camera.placement.framing : 'byDistance'
  );
  const framingItems = $derived([
    ...framings.map((value) => ({ value: value as FramingChoice, name: framingWords[value] })),
    { value: 'byDistance' as FramingChoice, name: 'by distance' }
  ]);

  function useBody(id: string) {
    workspace.edit('Body', (draft) => void (draft.camera.bodyId = id));
  }
  function useLens(id: string) {
    const chosen: Lens | undefined = kit.lenses.find((item) => item.id === id);
    if (chosen) workspace.useLens(chosen);
  }
  function frame(choice: FramingChoice) {
    if (choice === 'byDistance') workspace.stand(Math.round(workspace.distanceMm));
    else workspace.edit('Framing', (draft) => void (draft.camera.placement = { kind: 'framing', framing: choice }));
  }
</script>

<div
  class="grid grid-cols-2 items-end gap-x-2 gap-y-1.5 sm:grid-cols-[1fr_1.1fr_1.25fr_0.7fr_auto]"
  role="group"
  aria-label="Camera and framing"
>
  <Picker label="Body" items={named(kit.bodies)} value={camera.bodyId} onchange={useBody} />
  <div class="flex items-end gap-1.5">
    <div class="min-w-0 flex-1">
      <Picker label="Lens" items={named(kit.lenses)} value={camera.lensId} onchange={useLens} />
    </div>
    {#if lens && lens.longestMm > lens.shortestMm}
      <div class="w-16">
        <NumberField
          label="mm"
          value={camera.focalLengthMm}
          min={lens.shortestMm}
          max={lens.longestMm}
          onchange={(mm, gesture) =>
            workspace.edit('Focal length', (draft) => void (draft.camera.focalLengthMm = mm), gesture)}
        />
      </div>
    {/if}
  </div>
  <Picker label="Framing" items={framingItems} value={framing} onchange={frame} />
  <LengthField
    label="Distance"
    valueMm={workspace.distanceMm}
    stepMm={100}
    onchange={(mm, gesture) => workspace.stand(mm, gesture)}
  />
  <Choice
    legend="Held"
    value={camera.orientation}
    options={[
      { value: 'landscape', name: 'wide' },
      { value: 'portrait', name: 'tall' }
    ]}
    onchange={(value) => workspace.edit('Orientation', (draft) => void (draft.camera.orientation = value))}
  />
</div>
