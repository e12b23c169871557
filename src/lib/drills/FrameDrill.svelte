<script lang="ts">
  import { median } from 'd3-array';
  import { Button, Checkbox } from 'flowbite-svelte';
  import type { Snippet } from 'svelte';
  import { arrangedFor, type Drill, type Step } from '$core/drills/definitions';
  import type { DrillId } from '$core/drills/ids';
  import { expectedIn, layoutOf } from '$core/drills/marks';
  import { matchFrames } from '$core/drills/match';
  import type { DrillResult } from '$core/drills/schema';
  import { readByDistance, readSeries, type DrillFrame, type FrameRead } from '$core/drills/series';
  import {
    diagonalVerdict,
    edgesVerdict,
    eyeNoseVerdict,
    ladderVerdict,
    steadyVerdict,
    swayVerdict
  } from '$core/drills/verdicts';
  import { stabiliserStops } from '$core/call/motion';
  import { mountedLens } from '$core/kit/mounted';
  import type { Body, Lens } from '$core/kit/schema';
  import { formatDisc, traditionalDiscMm } from '$core/optics/criterion';
  import { exactFNumber } from '$core/optics/stops';
  import { focusFromSensor, magnification } from '$core/optics/thinLens';
  import { sameFocal } from '$core/record/groups';
  import type { Estimate } from '$core/record/learn';
  import { stances, type Camera } from '$core/setup/schema';
  import {
    diagonalWords,
    edgesWords,
    eyeNoseWords,
    figureWords,
    ladderWords,
    leftWords,
    steadyWords,
    stepName,
    swayWords,
    tasksOf
  } from '$core/words/drills';
  import { newRow } from '$lib/data';
  import Picker from '$lib/controls/Picker.svelte';
  import { getApp } from '$lib/state/app.svelte';
  import type { MarksRead } from '../../workers/bench.worker';
  import { readMarks, simulateMarks } from '../bench/ask';
  import Lacking from '../bench/Lacking.svelte';
  import Refused from '../bench/Refused.svelte';
  import SeriesTools from '../bench/SeriesTools.svelte';
  import { askedOf, lackingIn } from '../bench/tests';
  import { seriesOf, sources, type Source } from '../bench/series.svelte';
  import DrillFloor from './DrillFloor.svelte';
  import StepRows from './StepRows.svelte';
  import SheetOfThree from './SheetOfThree.svelte';
  import EarlierTimes from './EarlierTimes.svelte';
  import { keepResult, resultsOf, ticksOf } from './results';
  import Verdict from './Verdict.svelte';
  import { drillOrders } from './simulated';

  let { drill, body, lens, children }: { drill: Drill; body: Body; lens: Lens; children: Snippet } = $props();
  const app = getApp();
  const { unit, habits } = $derived(app.settings.now);
  // svelte-ignore state_referenced_locally
  const series = seriesOf<MarksRead>(drill.id, body.id, lens.id);
  const discMm = $derived(formatDisc(body.sensor));
  const f = $derived(lens.longestMm);
  /** Its openings at that focal length. */
  const stops = $derived(stabiliserStops(habits, body, lens));
  const atLong = $derived(mountedLens(lens, [], f));
  const arranged = $derived(
    arrangedFor(drill.id, {
      focalLengthMm: f,
      widestFNumber: atLong.widestFNumber,
      smallestFNumber: atLong.smallestFNumber,
      closestMm: focusFromSensor(f, lens.closestFocusMm, lens.pupilMagnification),
      discMm,
      stabilised: stops > 0
    })
  );
  const steps = $derived(arranged?.steps ?? []);
  /** One is measured oneself, as one stands. */
  const ownStance = $derived(drill.id === 'sway' || drill.id === 'steady');
  let stance = $state<Camera['stance']>('standing');
  /** What the focus scatters at the second thing, as the habits have it, mm. */
  const usualFocusMm = $derived.by(() => {
    if (!arranged) return 1;
    const m = magnification(f, arranged.distanceMm + arranged.spacingMm);
    return (body.focusSpreadUm ?? (habits.focusSpreadUm.crossPoint * discMm) / traditionalDiscMm) / 1000 / (m * m);
  });
  const tasks = $derived(arranged ? tasksOf(drill.id, arranged, unit) : []);
  const ticked = $derived(ticksOf(app, drill.id));
  const widthMm = $derived(Math.max(body.sensor.widthMm, body.sensor.heightMm));

  const stanceNames: Readonly<Record<Camera['stance'], string>> = {
    standing: 'standing',
    braced: 'braced',
    kneeling: 'kneeling',
    monopod: 'on a monopod',
    tripod: 'on a tripod'
  };
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
        return swayVerdict(match, { swayMm: habits.holdMm[stance], focusMm: usualFocusMm }, habits.swayGrowsForS);
      case 'steady':
        return steadyVerdict(match, f, Math.max(0.02, habits.shakeShare[stance]) * 2 ** -stops, discMm);
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
        return swayWords(verdict, unit);
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
    const layout = layoutOf(marked.map((one) => one.marked));
    const expected: Readonly<Record<string, ReturnType<typeof expectedIn>>> = Object.fromEntries(
      marked
        .map((one) => [one.id, expectedIn(layout, one.marked), one.marked.marks] as const)
        .filter(([, all, seen]) => all.some(({ index }) => !seen.some((mark) => mark.index === index)))
        .map(([id, all]) => [id, all])
    );
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
    void take(
      orders.map((order, index) => ({
        name: `DRILL_${seed}_${String(index + 1).padStart(2, '0')}.JPG`,
        file: (options) => simulateMarks(order, options)
      })),
      'drawn and measured'
    );
  }
  function tick(task: string, on: boolean) {
    const next = on ? [...ticked, task] : ticked.filter((one) => one !== task);
    const id: DrillId = drill.id;
    app.store.edit(
      'drill step',
      (draft) => draft.put('drills', newRow(id, { kind: 'ticks', id, ticked: next }, { position: 0 })),
      { history: false }
    );
  }
  function keep() {
    const offsetOf = new Map(match.steps.map(({ step }, index) => [step.id, offsets[index] ?? null]));
    keepResult(app, drill.title, {
      ...{ simulated, drill: drill.id, bodyId: body.id, body: body.name },
      ...{ lensId: lens.id, lens: lens.name, focalLengthMm: f, ...figures },
      stance: ownStance ? stance : null,
      steps: match.steps.map(({ step, frame }) => {
        return { step: step.id, file: frame?.name.slice(0, 255) ?? null, mm: offsetOf.get(step.id) ?? null };
      })
    });
  }
  function useLean() {
    if (verdict?.kind !== 'edges' || !verdict.leaned) return;
    const { lean, spread } = verdict.leaned;
    app.settings.set({ habits: { ...habits, leanMm: Math.round(lean.value), leanSpreadMm: Math.round(spread.value) } });
    app.messages.done('Your lean counts wherever a call has you recompose with the whole body.');
  }
  /** What the plan rests on from now on. */
  function useFigure() {
    if (verdict?.kind === 'sway' && verdict.swayed) {
      const mm = Number(verdict.swayed.sway.value.toFixed(1));
      app.settings.set({ habits: { ...habits, holdMm: { ...habits.holdMm, [stance]: mm } } });
    } else if (verdict?.kind === 'steady' && verdict.steady) {
      const share = Math.min(5, Number((verdict.steady.share.value * 2 ** stops).toFixed(2)));
      app.settings.set({ habits: { ...habits, shakeShare: { ...habits.shakeShare, [stance]: share } } });
    }
    app.messages.done(`It counts wherever a call has you ${stanceNames[stance]}.`);
  }
  /** By step, mm the plane lay behind what was focused on. */
  const offsets = $derived(
    verdict && verdict.kind !== 'stopLadder' && verdict.kind !== 'steady'
      ? verdict.steps.map(({ offsetMm }) => offsetMm)
      : match.steps.map(() => null)
  );
  const notes = $derived(
    verdict?.kind === 'steady'
      ? verdict.steps.map(({ track }) =>
          track === null ? '' : track.px === 0 ? 'no track to be seen' : `a track of ${track.px.toFixed(1)} pixels`
        )
      : []
  );
  const put = (frameId: string, stepId: string) => (corrected = { ...corrected, [frameId]: stepId });
  const nameOfStep = (step: Step) => stepName(step, drill.id, unit);
</script>

<div class="order-2 min-w-0 lg:order-none lg:row-span-2">
  {#if arranged}
    <DrillFloor {arranged} {f} fNumber={exactFNumber(atLong.widestFNumber)} {discMm} {widthMm} {unit} />
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
        things={verdict?.kind === 'stopLadder'
          ? verdict.rows.flatMap(({ stops }) => stops.map(({ things }) => things))
          : verdict?.kind === 'diagonal' || verdict?.kind === 'eyeNose'
            ? verdict.steps.map(({ things }) => things)
            : []}
        expected={verdict?.kind === 'edges' ? verdict.steps.map(({ turnMm }) => turnMm) : null}
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
          <p class="mt-2 text-soft">These are frames of the simulated camera: a try-out, not your hands.</p>
        {/if}
        <div class="mt-3 flex flex-wrap items-center gap-2">
          {#if !isKept}<Button disabled={series.busy} onclick={keep}>Keep this time</Button>{/if}
          {#if (verdict.kind === 'sway' && verdict.swayed) || (verdict.kind === 'steady' && verdict.steady)}
            <Button color="alternative" onclick={useFigure}>Use it</Button>
          {/if}
          {#if verdict.kind === 'edges' && verdict.leaned}
            <Button color="alternative" onclick={useLean}>Use my lean</Button>
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
      <Picker
        label="How you stand"
        items={stances.map((value) => ({ value, name: stanceNames[value] }))}
        value={stance}
        onchange={(value) => (stance = value)}
      />
    </div>
  {/if}
  <h2 class="mt-4 border-t border-line pt-2 font-semibold">Do</h2>
  <ul>
    {#each tasks as task (task.id)}
      <li class="border-b border-line">
        <label class="flex min-h-11 items-start gap-3 py-2 lg:min-h-9 {ticked.includes(task.id) ? 'text-soft' : ''}">
          <Checkbox
            checked={ticked.includes(task.id)}
            onchange={(event) => tick(task.id, event.currentTarget.checked)}
            class="mt-0.5"
          />
          <span class="text-pretty">{task.text}</span>
        </label>
      </li>
    {/each}
  </ul>
</section>
