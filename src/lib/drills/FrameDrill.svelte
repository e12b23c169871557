<script lang="ts">
  import { trialRun } from '$core/words/frames';
  import { Button } from 'flowbite-svelte';
  import type { Snippet } from 'svelte';
  import { drillTitle, type ListedDrill } from '$core/drills/kinds';
  import { leftWords } from '$core/drills/series/match';
  import type { Body, Lens } from '$core/kit/schema';
  import { exactFNumber } from '$core/optics/stops';
  import Lacking from '$lib/bench/Lacking.svelte';
  import Refused from '$lib/bench/Refused.svelte';
  import SeriesTools from '$lib/bench/SeriesTools.svelte';
  import { sources } from '$lib/bench/series.svelte';
  import { getApp } from '$lib/state/app.svelte';
  import DrillFinder from './DrillFinder.svelte';
  import DrillFloor from './DrillFloor.svelte';
  import { DrillSession } from './drillSession.svelte';
  import DrillTasks from './DrillTasks.svelte';
  import EarlierTimes from './EarlierTimes.svelte';
  import SheetOfThree from './SheetOfThree.svelte';
  import StepRows from './StepRows.svelte';
  import Verdict from './Verdict.svelte';

  let { drill, body, lens, children }: { drill: ListedDrill; body: Body; lens: Lens; children: Snippet } = $props();
  // Made anew with another body, lens or drill.
  // svelte-ignore state_referenced_locally
  const session = new DrillSession(getApp(), drill, body, lens);
  const { series, unit, f, arranged, laid, match, outcome, nameOf } = $derived(session);
  const widthMm = $derived(Math.max(body.sensor.widthMm, body.sensor.heightMm));
</script>

<div class="order-2 min-w-0 lg:order-none lg:row-span-2">
  <div class="flex flex-wrap gap-3">
    <div class="min-w-0 flex-1 basis-80">
      <DrillFloor {arranged} {f} fNumber={exactFNumber(laid.kit.widestFNumber)} discMm={laid.discMm} {widthMm} {unit} />
    </div>
    <DrillFinder {drill} {arranged} kit={session.kit} {nameOf} />
  </div>
  <section class="mt-4" aria-label="What came of it">
    {#if outcome}
      <Verdict said={outcome.said} how="drills" />
    {:else}
      <h2 class="condensed text-[21px] leading-tight font-bold">Target</h2>
    {/if}
    {#if session.otherMm !== null}
      <p class="mt-2 text-pretty" role="status">
        Most frames were taken at {Math.round(session.otherMm)} mm; this is laid out for {Math.round(f)} mm. Choose the lens
        they were shot with, or shoot them again.
      </p>
    {/if}
    {#if session.another}
      <p class="mt-2 text-pretty" role="status" data-testid="another-drill">
        These look like the frames of <a class="underline" href="/drills/{session.another}"
          >{drillTitle(session.another)}</a
        >: import them there.
      </p>
    {/if}
    <StepRows {session} />
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
                onchange={(event) => session.put(frame.id, event.currentTarget.value)}
              >
                <option value="">none</option>
                {#each arranged.steps as step (step.id)}<option value={step.id}>{nameOf(step)}</option>{/each}
              </select>
            </label>
          </li>
        {/each}
      </ul>
    {/if}
    {#if outcome}
      {#if session.simulated}
        <p class="mt-2 text-soft">
          {trialRun('hands')}
          {#if session.truths.some((one) => one !== '')}
            <button type="button" class="min-h-6 underline" onclick={() => (session.revealed = !session.revealed)}
              >{session.revealed ? 'Hide what was really so' : 'Show what was really so'}</button
            >
          {/if}
        </p>
      {/if}
      <div class="mt-3 flex flex-wrap items-center gap-2">
        {#if !session.isKept}<Button disabled={series.busy} onclick={() => session.keep()}>Save this result</Button
          >{/if}
        {#if session.use}<Button color="alternative" onclick={session.use.apply}>{session.use.button}</Button>{/if}
        <Button color="alternative" onclick={() => session.restart()}>Start again</Button>
        {#if session.beside !== ''}<span class="text-soft">{session.beside}</span>{/if}
      </div>
      {#if outcome.together}
        <SheetOfThree
          title="{drill.title}, {lens.name}"
          pictures={match.steps.flatMap(({ step, frame }) => {
            const read = session.readOf(frame);
            return read ? [{ id: step.id, image: read.image, label: nameOf(step) }] : [];
          })}
        />
      {/if}
    {/if}
    <SeriesTools
      {series}
      label="Frames of the drill"
      sheet={{ kind: 'ladder', name: 'Marks' }}
      onfiles={(files) => session.take(sources(files), 'read and measured')}
      onsimulate={() => session.simulate()}
    />
    <Lacking
      items={session.lacking}
      {lens}
      each={drill.frames?.eachStop === true}
      busy={series.busy}
      onfill={(ids, as) => session.fill(ids, as)}
    />
    <Refused items={session.refused} onremove={(id) => series.remove(id)} />
    <EarlierTimes times={session.earlier} {unit} title="Earlier times with this lens" />
  </section>
</div>
<section class="order-1 min-w-0 lg:order-none" aria-label="Do">
  {@render children()}
  <DrillTasks {session} />
</section>
