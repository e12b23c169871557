<script lang="ts">
  import { trialRun } from '$core/words/frames';
  import { Button } from 'flowbite-svelte';
  import { spotPlace } from '$core/words/bench';
  import HowComputed from '$lib/controls/HowComputed.svelte';
  import { objectUrl } from '$lib/controls/objectUrl.svelte';
  import type { SpotsRun } from './kinds/spots.svelte';

  let { run }: { run: SpotsRun } = $props();
  const { figures, first: measured } = $derived(run);
  const { said } = $derived(figures);
  const spots = $derived(measured?.found.spots ?? []);
  const name = $derived(run.items[0]?.name);
  const url = objectUrl(() => measured?.image);
  const stop = (N: number) => `f/${N < 10 ? Number(N.toFixed(1)) : Math.round(N)}`;
</script>

{#if measured && said}
  <div class="grid gap-x-8 gap-y-4 lg:grid-cols-[minmax(0,1.4fr)_minmax(0,1fr)]">
    <figure class="min-w-0">
      <div class="relative border border-line" style:aspect-ratio="{measured.width} / {measured.height}">
        {#if url.current}<img
            src={url.current}
            alt="The plain surface in {name}"
            class="absolute inset-0 size-full"
          />{/if}
        <svg class="absolute inset-0 size-full" viewBox="0 0 {measured.width} {measured.height}" aria-hidden="true">
          {#each spots as spot, index (`${spot.x} ${spot.y}`)}
            {@const r = measured.width / 70}
            <circle
              cx={spot.x * measured.width}
              cy={spot.y * measured.height}
              {r}
              fill="none"
              stroke="var(--pencil)"
              stroke-width={measured.width / 420}
            />
            <text
              x={spot.x * measured.width + (spot.x > 0.94 ? -1.2 * r : 1.2 * r)}
              y={spot.y * measured.height + r / 2}
              text-anchor={spot.x > 0.94 ? 'end' : 'start'}
              font-size={measured.width / 52}
              font-weight="600"
              fill="#141414">{index + 1}</text
            >
          {/each}
        </svg>
      </div>
      <figcaption class="mt-1 text-[14px] text-soft">
        {name} · {stop(measured.fNumber)} · as it appears in the frame; on the sensor it is upside down
      </figcaption>
    </figure>
    <div class="min-w-0">
      <h1 class="condensed text-[26px] leading-tight font-bold text-pretty" data-testid="spots-verdict">
        {said.title}
      </h1>
      <p class="mt-1 text-pretty">{said.detail}<HowComputed of="spots" class="ml-1" /></p>
      {#if spots.length > 0}
        <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
        <div class="mt-3 max-h-80 overflow-y-auto" role="region" aria-label="Spots by aperture" tabindex="0">
          <table class="w-full tabular-nums" data-testid="spots-table">
            <thead>
              <tr class="text-left">
                <th scope="col" class="py-1 pr-3 font-semibold">Spot</th>
                <th scope="col" class="py-1 pr-3 font-semibold">Where</th>
                <th scope="col" class="py-1 pr-3 text-right font-semibold">Size</th>
                <th scope="col" class="py-1 text-right font-semibold">Shows from</th>
              </tr>
            </thead>
            <tbody>
              {#each spots as spot, index (`${spot.x} ${spot.y}`)}
                <tr class="border-t border-line">
                  <td class="py-1 pr-3">{index + 1}</td>
                  <td class="py-1 pr-3">{spotPlace(spot)}</td>
                  <td class="py-1 pr-3 text-right">{Math.round(1000 * spot.speckMm)} µm</td>
                  <td class="py-1 text-right">{stop(spot.showsFrom)}</td>
                </tr>
              {/each}
            </tbody>
          </table>
        </div>
      {/if}
      {#if run.simulated}
        <p class="mt-2 text-soft">{trialRun('sensor')}</p>
      {/if}
      <div class="mt-3 flex flex-wrap gap-2">
        {#if !figures.isKept}<Button disabled={run.busy} onclick={() => figures.keep()}>Keep this test</Button>{/if}
        <Button color="alternative" onclick={() => run.series.clear()}>Test again</Button>
      </div>
    </div>
  </div>
{:else}
  <h1 class="condensed text-[26px] leading-tight font-bold text-pretty">Is there dust on the sensor?</h1>
  <ol class="mt-2 max-w-3xl list-decimal space-y-1 pl-6 text-pretty">
    <li>A clear sky, or white paper evenly lit, filling the frame; the lens focused far from it.</li>
    <li>
      The smallest aperture, base ISO, exposed bright but not white. Move the camera a little during the exposure.
    </li>
    <li>One photo is enough. Take another after cleaning: both are kept to compare.</li>
  </ol>
{/if}
