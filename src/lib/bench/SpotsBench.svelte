<script lang="ts">
  import { Button } from 'flowbite-svelte';
  import type { SpotTest } from '$core/bench/schema';
  import type { Body, Lens } from '$core/kit/schema';
  import { spotPlace, spotsProblems, spotsWords } from '$core/words/bench';
  import HowComputed from '$lib/controls/HowComputed.svelte';
  import { objectUrl } from '$lib/controls/objectUrl.svelte';
  import { newRow } from '$lib/data';
  import { getApp } from '$lib/state/app.svelte';
  import type { SpotsRead } from '../../workers/bench.worker';
  import { readSpots, simulateSpots } from '../../workers/clients/bench';
  import EarlierTests from './EarlierTests.svelte';
  import Lacking from './Lacking.svelte';
  import SeriesTools from './SeriesTools.svelte';
  import { askedOf, lackingIn, testsOf } from './pastTests';
  import { seriesOf, sources } from './series.svelte';
  import { spotOrder } from './simulated';

  let { body, lens }: { body: Body; lens: Lens } = $props();
  const app = getApp();
  // svelte-ignore state_referenced_locally
  const series = seriesOf<SpotsRead>('spots', body.id, '');
  /** The smallest stop most pictures are taken at (common practice, no source). */
  const usualStop = 11;
  const item = $derived(series.items[series.items.length - 1]);
  const measured = $derived(item?.read.kind === 'measured' ? item.read : null);
  const said = $derived(measured ? spotsWords(measured.found, usualStop) : null);
  const url = objectUrl(() => measured?.image);
  const problem = $derived(
    item?.read.kind === 'problem'
      ? spotsProblems[item.read.problem]
      : item?.read.kind === 'unread' && item.read.lacks === null
        ? item.read.reason
        : ''
  );
  const lacking = $derived(lackingIn(item ? [item] : []));
  const earlier = $derived(testsOf(app, 'spots', (one) => one.bodyId === body.id));
  const stop = (N: number) => `f/${N < 10 ? Number(N.toFixed(1)) : Math.round(N)}`;
  const kept = $derived(
    measured !== null &&
      earlier.some(
        ({ spots }) => spots.length === measured.found.spots.length && spots[0]?.x === measured.found.spots[0]?.x
      )
  );
  const asked = $derived({ ...askedOf(body, lens), focalLengthMm: lens.longestMm });
  const read = (files: readonly File[]) =>
    series.add(sources(files), (file, options) => readSpots(file, asked, options), 'read and searched');
  function simulate() {
    const seed = app.newSeed();
    const order = spotOrder({ body, lens, focalLengthMm: lens.longestMm, at: app.now() }, seed);
    void series.add(
      [{ name: `SPOTS_${seed}.JPG`, file: (options) => simulateSpots(order, options) }],
      (file, options) => readSpots(file, asked, options),
      'drawn and searched'
    );
  }
  function keep() {
    if (!measured) return;
    const [id, now] = [app.newId(), app.now()];
    const { found, focalLengthMm, fNumber, simulated } = measured;
    const test: SpotTest = {
      ...{ kind: 'spots', id, madeAt: now, simulated, bodyId: body.id, body: body.name, lensId: lens.id },
      ...{ lens: lens.name, focalLengthMm, fNumber, heightMm: found.heightMm },
      spots: found.spots.map(({ x, y, speckMm, showsFrom }) => ({ x, y, speckMm, showsFrom }))
    };
    app.store.edit(`${body.name}: spots`, (draft) => draft.put('benchTests', newRow(id, test, { position: now })), {
      history: false
    });
    app.messages.done(`Kept with the tests of ${body.name}.`);
  }
</script>

<section aria-label="Spots">
  {#if measured && said}
    <div class="grid gap-x-8 gap-y-4 lg:grid-cols-[minmax(0,1.4fr)_minmax(0,1fr)]">
      <figure class="min-w-0">
        <div class="relative border border-line" style:aspect-ratio="{measured.width} / {measured.height}">
          {#if url.current}<img
              src={url.current}
              alt="The plain surface in {item?.name}"
              class="absolute inset-0 size-full"
            />{/if}
          <svg class="absolute inset-0 size-full" viewBox="0 0 {measured.width} {measured.height}" aria-hidden="true">
            {#each measured.found.spots as spot, index (`${spot.x} ${spot.y}`)}
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
          {item?.name} · {stop(measured.fNumber)} · as it will lie in the picture; on the sensor, seen from the front, it
          is upside down
        </figcaption>
      </figure>
      <div class="min-w-0">
        <h1 class="condensed text-[26px] leading-tight font-bold text-pretty" data-testid="spots-verdict">
          {said.title}
        </h1>
        <p class="mt-1 text-pretty">{said.detail}<HowComputed of="spots" class="ml-1" /></p>
        {#if measured.found.spots.length > 0}
          <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
          <div class="mt-3 max-h-80 overflow-y-auto" role="region" aria-label="Spots by stop" tabindex="0">
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
                {#each measured.found.spots as spot, index (`${spot.x} ${spot.y}`)}
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
        {#if measured.simulated}
          <p class="mt-2 text-soft">A frame of the simulated camera: a try-out, not your sensor.</p>
        {/if}
        <div class="mt-3 flex flex-wrap gap-2">
          {#if !kept}<Button disabled={series.busy} onclick={keep}>Keep this test</Button>{/if}
          <Button color="alternative" onclick={() => series.clear()}>Test again</Button>
        </div>
      </div>
    </div>
  {:else}
    <h1 class="condensed text-[26px] leading-tight font-bold text-pretty">Is there dust on the sensor?</h1>
    {#if problem !== ''}
      <p class="mt-2 border-l-4 border-pencil bg-raised p-3 text-pretty" role="status"><b>{item?.name}</b> {problem}</p>
    {/if}
    <ol class="mt-2 max-w-3xl list-decimal space-y-1 pl-6 text-pretty">
      <li>A clear sky, or white paper evenly lit, so that it fills the picture; the lens focused far from it.</li>
      <li>The smallest stop, base ISO, exposed bright but not white. Move the camera a little while it is open.</li>
      <li>One picture is enough. After cleaning, another: both stay beside each other.</li>
    </ol>
  {/if}
  <SeriesTools {series} label="A picture of a plain surface" sheet={null} onfiles={read} onsimulate={simulate} />
  <Lacking
    items={lacking}
    {lens}
    busy={series.busy}
    onfill={(ids, typed) => series.again(ids, (file, options) => readSpots(file, { ...asked, ...typed }, options))}
  />
  <EarlierTests
    title="Earlier tests of this body"
    testid="earlier-spots"
    tests={earlier}
    words={(one) => spotsWords(one, usualStop).title}
  />
</section>
