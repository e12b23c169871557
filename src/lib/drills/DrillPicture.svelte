<script lang="ts">
  import { mean } from 'd3-array';
  import type { Arranged, DrillStep } from '$core/drills/series/steps';
  import { expectedFrame, type DrillKit } from '$core/drills/drillSetup';
  import type { ListedDrill } from '$core/drills/kinds';
  import { viewsRange } from '../../render/lens/pupil';
  import { asking, aspectOf, partAbout, projection } from '../../render/request';
  import LensRendering from '../finder/LensRendering.svelte';
  import Outline from '../finder/Outline.svelte';

  interface Props {
    drill: ListedDrill;
    arranged: Arranged;
    kit: DrillKit;
    step: DrillStep;
    name: string;
    /** CSS px. */
    room: { readonly width: number; readonly height: number };
  }
  /** What a step's frame must look like, as the lens draws it. */
  let { drill, arranged, kit, step, name, room }: Props = $props();
  const expected = $derived(expectedFrame(drill.frames?.shows ?? 'objects', arranged, step, kit));
  const taken = $derived(expected && { setup: expected.setup, plan: expected.plan, body: kit.body, lens: kit.lens });
  /** So much of the scene is shown: beyond the things, or of a face from brow to mouth, mm. */
  const shownMm = { aroundThings: 130, face: 150 } as const;
  const asked = $derived.by(() => {
    if (!taken || !expected) return null;
    const project = projection(taken);
    const points = taken.plan.subjects.flatMap(({ points: all }) =>
      all
        .filter(({ role }) => role === 'nearEye' || role === 'nose' || role === 'nearSide')
        .flatMap(({ position }) => project(position) ?? [])
    );
    const [first] = points;
    if (!first) return null;
    const whole = drill.frames?.shows === 'picture' && step.place !== 'middle';
    const aspect = whole ? aspectOf(taken) : room.width / room.height;
    const size = {
      width: Math.round(Math.min(room.width, room.height * aspect)),
      height: Math.round(Math.min(room.height, room.width / aspect))
    };
    const spread = Math.max(...points.map(({ x }) => x)) - Math.min(...points.map(({ x }) => x));
    const beyondMm = drill.frames?.shows === 'face' ? shownMm.face : shownMm.aroundThings;
    const at = { x: mean(points, ({ x }) => x) ?? 0.5, y: mean(points, ({ y }) => y) ?? 0.5, scale: first.scale };
    const request = asking(taken, {
      slot: 'drill',
      priority: 1,
      ...size,
      views: viewsRange.least,
      ...(whole ? {} : { cutout: partAbout(taken, at, spread / first.scale + beyondMm, aspect) })
    });
    if (!request) return null;
    // Across, as hands do at the shutter.
    const moved = { x: expected.trackMm / request.shot.lens.pictureWidthMm, y: 0 };
    return { ...request, shot: { ...request.shot, moved } };
  });
</script>

{#if asked && taken}
  {@const { cutout, width, height } = asked}
  {@const whole = { width: width / (cutout.right - cutout.left), height: height / (cutout.bottom - cutout.top) }}
  <div class="relative" style:width="{width}px" style:height="{height}px">
    <LensRendering {asked} {width} {height} label="The Finder: {name}, as it must come out">
      {#snippet outline()}
        <div class="relative size-full overflow-hidden">
          <div class="absolute" style:left="{-cutout.left * whole.width}px" style:top="{-cutout.top * whole.height}px">
            <Outline {...taken} {...whole} plain />
          </div>
        </div>
      {/snippet}
    </LensRendering>
  </div>
{/if}
