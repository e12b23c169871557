<script lang="ts">
  import { setupLeaving } from '$lib/state/job/leaving';
  import { Button } from 'flowbite-svelte';
  import Dialog from '$lib/controls/Dialog.svelte';
  import { verdict } from '$core/optics/sharpness';
  import { callSentence, roleWords, verdictWords } from '$core/words/call';
  import { getApp } from '$lib/state/app.svelte';
  import Picker from '$lib/controls/Picker.svelte';
  import { asking, eyeCrops, picturePixels, type RenderableSetup } from '../../render/request';
  import { savePicture } from './export';
  import LensRendering from './LensRendering.svelte';
  import { cutoutAt } from '../../render/lens/lensView';

  interface Props {
    open: boolean;
    taken: RenderableSetup;
    /** Key of the crop to begin with; the target's when left out. */
    start?: string;
  }
  /** A large look at 100% of the camera's pixels. */
  let { open = $bindable(), taken, start }: Props = $props();
  const app = getApp();
  let canvas: HTMLCanvasElement | undefined;
  let innerWidth = $state(1280);
  const size = $derived({ width: Math.min(860, innerWidth - 80), height: 460 });
  const small = { width: 148, height: 58 } as const;

  const crops = $derived(eyeCrops(taken, small));
  const target = $derived(taken.plan.stops[taken.plan.selected]?.target.subjectId);
  let chosen = $state<string | null>(null);
  $effect.pre(() => {
    if (open) chosen = null;
  });
  const crop = $derived(
    crops.find((item) => item.key === (chosen ?? start)) ?? crops.find((item) => item.subjectId === target) ?? crops[0]
  );
  const items = $derived(
    crops.map((item) => ({
      value: item.key,
      name: `${item.name}, ${item.roles.length > 1 ? 'eyes' : item.roles[0] ? roleWords[item.roles[0]] : ''}: ${verdictWords[verdict(item.ratio)]}`
    }))
  );
  const asked = $derived(
    crop
      ? asking(taken, {
          slot: 'loupe',
          priority: 0,
          ...size,
          cutout: cutoutAt(crop.at, size, picturePixels(taken)),
          views: 96
        })
      : null
  );

  async function save() {
    if (!canvas) return;
    const leaving = setupLeaving(app, taken);
    const words = `At 100%. ${callSentence(leaving.plan, app.settings.now.unit)}`;
    await savePicture(canvas, { ...leaving, words });
  }
</script>

<svelte:window bind:innerWidth />
<Dialog bind:open title="At 100% of the camera’s pixels" size="xl">
  <div class="space-y-3" data-testid="loupe">
    {#if crop && asked}
      <div class="grid place-items-center bg-surround">
        <LensRendering {asked} {...size} label="{crop.name} at 100%" onshown={(_, drawnOn) => (canvas = drawnOn)} />
      </div>
      <div class="flex items-end gap-3">
        <div class="w-96 max-w-full">
          <Picker label="Look at" {items} value={crop.key} onchange={(value) => (chosen = value)} />
        </div>
        <Button color="alternative" onclick={() => void save()}>Save this preview</Button>
      </div>
    {:else}
      <p>No eyes are in the frame.</p>
    {/if}
  </div>
</Dialog>
