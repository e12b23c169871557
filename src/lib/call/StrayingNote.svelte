<script lang="ts">
  import { Button } from 'flowbite-svelte';
  import type { Plan, StopPlan } from '$core/call/plan';
  import type { PlanInput } from '$core/call/planInput';
  import type { FocusMethodOption } from '$core/technique/ways';
  import { strayingSentence, surerWords } from '$core/words/straying';
  import { Search } from '$lib/state/screen/search.svelte';
  import { getWorkspace } from '$lib/state/screen/workspace.svelte';
  import { findSurerAim } from '../../workers/clients/planner';

  /** Autofocus that goes elsewhere: how often, to what, and the surer way of aiming one press away. */
  let { plan, entry }: { plan: Plan; entry: StopPlan } = $props();
  const workspace = getWorkspace();
  const search = new Search<PlanInput, FocusMethodOption | null>(findSurerAim);
  $effect(() => void search.ask(workspace.question));
  const surer = $derived(search.answer?.to.setup === workspace.setup ? search.answer.found : null);
</script>

<div class="mt-2 flex items-center gap-3" data-testid="straying">
  <p class="min-w-0 text-pretty">{strayingSentence(plan, entry)}</p>
  {#if surer}
    <Button
      color="alternative"
      class="shrink-0"
      onclick={() =>
        search.answer && workspace.takeOver('AF area', { asked: search.answer.to.setup, setup: surer.setup })}
      >{surerWords(plan, surer)}</Button
    >
  {/if}
</div>
