<script lang="ts">
  import { Button } from 'flowbite-svelte';
  import { fieldCurve, fieldStepMm, leastFieldFrames } from '$core/bench/fieldCurve';
  import { widestAt } from '$core/bench/focusTest';
  import { edgeDistances } from '$core/bench/guide';
  import type { FieldTest } from '$core/bench/schema';
  import type { Body, Lens } from '$core/kit/schema';
  import { formatDisc } from '$core/optics/criterion';
  import { depthOfField } from '$core/optics/depthOfField';
  import { isSameStop } from '$core/optics/stops';
  import { edgeProblemWords, fieldProblems, fieldWords, shortLength } from '$core/words/bench';
  import { formatLength } from '$core/units/length';
  import HowComputed from '$lib/controls/HowComputed.svelte';
  import { newRow } from '$lib/data';
  import { getApp } from '$lib/state/app.svelte';
  import type { EdgesRead } from '../../workers/bench.worker';
  import { readEdges, simulateEdges } from '../../workers/clients/bench';
  import EarlierTests from './EarlierTests.svelte';
  import Lacking from './Lacking.svelte';
  import Refused from './Refused.svelte';
  import SeriesTools from './SeriesTools.svelte';
  import { isOther } from './matching';
  import { askedOf, lackingIn, testsOf } from './pastTests';
  import { seriesOf, sources } from './series.svelte';
  import { fieldOrders } from './simulated';

  let { body, lens }: { body: Body; lens: Lens } = $props();
  const app = getApp();
  const { unit } = $derived(app.settings.now);
  // svelte-ignore state_referenced_locally
  const series = seriesOf<EdgesRead>('field', body.id, lens.id);
  const widthMm = $derived(Math.max(body.sensor.widthMm, body.sensor.heightMm));
  const wallMm = $derived(40 * lens.longestMm);
  const widest = $derived(widestAt(lens, lens.longestMm));
  const stepMm = $derived.by(() => {
    const { near, far } = depthOfField(lens.longestMm, widest, formatDisc(body.sensor), wallMm);
    return fieldStepMm(Math.min(far - near, wallMm / 2));
  });
  const first = $derived(series.items.flatMap(({ read }) => (read.kind === 'measured' ? [read] : []))[0]);
  const why = (read: EdgesRead): string | null => {
    if (read.kind === 'unread') return read.lacks === null ? read.reason : null;
    if (read.kind === 'problem') return edgeProblemWords(read);
    if (first && isOther(first, read)) return 'Taken with another lens or focal length than the first: not counted.';
    return first && !isSameStop(read.fNumber, first.fNumber)
      ? 'Taken at another stop than the first: not counted.'
      : null;
  };
  const refused = $derived(
    series.items.flatMap(({ id, name, read }) => {
      const reason = why(read);
      return reason === null ? [] : [{ id, name, why: reason }];
    })
  );
  const counted = $derived(
    series.items
      .flatMap(({ id, read }) => (read.kind === 'measured' && why(read) === null ? [{ id, read }] : []))
      // As they were taken, however they came in.
      .sort((a, b) => (a.read.facts.clockMs ?? 0) - (b.read.facts.clockMs ?? 0))
  );
  const lacking = $derived(lackingIn(series.items));
  const curve = $derived(
    first && !series.busy
      ? fieldCurve(
          counted.map(({ read }) => read.frame),
          {
            focalLengthMm: first.focalLengthMm,
            fNumber: first.fNumber,
            halfDiagonalPx: Math.hypot(first.pixels.width, first.pixels.height) / 2
          }
        )
      : null
  );
  const found = $derived(curve !== null && typeof curve !== 'string' ? curve : null);
  const f = $derived(first?.focalLengthMm ?? lens.longestMm);
  const said = $derived(found ? fieldWords(found, { f, widthMm, distanceMm: found.distanceMm, unit }) : null);
  const simulated = $derived(first?.simulated ?? false);
  const earlier = $derived(testsOf(app, 'field', (one) => one.lensId === lens.id));
  const perM = $derived(found ? Number(found.perM.value.toFixed(4)) : null);
  const inUse = $derived(perM !== null && lens.fieldPerM === perM);
  const asked = $derived(askedOf(body, lens));
  const read = (files: readonly File[]) =>
    series.add(sources(files), (file, options) => readEdges(file, asked, options), 'read and measured');
  function simulate() {
    const seed = app.newSeed();
    const bend = (seed % 2 ? 1 : -1) * (0.5 + (seed % 53) / 100);
    const orders = fieldOrders({ body, lens, focalLengthMm: lens.longestMm, at: app.now() }, bend, seed);
    void series.add(
      orders.map((order, index) => ({
        name: `FIELD_${seed}_${index + 1}.JPG`,
        file: (options) => simulateEdges(order, options)
      })),
      (file, options) => readEdges(file, asked, options),
      'drawn and measured'
    );
  }
  function write() {
    if (!first || !found || perM === null) return;
    const [id, now] = [app.newId(), app.now()];
    const problem = app.kit.change('lenses', lens.id, 'field measured', (draft) => void (draft.fieldPerM = perM));
    if (problem !== null) {
      app.messages.problem(problem);
      return;
    }
    const test: FieldTest = {
      ...{ kind: 'field', id, madeAt: now, simulated, bodyId: body.id, body: body.name, lensId: lens.id },
      ...{ lens: lens.name, focalLengthMm: first.focalLengthMm, fNumber: first.fNumber },
      ...{ distanceMm: found.distanceMm, by: found.by, perM: found.perM, frames: found.frames }
    };
    app.store.edit(`${lens.name}: field`, (draft) => draft.put('benchTests', newRow(id, test, { position: now })), {
      history: false
    });
    app.messages.done(`${lens.name}: choose “as measured” for the surface of focus in a setup, and rows follow.`);
  }
</script>

<section aria-label="Curve of the field">
  {#if found && said}
    <h1 class="condensed text-[26px] leading-tight font-bold text-pretty" data-testid="field-verdict">{said.title}</h1>
    <p class="mt-1 text-pretty">
      {said.detail}
      {found.frames} frames, {found.by === 'moving'
        ? 'the camera moved between them'
        : 'the ring turned between them'}.<HowComputed of="field" class="ml-1" />
    </p>
    <div class="mt-2 max-w-4xl">
      {#await import('./FieldChart.svelte') then { default: FieldChart }}
        <FieldChart {found} {f} {widthMm} {unit} />
      {/await}
    </div>
    {#if simulated}
      <p class="mt-1 text-soft">These are frames of the simulated camera: a try-out, not your lens.</p>
    {/if}
    <div class="mt-3 flex flex-wrap gap-2">
      {#if inUse}
        <p class="self-center">Setups with the surface “as measured” use it.</p>
      {:else}
        <Button disabled={series.busy} onclick={write}>Write to the lens</Button>
      {/if}
      <Button color="alternative" onclick={() => series.clear()}>Test again</Button>
    </div>
  {:else}
    <h1 class="condensed text-[26px] leading-tight font-bold text-pretty">Does the surface of sharp focus bend?</h1>
    {#if typeof curve === 'string' && series.items.length > 0}
      <p class="mt-2 border-l-4 border-pencil bg-raised p-3 text-pretty" role="status">
        {fieldProblems[curve]}
        {#if curve === 'few'}{counted.length} so far.{/if}
      </p>
    {/if}
    <ol class="mt-2 max-w-3xl list-decimal space-y-1 pl-6 text-pretty">
      <li>Hang the edge sheet’s pages on a flat wall, where the centre and the corners fall.</li>
      <li>
        {formatLength(edgeDistances.from * lens.longestMm, unit)} to {formatLength(
          edgeDistances.to * lens.longestMm,
          unit
        )} away, square to the wall; tripod, timer, stabiliser off, f/{lens.widestFNumber}.
      </li>
      <li>
        Focus once in the middle, by hand. Then nine frames, {leastFieldFrames} at least: move the camera back by
        <b class="font-semibold">{shortLength(stepMm, unit)}</b> each, from four steps before the wall’s focus to four behind.
        Or leave it standing and turn the ring by as little, from near to far.
      </li>
    </ol>
    {#if series.items.length > 0}
      <div class="mt-3"><Button color="alternative" onclick={() => series.clear()}>Test again</Button></div>
    {/if}
  {/if}
  <SeriesTools
    {series}
    label="Pictures of the wall"
    sheet={{ kind: 'edges', name: 'Edge sheet' }}
    onfiles={read}
    onsimulate={simulate}
  />
  <Lacking
    items={lacking}
    {lens}
    busy={series.busy}
    onfill={(ids, typed) => series.again(ids, (file, options) => readEdges(file, { ...asked, ...typed }, options))}
  />
  <Refused items={refused} onremove={(id) => series.remove(id)} />
  <EarlierTests
    title="Earlier tests of this lens"
    testid="earlier-fields"
    tests={earlier}
    words={(one) =>
      `on ${one.body}: ${fieldWords({ ...one, places: [] }, { f: one.focalLengthMm, widthMm, distanceMm: one.distanceMm, unit }).title}`}
  />
</section>
