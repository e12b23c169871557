<script lang="ts">
  import { Button } from 'flowbite-svelte';
  import { tinykeys } from 'tinykeys';
  import { onMount } from 'svelte';
  import { planSetup } from '$core/call/planSetup';
  import {
    judgeAsked,
    judgeKinds,
    judgePictures,
    judgeTrials,
    offsetFor,
    planeFor,
    shownLevel,
    type SharpTaken
  } from '$core/drills/desk/judge';
  import { type JudgeMode } from '$core/drills/desk/judgeModes';
  import { questAfter, questResult, questStart } from '$core/drills/desk/quest';
  import { defaultHabits } from '$core/habits/habits';
  import { builtInKit } from '$core/kit/builtInKit';
  import { motionTrack } from '$core/optics/sharpness';
  import { newBackground, newPerson, newSetup } from '$core/setup/defaults';
  import { judgeWords } from '$core/drills/kinds/judge';
  import Choice from '$lib/controls/Choice.svelte';
  import { getApp } from '$lib/state/app.svelte';
  import { asking, eyeCrops, partAbout, type RenderableSetup } from '../../render/request';
  import LensRendering from '../finder/LensRendering.svelte';
  import { getRenderings } from '../../workers/clients/renderer.svelte';
  import type { RenderingQuestion } from '../../render/studio';
  import { wholePicture } from '../../render/lens/lensView';
  import { pupilAt } from '../../render/lens/pupil';
  import { isTyping } from '../shell/keys';
  import EarlierTimes from './EarlierTimes.svelte';
  import { keepResult, resultsOf } from './results';
  import Verdict from './Verdict.svelte';

  /** Two faces, one of them a little out of focus; or one, before or behind its plane, or moved. */
  const app = getApp();
  const pictures = getRenderings();
  const { unit } = $derived(app.settings.now);
  const lens = builtInKit.lenses.find(({ longestMm, shortestMm }) => longestMm === 85 && shortestMm === 85);
  const body = builtInKit.bodies[0];
  const distanceMm = 2000;
  let mode = $state<JudgeMode>('sharper');
  let belief = $state.raw(questStart(judgeAsked.sharper));
  let answers = $state(0);
  let last = $state('');
  let sharp = $state.raw<SharpTaken>({ shown: 0, right: 0 });
  let stopped = $state(false);
  /** What the pair in view shows: drawn by chance, never the same twice. */
  const drawn = () => ({
    /** Which of them is the sharp one, or the one that was stopped down. */
    place: Math.floor(judgePictures[mode] * app.random()),
    baseStops: 2 * app.random(),
    kind: judgeKinds[Math.floor(judgeKinds.length * app.random())] ?? 'sharp',
    trackAngle: Math.PI * app.random(),
    hedgeMm: Math.round(1200 + 4800 * app.random()),
    sides: Array.from({ length: 4 }, () => (app.random() < 0.5 ? ('front' as const) : ('behind' as const))),
    yawDeg: Math.round(30 * (app.random() - 0.5)),
    skin: 1 + Math.floor(6 * app.random()),
    hair: (['short', 'long', 'bun', 'curls'] as const)[Math.floor(4 * app.random())] ?? 'short'
  });
  let pair = $state.raw(drawn());

  const result = $derived(questResult(belief));
  const level = $derived(shownLevel(result.next, mode));
  const finished = $derived(stopped || answers >= judgeTrials.all);
  /** The face in view, planned at the widest stop. */
  const taken = $derived.by((): RenderableSetup | null => {
    if (!lens || !body) return null;
    const person = newPerson('judge', 'Someone', { headYawDeg: pair.yawDeg });
    const behind = newBackground('judge-behind', 'Hedge', { depthMm: pair.hedgeMm, wish: 'free' });
    const base = newSetup('judge', 'Judge', { backgrounds: mode === 'stop' ? [behind] : [] });
    const setup = {
      ...base,
      people: [{ ...person, look: { ...person.look, skin: pair.skin, hair: pair.hair, glasses: false } }],
      camera: {
        ...base.camera,
        bodyId: body.id,
        lensId: lens.id,
        focalLengthMm: 85,
        placement: { kind: 'distance' as const, distanceMm }
      },
      intent: { ...base.intent, stop: { kind: 'chosen' as const, fNumber: lens.widestFNumber } }
    };
    const plan = planSetup({ setup, kit: builtInKit, stopStep: 'third', habits: defaultHabits });
    return plan.kind === 'plan' ? { setup, plan, body, lens } : null;
  });
  const entry = $derived(taken?.plan.stops[taken.plan.selected]);
  const eye = $derived({
    focalLengthMm: 85,
    fNumber: entry?.stop.fNumber ?? 1.4,
    depthMm: entry?.target.focusDistanceMm ?? distanceMm
  });
  const allowed = $derived(taken?.plan.circleOfConfusionMm ?? 0.03);
  let room = $state(760);
  /** No wider: a slow machine draws larger ones smaller, and that is a blur of its own. */
  const size = $derived({
    width: Math.max(150, Math.min(300, Math.floor((room - 24) / 2))),
    height: mode === 'four' ? 180 : mode === 'side' || mode === 'kind' ? 300 : 220
  });
  /** A head with its hair and what is below the chin, mm. */
  const headMm = 360;
  const views = 32;
  /** From so many looks on a picture can be judged (as the studio has it). */
  const fair = 16;

  interface Altered {
    /** Blur of the eye over what is allowed, and on which side its plane lies. */
    readonly ratio: number;
    readonly side: 'front' | 'behind';
    /** Closed from the widest. */
    readonly stopsDown: number;
    /** The track of a camera that moved, as a blur over what is allowed. */
    readonly moved?: number;
  }
  type Seen = 'eye' | 'head' | 'whole';
  function cutoutOf(of: RenderableSetup, seen: Seen) {
    const [crop] = eyeCrops(of, size);
    if (!crop || seen === 'whole') return { cutout: wholePicture, eyesOf: undefined };
    if (seen === 'eye') return { cutout: crop.cutout, eyesOf: crop.eyesOf };
    return { cutout: partAbout(of, crop.at, headMm), eyesOf: undefined };
  }
  /** A picture with its plane put elsewhere, or at another stop. */
  function askedFor(
    slot: string,
    { ratio, side, stopsDown, moved = 0 }: Altered,
    of: RenderableSetup,
    seen: Seen
  ): RenderingQuestion | null {
    const asked = asking(of, { slot, priority: 1, ...size, views, quick: false, ...cutoutOf(of, seen) });
    if (!asked) return null;
    const track = motionTrack(moved * allowed);
    const { pictureWidthMm, pictureHeightMm } = asked.shot.lens;
    const focusMm = ratio === 0 ? eye.depthMm : planeFor(eye, ratio * allowed, side);
    const fNumber = eye.fNumber * 2 ** (stopsDown / 2);
    return {
      ...asked,
      shot: {
        ...asked.shot,
        stopsDown,
        pupil: pupilAt(of.lens.blades, stopsDown, of.lens.rim),
        lens: { ...asked.shot.lens, focusMm, fNumber },
        moved: {
          x: (track * Math.cos(pair.trackAngle)) / pictureWidthMm,
          y: (track * Math.sin(pair.trackAngle)) / pictureHeightMm
        }
      }
    };
  }
  const shownPair = $derived.by(() => {
    if (!taken) return [];
    const altered = Array.from({ length: judgePictures[mode] }, (_, index): Altered => {
      const side = pair.sides[index] ?? 'front';
      if (mode === 'kind') {
        const out = pair.kind === 'front' || pair.kind === 'behind' ? pair.kind : null;
        return {
          ratio: out ? 10 ** level : 0,
          side: out ?? 'front',
          stopsDown: 0,
          moved: pair.kind === 'moved' ? 10 ** level : 0
        };
      }
      const here = index === pair.place;
      if (mode === 'stop') return { ratio: 0, side, stopsDown: pair.baseStops + (here ? 10 ** level : 0) };
      return { ratio: here && mode !== 'side' ? 0 : 10 ** level, side, stopsDown: 0 };
    });
    const seen = mode === 'stop' ? 'whole' : mode === 'side' || mode === 'kind' ? 'head' : 'eye';
    return altered.flatMap((one, index) => askedFor(`judge-${index}`, one, taken, seen) ?? []);
  });
  /** How many of the looks of each have been drawn: nobody judges a picture that is not done. */
  let ready = $state<readonly number[]>([0, 0, 0, 0]);
  $effect(() => {
    // A new pair: none of it is drawn.
    void shownPair;
    ready = [0, 0, 0, 0];
  });
  const canAnswer = $derived(
    !finished && shownPair.length > 0 && shownPair.every((_, index) => (ready[index] ?? 0) >= fair)
  );

  function answer(place: number) {
    if (!canAnswer || place >= buttons.length) return;
    const wanted = mode === 'side' ? (pair.sides[0] === 'front' ? 0 : 1) : pair.place;
    const right = place === (mode === 'kind' ? judgeKinds.indexOf(pair.kind) : wanted);
    // Of a sharp one no level is told.
    if (mode === 'kind' && pair.kind === 'sharp')
      sharp = { shown: sharp.shown + 1, right: sharp.right + (right ? 1 : 0) };
    else belief = questAfter(belief, { at: level, right });
    answers++;
    last = right ? ', right' : mode === 'kind' ? `, wrong: ${kindWas[pair.kind]}` : ', wrong';
    pair = drawn();
  }
  function restart(to: JudgeMode) {
    mode = to;
    belief = questStart(judgeAsked[to]);
    answers = 0;
    last = '';
    sharp = { shown: 0, right: 0 };
    stopped = false;
    pair = drawn();
  }
  onMount(() =>
    tinykeys(window, {
      '1': (event) => void (isTyping(event) || answer(0)),
      '2': (event) => void (isTyping(event) || answer(1)),
      '3': (event) => void (isTyping(event) || answer(2)),
      '4': (event) => void (isTyping(event) || answer(3))
    })
  );
  const said = $derived(judgeWords(result, mode, offsetFor(eye, allowed), unit, sharp));
  const earlier = $derived(resultsOf(app, 'judge'));
  let kept = $state('');
  function keep() {
    if (!lens || !body) return;
    const [figure, low, high] = [result.threshold, result.low, result.high].map((log) => 10 ** log);
    kept = keepResult(app, 'Judge by eye', {
      simulated: false,
      drill: 'judge',
      bodyId: body.id,
      body: body.name,
      lensId: lens.id,
      lens: lens.name,
      focalLengthMm: 85,
      figure: figure ?? null,
      low: low ?? null,
      high: high ?? null,
      asked: mode,
      steps: []
    });
  }
  const buttonsOf: Readonly<Record<JudgeMode, readonly string[]>> = {
    sharper: ['Left is sharper', 'Right is sharper'],
    side: ['Plane in front', 'Plane behind'],
    kind: ['Sharp', 'Plane in front', 'Plane behind', 'Moved'],
    four: ['Keep the first', 'Keep the second', 'Keep the third', 'Keep the fourth'],
    stop: ['Left is stopped down', 'Right is stopped down']
  };
  const kindWas = {
    sharp: 'it was sharp',
    front: 'its plane lay in front',
    behind: 'its plane lay behind',
    moved: 'it had moved'
  } as const;
  const buttons = $derived(buttonsOf[mode]);
  const labels = $derived(
    mode === 'four'
      ? ['First', 'Second', 'Third', 'Fourth']
      : mode === 'side'
        ? ['A face, the plane before or behind it']
        : mode === 'kind'
          ? ['A face, sharp or not']
          : ['Left', 'Right']
  );
</script>

<section class="min-w-0 lg:row-span-2" aria-label="Judge">
  <Choice
    legend="Asked"
    hideLegend
    value={mode}
    wrap
    options={[
      { value: 'sharper', name: 'which is sharper' },
      { value: 'side', name: 'in front or behind' },
      { value: 'kind', name: 'sharp, off or moved' },
      { value: 'four', name: 'which of four to keep' },
      { value: 'stop', name: 'which is stopped down' }
    ]}
    onchange={restart}
  />
  {#if finished || answers >= judgeTrials.least}
    <div class="mt-3"><Verdict {said} how="judge" /></div>
  {/if}
  {#if pictures.status === 'missing'}
    <p class="mt-3">This browser offers no WebGL to draw with.</p>
  {:else if !finished}
    <div class="mt-3" bind:clientWidth={room}>
      <div class="flex w-fit max-w-[650px] flex-wrap gap-3 bg-surround p-1.5" data-testid="judge-pair">
        {#each shownPair as asked, index (asked.slot)}
          <LensRendering
            {asked}
            {...size}
            label={labels[index] ?? ''}
            onshown={({ views: drawnViews }) => (ready = ready.map((one, at) => (at === index ? drawnViews : one)))}
          />
        {/each}
      </div>
    </div>
    <div class="mt-3 flex flex-wrap items-center gap-2">
      {#each buttons as name, index (name)}
        <Button disabled={!canAnswer} onclick={() => answer(index)}>{name}</Button>
      {/each}
      <span class="text-soft tabular-nums" role="status" data-testid="judge-count"
        >{answers} of {judgeTrials.all}{last}{canAnswer ? '' : ', drawing …'}</span
      >
      {#if answers >= judgeTrials.least}
        <Button color="alternative" onclick={() => (stopped = true)}>That is enough</Button>
      {/if}
    </div>
    <p class="mt-1 text-[13px] text-soft">
      {mode === 'sharper' || mode === 'four' ? 'Look at the iris: the lashes lie before it. ' : ''}Keys 1 {buttons.length >
      2
        ? 'to'
        : 'and'}
      {buttons.length}. {mode === 'sharper' || mode === 'four' ? 'At 100% of the camera’s pixels, ' : ''}85 mm{mode ===
      'stop'
        ? ''
        : ' f/1.4'} at 2 m.
    </p>
  {:else}
    <div class="mt-3 flex flex-wrap gap-2">
      {#if kept === ''}<Button onclick={keep}>Save this result</Button>{/if}
      <Button
        color="alternative"
        onclick={() => {
          kept = '';
          restart(mode);
        }}>Once more</Button
      >
    </div>
  {/if}
  <EarlierTimes times={earlier} {unit} />
</section>
