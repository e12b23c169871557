<script lang="ts">
  import { Button } from 'flowbite-svelte';
  import { tinykeys } from 'tinykeys';
  import { onMount } from 'svelte';
  import { planSetup } from '$core/call/planSetup';
  import { judgeAsked, judgeTrials, offsetFor, planeFor, shownLevel, type JudgeMode } from '$core/drills/judge';
  import { questAfter, questResult, questStart } from '$core/drills/quest';
  import { defaultHabits } from '$core/habits/habits';
  import { builtInKit } from '$core/kit/builtInKit';
  import { newPerson, newSetup } from '$core/setup/defaults';
  import { judgeWords } from '$core/words/drills';
  import Choice from '$lib/controls/Choice.svelte';
  import { getApp } from '$lib/state/app.svelte';
  import { asking, eyeCrops, type Taken } from '../finder/asking';
  import LensRendering from '../finder/LensRendering.svelte';
  import { getRenderings, type Asked } from '../finder/renderings.svelte';
  import { wholePicture } from '../../render/lens/lensView';
  import { isTyping } from '../shell/keys';
  import EarlierTimes from './EarlierTimes.svelte';
  import { keepResult, resultsOf } from './results';
  import Verdict from './Verdict.svelte';

  /** Two faces, one of them a little out of focus; or one, before or behind its plane. */
  const app = getApp();
  const pictures = getRenderings();
  const { unit } = $derived(app.settings.now);
  const lens = builtInKit.lenses.find(({ longestMm, shortestMm }) => longestMm === 85 && shortestMm === 85);
  const body = builtInKit.bodies[0];
  const distanceMm = 2000;
  let mode = $state<JudgeMode>('sharper');
  let belief = $state.raw(questStart(judgeAsked.sharper));
  let answers = $state(0);
  let lastRight = $state<boolean | null>(null);
  let stopped = $state(false);
  /** What the pair in view shows: drawn by chance, never the same twice. */
  const drawn = () => ({
    sharpFirst: Math.random() < 0.5,
    side: Math.random() < 0.5 ? ('front' as const) : ('behind' as const),
    yawDeg: Math.round(30 * (Math.random() - 0.5)),
    skin: 1 + Math.floor(6 * Math.random()),
    hair: (['short', 'long', 'bun', 'curls'] as const)[Math.floor(4 * Math.random())] ?? 'short'
  });
  let pair = $state.raw(drawn());

  const result = $derived(questResult(belief));
  const level = $derived(shownLevel(result.next));
  const finished = $derived(stopped || answers >= judgeTrials.all);
  /** The face in view, planned at the widest stop. */
  const taken = $derived.by((): Taken | null => {
    if (!lens || !body) return null;
    const person = newPerson('judge', 'Somebody', { headYawDeg: pair.yawDeg });
    const base = newSetup('judge', 'Judge', { backgrounds: [] });
    const setup = {
      ...base,
      people: [{ ...person, look: { ...person.look, skin: pair.skin, hair: pair.hair, glasses: false } }],
      camera: {
        ...base.camera,
        ...{ bodyId: body.id, lensId: lens.id, focalLengthMm: 85 },
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
  const allowed = $derived(taken?.plan.permissibleDiscMm ?? 0.03);
  let room = $state(760);
  /** No wider: a slow machine draws larger ones smaller, and that is a blur of its own. */
  const size = $derived({ width: Math.max(150, Math.min(300, Math.floor((room - 24) / 2))), height: 220 });
  const views = 32;
  /** From so many looks on a picture can be judged (as the studio has it). */
  const fair = 16;

  /** A picture with its plane put elsewhere. */
  function askedFor(slot: string, ratio: number, of: Taken, whole: boolean): Asked | null {
    const [crop] = eyeCrops(of, size);
    const asked = asking(of, {
      ...{ slot, priority: 1, ...size, views, quick: false },
      cutout: whole ? wholePicture : (crop?.cutout ?? wholePicture),
      eyesOf: whole ? undefined : crop?.eyesOf
    });
    if (!asked) return null;
    const focusMm = ratio === 0 ? eye.depthMm : planeFor(eye, ratio * allowed, pair.side);
    return { ...asked, shot: { ...asked.shot, lens: { ...asked.shot.lens, focusMm } } };
  }
  const shownPair = $derived.by(() => {
    if (!taken) return [];
    const ratio = 10 ** level;
    const ratios = mode === 'side' ? [ratio] : pair.sharpFirst ? [0, ratio] : [ratio, 0];
    return ratios.flatMap((one, index) => askedFor(`judge-${index}`, one, taken, mode === 'side') ?? []);
  });
  /** How many of the looks of each have been drawn: nobody judges a picture that is not done. */
  let ready = $state<readonly number[]>([0, 0]);
  $effect(() => {
    // A new pair: none of it is drawn.
    void shownPair;
    ready = [0, 0];
  });
  const canAnswer = $derived(
    !finished && shownPair.length > 0 && shownPair.every((_, index) => (ready[index] ?? 0) >= fair)
  );

  function answer(first: boolean) {
    if (!canAnswer) return;
    const right = mode === 'side' ? first === (pair.side === 'front') : first === pair.sharpFirst;
    belief = questAfter(belief, { at: level, right });
    answers++;
    lastRight = right;
    pair = drawn();
  }
  function restart(to: JudgeMode) {
    mode = to;
    belief = questStart(judgeAsked[to]);
    answers = 0;
    lastRight = null;
    stopped = false;
    pair = drawn();
  }
  onMount(() =>
    tinykeys(window, {
      '1': (event) => void (isTyping(event) || answer(true)),
      '2': (event) => void (isTyping(event) || answer(false))
    })
  );
  const said = $derived(judgeWords(result, mode, offsetFor(eye, allowed), unit));
  const earlier = $derived(resultsOf(app, 'judge'));
  let kept = $state('');
  function keep() {
    if (!lens || !body) return;
    const [figure, low, high] = [result.threshold, result.low, result.high].map((log) => 10 ** log);
    kept = keepResult(app, 'Judge by eye', {
      ...{ simulated: false, drill: 'judge', bodyId: body.id, body: body.name },
      ...{ lensId: lens.id, lens: lens.name, focalLengthMm: 85, figure: figure ?? null, low: low ?? null },
      ...{ high: high ?? null, asked: mode, steps: [] }
    });
  }
  const buttons = $derived(
    mode === 'side' ? ['Plane in front', 'Plane behind'] : ['Left is sharper', 'Right is sharper']
  );
</script>

<section class="min-w-0 lg:row-span-2" aria-label="Judge">
  <Choice
    legend="Asked"
    hideLegend
    value={mode}
    options={[
      { value: 'sharper', name: 'which is sharper' },
      { value: 'side', name: 'in front or behind' }
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
      <div class="flex flex-wrap gap-3 bg-surround p-1.5" data-testid="judge-pair">
        {#each shownPair as asked, index (asked.slot)}
          <LensRendering
            {asked}
            {...size}
            label={mode === 'side' ? 'A face, the plane before or behind it' : index === 0 ? 'Left' : 'Right'}
            onshown={({ views: drawnViews }) => (ready = ready.map((one, at) => (at === index ? drawnViews : one)))}
          />
        {/each}
      </div>
    </div>
    <div class="mt-3 flex flex-wrap items-center gap-2">
      {#each buttons as name, index (name)}
        <Button disabled={!canAnswer} onclick={() => answer(index === 0)}>{name}</Button>
      {/each}
      <span class="text-soft tabular-nums" role="status" data-testid="judge-count"
        >{answers} of {judgeTrials.all}{lastRight === null ? '' : lastRight ? ', right' : ', wrong'}{canAnswer
          ? ''
          : ', being drawn'}</span
      >
      {#if answers >= judgeTrials.least}
        <Button color="alternative" onclick={() => (stopped = true)}>That is enough</Button>
      {/if}
    </div>
    <p class="mt-1 text-[13px] text-soft">
      Look at the iris: the lashes lie before it. Keys 1 and 2. At 100 % of the camera’s pixels, 85 mm f/1.4 at 2 m.
    </p>
  {:else}
    <div class="mt-3 flex flex-wrap gap-2">
      {#if kept === ''}<Button onclick={keep}>Keep this time</Button>{/if}
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
