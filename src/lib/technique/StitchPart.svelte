<script lang="ts">
  import type { Plan } from '$core/call/plan';
  import { stitchedAngle } from '$core/setup/framing';
  import { stitchFramesFor } from '$core/technique/stitching';
  import { stitchSteps } from '$core/words/stitching';
  import NumberField from '$lib/controls/NumberField.svelte';
  import { roundOf } from '../../render/request';
  import { getWorkspace } from '$lib/state/screen/workspace.svelte';
  import Part from './Part.svelte';

  /** A wide view stitched from narrow frames: how many, in which order, step by step. */
  let { plan }: { plan: Plan } = $props();
  const workspace = getWorkspace();
  const stitched = $derived(workspace.body ? roundOf({ setup: workspace.setup, plan, body: workspace.body }) : null);
  /** Frames to either side at most (setup/schema.ts). */
  const mostFrames = 20;
  const widest = (frameDeg: number) =>
    Math.floor(Math.min(360, stitchedAngle(frameDeg, mostFrames, workspace.setup.camera.stitch?.overlap ?? 0)));
  function cover(angle: 'across' | 'down', wantedDeg: number, how: Parameters<typeof workspace.edit>[2]) {
    if (!stitched) return false;
    return workspace.edit(
      'Angle of view',
      ({ camera: { stitch } }) => {
        if (!stitch) return;
        const frames = stitchFramesFor(wantedDeg, stitched.frameDeg[angle], stitch.overlap);
        if (angle === 'across') stitch.columns = frames;
        else stitch.rows = frames;
      },
      how
    );
  }
</script>

{#if stitched}
  <Part title="Stitched panorama">
    <div class="mt-2 flex gap-3">
      {#each [{ key: 'across', label: 'Wanted across' }, { key: 'down', label: 'Wanted upright' }] as const as side (side.key)}
        <div class="w-36">
          <NumberField
            label={side.label}
            unit="deg"
            value={Math.round(stitched.angleDeg[side.key])}
            min={1}
            max={widest(stitched.frameDeg[side.key])}
            onchange={(deg, how) => cover(side.key, deg, how)}
          />
        </div>
      {/each}
    </div>
    <ol class="mt-2 list-decimal space-y-1 pl-5" data-testid="stitch-steps">
      {#each stitchSteps(stitched, workspace.unit) as step (step)}<li class="text-pretty">{step}</li>{/each}
    </ol>
  </Part>
{/if}
