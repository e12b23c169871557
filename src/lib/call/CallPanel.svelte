<script lang="ts">
  import { Button } from 'flowbite-svelte';
  import type { Plan } from '$core/call/plan';
  import {
    conflictSentences,
    printWords,
    decidingBackground,
    framesWords,
    keeperRate,
    noticeWords,
    oddsWords,
    reasonSentence,
    recomposeSentence,
    standParts,
    targetWords,
    zoneSplitWords,
    zoneWords
  } from '$core/words/call';
  import { formatLength } from '$core/units/length';
  import { lightWords } from '$core/words/light';
  import { panes } from '$lib/shell/panes.svelte';
  import { getWorkspace } from '$lib/state/screen/workspace.svelte';
  import { strays } from '$core/call/strays';
  import type { CallPart } from './CallWhy.svelte';
  import WhyFigure from './WhyFigure.svelte';

  let { plan }: { plan: Plan } = $props();
  const workspace = getWorkspace();
  const unit = $derived(workspace.unit);
  const setup = $derived(workspace.setup);
  const entry = $derived(plan.stops[plan.selected]);
  const conflict = $derived(conflictSentences(plan));
  const print = $derived(printWords(plan));
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

  let asked = $state<CallPart | null>(null);
  const ask = (part: CallPart) => () => (asked = asked === part ? null : part);
  const deciding = $derived(entry ? decidingBackground(plan, entry) : null);
  const lost = $derived(deciding === null ? null : (entry?.backgrounds[deciding]?.lostDetailMm ?? null));
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
      <WhyFigure
        label="depth of field · {zoneSplitWords(plan, entry, unit)}"
        open={asked === 'zone'}
        onask={ask('zone')}>{zoneWords(plan, entry, unit)}</WhyFigure
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
      {#if asked !== null && panes.all}<panes.all.CallWhy {plan} {entry} {asked} {deciding} />{/if}
    </div>
    <div class="mt-2 space-y-0.5 text-pretty">
      {#if conflict}
        <p class="font-medium" data-testid="conflict">{conflict.wishes} {conflict.settled}</p>
      {:else}
        <p>
          {reasonSentence(plan)}
          {#if print !== ''}<button
              type="button"
              class="call-part min-h-6"
              onclick={() => workspace.lookAs('traditional')}>{print}</button
            >{/if}
        </p>
      {/if}
      {#if !conflict && entry.target.recomposed && !entry.target.recomposed.asked}
        <p class="font-medium">{recomposeSentence(entry, unit)}</p>
      {/if}
      {#if notices !== ''}<p class="font-medium">{notices}</p>{/if}
    </div>
    {#if panes.all && strays(entry)}<panes.all.StrayingNote {plan} {entry} />{/if}
    {#if panes.all && conflict && workspace.tab !== 'fixes'}<panes.all.BestFix />{/if}
    {#if ownStop}
      <p class="mt-2 flex items-center gap-3">
        <span>You chose f/{entry.stop.label}. The call is f/{plan.stops[plan.recommended]?.stop.label}.</span>
        <Button size="xs" color="alternative" onclick={() => workspace.followStyle()}>
          Use f/{plan.stops[plan.recommended]?.stop.label}
        </Button>
      </p>
    {/if}
    <div class="min-h-8">
      {#if panes.all}<panes.all.OtherWays />{/if}
    </div>
  </section>
{/if}
