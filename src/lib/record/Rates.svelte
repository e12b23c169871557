<script lang="ts">
  import { hitRates, ways, type FocusingGroup } from '$core/record/honesty';
  import type { Recorded } from '$core/record/schema';
  import { rateWords, wayWords } from '$core/words/record';
  import Choice from '$lib/controls/Choice.svelte';
  import { getApp } from '$lib/state/app.svelte';

  /** How often the frames were sharp and kept, by lens, stop, distance and more. */
  let { frames }: { frames: readonly Recorded[] } = $props();
  const app = getApp();
  const { unit } = $derived(app.settings.now);
  let way = $state<FocusingGroup>('lens');
  const rates = $derived(hitRates(frames, way));
</script>

<div class="mt-5 flex flex-wrap items-end justify-between gap-x-4 gap-y-2">
  <h2 class="condensed text-[21px] leading-tight font-bold">How often sharp</h2>
  <Choice
    legend="By"
    value={way}
    options={ways.map((value) => ({ value, name: wayWords[value] }))}
    onchange={(value) => (way = value)}
    wrap
  />
</div>
<table class="mt-2 w-full text-left" data-testid="rates">
  <thead>
    <tr class="text-[13px] text-soft">
      <th scope="col" class="py-1 font-normal">{wayWords[way]}</th>
      <th scope="col" class="py-1 font-normal">sharp</th>
      <th scope="col" class="w-2/5 py-1"><span class="sr-only">as a bar</span></th>
      <th scope="col" class="py-1 text-right font-normal">kept</th>
    </tr>
  </thead>
  <tbody>
    {#each rates as rate (rate.key)}
      <tr class="border-t border-line">
        <th scope="row" class="max-w-40 truncate py-1 pr-3 font-semibold">{rateWords(way, rate.key, unit)}</th>
        <td class="py-1 pr-3 whitespace-nowrap tabular-nums">{rate.sharp.count} of {rate.sharp.of}</td>
        <td class="py-1">
          <span class="relative block h-3 bg-line" aria-hidden="true">
            <span class="absolute inset-y-0 left-0 bg-ink" style:width="{rate.sharp.share * 100}%"></span>
            <span
              class="absolute inset-y-[5px] bg-soft"
              style:left="{rate.sharp.low * 100}%"
              style:width="{(rate.sharp.high - rate.sharp.low) * 100}%"
            ></span>
          </span>
        </td>
        <td class="py-1 text-right tabular-nums">{rate.kept}</td>
      </tr>
    {/each}
  </tbody>
</table>
