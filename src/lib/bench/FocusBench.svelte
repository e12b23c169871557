<script lang="ts">
  import { mean } from 'd3-array';
  import { Button } from 'flowbite-svelte';
  import { focusGuide } from '$core/bench/guide';
  import { wingShift } from '$core/bench/focusFrame';
  import { figuresOf, focusResult, focusSets, isWideOpen, widestAt, type Precision } from '$core/bench/focusTest';
  import { scaleMm } from '$core/bench/pages';
  import type { FocusShot, FocusTest } from '$core/bench/schema';
  import { ownFocus, focusSd } from '$core/call/scatter';
  import { focusMethods, type OwnFocus } from '$core/habits/habits';
  import type { Body, Lens } from '$core/kit/schema';
  import { formatDisc } from '$core/optics/criterion';
  import { depthOfField } from '$core/optics/depthOfField';
  import { exactFNumber } from '$core/optics/stops';
  import { sameFocal, withOwnFocus } from '$core/record/groups';
  import { focusProblemWords, focusOffsetText, standingWords, wingWords } from '$core/words/bench';
  import { methodWords } from '$core/words/record';
  import { formatLength } from '$core/units/length';
  import Choice from '$lib/controls/Choice.svelte';
  import FieldScope from '$lib/controls/FieldScope.svelte';
  import NumberField from '$lib/controls/NumberField.svelte';
  import Picker from '$lib/controls/Picker.svelte';
  import { newRow } from '$lib/data';
  import { getApp } from '$lib/state/app.svelte';
  import type { FocusRead } from '../../workers/bench.worker';
  import { readFocus, simulateFocus } from '../../workers/clients/bench';
  import EarlierTests from './EarlierTests.svelte';
  import FocusSaid from './FocusSaid.svelte';
  import FocusSteps from './FocusSteps.svelte';
  import Lacking from './Lacking.svelte';
  import SeriesTools from './SeriesTools.svelte';
  import SheetSeen from './SheetSeen.svelte';
  import { isOtherLens } from './matching';
  import { askedOf, lackingIn, testsOf } from './pastTests';
  import { seriesOf, sources } from './series.svelte';
  import { focusOrders } from './simulated';

  let { body, lens }: { body: Body; lens: Lens } = $props();
  const app = getApp();
  const { unit, habits } = $derived(app.settings.now);
  // svelte-ignore state_referenced_locally
  const series = seriesOf<FocusRead>('focus', body.id, lens.id);
  let chosenId = $state('');
  /** What the sheet's line of 100 mm measures as printed. */
  let lineMm = $state<number>(scaleMm);
  /** By the scale there is no error behind the lens to speak of. */
  const methods = focusMethods.filter((method) => method !== 'scale');
  let method = $state<OwnFocus['method']>('crossPoint');
  /** How well the bias is to be known. */
  let wished = $state<Precision>('fifth');
  /** Frames whose lens came from the other side than their turn says. */
  let turned = $state.raw<readonly string[]>([]);

  const disc = $derived(formatDisc(body.sensor));
  const longSideMm = $derived(Math.max(body.sensor.widthMm, body.sensor.heightMm));
  const ends = $derived([...new Set([lens.shortestMm, lens.longestMm])]);
  const guides = $derived(
    ends.map((focalLengthMm) => {
      const fNumber = widestAt(lens, focalLengthMm);
      const guide = focusGuide(focalLengthMm, fNumber, disc, longSideMm, lens.closestFocusMm);
      return { focalLengthMm, fNumber, ...guide };
    })
  );
  const usualUm = $derived(
    1000 * focusSd(habits, { method, stance: 'tripod', widestN: exactFNumber(lens.widestFNumber), body, lowLight: 1 })
  );

  type Measured = Extract<FocusRead, { kind: 'measured' }>;
  const measured = $derived(series.items.flatMap(({ read }) => (read.kind === 'measured' ? [read] : [])));
  const first = $derived(measured[0]);
  /** Another lens half-way is another test. */
  const strange = (read: Measured): string | null =>
    first && isOtherLens(first, read) ? 'Taken with another lens than the first: not counted.' : null;
  const counted = $derived(
    series.items.flatMap(({ id, name, read }) =>
      read.kind === 'measured' && strange(read) === null
        ? [{ id, name, read, focalLengthMm: read.focalLengthMm, fNumber: read.fNumber }]
        : []
    )
  );
  type Counted = (typeof counted)[number];
  const shotsOf = (frames: readonly Counted[]) =>
    frames.map(({ id, name, read }, index): FocusShot & { readonly id: string } => {
      const near = (index % 2 === 0) !== turned.includes(id);
      const { distanceMm, offsetMm, sdMm, offsetUm, sdUm } = read.frame;
      return {
        ...{ id, file: name.slice(0, 255), takenMs: read.facts.clockMs, from: near ? 'near' : 'far' },
        ...{ distanceMm, offsetMm, sdMm: Math.max(1e-3, sdMm), offsetUm, sdUm: Math.max(1e-3, sdUm) }
      };
    });
  const sets = $derived(
    focusSets(counted).map(({ focalLengthMm, fNumber, frames }) => {
      const shots = shotsOf(frames);
      const allowedUm = 1000 * disc * fNumber;
      const result = focusResult(shots, usualUm, allowedUm, wished);
      const key = `${Math.round(focalLengthMm)} mm f/${Number(fNumber.toFixed(1))}`;
      return { key, focalLengthMm, fNumber, shots, allowedUm, result, learned: result };
    })
  );
  let setKey = $state('');
  const set = $derived(sets.find(({ key }) => key === setKey) ?? sets[0]);
  const earlier = $derived(testsOf(app, 'focus', (one) => one.bodyId === body.id && one.lensId === lens.id));
  const meanDistance = (of: readonly FocusShot[]) => mean(of, (shot) => shot.distanceMm);
  /** What all is brought to: where these frames stand, else those of the latest test. */
  const distanceMm = $derived(
    meanDistance(set?.shots ?? []) ?? meanDistance(earlier[0]?.shots ?? []) ?? guides[0]?.distanceMm ?? 2000
  );
  const shown = $derived(series.items.find(({ id }) => id === chosenId) ?? series.items[series.items.length - 1]);
  /** How the sheet and the camera stand, and whether both wings of the frame that is looked at reach as far as the sharp zone is deep. */
  const advice = $derived.by(() => {
    if (shown?.read.kind !== 'measured') return [];
    const { frame, focalLengthMm, fNumber: stop } = shown.read;
    const { near, far } = depthOfField(focalLengthMm, stop, disc, frame.distanceMm);
    const half = Math.min(body.sensor.widthMm, body.sensor.heightMm) / 2;
    const wings = wingWords(wingShift(frame, far - near), unit);
    return [...standingWords(frame, half, focalLengthMm, unit), ...(wings === '' ? [] : [wings])];
  });
  const simulated = $derived(first?.simulated ?? false);
  const key = $derived({ bodyId: body.id, lensId: lens.id, method, recomposed: false });
  const told = $derived(sets.filter(({ result }) => result.verdict !== 'few'));
  const figures = $derived(figuresOf(told, lens, key, habits, 0));
  const isKept = (one: (typeof sets)[number]) =>
    earlier.some(
      ({ biasUm, spreadUm, shots: those }) =>
        those.length === one.shots.length &&
        biasUm.value === one.result.bias.value &&
        spreadUm.value === one.result.sd.value
    );
  const unkept = $derived(told.filter((one) => !isKept(one)));
  /** Against the widest stop of this focal length, in this test or as the plans have it: what stopping down moves. */
  const wideOpen = $derived.by(() => {
    if (!set) return null;
    const here = told.find(
      (one) => isWideOpen(lens, one) && Math.abs(one.focalLengthMm / set.focalLengthMm - 1) <= sameFocal
    );
    if (here) return { um: here.result.bias.value, fNumber: here.fNumber };
    const before = ownFocus(habits, key, set.focalLengthMm);
    return before ? { um: before.biasUm, fNumber: widestAt(lens, set.focalLengthMm) } : null;
  });
  const lacking = $derived(lackingIn(series.items));
  const asked = $derived(askedOf(body, lens, lineMm / scaleMm));
  const read = (files: readonly File[]) =>
    series.add(sources(files), (file, options) => readFocus(file, asked, options), 'read and measured');
  function simulate() {
    const seed = app.newSeed();
    const bias = (seed % 2 ? 1 : -1) * usualUm * (0.8 + (seed % 97) / 60);
    const kit = { body, lens, focalLengthMm: lens.longestMm, at: app.now() };
    const orders = focusOrders(kit, guides[guides.length - 1]?.distanceMm ?? 2000, 8, bias, usualUm / 2, seed);
    void series.add(
      orders.map((order, index) => ({
        name: `BENCH_${seed}_${index + 1}.JPG`,
        file: (options) => simulateFocus(order, options)
      })),
      (file, options) => readFocus(file, asked, options),
      'drawn and measured'
    );
  }
  function write() {
    const now = app.now();
    app.store.edit(
      `${lens.name} tested`,
      (draft) => {
        for (const [index, one] of unkept.entries()) {
          const id = app.newId();
          const test: FocusTest = {
            ...{ kind: 'focus', id, madeAt: now + index, simulated, bodyId: body.id, body: body.name, lensId: lens.id },
            ...{ lens: lens.name, method, focalLengthMm: one.focalLengthMm, fNumber: one.fNumber },
            ...{ biasUm: one.result.bias, spreadUm: one.result.sd },
            shots: one.shots.map(({ id: _, ...shot }) => shot)
          };
          draft.put('benchTests', newRow(id, test, { position: now + index }));
        }
      },
      { history: false }
    );
    if (figures.length === 0) {
      app.messages.done(`Kept with the tests of ${lens.name}.`);
      return;
    }
    const step = app.settings.edit(`Figures of ${lens.name} in use`, {
      habits: withOwnFocus(
        habits,
        figures.map((one) => ({ ...one, learnedAt: now }))
      )
    });
    app.messages.done(`${lens.name} on ${body.name}: odds, stops and fixes reckon with it.`, step);
  }
</script>

<div class="grid gap-x-8 gap-y-4 lg:grid-cols-2">
  <section aria-label="The sheet" class="min-w-0">
    {#if shown?.read.kind === 'measured'}
      <SheetSeen read={shown.read} name={shown.name} {unit} />
    {:else if shown}
      <div class="border border-line bg-raised p-4">
        <p class="font-semibold">{shown.name}</p>
        <p class="mt-1 text-pretty">
          {shown.read.kind === 'problem' ? focusProblemWords(shown.read, unit) : shown.read.reason}
        </p>
      </div>
    {:else}
      <FocusSteps {lens} {guides} {unit} />
    {/if}
    {#if series.items.length > 0}
      <ul class="mt-3 flex flex-wrap gap-1" aria-label="Frames">
        {#each series.items as item, index (item.id)}
          {@const wrong = item.read.kind !== 'measured' || strange(item.read) !== null}
          <li>
            <button
              type="button"
              class="h-9 min-w-9 border px-1 tabular-nums {item.id === shown?.id
                ? 'border-pencil font-semibold'
                : 'border-line'} {wrong ? 'text-soft line-through' : ''}"
              aria-current={item.id === shown?.id}
              aria-label="Frame {index + 1}{wrong ? ', not counted' : ''}"
              onclick={() => (chosenId = item.id)}>{index + 1}</button
            >
          </li>
        {/each}
      </ul>
      {#if shown}
        {@const at = sets.flatMap(({ shots }) => shots).find(({ id }) => id === shown.id)}
        {@const why = shown.read.kind === 'measured' ? strange(shown.read) : null}
        {#each advice as one (one)}<p class="mt-2 text-pretty">{one}</p>{/each}
        <p class="mt-2 flex flex-wrap items-center gap-x-4 gap-y-1 text-[14px] text-soft">
          {#if why}<span>{why}</span>{/if}
          {#if at}
            <span>focused from {at.from}</span>
            <button
              type="button"
              class="min-h-6 underline"
              onclick={() =>
                (turned = turned.includes(shown.id) ? turned.filter((id) => id !== shown.id) : [...turned, shown.id])}
              >it was from {at.from === 'near' ? 'far' : 'near'}</button
            >
          {/if}
          <button type="button" class="min-h-6 underline" onclick={() => series.remove(shown.id)}>leave it out</button>
        </p>
      {/if}
    {/if}
  </section>

  <section aria-label="What it says" class="min-w-0">
    {#if set}
      {#if sets.length > 1}
        <div class="mb-2">
          <Choice
            legend="Focal length and stop"
            hideLegend
            value={set.key}
            options={sets.map((one) => ({ value: one.key, name: one.key }))}
            onchange={(value) => (setKey = value)}
          />
        </div>
      {/if}
      <FocusSaid
        lens={sets.length > 1 ? `${lens.name}, ${set.key},` : lens.name}
        f={set.focalLengthMm}
        fNumber={set.fNumber}
        shots={set.shots}
        result={set.result}
        {distanceMm}
        allowedUm={set.allowedUm}
        {unit}
        stoppedDown={!isWideOpen(lens, set)}
        {wideOpen}
        {wished}
      />
      {#if simulated}
        <p class="mt-2 text-soft">These are frames of the simulated camera: a try-out, not your lens.</p>
      {/if}
      <div class="mt-3 flex flex-wrap items-end gap-2">
        {#if unkept.length > 0 || told.length === 0}
          <Button disabled={told.length === 0 || series.busy} onclick={write}
            >{figures.length === 0 && told.length > 0 ? 'Keep this test' : 'Write to the Kit'}</Button
          >
        {/if}
        <Button color="alternative" onclick={() => series.clear()}>Test again</Button>
        <Picker
          label="Focused by"
          items={methods.map((value) => ({ value, name: methodWords[value] }))}
          value={method}
          onchange={(value) => (method = value)}
        />
        <Picker
          label="Known to"
          items={(['fifth', 'tenth', 'twentieth'] as const).map((value) => ({
            value,
            name: `a ${value} of the sharp zone`
          }))}
          value={wished}
          onchange={(value) => (wished = value)}
        />
      </div>
    {:else}
      <h1 class="condensed text-[26px] leading-tight font-bold text-pretty">Where does this lens focus?</h1>
      <p class="mt-1 text-pretty text-soft">
        A printed sheet and ten frames tell how far from the eye the plane of focus falls, and how it scatters. Pictures
        stay in this browser.
      </p>
    {/if}
    <SeriesTools
      {series}
      label="Pictures of the focus sheet"
      sheet={{ kind: 'focus', name: 'Focus sheet' }}
      onfiles={read}
      onsimulate={simulate}
    >
      <div class="w-64">
        <FieldScope of="bench">
          <NumberField
            label="The printed line of {scaleMm} mm measures"
            value={lineMm}
            min={80}
            max={125}
            step={0.5}
            unit="millimetres"
            onchange={(mm) => (lineMm = mm)}
          />
        </FieldScope>
      </div>
    </SeriesTools>
    <Lacking
      items={lacking}
      {lens}
      busy={series.busy}
      onfill={(ids, typed) => series.again(ids, (file, options) => readFocus(file, { ...asked, ...typed }, options))}
    />
    <EarlierTests
      title="Earlier tests of this pair"
      testid="earlier-tests"
      tests={earlier}
      words={(one) =>
        `${focusOffsetText(one.biasUm.value, one.focalLengthMm, distanceMm, unit)} at ${formatLength(distanceMm, unit)}, ${Number(one.focalLengthMm.toFixed(0))} mm f/${Number(one.fNumber.toFixed(1))}, ${methodWords[one.method]}, ${one.shots.length} frames`}
    />
  </section>
</div>
