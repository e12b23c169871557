<script lang="ts">
  import { Button } from 'flowbite-svelte';
  import type { Snippet } from 'svelte';
  import { planSetup } from '$core/call/planSetup';
  import {
    modeOptions,
    modeScenes,
    modeSetup,
    type BestChoice,
    type ModeAsked,
    type ModeChoice,
    type ModeShot
  } from '$core/drills/desk/mode';
  import type { Body, Lens } from '$core/kit/schema';
  import { shareOf } from '$core/record/honesty';
  import { seededRandom } from '$core/maths/random';
  import { driveWords, modeSaid, modesSaid, pointPlaceNames, sceneWords } from '$core/drills/deskWords';
  import { focusAreaWords, focusModeWords } from '$core/setup/focusChoices';
  import Choice from '$lib/controls/Choice.svelte';
  import Picker from '$lib/controls/Picker.svelte';
  import { areasOf } from '$core/setup/focusArea';
  import Failed from '$lib/controls/Failed.svelte';
  import { requestModeShot } from '../../workers/clients/planner';
  import { Search } from '$lib/state/screen/search.svelte';
  import { getApp } from '$lib/state/app.svelte';
  import { asking, aspectOf, fitInto, type RenderableSetup } from '../../render/request';
  import LensRendering from '../finder/LensRendering.svelte';
  import Outline from '../finder/Outline.svelte';
  import EarlierTimes from './EarlierTimes.svelte';
  import { keepResult, resultsOf } from './results';
  import Verdict from './Verdict.svelte';

  /** Six scenes; one picks how to focus, and the simulated camera shoots. */
  let { body, lens, children }: { body: Body; lens: Lens; children: Snippet } = $props();
  const app = getApp();
  const { unit, habits } = $derived(app.settings.now);
  const kit = $derived({ bodies: [body], lenses: [lens], adapters: [] });
  const random = seededRandom(Math.floor(app.random() * 2 ** 32));

  const first: ModeChoice = { mode: 'single', area: 'wholeFrame', point: 'onEye', drive: 'one' };
  let choice = $state.raw(first);
  let index = $state(0);
  let taken = $state.raw<readonly { readonly shot: ModeShot; readonly best: BestChoice }[]>([]);
  const shots = $derived(taken.map(({ shot }) => shot));
  const search = new Search((asked: ModeAsked) => requestModeShot(asked));
  let kept = $state(false);
  const scene = $derived(modeScenes[index] ?? 'vow');
  const draw = (at: number) => modeSetup(modeScenes[at] ?? 'vow', random, body, lens);
  let setup = $state.raw(draw(0));
  /** As it is shown: nothing of it depends on what one picks. */
  const input = $derived({ setup, kit, stopStep: 'third' as const, habits });
  const plan = $derived(planSetup(input));
  const seen = $derived<RenderableSetup | null>(plan.kind === 'plan' ? { setup, plan, body, lens } : null);
  const finished = $derived(index >= modeScenes.length);

  let room = $state(760);
  const size = $derived(seen ? fitInto(aspectOf(seen), { width: room, height: 380 }) : null);
  const asked = $derived(seen && size ? asking(seen, { slot: 'mode', priority: 1, ...size }) : null);
  const nameOf = (id: string): string =>
    [...setup.people, ...setup.backgrounds].find((one) => one.id === id)?.name ?? 'something else';
  const said = $derived.by(() => {
    const now = taken[index];
    return now ? modeSaid(now.shot, now.best, nameOf) : null;
  });
  const wanted = $derived(setup.people.filter(({ importance }) => importance === 'must').map(({ name }) => name));

  async function take() {
    const question = { input, body, choice, seed: Math.floor(random() * 2 ** 32) };
    await search.ask(question);
    if (search.answer?.to === question && search.answer.found) taken = [...taken, search.answer.found];
  }
  function goOn() {
    index++;
    choice = first;
    if (index < modeScenes.length) setup = draw(index);
  }
  function again() {
    taken = [];
    index = 0;
    kept = false;
    choice = first;
    setup = draw(0);
  }
  function keep() {
    const [got, of] = [shots.reduce((sum, one) => sum + one.kept, 0), shots.reduce((sum, one) => sum + one.moments, 0)];
    const { share, low, high } = shareOf(got, of);
    keepResult(app, 'Which mode?', {
      simulated: false,
      drill: 'mode',
      bodyId: body.id,
      body: body.name,
      lensId: lens.id,
      lens: lens.name,
      focalLengthMm: setup.camera.focalLengthMm,
      figure: share,
      low,
      high,
      steps: []
    });
    kept = true;
  }
  const named = <K extends string>(values: readonly K[], words: Readonly<Record<K, string>>) =>
    values.map((value) => ({ value, name: words[value] }));
</script>

<section class="order-2 min-w-0 lg:order-none lg:row-span-2" aria-label="Scene" bind:clientWidth={room}>
  {#if finished}
    <Verdict said={modesSaid(shots)} how="mode" />
    <ol class="mt-3 border-t border-line" aria-label="Scenes">
      {#each shots as one, at (at)}
        <li class="flex flex-wrap justify-between gap-x-4 border-b border-line py-1">
          <span>{sceneWords[modeScenes[at] ?? 'vow'].title}</span>
          <span class="tabular-nums">{one.kept} of {one.moments}</span>
        </li>
      {/each}
    </ol>
    <div class="mt-3 flex flex-wrap gap-2">
      {#if !kept}<Button onclick={keep}>Save this result</Button>{/if}
      <Button color="alternative" onclick={again}>Once more</Button>
    </div>
  {:else if !seen || !size || !asked}
    <p class="text-soft">This lens can’t frame this scene: choose another.</p>
  {:else}
    <p class="text-[13px] text-soft tabular-nums" data-testid="mode-count">Scene {index + 1} of {modeScenes.length}</p>
    <h2 class="condensed text-[21px] leading-tight font-bold">{sceneWords[scene].title}</h2>
    <p class="text-pretty">
      {sceneWords[scene].text}{scene === 'players'
        ? ` ${wanted.join(', ')}, counted from the left, must be sharp.`
        : ''}
    </p>
    <div class="mt-2 grid gap-4 md:grid-cols-[auto_minmax(15rem,1fr)]">
      <div class="relative" style:width="{size.width}px" style:height="{size.height}px">
        <LensRendering {asked} {...size} label={sceneWords[scene].title}>
          {#snippet outline()}
            {#if seen && size}<Outline {...seen} {...size} plain />{/if}
          {/snippet}
        </LensRendering>
      </div>
      <div class="grid min-w-0 content-start gap-3">
        {#if said}
          <div><Verdict {said} how="mode" /></div>
          <div><Button onclick={goOn}>{index + 1 < modeScenes.length ? 'Next scene' : 'How it went'}</Button></div>
        {:else}
          <Choice
            legend="Focusing"
            value={choice.mode}
            options={named(modeOptions.mode, focusModeWords)}
            onchange={(mode) => (choice = { ...choice, mode })}
          />
          <Picker
            label="Looks at"
            items={named(areasOf(body), focusAreaWords)}
            value={choice.area}
            onchange={(area) => (choice = { ...choice, area })}
          />
          <Choice
            legend="The point"
            wrap
            value={choice.point}
            options={named(modeOptions.point, pointPlaceNames)}
            onchange={(point) => (choice = { ...choice, point })}
          />
          <Choice
            legend="Each press"
            value={choice.drive}
            options={named(modeOptions.drive, driveWords)}
            onchange={(drive) => (choice = { ...choice, drive })}
          />
          <div><Button disabled={search.busy} onclick={take}>Shoot 40 moments</Button></div>
          {#if search.failure !== null}
            <Failed what="It could not be shot." why={search.failure} onretry={take} />
          {/if}
        {/if}
      </div>
    </div>
  {/if}
  <EarlierTimes times={resultsOf(app, 'mode')} {unit} />
</section>
<div class="order-1 min-w-0 lg:order-none">{@render children()}</div>
