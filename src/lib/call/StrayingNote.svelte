<script lang="ts">
  import { Button } from 'flowbite-svelte';
  import type { Plan, StopPlan } from '$core/call/plan';
  import type { PlanInput } from '$core/call/planInput';
  import type { Straying } from '$core/call/straying';
  import { mendWords, strayingSentence } from '$core/words/straying';
  import { Search } from '$lib/state/screen/search.svelte';
  import { getWorkspace } from '$lib/state/screen/workspace.svelte';
  import { findStraying } from '../../workers/clients/planner';

  /** Autofocus that goes elsewhere: how often, to what, and the surer way of aiming one press away. */
  let { plan, entry }: { plan: Plan; entry: StopPlan } = $props();
  const workspace = getWorkspace();
  const search = new Search<PlanInput, Straying | null>(findStraying);
  $effect(() => void search.ask(workspace.question));
  const mend = $derived(search.answer?.to.setup === workspace.setup ? (search.answer.found?.mend ?? null) : null);
</script>

<div class="mt-2 flex items-center gap-3" data-testid="straying">
  <p class="min-w-0 text-pretty">{strayingSentence(plan, entry)}</p>
  {#if mend}
    <Button
      color="alternative"
      class="shrink-0"
      onclick={() =>
        search.answer && workspace.takeOver('AF area', { asked: search.answer.to.setup, setup: mend.setup })}
      >{mendWords(mend)}</Button
    >
  {/if}
</div>
