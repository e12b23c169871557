<script lang="ts">
  import { mean } from 'd3-array';
  import { Button } from 'flowbite-svelte';
  import { focusGuide } from '$core/bench/guide';
  import { wingShift } from '$core/bench/focusFrame';
  import { focusResult } from '$core/bench/focusTest';
  import { scaleMm } from '$core/bench/pages';
  import type { FocusShot, FocusTest } from '$core/bench/schema';
  import { spreadBehind } from '$core/call/spread';
  import { focusMethods, type OwnFocus } from '$core/habits/habits';
  import type { Body, Lens } from '$core/kit/schema';
  import { formatDisc } from '$core/optics/criterion';
  import { depthOfField } from '$core/optics/depthOfField';
  import { exactFNumber, stopsBetween } from '$core/optics/stops';
  import { ownFocusOf, withOwnFocus } from '$core/record/groups';
  import { focusProblems, focusWords, offsetWords, wingWords } from '$core/words/bench';
  import { methodWords } from '$core/words/record';
  import { formatLength } from '$core/words/length';
  import FieldScope from '$lib/controls/FieldScope.svelte';
  import HowComputed from '$lib/controls/HowComputed.svelte';
  import NumberField from '$lib/controls/NumberField.svelte';
  import Picker from '$lib/controls/Picker.svelte';
  import { newRow } from '$lib/data';
  import { getApp } from '$lib/state/app.svelte';
  import type { FocusRead } from '../../workers/bench.worker';
  import { readFocus, simulateFocus } from './ask';
  import EarlierTests from './EarlierTests.svelte';
  import FocusDots from './FocusDots.svelte';
  import SeriesTools from './SeriesTools.svelte';
  import SheetSeen from './SheetSeen.svelte';
  import { isOther } from './same';
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
  /** Frames whose lens came from the other side than their turn says. */
  let turned = $state.raw<readonly string[]>([]);

  const widest = $derived(exactFNumber(lens.widestFNumber));
  const disc = $derived(formatDisc(body.sensor));
  const guide = $derived(
    focusGuide(lens.longestMm, widest, disc, Math.max(body.sensor.widthMm, body.sensor.heightMm), lens.closestFocusMm)
  );
  const usualUm = $derived(
    1000 * spreadBehind(habits, { method, stance: 'tripod', widestN: widest, body, lowLight: 1 })
  );

  /** In stops. */
  const sameStop = 1 / 6;
  type Measured = Extract<FocusRead, { kind: 'measured' }>;
  const first = $derived(series.items.flatMap(({ read }) => (read.kind === 'measured' ? [read] : []))[0]);
  /** Another lens or stop half-way is another test. */
  const strange = (read: Measured): string | null => {
    if (!first) return null;
    if (isOther(first, read)) return 'Taken with another lens or focal length than the first: not counted.';
    return Math.abs(stopsBetween(read.fNumber, first.fNumber)) > sameStop
      ? 'Taken at another stop than the first: not counted.'
      : null;
  };
  const counted = $derived(
    series.items.flatMap((item) =>
      item.read.kind === 'measured' && strange(item.read) === null ? [{ ...item, read: item.read }] : []
    )
  );
  const shots = $derived(
    counted.map(({ id, name, read }, index): FocusShot & { readonly id: string } => {
      const near = (index % 2 === 0) !== turned.includes(id);
      const { distanceMm, offsetMm, sdMm, offsetUm, sdUm } = read.frame;
      return {
        ...{ id, file: name.slice(0, 255), takenMs: read.facts.clockMs, from: near ? 'near' : 'far' },
        ...{ distanceMm, offsetMm, sdMm: Math.max(1e-3, sdMm), offsetUm, sdUm: Math.max(1e-3, sdUm) }
      };
    })
  );
  const f = $derived(first?.focalLengthMm ?? lens.longestMm);
  const fNumber = $derived(first?.fNumber ?? widest);
  const allowedUm = $derived(1000 * disc * fNumber);
  const earlier = $derived(
    app.store
      .table('benchTests')
      .list.map(({ value }) => value)
      .filter((one): one is FocusTest => one.kind === 'focus' && one.bodyId === body.id && one.lensId === lens.id)
      .sort((a, b) => b.madeAt - a.madeAt)
  );
  const meanDistance = (of: readonly FocusShot[]) => mean(of, (shot) => shot.distanceMm);
  /** What all is brought to: where these frames stand, else those of the latest test. */
  const distanceMm = $derived(meanDistance(shots) ?? meanDistance(earlier[0]?.shots ?? []) ?? guide.distanceMm);
  const result = $derived(shots.length === 0 ? null : focusResult(shots, usualUm, allowedUm));
  const said = $derived(
    result ? focusWords(result, { lens: lens.name, f, distanceMm, unit, frames: shots.length, allowedUm }) : null
  );
  const shown = $derived(series.items.find(({ id }) => id === chosenId) ?? series.items[series.items.length - 1]);
  /** Whether both wings of the frame that is looked at reach as far as the sharp zone is deep. */
  const advice = $derived.by(() => {
    if (shown?.read.kind !== 'measured') return '';
    const { frame, focalLengthMm, fNumber: stop } = shown.read;
    const { near, far } = depthOfField(focalLengthMm, stop, disc, frame.distanceMm);
    return wingWords(wingShift(frame, far - near), unit);
  });
  const simulated = $derived(first?.simulated ?? false);
  /** Stopped down it tells of the lens, not of what it focuses like wide open. */
  const stoppedDown = $derived(stopsBetween(widest, fNumber) > 0.6);
  const key = $derived({ bodyId: body.id, lensId: lens.id, method, recomposed: false });
  const own = $derived(result ? ownFocusOf({ ...key, learned: result }, 0) : null);
  const isKept = $derived(
    earlier.some(({ biasUm, spreadUm, shots: those }) => {
      return (
        those.length === shots.length && biasUm.value === result?.bias.value && spreadUm.value === result.spread.value
      );
    })
  );
  /** Against the latest wide open: what stopping down moves. */
  const wideOpen = $derived(earlier.find((one) => stopsBetween(widest, one.fNumber) <= 0.6));
  const asked = $derived({
    sensorMm: Math.max(body.sensor.widthMm, body.sensor.heightMm),
    focalLengthMm: lens.shortestMm === lens.longestMm ? lens.longestMm : null,
    fNumber: null,
    scale: lineMm / scaleMm
  });
  const read = (files: readonly File[]) =>
    series.add(sources(files), (file, options) => readFocus(file, asked, options), 'read and measured');
  function simulate() {
    const seed = Math.floor(Math.random() * 1e6);
    const bias = (seed % 2 ? 1 : -1) * usualUm * (0.8 + (seed % 97) / 60);
    const kit = { body, lens, focalLengthMm: lens.longestMm, at: Date.now() };
    const orders = focusOrders(kit, guide.distanceMm, 8, bias, usualUm / 2, seed);
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
    if (!result || result.verdict === 'few') return;
    const [id, now] = [app.newId(), Date.now()];
    const test: FocusTest = {
      ...{ kind: 'focus', id, madeAt: now, simulated, bodyId: body.id, body: body.name, lensId: lens.id },
      ...{ lens: lens.name, method, focalLengthMm: f, fNumber, biasUm: result.bias, spreadUm: result.spread },
      shots: shots.map(({ id: _, ...shot }) => shot)
    };
    app.store.edit(`${lens.name} tested`, (draft) => draft.put('benchTests', newRow(id, test, { position: now })), {
      history: false
    });
    if (stoppedDown || !own) {
      app.messages.done(`Kept with the tests of ${lens.name}.`);
      return;
    }
    app.settings.set({ habits: withOwnFocus(habits, [{ ...own, learnedAt: now }]) });
    app.messages.done(`${lens.name} on ${body.name}: odds, stops and fixes reckon with it.`);
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
          {shown.read.kind === 'problem' ? focusProblems[shown.read.problem] : shown.read.reason}
        </p>
      </div>
    {:else}
      <ol class="list-decimal space-y-2 border border-line bg-raised py-4 pr-4 pl-9 text-pretty">
        <li>Print the focus sheet, cut it in two, check its 100 mm line.</li>
        <li>
          Stand the half with the eye upright, {formatLength(guide.distanceMm, unit)} from the lens, square to it. Lean the
          other half back beside it, its middle as far away as the eye.{guide.short
            ? ' That near the sharp zone is deeper than the sheet: the figure is less sure.'
            : ''}
        </li>
        <li>
          Tripod, timer, stabiliser off, even light, f/{lens.widestFNumber}, one focus point on the eye. The lens as
          high as the eye, level.
        </li>
        <li>Ten frames or more: turn the lens to near, focus, shoot; to far, focus, shoot; and so on.</li>
      </ol>
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
        {@const at = shots.find(({ id }) => id === shown.id)}
        {@const why = shown.read.kind === 'measured' ? strange(shown.read) : null}
        {#if advice !== ''}<p class="mt-2 text-pretty">{advice}</p>{/if}
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
    {#if result && said}
      <h1 class="condensed text-[26px] leading-tight font-bold text-pretty" data-testid="bench-verdict">
        {said.title}
      </h1>
      <p class="mt-1 text-pretty">{said.detail}<HowComputed of="bench" class="ml-1" /></p>
      <FocusDots {shots} {f} {distanceMm} {allowedUm} {unit} />
      <p class="border-l-4 border-pencil bg-raised p-3 text-pretty">
        <b class="font-semibold">{said.advice}</b>
        {#if said.more !== ''}<span class="block text-soft">{said.more}</span>{/if}
      </p>
      {#if stoppedDown}
        <p class="mt-2 text-pretty">
          f/{Number(fNumber.toFixed(1))} is not wide open: kept for comparison, the plans stay with the widest stop.
          {#if wideOpen}
            Stopping down from f/{Number(wideOpen.fNumber.toFixed(1))} moves the plane to
            {offsetWords(result.bias.value - wideOpen.biasUm.value, f, distanceMm, unit)}.
          {/if}
        </p>
      {/if}
      {#if simulated}
        <p class="mt-2 text-soft">These are frames of the simulated camera: a try-out, not your lens.</p>
      {/if}
      <div class="mt-3 flex flex-wrap items-end gap-2">
        {#if !isKept}
          <Button disabled={result.verdict === 'few' || series.busy} onclick={write}
            >{stoppedDown ? 'Keep this test' : 'Write to the Kit'}</Button
          >
        {/if}
        <Button color="alternative" onclick={() => series.clear()}>Test again</Button>
        <Picker
          label="Focused by"
          items={methods.map((value) => ({ value, name: methodWords[value] }))}
          value={method}
          onchange={(value) => (method = value)}
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
    <EarlierTests
      title="Earlier tests of this pair"
      testid="earlier-tests"
      tests={earlier}
      words={(one) =>
        `${offsetWords(one.biasUm.value, one.focalLengthMm, distanceMm, unit)} at ${formatLength(distanceMm, unit)}, ${Number(one.focalLengthMm.toFixed(0))} mm f/${Number(one.fNumber.toFixed(1))}, ${methodWords[one.method]}, ${one.shots.length} frames`}
    />
  </section>
</div>
