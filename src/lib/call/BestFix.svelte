<script lang="ts">
  import { Button } from 'flowbite-svelte';
  import type { Remedy } from '$core/call/remedies/remedy';
  import type { Setup } from '$core/setup/schema';
  import { remedyWords } from '$core/words/remedies';
  import { findRemedies } from '$lib/state/planner';
  import { getWorkspace } from '$lib/state/workspace.svelte';

  const workspace = getWorkspace();
  let found = $state.raw<{ readonly for: Setup; readonly best: Remedy | undefined } | null>(null);

  $effect(() => {
    const { setup, app, row } = workspace;
    const stopStep = app.job(row.jobId)?.stopStep ?? 'half';
    findRemedies({ setup, kit: app.kit, stopStep }).then(
      (remedies) => {
        if (remedies) found = { for: setup, best: remedies[0] };
      },
      // Without a worker there is no fix to offer; the call stands by itself.
      () => (found = null)
    );
  });

  const best = $derived(found?.for === workspace.setup ? found.best : undefined);
  const words = $derived(best ? remedyWords(best, workspace.unit) : null);

  function apply() {
    const changed = best?.setup;
    if (!changed || !words) return;
    const { what } = words;
    workspace.edit(what, (draft) => void Object.assign(draft, changed));
    workspace.app.say(`${what}: done.`, 'done', true);
  }
</script>

{#if words}
  <div class="mt-2 flex items-center gap-3" data-testid="best-fix">
    <p class="min-w-0 text-pretty">
      <span class="font-semibold">{words.what}</span>:
      <span class="text-soft">{words.effect}.{words.caution === '' ? '' : ` ${words.caution}`}</span>
    </p>
    <Button color="alternative" onclick={apply}>Do it</Button>
  </div>
{/if}
