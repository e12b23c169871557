<script lang="ts">
  import { Button } from 'flowbite-svelte';
  import Progress from '$lib/controls/Progress.svelte';
  import { getApp } from '$lib/state/app.svelte';

  /** An import under way; one that is over at once is not shown. */
  const app = getApp();
  const shownAfterMs = 300;
  let slow = $state(false);
  const busy = $derived(app.files.importing !== null);
  $effect(() => {
    if (!busy) return;
    const timer = setTimeout(() => (slow = true), shownAfterMs);
    return () => {
      clearTimeout(timer);
      slow = false;
    };
  });
</script>

{#if slow && app.files.importing !== null}
  <div class="fixed inset-x-0 bottom-4 z-50 flex justify-center px-4">
    <div class="flex items-center gap-4 border border-line bg-raised px-4 py-2">
      <Progress label="Reading the job file" share={app.files.importing} />
      <Button size="xs" color="alternative" onclick={() => app.files.cancelImport()}>Cancel</Button>
    </div>
  </div>
{/if}
