<script lang="ts">
  import { checksOf } from '$core/technique/checks';
  import CheckList from './CheckList.svelte';
  import { getWorkspace } from '$lib/state/screen/workspace.svelte';

  /** What to check for this picture, body and light, each with its reason; ticked here or in the field. */
  const workspace = getWorkspace();
  const checks = $derived(workspace.plan ? checksOf(workspace.question, workspace.plan) : []);
</script>

{#if !workspace.plan}
  <p class="text-soft">Add a person to get a checklist.</p>
{:else}
  <CheckList
    plan={workspace.plan}
    {checks}
    ticked={workspace.setup.ticked}
    onchange={(ticked) => workspace.edit('Checked', (draft) => void (draft.ticked = [...ticked]))}
  />
  <p class="label mt-3">Safety first: the venue’s rules and its people come before this list.</p>
{/if}
