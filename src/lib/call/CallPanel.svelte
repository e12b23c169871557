<script lang="ts">
  import { Button } from 'flowbite-svelte';
  import type { Plan } from '$core/call/plan';
  import {
    conflictSentences,
    framesWords,
    keeperRate,
    noticeWords,
    oddsWords,
    reasonSentence,
    standParts,
    targetWords,
    zoneSplitWords,
    zoneWords
  } from '$core/words/call';
  import { formatLength } from '$core/units/length';
  import {
    decidingBackground,
    lightWords,
    recomposeSentence,
    sensitivityWords,
    whatIfWords,
    whyBackground,
    whyDistance,
    whyLight,
    whyOdds,
    whyTarget,
    whyZone
  } from '$core/words/why';
  import type { DistanceSensitivity } from '$core/call/sensitivity';
  import type { PlanInput } from '$core/call/planInput';
  import type { WhatIf } from '$core/call/whatIf';
  import { findSensitivity, findWhatIfs } from '../../workers/clients/planner';
  import { Search } from '$lib/state/screen/search.svelte';
  import { getWorkspace } from '$lib/state/screen/workspace.svelte';
  import { strays } from '$core/call/strays';
  import WhyFigure from './WhyFigure.svelte';

  let { plan }: { plan: Plan } = $props();
  const workspace = getWorkspace();
  const unit = $derived(workspace.unit);
  const setup = $derived(workspace.setup);
  const entry = $derived(plan.stops[plan.selected]);
  const conflict = $derived(conflictSentences(plan));
  const ownStop = $derived(setup.intent.stop.kind === 'chosen' && plan.selected !== plan.recommended);
  /** A space where markup would swallow one. */
  const gap = ' ';
  const frames = $derived(entry ? framesWords(plan, entry) : '');
  const notices = $derived(
    [
      ...noticeWords(plan),
      ...(plan.beyondRoomMm > 0 ? [`You’d need ${formatLength(plan.beyondRoomMm, unit)} more room behind you.`] : [])
    ].join(' ')
  );

  /** Nobody asks for another way before the call is there to be read. */
  const otherWays = async () => {
    await new Promise<void>((resolve) => requestAnimationFrame(() => setTimeout(resolve)));
    return import('./OtherWays.svelte');
  };

  type Part = 'target' | 'distance' | 'odds' | 'zone' | 'light' | 'background';
  let asked = $state<Part | null>(null);
  const ask = (part: Part) => () => (asked = asked === part ? null : part);
  const deciding = $derived(entry ? decidingBackground(plan, entry) : null);
  const lost = $derived(deciding === null ? null : (entry?.backgrounds[deciding]?.lostDetailMm ?? null));
  /** How much a wrong distance would matter; asked for only when somebody wants to know. */
  const sensitivity = new Search<PlanInput, DistanceSensitivity | null>(findSensitivity);
  $effect(() => {
    const { question } = workspace;
    if (asked === 'distance') void sensitivity.ask(question);
  });
  /** What each figure of the photographer's costs; likewise. */
  const whatIfs = new Search<PlanInput, readonly WhatIf[]>(findWhatIfs);
  $effect(() => {
    const { question } = workspace;
    if (asked === 'odds') void whatIfs.ask(question);
  });
  const told = $derived(asked === 'odds' && whatIfs.answer?.to.setup === setup ? whatIfs.answer.found : []);
  const distanceOff = $derived(sensitivity.answer?.to.setup === setup ? sensitivity.answer.found : null);
  const why = $derived.by(() => {
    if (!entry || asked === null) return '';
    switch (asked) {
      case 'target':
        // In a conflict the header has no line to spare for the turn.
        return [whyTarget(setup, plan, entry, unit), conflict ? recomposeSentence(entry, unit) : ''].join(' ');
      case 'distance':
        return [whyDistance(setup, plan, unit), distanceOff ? sensitivityWords(distanceOff, unit) : ''].join(' ');
      case 'odds':
        return whyOdds(plan, entry, unit);
      case 'zone':
        return whyZone(plan, entry);
      case 'light':
        return whyLight(setup, entry);
      case 'background':
        return deciding === null ? '' : whyBackground(plan, entry, deciding, unit);
    }
  });
</script>

{#if entry}
  {@const light = lightWords(entry)}
  {@const stand = standParts(plan, entry, unit)}
  {@const keeper = keeperRate(plan, entry)}
  <section aria-label="Call" data-testid="call">
    <h1 class="condensed text-[27px] leading-[1.12] font-bold text-balance">
      f/{entry.stop.label} on
      <button
        type="button"
        class="call-part"
        aria-expanded={asked === 'target'}
        aria-controls="call-why"
        aria-label={targetWords(plan, entry, unit)}
        onclick={ask('target')}>{targetWords(plan, entry, unit)},</button
      >
      <span class="whitespace-nowrap"
        >{stand.from === '' ? 'from ' : ''}<button
          type="button"
          class="call-part"
          aria-expanded={asked === 'distance'}
          aria-controls="call-why"
          aria-label={stand.length}
          onclick={ask('distance')}>{stand.length}{stand.from === '' ? '.' : ''}</button
        >{#if stand.from !== ''}{` from ${stand.from}${stand.focused === '' ? '.' : ','}`}{/if}</span
      >{#if stand.focused !== ''}{gap}<span class="whitespace-nowrap">{stand.focused}.</span>{/if}
    </h1>
    <div class="mt-2 grid gap-x-5 gap-y-2 max-sm:grid-cols-2 sm:grid-flow-col sm:auto-cols-auto sm:justify-start">
      <WhyFigure
        label={`keeper rate${keeper.inPrint ? ' in print' : ''}${frames === '' ? '' : ` · ${frames}`}`}
        open={asked === 'odds'}
        onask={ask('odds')}>{oddsWords(keeper.rate)}</WhyFigure
      >
      <WhyFigure label="depth of field · {zoneSplitWords(entry, unit)}" open={asked === 'zone'} onask={ask('zone')}
        >{zoneWords(entry, unit)}</WhyFigure
      >
      <WhyFigure
        label={light.lack === '' ? (light.iso === '' ? 'light not set' : light.iso) : `${light.iso}, ${light.lack}`}
        open={asked === 'light'}
        onask={ask('light')}>{light.shutter}</WhyFigure
      >
      {#if deciding !== null && lost !== null}
        <WhyFigure
          label="blur at {plan.backgrounds[deciding]?.name}"
          open={asked === 'background'}
          onask={ask('background')}>{formatLength(lost, unit)}</WhyFigure
        >
      {/if}
    </div>
    <div id="call-why" aria-live="polite">
      {#if why !== ''}
        <div class="mt-2 border-l-2 border-pencil pl-2 text-pretty">
          <p>{why}</p>
          {#each told as item (item.kind)}<p class="mt-0.5 text-soft">{whatIfWords(plan, item)}</p>{/each}
          {#if asked !== null}
            <details class="mt-1" data-testid="how">
              <summary class="min-h-6 w-fit cursor-pointer font-medium">How this is computed</summary>
              {#await import('$lib/controls/HowList.svelte') then { default: HowList }}<HowList of={[asked]} />{/await}
            </details>
          {/if}
        </div>
      {/if}
    </div>
    <div class="mt-2 space-y-0.5 text-pretty">
      {#if conflict}
        <p class="font-medium" data-testid="conflict">{conflict.wishes} {conflict.settled}</p>
      {:else}
        <p>{reasonSentence(plan)}</p>
      {/if}
      {#if !conflict && entry.target.recomposed && !entry.target.recomposed.asked}
        <p class="font-medium">{recomposeSentence(entry, unit)}</p>
      {/if}
      {#if notices !== ''}<p class="font-medium">{notices}</p>{/if}
    </div>
    {#if strays(entry)}
      {#await import('./StrayingNote.svelte') then { default: StrayingNote }}<StrayingNote {plan} {entry} />{/await}
    {/if}
    {#if conflict && workspace.tab !== 'fixes'}
      {#await import('./BestFix.svelte') then { default: BestFix }}<BestFix />{/await}
    {/if}
    {#if ownStop}
      <p class="mt-2 flex items-center gap-3">
        <span>You chose f/{entry.stop.label}. The call is f/{plan.stops[plan.recommended]?.stop.label}.</span>
        <Button size="xs" color="alternative" onclick={() => workspace.followStyle()}>
          Use f/{plan.stops[plan.recommended]?.stop.label}
        </Button>
      </p>
    {/if}
    <div class="min-h-8">
      {#await otherWays() then { default: OtherWays }}<OtherWays />{/await}
    </div>
  </section>
{/if}
