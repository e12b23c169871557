<script lang="ts">
  import { scaleLinear } from 'd3-scale';
  import type { ExpectedFace } from '$core/frames/expected';
  import type { FrameJudged } from '$core/frames/eyes';
  import type { FrameReading } from '$core/frames/reading';
  import { formatLength } from '$core/units/length';
  import { toCamera, viewpoint, eyesMidpoint } from '$core/setup/scene';
  import type { Setup } from '$core/setup/schema';
  import type { Body } from '$core/kit/schema';
  import { getApp } from '$lib/state/app.svelte';
  import Glyph from '../ladder/Glyph.svelte';

  interface Props {
    reading: FrameReading;
    setup: Setup;
    body: Body;
    expected: readonly ExpectedFace[];
    judged: FrameJudged;
    pupilMagnification: number;
  }
  /** From above: the plane as it was meant and as it fell, and everybody as sharp as they came out. */
  let { reading, setup, body, expected, judged, pupilMagnification }: Props = $props();
  const app = getApp();
  let width = $state(480);
  const height = 216;
  const view = $derived(viewpoint(setup, body, pupilMagnification));
  const heads = $derived(
    setup.people
      .filter(({ id }) => expected.some(({ personId }) => personId === id))
      .map((person) => {
        const at = toCamera(view, eyesMidpoint(person));
        const face = judged.faces.find(({ personId }) => personId === person.id);
        return { id: person.id, name: person.name, z: at.z, x: at.x, ratio: face?.ratio ?? null };
      })
  );
  const { plane, meantMm, zone } = $derived(reading);
  const range = $derived.by(() => {
    const all = [...heads.map(({ z }) => z), meantMm, plane.low, plane.high, zone.nearMm];
    const [low, high] = [Math.min(...all), Math.max(...all)];
    const room = Math.max(0.12 * (high - low), 120);
    return { low: low - room, high: high + room };
  });
  const x = $derived(scaleLinear([range.low, range.high], [56, width - 12]));
  const most = $derived(Math.max(400, ...heads.map((head) => Math.abs(head.x))));
  const y = $derived(scaleLinear([-most * 1.2, most * 1.2], [14, height - 40]));
  const inside = (mm: number) => Math.max(56, Math.min(width - 12, x(mm)));
  /** The two names do not run into each other. */
  const apart = $derived(Math.abs(x(plane.mm) - x(meantMm)) > 44);
</script>

<div bind:clientWidth={width} class="w-full">
  <svg
    {width}
    {height}
    class="block bg-raised"
    role="img"
    aria-label="Where you aimed and where focus landed, from above"
  >
    <rect
      x={inside(zone.nearMm)}
      y="8"
      width={Math.max(0, inside(zone.farMm) - inside(zone.nearMm))}
      height={height - 44}
      fill="var(--band)"
    />
    <rect
      x={x(plane.low)}
      y="8"
      width={Math.max(1, x(plane.high) - x(plane.low))}
      height={height - 44}
      fill="var(--ink)"
      opacity="0.16"
    />
    <g fill="var(--ink)">
      <rect x="10" y={(height - 36) / 2 - 9} width="16" height="18" /><rect
        x="26"
        y={(height - 36) / 2 - 5}
        width="9"
        height="10"
      />
    </g>
    <line
      x1={x(meantMm)}
      x2={x(meantMm)}
      y1="4"
      y2={height - 34}
      stroke="var(--cool)"
      stroke-width="2"
      stroke-dasharray="5 4"
    />
    <line x1={x(plane.mm)} x2={x(plane.mm)} y1="4" y2={height - 34} stroke="var(--ink)" stroke-width="2.6" />
    {#each heads as head (head.id)}
      <g transform="translate({x(head.z)} {y(head.x)})">
        <title>{head.name}</title>
        <ellipse rx="8" ry="12" fill="var(--raised)" stroke="var(--ink)" />
        {#if head.ratio !== null}<g transform="translate(-6 -6)"><Glyph ratio={head.ratio} size={12} /></g>{/if}
      </g>
    {/each}
    <g class="condensed" font-size="13">
      <text
        x={x(plane.mm) + (apart || plane.mm <= meantMm ? 0 : 6)}
        y={height - 18}
        text-anchor={apart ? 'middle' : plane.mm <= meantMm ? 'end' : 'start'}
        fill="var(--ink)"
        font-weight="600">landed</text
      >
      <text
        x={x(meantMm) + (apart || plane.mm > meantMm ? 0 : 6)}
        y={height - 18}
        text-anchor={apart ? 'middle' : plane.mm <= meantMm ? 'start' : 'end'}
        fill="var(--cool)">aimed</text
      >
      <text x="10" y={height - 4} fill="var(--ink-soft)">from {formatLength(range.low, app.settings.now.unit)}</text>
      <text x={width - 12} y={height - 4} text-anchor="end" fill="var(--ink-soft)"
        >{formatLength(range.high, app.settings.now.unit)}</text
      >
    </g>
  </svg>
</div>
