<script lang="ts">
  import { Button } from 'flowbite-svelte';
  import BestFix from './BestFix.svelte';
  import type { Plan } from '$core/call/plan';
  import {
    backgroundSentence,
    callSentence,
    conflictSentences,
    framesWords,
    oddsWords,
    reasonSentence,
    zoneSplitWords,
    zoneWords
  } from '$core/words/call';
  import { formatLength } from '$core/words/length';
  import { getWorkspace } from '$lib/state/workspace.svelte';

  let { plan }: { plan: Plan } = $props();
  const workspace = getWorkspace();
  const unit = $derived(workspace.unit);
  const entry = $derived(plan.stops[plan.selected]);
  const conflict = $derived(conflictSentences(plan));
  const ownStop = $derived(workspace.setup.intent.stop.kind === 'chosen' && plan.selected !== plan.recommended);
  const frames = $derived(entry ? framesWords(entry) : '');
</script>

{#if entry}
  <section aria-label="Call" data-testid="call">
    <h1 class="condensed text-[27px] leading-[1.12] font-bold text-balance">{callSentence(plan, unit)}</h1>
    <dl class="mt-2.5 flex flex-wrap gap-x-7 gap-y-2">
      <div class="flex flex-col-reverse">
        <dt class="label">{zoneSplitWords(entry, unit)}</dt>
        <dd class="condensed text-[19px] font-semibold">{zoneWords(entry, unit)} sharp</dd>
      </div>
      <div class="flex flex-col-reverse">
        <dt class="label">{frames === '' ? 'keeper odds' : `keeper odds, ${frames}`}</dt>
        <dd class="condensed text-[19px] font-semibold">{oddsWords(entry.odds)}</dd>
      </div>
      <div class="flex flex-col-reverse">
        <dt class="label">framed with {plan.focalLengthMm} mm</dt>
        <dd class="condensed text-[19px] font-semibold">
          {formatLength(plan.framedWidthMm, unit)} × {formatLength(plan.framedHeightMm, unit)}
        </dd>
      </div>
    </dl>
    <div class="mt-2 space-y-0.5 text-pretty">
      {#if conflict}
        <p class="border-l-2 border-pencil pl-2 font-medium" data-testid="conflict">
          {conflict.wishes}
          {conflict.settled}
        </p>
      {:else}
        <p>{reasonSentence(plan)}</p>
      {/if}
      {#each plan.backgrounds as background, index (background.id)}
        <p class="text-soft">{backgroundSentence(plan, index, entry, unit)}</p>
      {/each}
      {#if plan.beyondRoomMm > 0}
        <p class="font-medium">
          You would stand {formatLength(plan.beyondRoomMm, unit)} further back than the place allows.
        </p>
      {/if}
    </div>
    {#if conflict}<BestFix />{/if}
    {#if ownStop}
      <p class="mt-2 flex items-center gap-3">
        <span>f/{entry.stop.label} is your choice; the call is f/{plan.stops[plan.recommended]?.stop.label}.</span>
        <Button size="xs" color="alternative" onclick={() => workspace.followStyle()}>
          Use f/{plan.stops[plan.recommended]?.stop.label}
        </Button>
      </p>
    {/if}
  </section>
{/if}
