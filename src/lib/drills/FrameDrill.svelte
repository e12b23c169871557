<script lang="ts">
  import { median } from 'd3-array';
  import { Button, Checkbox } from 'flowbite-svelte';
  import type { Snippet } from 'svelte';
  import { drillTitle, type Drill, type DrillStep } from '$core/drills/definitions';
  import { turnedBy } from '$core/drills/drillSetup';
  import { anotherDrill, matchFrames } from '$core/drills/match';
  import type { DrillResult } from '$core/drills/schema';
  import { lookedFor, readByDistance, readSeries, type DrillFrame, type FrameRead } from '$core/drills/series';
  import {
    diagonalVerdict,
    edgesVerdict,
    eyeNoseVerdict,
    ladderVerdict,
    steadyVerdict,
    swayVerdict
  } from '$core/drills/verdicts';
  import { learned, withLearned, type LearnedFromDrill } from '$core/drills/learned';
  import { usualFocusMm, usualShare } from '$core/drills/usual';
  import type { Body, Lens } from '$core/kit/schema';
  import { exactFNumber } from '$core/optics/stops';
  import { sameFocal } from '$core/record/groups';
  import type { Estimate } from '$core/record/learn';
  import type { Camera } from '$core/setup/schema';
  import { behindWords } from '$core/words/bench';
  import {
    diagonalWords,
    edgesWords,
    eyeNoseWords,
    figureWords,
    ladderWords,
    leftWords,
    steadyWords,
    stepName,
    swayDrillWords,
    tasksOf,
    trackWords
  } from '$core/words/drills';
  import Picker from '$lib/controls/Picker.svelte';
  import { getApp } from '$lib/state/app.svelte';
  import type { MarksRead } from '../../workers/bench.worker';
  import { readMarks, simulateMarks } from '../../workers/clients/bench';
  import Lacking from '../bench/Lacking.svelte';
  import { stanceChoices } from '../inspector/words';
  import Refused from '../bench/Refused.svelte';
  import SeriesTools from '../bench/SeriesTools.svelte';
  import { askedOf, lackingIn } from '$lib/bench/pastTests';
  import { seriesOf, sources, type Source } from '../bench/series.svelte';
  import DrillFinder from './DrillFinder.svelte';
  import DrillFloor from './DrillFloor.svelte';
  import StepRows from './StepRows.svelte';
  import SheetOfThree from './SheetOfThree.svelte';
  import EarlierTimes from './EarlierTimes.svelte';
  import { laidOut } from './arrangedDrill';
  import { keepResult, resultsOf, tick, ticksOf } from './results';
  import Verdict from './Verdict.svelte';
  import { drillOrders, keepOrder, truthOf } from './simulated';

  let { drill, body, lens, children }: { drill: Drill; body: Body; lens: Lens; children: Snippet } = $props();
  const app = getApp();
  const { unit, habits } = $derived(app.settings.now);
  // svelte-ignore state_referenced_locally
  const series = seriesOf<MarksRead>(drill.id, body.id, lens.id);
  const f = $derived(lens.longestMm);
  const laid = $derived(laidOut(drill.id, body, lens, habits));
  const { kit: inHand, discMm, stops, arranged } = $derived(laid);
  const steps = $derived(arranged?.steps ?? []);
  /** One is measured oneself, as one stands. */
  const ownStance = $derived(drill.id === 'sway' || drill.id === 'steady');
  let stance = $state<Camera['stance']>('standing');
  const tasks = $derived(arranged ? tasksOf(drill.id, arranged, unit) : []);
  /** What turning makes of it, before a frame is taken. */
  const turns = $derived(
    steps.map((step) => {
      const z =
        (arranged?.distanceMm ?? 0) + (arranged?.things.find(({ index }) => index === step.focusOn)?.depthMm ?? 0);
      return turnedBy(step, { body, focalLengthMm: f, habits }, z);
    })
  );
  const ticked = $derived(ticksOf(app, drill.id));
  const widthMm = $derived(Math.max(body.sensor.widthMm, body.sensor.heightMm));

  type Measured = Extract<MarksRead, { kind: 'measured' }>;
  const measured = $derived(
    series.items.flatMap(({ id, name, read }) => (read.kind === 'measured' ? [{ id, name, read }] : []))
  );
  const frames = $derived(
    measured.map(({ id, name, read }, index): DrillFrame => ({
      ...{ id, name, takenMs: read.facts.clockMs ?? index, fNumber: exactFNumber(read.fNumber) },
      ...{ focalLengthMm: read.focalLengthMm, shutterS: read.facts.shutterS, lens: read.facts.lens },
      ...{ width: read.width, height: read.height },
      ...{ pixelMm: read.pixelMm, marked: read.marked }
    }))
  );
  /** Frames a person has put to a step, by the frame. */
  let corrected = $state.raw<Readonly<Record<string, string>>>({});
  const reads = $derived(series.busy ? [] : drill.id === 'eyeNose' ? readByDistance(frames) : readSeries(frames));
  const match = $derived(matchFrames(steps, reads, corrected));
  const another = $derived(anotherDrill(drill.id, match, reads, inHand));
  const verdict = $derived.by(() => {
    if (reads.length === 0) return null;
    switch (drill.id) {
      case 'diagonal':
        return diagonalVerdict(match);
      case 'stopLadder':
        return ladderVerdict(match, discMm);
      case 'eyeNose':
        return eyeNoseVerdict(match, discMm);
      case 'edges':
        return edgesVerdict(match, habits.pivotMm.wrists);
      case 'sway':
        return swayVerdict(
          match,
          {
            swayMm: habits.holdMm[stance],
            focusMm: usualFocusMm(habits, body, f, (arranged?.distanceMm ?? 0) + (arranged?.spacingMm ?? 0))
          },
          habits.swayGrowsForS
        );
      case 'steady':
        return steadyVerdict(match, f, usualShare(habits, stance, stops), discMm);
      default:
        return null;
    }
  });
  const said = $derived.by(() => {
    if (!verdict) return null;
    switch (verdict.kind) {
      case 'diagonal':
        return diagonalWords(verdict, unit);
      case 'stopLadder':
        return ladderWords(verdict);
      case 'eyeNose':
        return eyeNoseWords(verdict, unit);
      case 'edges':
        return edgesWords(verdict, unit);
      case 'sway':
        return swayDrillWords(verdict, unit);
      case 'steady':
        return steadyWords(verdict, f);
    }
  });
  const figures = $derived.by((): Pick<DrillResult, 'figure' | 'low' | 'high'> => {
    const none = { figure: null, low: null, high: null };
    switch (verdict?.kind) {
      case 'diagonal':
        return { ...none, figure: verdict.offMm };
      case 'stopLadder':
        return { ...none, figure: verdict.departs };
      case 'edges':
        return verdict.leaned
          ? { figure: verdict.leaned.lean.value, low: verdict.leaned.lean.low, high: verdict.leaned.lean.high }
          : none;
      case 'eyeNose':
        return { ...none, figure: verdict.sameFromMm };
      case 'sway':
        return verdict.swayed ? estimate(verdict.swayed.sway) : none;
      case 'steady':
        return verdict.steady ? estimate(verdict.steady.showsFromS) : none;
      default:
        return none;
    }
  });
  const estimate = ({ value, low, high }: Estimate) => ({ figure: value, low, high });
  const readOf = (frame: FrameRead | null): Measured | null =>
    measured.find(({ id }) => id === frame?.id)?.read ?? null;
  const refused = $derived(
    series.items.flatMap(({ id, name, read }) => {
      if (read.kind === 'unread') return read.lacks === null ? [{ id, name, why: read.reason }] : [];
      if (read.kind === 'problem')
        return [
          { id, name, why: read.problem === 'twice' ? 'The same mark is in it twice.' : 'No mark is to be seen in it.' }
        ];
      return [];
    })
  );
  const lacking = $derived(lackingIn(series.items));
  /** The drill is laid out for one focal length: frames of another say little. */
  const otherMm = $derived(median(measured, ({ read }) => read.focalLengthMm) ?? f);
  const isOther = $derived(Math.abs(otherMm / f - 1) > sameFocal);
  const simulated = $derived(measured.some(({ read }) => read.simulated));
  const earlier = $derived(resultsOf(app, drill.id).filter((one) => one.lensId === lens.id));
  const today = $derived(
    figures.figure === null ? '' : figureWords({ drill: drill.id, asked: null, ...figures }, unit)
  );
  const [last] = $derived(earlier);
  const isKept = $derived(
    last !== undefined && last.figure === figures.figure && last.steps.length === match.steps.length
  );

  const asked = $derived(askedOf(body, lens));
  async function take(files: readonly Source[], what: string) {
    await series.add(files, (file, options) => readMarks(file, asked, [], options), what);
    await lookAgain();
  }
  /** Marks too blurred to be read lie where other frames have them. */
  async function lookAgain() {
    const marked = series.items.flatMap(({ id, read }) =>
      read.kind === 'measured' ? [{ id, marked: read.marked }] : []
    );
    const looked = lookedFor(
      marked.map((one) => one.marked),
      drill.id === 'eyeNose'
    );
    const expected = Object.fromEntries([...looked].map(([at, marks]) => [marked[at]?.id ?? '', marks]));
    await series.again(Object.keys(expected), (file, options, id) =>
      readMarks(file, { ...asked, ...typed[id] }, expected[id] ?? [], options)
    );
  }
  /** What the files did not say, by the picture: it is read again with that. */
  let typed = $state.raw<Readonly<Record<string, { readonly focalLengthMm: number; readonly fNumber: number }>>>({});
  async function fill(ids: readonly string[], as: { focalLengthMm: number; fNumber: number }) {
    typed = { ...typed, ...Object.fromEntries(ids.map((id) => [id, as])) };
    await series.again(ids, (file, options, id) => readMarks(file, { ...asked, ...typed[id] }, [], options));
    await lookAgain();
  }
  function simulate() {
    if (!arranged) return;
    const seed = Math.floor(Math.random() * 1e6);
    const kit = { body, lens, focalLengthMm: f, at: Date.now() };
    const orders = drillOrders(drill.id, arranged, kit, habits, stance, stops, seed);
    revealed = false;
    void take(
      orders.map((order, index) => {
        const name = `DRILL_${seed}_${String(index + 1).padStart(2, '0')}.JPG`;
        keepOrder(name, order);
        return { name, file: (options) => simulateMarks(order, options) };
      }),
      'drawn and measured'
    );
  }
  function keep() {
    const offsetOf = new Map(match.steps.map(({ step }, index) => [step.id, offsets[index] ?? null]));
    keepResult(app, drill.title, {
      ...{ simulated, drill: drill.id, bodyId: body.id, body: body.name },
      ...{ lensId: lens.id, lens: lens.name, focalLengthMm: f, ...figures },
      stance: ownStance ? stance : null,
      learned: hands,
      steps: match.steps.map(({ step, frame }) => {
        return { step: step.id, file: frame?.name.slice(0, 255) ?? null, mm: offsetOf.get(step.id) ?? null };
      })
    });
  }
  /** What it says of one's own hands. */
  const hands = $derived.by((): LearnedFromDrill[] => {
    switch (verdict?.kind) {
      case 'edges':
        return verdict.leaned
          ? [learned('lean', verdict.leaned.lean), learned('leanSpread', verdict.leaned.spread)]
          : [];
      case 'sway':
        return verdict.swayed ? [learned('sway', verdict.swayed.sway)] : [];
      case 'steady':
        return verdict.steady ? [learned('shake', verdict.steady.share, 2 ** stops)] : [];
      default:
        return [];
    }
  });
  /** What the plan rests on from now on. */
  function use() {
    const learned = hands.reduce((so, one) => withLearned(so, one, stance), habits);
    const step = app.settings.edit('What a drill said in use', { habits: learned });
    app.messages.done(
      drill.id === 'edges'
        ? 'Your lean counts wherever a call has you recompose with the whole body.'
        : `It counts wherever a call has you ${stance === 'monopod' || stance === 'tripod' ? 'on a ' : ''}${stance}.`,
      step
    );
  }
  /** By step, mm the plane lay behind what was focused on. */
  const offsets = $derived(
    verdict && verdict.kind !== 'stopLadder' && verdict.kind !== 'steady'
      ? verdict.steps.map(({ offsetMm }) => offsetMm)
      : match.steps.map(() => null)
  );
  const notes = $derived(
    verdict?.kind === 'steady' ? verdict.steps.map(({ track }) => (track ? trackWords(track) : '')) : []
  );
  /** What the simulated camera really did is shown when it is asked for: first one looks oneself. */
  let revealed = $state(false);
  const truths = $derived(
    match.steps.map(({ step, frame }) => {
      const truth = frame && truthOf(frame.name, step);
      if (!truth) return '';
      return truth.track ? trackWords(truth.track) : behindWords(truth.offsetMm, unit);
    })
  );
  const put = (frameId: string, stepId: string) => (corrected = { ...corrected, [frameId]: stepId });
  const nameOfStep = (step: DrillStep) => stepName(step, drill.id, unit);
</script>

<div class="order-2 min-w-0 lg:order-none lg:row-span-2">
  {#if arranged}
    <div class="flex flex-wrap gap-3">
      <div class="min-w-0 flex-1 basis-80">
        <DrillFloor {arranged} {f} fNumber={exactFNumber(inHand.widestFNumber)} {discMm} {widthMm} {unit} />
      </div>
      <DrillFinder
        drill={drill.id}
        {arranged}
        kit={{ body, lens, focalLengthMm: f, habits, stance: ownStance ? stance : 'tripod', stabiliserStops: stops }}
        nameOf={nameOfStep}
      />
    </div>
    <section class="mt-4" aria-label="What came of it">
      {#if said}
        <Verdict {said} how="drills" />
      {:else}
        <h2 class="condensed text-[21px] leading-tight font-bold">What must come out</h2>
      {/if}
      {#if isOther}
        <p class="mt-2 text-pretty" role="status">
          Most frames were taken at {Math.round(otherMm)} mm; this is laid out for {Math.round(f)} mm. Choose the lens they
          were taken with, or take them again.
        </p>
      {/if}
      {#if another}
        <p class="mt-2 text-pretty" role="status" data-testid="another-drill">
          These look like the frames of <a class="underline" href="/drills/{another}">{drillTitle(another)}</a>: bring
          them there.
        </p>
      {/if}
      <StepRows
        drill={drill.id}
        {arranged}
        {f}
        {match}
        {readOf}
        nameOf={nameOfStep}
        {unit}
        {offsets}
        {notes}
        truths={revealed ? truths : []}
        things={verdict?.kind === 'stopLadder'
          ? verdict.rows.flatMap(({ stops }) => stops.map(({ things }) => things))
          : verdict?.kind === 'diagonal' || verdict?.kind === 'eyeNose'
            ? verdict.steps.map(({ things }) => things)
            : []}
        expected={verdict?.kind === 'edges' ? verdict.steps.map(({ turnMm }) => turnMm) : turns}
        done={reads.length > 0}
        onput={put}
      />
      {#if match.left.length > 0}
        <ul class="mt-2 text-[14px] text-soft" data-testid="left-out">
          {#each match.left as { frame, why } (frame.id)}
            <li>
              {frame.name}: {leftWords[why]}.
              <label class="ml-2">
                It is
                <select
                  class="border border-line bg-raised py-0.5 text-[14px]"
                  aria-label="Step of {frame.name}"
                  onchange={(event) => put(frame.id, event.currentTarget.value)}
                >
                  <option value="">none</option>
                  {#each steps as step (step.id)}<option value={step.id}>{nameOfStep(step)}</option>{/each}
                </select>
              </label>
            </li>
          {/each}
        </ul>
      {/if}
      {#if verdict}
        {#if simulated}
          <p class="mt-2 text-soft">
            These are frames of the simulated camera: a try-out, not your hands.
            {#if truths.some((one) => one !== '')}
              <button type="button" class="min-h-6 underline" onclick={() => (revealed = !revealed)}
                >{revealed ? 'Hide what was really so' : 'Show what was really so'}</button
              >
            {/if}
          </p>
        {/if}
        <div class="mt-3 flex flex-wrap items-center gap-2">
          {#if !isKept}<Button disabled={series.busy} onclick={keep}>Keep this time</Button>{/if}
          {#if hands.length > 0}
            <Button color="alternative" onclick={use}>{drill.id === 'edges' ? 'Use my lean' : 'Use it'}</Button>
          {/if}
          <Button
            color="alternative"
            onclick={() => {
              corrected = {};
              series.clear();
            }}>Start again</Button
          >
          {#if last && today !== '' && !isKept}
            <span class="text-soft">Last time: {figureWords(last, unit)}. Today: {today}.</span>
          {/if}
        </div>
        {#if verdict.kind === 'diagonal' && verdict.missing.length === 0}
          <SheetOfThree
            title="{drill.title}, {lens.name}"
            pictures={verdict.steps.flatMap(({ step, frame }) => {
              const read = readOf(frame);
              return read ? [{ id: step.id, image: read.image, label: nameOfStep(step) }] : [];
            })}
          />
        {/if}
      {/if}
      <SeriesTools
        {series}
        label="Frames of the drill"
        sheet={{ kind: 'ladder', name: 'Marks' }}
        onfiles={(files) => take(sources(files), 'read and measured')}
        onsimulate={simulate}
      />
      <Lacking items={lacking} {lens} each={drill.id === 'stopLadder'} busy={series.busy} onfill={fill} />
      <Refused items={refused} onremove={(id) => series.remove(id)} />
      <EarlierTimes times={earlier} {unit} title="Earlier times with this lens" />
    </section>
  {/if}
</div>
<section class="order-1 min-w-0 lg:order-none" aria-label="Do">
  {@render children()}
  {#if ownStance}
    <div class="mt-3">
      <Picker label="How you stand" items={stanceChoices} value={stance} onchange={(value) => (stance = value)} />
    </div>
  {/if}
  <div class="mt-4 flex items-baseline justify-between border-t border-line pt-2">
    <h2 class="font-semibold">Do</h2>
    <a
      class="min-h-6 underline"
      href="/drills/{drill.id}/hand?body={body.id}&lens={lens.id}{ownStance ? `&stance=${stance}` : ''}"
      >On the phone, step by step</a
    >
  </div>
  <ul>
    {#each tasks as task (task.id)}
      <li class="border-b border-line">
        <label class="flex min-h-11 items-start gap-3 py-2 lg:min-h-9 {ticked.includes(task.id) ? 'text-soft' : ''}">
          <Checkbox
            checked={ticked.includes(task.id)}
            onchange={(event) => tick(app, drill.id, task.id, event.currentTarget.checked)}
            class="mt-0.5"
          />
          <span class="text-pretty">{task.text}</span>
        </label>
      </li>
    {/each}
  </ul>
</section>
