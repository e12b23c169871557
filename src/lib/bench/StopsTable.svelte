<script lang="ts">
  import { zones } from '$core/bench/schema';
  import { diffractionLpPerMm } from '$core/bench/stopSeries';
  import type { StopsRun } from './kinds/stops.svelte';

  /** Zones down, stops across; another series beside it, and what diffraction leaves. */
  let { run }: { run: StopsRun } = $props();
  const { figures } = $derived(run);
  const { rows, other } = $derived(figures);
  const bestAt = $derived(figures.verdict?.bestCentre ?? null);
  const band = (fNumber: number) => (fNumber === bestAt ? 'bg-band' : '');
  const otherZones = $derived(zones.filter((zone) => other?.stops.some((row) => row[zone])));
</script>

<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
<div class="mt-1 overflow-x-auto" role="region" aria-label="MTF50 by aperture" tabindex="0">
  <table class="w-full text-right tabular-nums" data-testid="stops-table">
    <thead>
      <tr>
        <th scope="col" class="py-1 text-left"><span class="sr-only">where</span></th>
        {#each rows as { fNumber } (fNumber)}
          <th scope="col" class="px-1 py-1 {band(fNumber)}">
            <span
              class="inline-block min-w-8 px-1 text-center font-semibold {fNumber === bestAt
                ? 'rounded-full outline-2 outline-pencil'
                : ''}">{Number(fNumber.toFixed(1))}</span
            >
          </th>
        {/each}
      </tr>
    </thead>
    <tbody>
      {#each figures.zones as zone (zone)}
        <tr class="border-t border-line">
          <th scope="row" class="py-1 text-left font-normal">{zone}</th>
          {#each rows as row (row.fNumber)}
            {@const weak = figures.isWeak(row.fNumber, zone)}
            <td class="px-2 py-1 {band(row.fNumber)} {weak ? 'text-soft line-through' : ''}"
              >{figures.figure(row[zone])}{#if weak}<span class="sr-only">, weak</span>{/if}</td
            >
          {/each}
        </tr>
      {/each}
      {#each otherZones as zone (zone)}
        <tr class="border-t border-line italic">
          <th scope="row" class="py-1 text-left font-normal">{zone}, {figures.otherName}</th>
          {#each rows as { fNumber } (fNumber)}
            <td class="px-2 py-1 {band(fNumber)}"
              >{figures.figure(figures.otherAt(fNumber)?.[zone] ?? null, other?.pixelMm)}</td
            >
          {/each}
        </tr>
      {/each}
      {#if figures.measure !== 'rise'}
        <tr class="border-t border-line text-soft">
          <th scope="row" class="py-1 text-left font-normal">diffraction alone</th>
          {#each rows as { fNumber } (fNumber)}
            <td class="px-2 py-1 {band(fNumber)}">{figures.inMeasure(diffractionLpPerMm(fNumber))}</td>
          {/each}
        </tr>
      {/if}
    </tbody>
  </table>
</div>
