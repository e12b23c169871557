<script lang="ts">
  import { Button } from 'flowbite-svelte';
  import { storeFailureWords } from '$core/words/saving';
  import { getApp } from '$lib/state/app.svelte';

  /** Whether what is on the screen is stored: truly. */
  let { onexport }: { onexport: () => unknown } = $props();
  const app = getApp();
  const saving = $derived(app.store.saving);
  const words = $derived.by(() => {
    if (saving.kind === 'saving') return 'saving';
    if (saving.kind === 'failed') return 'not saved';
    // Since when only matters for an edit of one's own.
    if (saving.at === null || !app.store.history.canUndo) return 'saved';
    return `saved ${new Date(saving.at).toLocaleTimeString([], { timeStyle: 'short' })}`;
  });
</script>

{#if saving.kind === 'failed'}
  <div role="alert" class="flex flex-wrap items-center justify-end gap-x-2 gap-y-1" data-testid="not-saved">
    <p class="max-w-96 text-right text-pretty">
      <strong class="text-pencil">Not saved.</strong>
      {storeFailureWords(saving.error)}
      {app.journalKept ? '' : 'No safety copy either: export before you close this tab.'}
    </p>
    <Button size="xs" color="alternative" onclick={() => void app.store.flush()}>Try again</Button>
    <Button size="xs" onclick={() => onexport()}>Export now</Button>
  </div>
{:else}
  <span class="label mr-2" aria-live="off">{words}</span>
{/if}
