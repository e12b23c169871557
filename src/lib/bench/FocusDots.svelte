<script lang="ts">
  import { scaleLinear } from 'd3-scale';
  import type { FocusShot } from '$core/bench/schema';
  import { atDistanceMm } from '$core/record/groups';
  import { shortLength } from '$core/words/bench';
  import type { LengthUnit } from '$core/units/length';

  interface Props {
    shots: readonly (FocusShot & { readonly id: string })[];
    f: number;
    distanceMm: number;
    /** Half the sharp zone on the sensor, µm. */
    allowedUm: number;
    unit: LengthUnit;
  }
  /** Each frame where its plane fell, the sharp zone as a band; from near filled, from far open. */
  let { shots, f, distanceMm, allowedUm, unit }: Props = $props();
  let width = $state(520);
  const height = 92;
  const at = (um: number) => atDistanceMm(um, f, distanceMm);
  const [front, behind] = $derived([at(-allowedUm), at(allowedUm)]);
  const most = $derived(
    1.15 * Math.max(Math.abs(front), Math.abs(behind), ...shots.map(({ offsetUm }) => Math.abs(at(offsetUm))))
  );
  const x = $derived(scaleLinear([-most, most], [8, width - 8]));
  const rows = 5;
</script>

<div class="my-3" bind:clientWidth={width}>
  <svg
    {width}
    {height}
    class="block"
    role="img"
    aria-label="{shots.length} planes about what was aimed at"
    data-testid="focus-dots"
  >
    <rect x={x(front)} y="4" width={x(behind) - x(front)} height="60" fill="var(--band)" />
    <line x1={x(0)} x2={x(0)} y1="0" y2="68" stroke="var(--pencil)" stroke-width="2" />
    {#each shots as shot, index (shot.id)}
      <circle
        cx={x(at(shot.offsetUm))}
        cy={12 + (index % rows) * 11}
        r="5"
        fill={shot.from === 'near' ? 'var(--ink)' : 'var(--surface)'}
        stroke="var(--ink)"
        stroke-width="1.5"
      />
    {/each}
    <text x={x(front)} y="82" font-size="12" fill="var(--ink-soft)" text-anchor="middle"
      >{shortLength(-front, unit)} in front</text
    >
    <text x={x(behind)} y="82" font-size="12" fill="var(--ink-soft)" text-anchor="middle"
      >{shortLength(behind, unit)} behind</text
    >
  </svg>
  <p class="text-[13px] text-soft">● from near &nbsp; ○ from far &nbsp; band: depth of field</p>
</div>
