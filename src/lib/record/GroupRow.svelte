<script lang="ts">
  import { scaleLinear } from 'd3-scale';
  import { atDistanceMm, type KitGroup } from '$core/record/groups';
  import { biasWords, comparedAtMm, estimateAt, focalLengthOf, kitWords, biasVerdict } from '$core/words/record';
  import { getApp } from '$lib/state/app.svelte';
  import { fellMm, zoneMm } from './dots';

  interface Props {
    group: KitGroup;
    /** Ends of the scale, mm. */
    scale: number;
  }
  /** One kit: each frame a dot in front of the mark or behind, the zone it should have hit, and what follows. */
  let { group, scale }: Props = $props();
  const app = getApp();
  let width = $state(600);
  const height = 84;
  const f = $derived(focalLengthOf(group));
  const x = $derived(scaleLinear([-scale, scale], [0, width]).clamp(true));
  const at = (um: number) => atDistanceMm(um, f, comparedAtMm);
  const zone = $derived(zoneMm(group));
  const bias = $derived(estimateAt(group.learned.bias, f, comparedAtMm));
  const spread = $derived(at(group.learned.sd.value));
  const off = $derived(['front', 'behind'].includes(biasVerdict(group)));
  const words = $derived(biasWords(group, app.settings.now.unit));
  /** Apart from one another, the same at every look. */
  const rows = 9;
  const dots = $derived(
    group.used.map((frame, index) => ({
      id: frame.id,
      mm: fellMm(frame, f),
      open: (frame.error?.length ?? 0) > 1,
      y: 12 + ((index * 5) % rows) * ((height - 30) / (rows - 1))
    }))
  );
  const frames = $derived(group.frames.length === 1 ? 'one frame' : `${group.frames.length} frames`);
</script>

<section
  class="flex flex-wrap gap-y-1 border-t border-line py-2 sm:flex-nowrap"
  aria-label="{group.lens}, {kitWords(group)}"
>
  <div class="w-56 shrink-0 pr-4 max-sm:w-1/2">
    <h2 class="truncate font-semibold">{group.lens}</h2>
    <p class="condensed leading-tight text-pretty">{kitWords(group)}</p>
    <p class="condensed text-soft">
      {group.used.length === group.frames.length ? frames : `${group.used.length} of ${frames} tell`}
    </p>
  </div>
  <div class="min-w-0 flex-1 max-sm:order-last max-sm:w-full max-sm:flex-none" bind:clientWidth={width}>
    <svg
      {width}
      {height}
      class="block"
      role="img"
      aria-label="{group.used.length} planes about where they were put: {words.title}, {words.detail}"
    >
      <rect
        x={x(zone.front)}
        y="4"
        width={Math.max(2, x(zone.behind) - x(zone.front))}
        height={height - 18}
        fill="var(--band)"
      />
      {#each dots as dot (dot.id)}
        <circle
          cx={x(dot.mm)}
          cy={dot.y}
          r="4"
          fill={dot.open ? 'none' : 'var(--ink)'}
          stroke="var(--ink)"
          stroke-width="1.5"
          opacity="0.75"
        />
      {/each}
      <line x1={x(0)} x2={x(0)} y1="0" y2={height - 10} stroke="var(--pencil)" stroke-width="2" />
      {#if group.used.length > 0}
        <line
          x1={x(bias.value - spread)}
          x2={x(bias.value + spread)}
          y1={height - 6}
          y2={height - 6}
          stroke="var(--ink)"
          stroke-width="3"
        />
        <circle cx={x(bias.value)} cy={height - 6} r="5" fill="var(--ink)" />
      {/if}
    </svg>
  </div>
  <div class="w-64 shrink-0 pl-5 max-sm:w-1/2 max-sm:pl-0">
    <p class="text-[17px] font-semibold">{words.title}</p>
    <p class="text-pretty text-soft">{words.detail}</p>
    {#if off}
      <a class="inline-block min-h-6 underline" href="/bench?body={group.bodyId}&lens={group.lensId}"
        >Test it at the Bench</a
      >
    {/if}
  </div>
</section>
