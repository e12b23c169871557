<script lang="ts">
  import type { PlanInput } from '$core/call/planInput';
  import type { Plan } from '$core/call/plan';
  import { asDifferent } from '$core/asShot/nearest';
  import { conflictSentences } from '$core/words/call';
  import { remedyWords } from '$core/words/remedies';
  import type { Setup } from '$core/setup/schema';
  import { getApp } from '$lib/state/app.svelte';
  import { findFixes, type Fixes } from '../../workers/clients/planner';
  import { Search } from '$lib/state/screen/search.svelte';

  interface Props {
    setup: Setup;
    /** As it turned out, and its plan, which cannot grant everything. */
    shot: Setup;
    plan: Plan;
  }
  /** It cannot all be had: what was given up, and the nearest thing that works. */
  let { setup, shot, plan }: Props = $props();
  const app = getApp();
  const search = new Search<PlanInput, Fixes>(findFixes);
  const input = $derived(app.open.input(shot));
  $effect(() => {
    void search.ask(input);
    return () => search.stop();
  });
  const best = $derived(search.answer?.to === input ? search.answer.found.remedies[0] : undefined);
  const words = $derived(best ? remedyWords(best, app.settings.now.unit) : null);
  const next = $derived(best ? asDifferent(best, setup.taken.different) : null);
</script>

<div class="shrink-0 border-l-4 border-pencil pl-2 text-[15px] leading-snug" data-testid="cannot">
  <p class="condensed line-clamp-2 font-medium">{conflictSentences(plan)?.wishes ?? ''}</p>
  {#if words}
    {#if next}
      <button
        type="button"
        class="condensed flex min-h-11 w-full items-center text-left font-bold underline decoration-1 underline-offset-3"
        onclick={() => app.day.taken([setup.id], 'What was different', { different: next })}
        >{words.what}: {words.effect}</button
      >
    {:else}<p class="condensed line-clamp-2 font-bold">{words.what}: {words.effect}</p>{/if}
  {:else if search.answer?.to === input}<p class="condensed">No fix found here: shoot the call above.</p>{/if}
</div>
