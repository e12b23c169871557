<script lang="ts">
  import { scaleLinear } from 'd3-scale';
  import type { Arranged } from '$core/drills/series/steps';
  import { depthOfField } from '$core/optics/depthOfField';
  import { shortLength } from '$core/words/bench';
  import { ordinal } from '$core/drills/kinds/layout';
  import { formatLength, type LengthUnit } from '$core/units/length';

  interface Props {
    arranged: Arranged;
    f: number;
    /** Exact, the widest of the drill. */
    fNumber: number;
    discMm: number;
    /** Of the sensor, mm. */
    widthMm: number;
    unit: LengthUnit;
    /** Which thing the plane is on. */
    focusOn?: number;
  }
  /** The arrangement from above, to scale: the camera, what the picture takes in, the things, and what is sharp with the focus on one of them. */
  let { arranged, f, fNumber, discMm, widthMm, unit, focusOn = 0 }: Props = $props();
  const height = 210;
  let width = $state(760);
  const { distanceMm, spacingMm, things } = $derived(arranged);
  const last = $derived(distanceMm + Math.max(...things.map(({ depthMm }) => depthMm)));
  const x = $derived(scaleLinear([-0.08 * last, 1.16 * last], [8, width - 8]));
  /** Across as along: one scale. */
  const perMm = $derived(x(1) - x(0));
  const y = (mm: number) => height / 2 + mm * perMm;
  const plane = $derived(distanceMm + (things.find(({ index }) => index === focusOn)?.depthMm ?? 0));
  const zone = $derived(depthOfField(f, fNumber, discMm, plane));
  const edge = $derived(((1.16 * last * widthMm) / 2 / f) * perMm);
  const side = $derived(Math.max(16, 60 * perMm));
  const first = $derived(things[0]);
  const second = $derived(things[1]);
</script>

<div bind:clientWidth={width} class="bg-raised">
  <svg {width} {height} class="block" role="img" aria-label="The arrangement from above, to scale">
    <path
      d="M{x(0)} {height / 2} L{x(1.16 * last)} {height / 2 - edge} M{x(0)} {height / 2} L{x(1.16 * last)} {height / 2 +
        edge}"
      stroke="var(--line)"
      fill="none"
    />
    <rect
      x={x(zone.near)}
      y="6"
      width={Math.max(2, x(Math.min(zone.far, 1.16 * last)) - x(zone.near))}
      height={height - 34}
      fill="var(--band)"
    />
    <line
      x1={x(plane)}
      x2={x(plane)}
      y1="6"
      y2={height - 28}
      stroke="var(--cool)"
      stroke-width="2"
      stroke-dasharray="6 4"
    />
    <rect x={x(0) - 16} y={height / 2 - 12} width="16" height="24" fill="var(--ink)" />
    <rect x={x(0) - 4} y={height / 2 - 7} width="8" height="14" fill="var(--ink)" />
    {#each things as { index, lateralMm, depthMm } (index)}
      <rect
        x={x(distanceMm + depthMm) - side / 2}
        y={y(lateralMm) - side / 2}
        width={side}
        height={side}
        fill={index === focusOn ? 'var(--ink)' : 'var(--surface)'}
        stroke="var(--ink)"
        stroke-width="1.5"
      />
      <text
        x={x(distanceMm + depthMm)}
        y={y(lateralMm) + 4.5}
        text-anchor="middle"
        font-size="13"
        fill={index === focusOn ? 'var(--surface)' : 'var(--ink)'}>{index + 1}</text
      >
    {/each}
    <text x={x(distanceMm / 2)} y={height / 2 - 8} text-anchor="middle" font-size="12.5" fill="var(--ink-soft)"
      >{formatLength(distanceMm, unit)}</text
    >
    {#if first && second}
      <text
        x={x(distanceMm + (first.depthMm + second.depthMm) / 2)}
        y={y(Math.max(...things.map(({ lateralMm }) => lateralMm))) + side / 2 + 16}
        text-anchor="middle"
        font-size="12.5"
        paint-order="stroke"
        stroke="var(--raised)"
        stroke-width="5"
        fill="var(--ink-soft)">{shortLength(spacingMm, unit)}</text
      >
    {/if}
    <text
      x={width - 10}
      y={height - 10}
      text-anchor="end"
      font-size="12.5"
      paint-order="stroke"
      stroke="var(--raised)"
      stroke-width="5"
      fill="var(--cool)"
      >{shortLength(zone.far - zone.near, unit)} sharp at f/{Number(fNumber.toFixed(1))}, focused on the {ordinal(
        focusOn
      )}</text
    >
    <text x="12" y={height - 10} font-size="12.5" fill="var(--ink-soft)">to scale for {Math.round(f)} mm</text>
  </svg>
</div>
