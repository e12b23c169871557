<script lang="ts">
  import type { DrillResult } from '$core/drills/schema';
  import type { LengthUnit } from '$core/units/length';
  import { figureWords } from '$core/drills/kinds';
  import { dateText } from '$lib/controls/dates';

  /** How it went before, the latest first. */
  let {
    times,
    unit,
    title = 'Earlier times'
  }: { times: readonly DrillResult[]; unit: LengthUnit; title?: string } = $props();
</script>

{#if times.length > 0}
  <h2 class="condensed mt-6 text-[21px] leading-tight font-bold">{title}</h2>
  <ul class="mt-1" data-testid="earlier-times">
    {#each times as one (one.id)}
      <li class="flex flex-wrap justify-between gap-x-4 border-b border-line py-1">
        <span>{dateText(one.madeAt)}{one.simulated ? ', simulated' : ''}</span>
        <span class="tabular-nums">{figureWords(one, unit)}</span>
      </li>
    {/each}
  </ul>
{/if}
