<script module lang="ts">
  /** A part of the call one can ask about. */
  export type CallPart = 'target' | 'distance' | 'odds' | 'zone' | 'light' | 'background';
</script>

<script lang="ts">
  import type { Plan, StopPlan } from '$core/call/plan';
  import type { PlanInput } from '$core/call/planInput';
  import type { DistanceSensitivity } from '$core/call/sensitivity';
  import type { WhatIf } from '$core/call/whatIf';
  import { recomposeSentence } from '$core/words/call';
  import { whyLight } from '$core/words/light';
  import {
    sensitivityWords,
    whatIfWords,
    whyBackground,
    whyDistance,
    whyOdds,
    whyTarget,
    whyZone
  } from '$core/words/why';
  import { Search } from '$lib/state/screen/search.svelte';
  import { getWorkspace } from '$lib/state/screen/workspace.svelte';
  import { findSensitivity, findWhatIfs } from '../../workers/clients/planner';

  interface Props {
    plan: Plan;
    entry: StopPlan;
    asked: CallPart;
    /** The background that decides; null without any. */
    deciding: number | null;
  }
  /** Why a part of the call is what it is, and how it is computed. */
  let { plan, entry, asked, deciding }: Props = $props();
  const workspace = getWorkspace();
  const unit = $derived(workspace.unit);
  const setup = $derived(workspace.setup);
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
    switch (asked) {
      case 'target':
        // In a conflict the header has no line to spare for the turn.
        return [whyTarget(setup, plan, entry, unit), plan.conflict ? recomposeSentence(entry, unit) : ''].join(' ');
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

{#if why !== ''}
  <div class="mt-2 border-l-2 border-pencil pl-2 text-pretty">
    <p>{why}</p>
    {#each told as item (item.kind)}<p class="mt-0.5 text-soft">{whatIfWords(plan, item)}</p>{/each}
    <details class="mt-1" data-testid="how">
      <summary class="min-h-6 w-fit cursor-pointer font-medium">How this is computed</summary>
      {#await import('$lib/controls/HowList.svelte') then { default: HowList }}<HowList of={[asked]} />{/await}
    </details>
  </div>
{/if}
