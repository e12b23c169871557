<script lang="ts">
  import { scaleLinear } from 'd3-scale';
  import type { GroupRead } from '$core/fromPhoto/readGroup';
  import { formatLength, type LengthUnit } from '$core/units/length';

  /** The group from above, the camera at the left: each head where it is read, with what it may as well be. */
  let { group, unit }: { group: GroupRead; unit: LengthUnit } = $props();
  const size = { width: 420, height: 150, left: 12, right: 12, top: 10, bottom: 22 } as const;
  const furthest = $derived(Math.max(...group.people.map(({ high }) => high)));
  const nearest = $derived(Math.max(0, Math.min(...group.people.map(({ low }) => low)) - 500));
  const widest = $derived(Math.max(600, ...group.people.map(({ lateralMm }) => Math.abs(lateralMm))) + 200);
  const x = $derived(
    scaleLinear()
      .domain([nearest, furthest + 200])
      .range([size.left, size.width - size.right])
  );
  const y = $derived(
    scaleLinear()
      .domain([-widest, widest])
      .range([size.top, size.height - size.bottom])
  );
</script>

<svg viewBox="0 0 {size.width} {size.height}" class="w-full bg-raised" role="img" aria-label="The group from above">
  {#each x.ticks(5) as tick (tick)}
    <line x1={x(tick)} x2={x(tick)} y1={size.top} y2={size.height - size.bottom} class="stroke-line" />
    <text x={x(tick)} y={size.height - 7} text-anchor="middle" class="fill-soft text-[11px]"
      >{formatLength(tick, unit)}</text
    >
  {/each}
  {#each group.people as person (person.id)}
    <line
      x1={x(person.low)}
      x2={x(person.high)}
      y1={y(person.lateralMm)}
      y2={y(person.lateralMm)}
      class="stroke-cool"
      stroke-width="2"
    />
    <circle cx={x(person.aheadMm)} cy={y(person.lateralMm)} r="4" class="fill-ink" />
  {/each}
</svg>
