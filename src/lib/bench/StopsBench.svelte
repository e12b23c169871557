<script lang="ts">
  import { Button } from 'flowbite-svelte';
  import { edgeDistances } from '$core/bench/guide';
  import { zones, type StopTest, type Sharpness, type Zone } from '$core/bench/schema';
  import {
    decentredFrom,
    decentring,
    toneOf,
    diffractionLpPerMm,
    lensTable,
    notWritten,
    sharpenedFrom,
    stopRows,
    stopVerdict
  } from '$core/bench/stopSeries';
  import type { Body, Lens } from '$core/kit/schema';
  import { pixelPitch } from '$core/optics/criterion';
  import { exactFNumber, isSameStop } from '$core/optics/stops';
  import { same } from '$core/plain/merge';
  import { edgeProblemWords, notWrittenWords, overshootWords, stopsWords, toneWords } from '$core/words/bench';
  import { formatLength } from '$core/units/length';
  import Choice from '$lib/controls/Choice.svelte';
  import HowComputed from '$lib/controls/HowComputed.svelte';
  import { dateText } from '$lib/controls/dates';
  import OnceOpen from '$lib/controls/OnceOpen.svelte';
  import Picker from '$lib/controls/Picker.svelte';
  import { newRow } from '$lib/data';
  import { getApp } from '$lib/state/app.svelte';
  import type { EdgesRead } from '../../workers/bench.worker';
  import { readEdges, simulateEdges } from '../../workers/clients/bench';
  import CropSeries from './CropSeries.svelte';
  import EarlierTests from './EarlierTests.svelte';
  import Lacking from './Lacking.svelte';
  import Refused from './Refused.svelte';
  import SeriesTools from './SeriesTools.svelte';
  import { isOther } from './matching';
  import { askedOf, lackingIn, testsOf } from './pastTests';
  import { seriesOf, sources } from './series.svelte';
  import { edgeOrders } from './simulated';

  let { body, lens }: { body: Body; lens: Lens } = $props();
  const app = getApp();
  const { unit } = $derived(app.settings.now);
  // svelte-ignore state_referenced_locally
  const series = seriesOf<EdgesRead>('stops', body.id, lens.id);

  const measured = $derived(
    series.items.flatMap(({ id, name, read }) => (read.kind === 'measured' ? [{ id, name, read }] : []))
  );
  const first = $derived(measured[0]?.read);
  const counted = $derived(first ? measured.filter(({ read }) => !isOther(first, read)) : []);
  const refused = $derived(
    series.items.flatMap(({ id, name, read }) => {
      if (read.kind === 'unread') return read.lacks === null ? [{ id, name, why: read.reason }] : [];
      if (read.kind === 'problem') return [{ id, name, why: edgeProblemWords(read) }];
      return first && isOther(first, read)
        ? [{ id, name, why: 'Taken with another lens or focal length than the first: not counted.' }]
        : [];
    })
  );
  const lacking = $derived(lackingIn(series.items));
  const frames = $derived(counted.map(({ read }) => ({ fNumber: Number(read.fNumber.toFixed(1)), frame: read.frame })));
  const rows = $derived(stopRows(frames));
  const pixelMm = $derived(first?.pixelMm ?? pixelPitch(body.sensor));
  const verdict = $derived(rows.length === 0 ? null : stopVerdict(rows, pixelMm));
  const said = $derived(verdict ? stopsWords(verdict) : null);
  const overshoot = $derived(Math.max(0, ...rows.map((row) => row.overshoot)));
  const uneven = $derived(decentring(frames.map(({ frame }) => frame)));
  const tone = $derived(frames.length === 0 ? '' : toneWords(toneOf(frames.map(({ frame }) => frame))));
  const barred = $derived(notWritten(rows, pixelMm, exactFNumber(lens.widestFNumber)));
  const best = (zone: Zone) => Math.max(0, ...rows.map((row) => row[zone]?.lpPerMm ?? 0));
  const bestAt = $derived(verdict?.bestCentre ?? null);
  const isWeak = (fNumber: number, zone: Zone) =>
    verdict?.avoid.some((one) => one.fNumber === fNumber && one.zone === zone) === true;
  const table = $derived(lensTable(rows, 'centre', pixelMm));
  const corners = $derived(lensTable(rows, 'corner', pixelMm));
  const simulated = $derived(first?.simulated ?? false);
  const earlier = $derived(testsOf(app, 'stops', (one) => one.lensId === lens.id));
  /** Every other series there is: other lenses, other copies, this one before. */
  const others = $derived(testsOf(app, 'stops', (one) => !same(one.stops, rows)));
  let otherId = $state('');
  const other = $derived(others.find(({ id }) => id === otherId) ?? null);
  const otherName = $derived(other ? `${other.lens}, ${dateText(other.madeAt)}` : '');
  const otherAt = (fNumber: number) => other?.stops.find((row) => isSameStop(row.fNumber, fNumber)) ?? null;
  /** The plans use it already. */
  const inUse = $derived(same(lens.measured ?? [], table) && same(lens.measuredCorner ?? [], corners));
  const asked = $derived(askedOf(body, lens));

  const read = (files: readonly File[]) =>
    series.add(sources(files), (file, options) => readEdges(file, asked, options), 'read and measured');
  function simulate() {
    const seed = app.newSeed();
    const orders = edgeOrders({ body, lens, focalLengthMm: lens.longestMm, at: app.now() }, seed);
    void series.add(
      orders.map((order, index) => ({
        name: `EDGES_${seed}_${index + 1}.JPG`,
        file: (options) => simulateEdges(order, options)
      })),
      (file, options) => readEdges(file, asked, options),
      'drawn and measured'
    );
  }
  function write() {
    if (!first || barred !== null) return;
    const [id, now] = [app.newId(), app.now()];
    const test: StopTest = {
      ...{ kind: 'stops', id, madeAt: now, simulated, bodyId: body.id, body: body.name, lensId: lens.id },
      ...{ lens: lens.name, focalLengthMm: first.focalLengthMm, pixelMm, stops: [...rows] }
    };
    const why = app.kit.change('lenses', lens.id, 'measured at the Bench', (draft) => {
      draft.measured = table;
      // What was measured in other corners, of another copy perhaps, does not stay beside it.
      if (corners.length > 0) draft.measuredCorner = corners;
      else delete draft.measuredCorner;
    });
    if (why !== null) {
      app.messages.problem(why);
      return;
    }
    app.store.edit(`${lens.name} measured`, (draft) => draft.put('benchTests', newRow(id, test, { position: now })), {
      history: false
    });
    app.messages.done(`${lens.name} is planned with as measured: its best stop follows.`);
  }
  const heightMm = $derived(Math.min(body.sensor.widthMm, body.sensor.heightMm));
  /** Line pairs a mm say what the lens does, cycles a pixel what the file has, line widths what a print of all of it shows. */
  const measures = $derived({
    mm: { name: 'lp/mm', words: 'MTF50 in line pairs per mm', of: (lp: number) => String(Math.round(lp)) },
    pixel: {
      name: 'c/px',
      words: 'MTF50 in cycles per pixel',
      of: (lp: number, pitch = pixelMm) => (lp * pitch).toFixed(2)
    },
    height: {
      name: 'LW/PH',
      words: 'MTF50 in line widths per picture height',
      of: (lp: number) => String(Math.round(2 * lp * heightMm))
    }
  });
  let measure = $state<'mm' | 'pixel' | 'height' | 'rise'>('mm');
  let edges = $state<'all' | 'standing' | 'lying'>('all');
  const said1090 = 'rise from 10 to 90 % in pixels';
  const figure = (own: Sharpness | null, pitch = pixelMm): string => {
    if (!own) return '–';
    if (measure === 'rise') return own.risePx.toFixed(1);
    const lp = edges === 'all' ? own.lpPerMm : own[edges];
    return lp === null ? '–' : measures[measure].of(lp, pitch);
  };
  const label = (fNumber: number) => String(Number(fNumber.toFixed(1)));
</script>

<section aria-label="Sharpness by stop">
  {#if said && verdict}
    <h1 class="condensed text-[26px] leading-tight font-bold text-pretty" data-testid="stops-verdict">{said.title}</h1>
    <p class="mt-1 text-pretty">{said.detail}<HowComputed of="edges" class="ml-1" /></p>
    <div class="mt-3 grid gap-x-8 gap-y-4 lg:grid-cols-[minmax(0,1.25fr)_minmax(0,1fr)]">
      <div class="min-w-0">
        <p class="text-soft">
          {measure === 'rise' ? said1090 : measures[measure].words}, slanted edge after ISO 12233
        </p>
        <div class="mt-1 flex flex-wrap items-end gap-x-4 gap-y-1">
          <Choice
            legend="Measure"
            hideLegend
            small
            value={measure}
            options={[
              ...(['mm', 'pixel', 'height'] as const).map((value) => ({ value, name: measures[value].name })),
              { value: 'rise' as const, name: '10–90 %' }
            ]}
            onchange={(value) => (measure = value)}
          />
          {#if others.length > 0}
            <Picker
              label="Compared with"
              items={[
                { value: '', name: 'nothing' },
                ...others.map((one) => ({ value: one.id, name: `${one.lens} on ${one.body}, ${dateText(one.madeAt)}` }))
              ]}
              value={otherId}
              onchange={(id) => (otherId = id)}
            />
          {/if}
          {#if measure !== 'rise'}
            <Choice
              legend="Edges"
              hideLegend
              small
              value={edges}
              options={[
                { value: 'all', name: 'all edges' },
                { value: 'standing', name: 'standing' },
                { value: 'lying', name: 'lying' }
              ]}
              onchange={(value) => (edges = value)}
            />
          {/if}
        </div>
        <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
        <div class="mt-1 overflow-x-auto" role="region" aria-label="MTF50 by stop" tabindex="0">
          <table class="w-full text-right tabular-nums" data-testid="stops-table">
            <thead>
              <tr>
                <th scope="col" class="py-1 text-left"><span class="sr-only">where</span></th>
                {#each rows as row (row.fNumber)}
                  <th scope="col" class="px-1 py-1 {row.fNumber === bestAt ? 'bg-band' : ''}">
                    <span
                      class="inline-block min-w-8 px-1 text-center font-semibold {row.fNumber === bestAt
                        ? 'rounded-full outline-2 outline-pencil'
                        : ''}">{label(row.fNumber)}</span
                    >
                  </th>
                {/each}
              </tr>
            </thead>
            <tbody>
              {#each zones.filter((zone) => best(zone) > 0) as zone (zone)}
                <tr class="border-t border-line">
                  <th scope="row" class="py-1 text-left font-normal">{zone}</th>
                  {#each rows as row (row.fNumber)}
                    <td
                      class="px-2 py-1 {row.fNumber === bestAt ? 'bg-band' : ''} {isWeak(row.fNumber, zone)
                        ? 'text-soft line-through'
                        : ''}"
                      >{figure(row[zone])}{#if isWeak(row.fNumber, zone)}<span class="sr-only">, weak</span>{/if}</td
                    >
                  {/each}
                </tr>
              {/each}
              {#if other}
                {#each zones.filter((zone) => other.stops.some((row) => row[zone])) as zone (zone)}
                  <tr class="border-t border-line italic">
                    <th scope="row" class="py-1 text-left font-normal">{zone}, {otherName}</th>
                    {#each rows as row (row.fNumber)}
                      <td class="px-2 py-1 {row.fNumber === bestAt ? 'bg-band' : ''}"
                        >{figure(otherAt(row.fNumber)?.[zone] ?? null, other.pixelMm)}</td
                      >
                    {/each}
                  </tr>
                {/each}
              {/if}
              {#if measure !== 'rise'}
                <tr class="border-t border-line text-soft">
                  <th scope="row" class="py-1 text-left font-normal">diffraction alone</th>
                  {#each rows as row (row.fNumber)}
                    <td class="px-2 py-1 {row.fNumber === bestAt ? 'bg-band' : ''}"
                      >{measures[measure].of(diffractionLpPerMm(row.fNumber))}</td
                    >
                  {/each}
                </tr>
              {/if}
            </tbody>
          </table>
        </div>
        <p class="mt-2 text-pretty text-soft">
          Pixels of {(1000 * pixelMm).toFixed(1)} µm; {counted.length === 1 ? 'one frame' : `${counted.length} frames`}.
          Three a stop are better than one.
        </p>
        {#if tone !== ''}<p class="mt-1 text-pretty">{tone}</p>{/if}
        {#if overshoot > sharpenedFrom}<p class="mt-1 text-pretty">{overshootWords(overshoot)}</p>{/if}
        {#if uneven && uneven.less > decentredFrom}
          <p class="mt-1 text-pretty">
            One corner is {Math.round(uneven.less * 100)} % under the others (page {uneven.page + 1}): the wall was not
            square, or the lens is decentred. Turn the camera over and look whether it moves with it.
          </p>
        {/if}
        {#if simulated}
          <p class="mt-1 text-soft">These are frames of the simulated camera: a try-out, not your lens.</p>
        {/if}
        {#if barred !== null}<p class="mt-1 text-pretty">{notWrittenWords[barred]}</p>{/if}
        <div class="mt-3 flex flex-wrap gap-2">
          {#if inUse}
            <p class="self-center">The plans use it.</p>
          {:else}
            <Button disabled={barred !== null || series.busy} onclick={write}>Write to the lens</Button>
          {/if}
          <Button color="alternative" onclick={() => series.clear()}>Test again</Button>
        </div>
      </div>
      <div class="min-w-0">
        {#key [rows, other]}
          <OnceOpen open={rows.length > 1}>
            {#await import('./StopsChart.svelte') then { default: StopsChart }}<StopsChart
                {rows}
                other={other ? { name: otherName, rows: other.stops } : null}
              />{/await}
          </OnceOpen>
        {/key}
      </div>
    </div>
    <CropSeries
      crops={counted.map(({ id, read: one }) => ({ id, fNumber: one.fNumber, crop: one.crop }))}
      title={lens.name}
    />
  {:else}
    <h1 class="condensed text-[26px] leading-tight font-bold text-pretty">
      How sharp is this lens, and at which stop?
    </h1>
    <ol class="mt-2 max-w-3xl list-decimal space-y-1 pl-6 text-pretty">
      <li>
        Print the edge sheet: nine pages, five are enough. Stick them on a flat wall where centre and corners fall.
      </li>
      <li>
        {formatLength(edgeDistances.from * lens.longestMm, unit)} to {formatLength(
          edgeDistances.to * lens.longestMm,
          unit
        )} away, square to the wall; tripod, timer, stabiliser off, even light, base ISO.
      </li>
      <li>Focus once with the magnifier, then one frame, better three, at each stop from f/{lens.widestFNumber} on.</li>
    </ol>
  {/if}
  <SeriesTools
    {series}
    label="Pictures of the edge sheet"
    sheet={{ kind: 'edges', name: 'Edge sheet' }}
    onfiles={read}
    onsimulate={simulate}
  />
  <Lacking
    items={lacking}
    {lens}
    each
    busy={series.busy}
    onfill={(ids, typed) => series.again(ids, (file, options) => readEdges(file, { ...asked, ...typed }, options))}
  />
  <Refused items={refused} onremove={(id) => series.remove(id)} />
  <EarlierTests
    title="Earlier tests of this lens"
    testid="earlier-stops"
    tests={earlier}
    words={(one) => `on ${one.body}: ${stopsWords(stopVerdict(one.stops, one.pixelMm)).title}`}
  />
</section>
