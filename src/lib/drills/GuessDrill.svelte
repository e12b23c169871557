<script lang="ts">
  import { Button } from 'flowbite-svelte';
  import { onMount, type Snippet } from 'svelte';
  import { calibrationOf, guessScenes, scoresOf, type GuessAsked, type Guessed } from '$core/drills/desk/guess';
  import type { Body, Lens } from '$core/kit/schema';
  import { callSentence } from '$core/words/call';
  import { blurShareWords, calibrationWords, guessSaid, guessWords } from '$core/drills/deskWords';
  import Failed from '$lib/controls/Failed.svelte';
  import { drawGuess } from '../../workers/clients/planner';
  import { Search } from '$lib/state/screen/search.svelte';
  import Picker from '$lib/controls/Picker.svelte';
  import { getApp } from '$lib/state/app.svelte';
  import { asking, aspectOf, atStop, fitInto } from '../../render/request';
  import LensRendering from '../finder/LensRendering.svelte';
  import Outline from '../finder/Outline.svelte';
  import EarlierTimes from './EarlierTimes.svelte';
  import { keepResult, resultsOf } from './results';
  import Verdict from './Verdict.svelte';

  /** A picture; one says two ranges; the call appears. */
  let { body, lens, children }: { body: Body; lens: Lens; children: Snippet } = $props();
  const app = getApp();
  const { unit, habits } = $derived(app.settings.now);
  const search = new Search((asked: GuessAsked) => drawGuess(asked));
  const scene = $derived(search.answer?.found ?? null);
  const draw = () => search.ask({ body, lens, seed: Math.floor(app.random() * 2 ** 32), stopStep: 'third', habits });
  onMount(() => void draw());
  let guesses = $state.raw<readonly Guessed[]>([]);
  let seen = $state(false);
  let kept = $state(false);
  const finished = $derived(guesses.length >= guessScenes.all && !seen);

  const stops = $derived(scene?.plan.stops ?? []);
  const items = $derived(stops.map(({ stop }, index) => ({ value: String(index), name: `f/${stop.label}` })));
  let from = $state(0);
  let to = $state(6);
  /** Shares of the height that can be said, as logarithms (base 10). */
  const shares = { least: -3.3, most: -0.4 } as const;
  let small = $state(-2.3);
  let large = $state(-1.7);
  /** The two ends never cross: one pushes the other. */
  const ends = $derived([
    {
      id: 'guess-small',
      said: 'From',
      value: small,
      put: (to: number) => ((small = to), (large = Math.max(large, to)))
    },
    { id: 'guess-large', said: 'to', value: large, put: (to: number) => ((large = to), (small = Math.min(small, to))) }
  ]);
  const blur = $derived({ from: 10 ** small, to: 10 ** large });

  let room = $state(760);
  const size = $derived(scene ? fitInto(aspectOf({ setup: scene.setup, body }), { width: room, height: 430 }) : null);
  const answerAt = $derived(stops.findIndex(({ stop }) => stop.fNumber === scene?.answer.fNumber));
  const asked = $derived(
    scene && seen && size
      ? asking(atStop({ ...scene, body, lens }, answerAt), { slot: 'guess', priority: 1, ...size })
      : null
  );
  const latest = $derived(guesses[guesses.length - 1]);
  const told = $derived(scene && seen && latest ? guessSaid(scene, scoresOf(latest)) : null);
  const calibration = $derived(calibrationOf(guesses));

  function see() {
    if (!scene) return;
    const [a, b] = [stops[Math.min(from, to)], stops[Math.max(from, to)]];
    if (!a || !b) return;
    const stop = { from: a.stop.fNumber, to: b.stop.fNumber };
    guesses = [...guesses, { stop, blur, answer: scene.answer }];
    [seen, kept] = [true, false];
  }
  async function goOn() {
    if (guesses.length < guessScenes.all) await draw();
    seen = false;
  }
  async function again() {
    guesses = [];
    [seen, kept] = [false, false];
    await draw();
  }
  function keep() {
    if (!calibration) return;
    keepResult(app, 'Guess, then see', {
      simulated: false,
      drill: 'guess',
      bodyId: body.id,
      body: body.name,
      lensId: lens.id,
      lens: lens.name,
      focalLengthMm: lens.longestMm,
      figure: calibration.score,
      low: null,
      high: null,
      steps: []
    });
    kept = true;
  }
</script>

<section class="order-2 min-w-0 lg:order-none lg:row-span-2" aria-label="Guess" bind:clientWidth={room}>
  {#if calibration && !seen}
    <Verdict said={calibrationWords(calibration)} how="guess" />
    <div class="mt-3 mb-4 flex flex-wrap gap-2">
      {#if !kept}<Button onclick={keep}>Save this result</Button>{/if}
      <Button color="alternative" onclick={again}>Once more</Button>
    </div>
  {/if}
  {#if search.failure !== null}
    <Failed what="Couldn’t draw a scene." why={search.failure} onretry={draw} />
  {/if}
  {#if !scene || !size}
    <p class="text-soft">
      {search.answer ? 'No scene for this lens has an answer. Choose another lens.' : 'Being drawn.'}
    </p>
  {:else if !finished}
    <div class="relative" style:width="{size.width}px" style:height="{size.height}px">
      {#if asked}
        <LensRendering {asked} {...size} label="The preview at the aperture that keeps everyone sharp">
          {#snippet outline()}
            {#if scene && size}<Outline {...atStop({ ...scene, body, lens }, answerAt)} {...size} plain />{/if}
          {/snippet}
        </LensRendering>
      {:else}
        <Outline {...atStop({ ...scene, body, lens }, stops.length - 1)} {...size} plain />
        <svg class="pointer-events-none absolute inset-0" width={size.width} height={size.height} aria-hidden="true">
          {#each [blur.from, blur.to] as share, index (index)}
            <circle
              cx={size.width * 0.87}
              cy={size.height * 0.2}
              r={Math.max(0.5, (share * size.height) / 2)}
              fill="none"
              stroke="var(--color-pencil)"
              stroke-width="1.5"
            />
          {/each}
        </svg>
      {/if}
    </div>
    <p class="mt-2 text-pretty" data-testid="guess-scene">{guessWords(scene, unit)}</p>
    {#if told}
      <h2 class="condensed mt-3 text-[21px] leading-tight font-bold text-pretty" data-testid="guess-told">
        {told.stop}
      </h2>
      <p class="text-pretty">{told.blur}</p>
      <p class="mt-2 border-l-4 border-pencil bg-raised p-3 text-pretty">{callSentence(scene.plan, unit)}</p>
      <div class="mt-3 flex items-center gap-3">
        <Button disabled={search.busy} onclick={goOn}
          >{guesses.length < guessScenes.all ? 'Next scene' : 'How it went'}</Button
        >
        <span class="text-soft tabular-nums" data-testid="guess-count">{guesses.length} of {guessScenes.all}</span>
      </div>
    {:else}
      <p class="mt-2 max-w-2xl text-pretty text-soft">Give both as 90% ranges: no wider than you need.</p>
      <div class="mt-2 grid max-w-2xl gap-x-8 gap-y-3 sm:grid-cols-2">
        <fieldset class="min-w-0">
          <legend class="font-semibold">Widest aperture that keeps everyone sharp</legend>
          <div class="mt-1 flex items-end gap-2">
            <Picker label="From" {items} value={String(from)} onchange={(value) => (from = Number(value))} />
            <Picker label="to" {items} value={String(to)} onchange={(value) => (to = Number(value))} />
          </div>
        </fieldset>
        <fieldset class="min-w-0">
          <legend class="font-semibold">Background blur there</legend>
          {#each ends as end (end.id)}
            <label class="mt-1 block tabular-nums" for={end.id}>{end.said} {blurShareWords(10 ** end.value)}</label>
            <input
              id={end.id}
              class="w-full accent-pencil"
              type="range"
              min={shares.least}
              max={shares.most}
              step="0.02"
              value={end.value}
              oninput={(event) => end.put(event.currentTarget.valueAsNumber)}
            />
          {/each}
        </fieldset>
      </div>
      <div class="mt-3 flex items-center gap-3">
        <Button disabled={search.busy} onclick={see}>See</Button>
        <span class="text-soft tabular-nums" data-testid="guess-count">{guesses.length} of {guessScenes.all}</span>
      </div>
    {/if}
  {/if}
  <EarlierTimes times={resultsOf(app, 'guess')} {unit} />
</section>
<div class="order-1 min-w-0 lg:order-none">{@render children()}</div>
