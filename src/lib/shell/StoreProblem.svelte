<script lang="ts">
  import { Button } from 'flowbite-svelte';
  import type { StoreProblem } from '$lib/data';

  /** Why the store cannot be used, and what to do. */
  let { problem }: { problem: StoreProblem } = $props();
  const words = $derived.by((): { title: string; advice: string } => {
    switch (problem.kind) {
      case 'blocked':
        return {
          title: 'Another tab is in the way.',
          advice: 'An older Focalis is open in another tab. Close it, and this one goes on by itself.'
        };
      case 'outdated':
        return {
          title: 'A newer Focalis is open in another tab.',
          advice: 'It has updated your saved data. Reload this tab to continue; nothing is lost.'
        };
      case 'cleared':
        return {
          title: 'The browser’s storage was cleared.',
          advice: 'Reload this tab to start again, and restore your jobs from a backup in Settings.'
        };
      case 'newer':
        return {
          title: 'Your store is from a newer Focalis.',
          advice: 'This one cannot read it, and leaves it alone. Open the newer Focalis, or update this one.'
        };
      case 'silent':
        return {
          title: 'Can’t reach this browser’s storage.',
          advice: 'Close other Focalis tabs and reload. If that doesn’t help, restart the browser.'
        };
      case 'failed':
        return {
          title: 'The browser’s store cannot be opened.',
          advice: `${problem.reason} Private windows and full disks are the usual causes. Open Focalis in an ordinary window, or free some space.`
        };
    }
  });
</script>

<main class="mx-auto max-w-lg p-10" role="alert">
  <h1 class="condensed text-2xl font-bold">{words.title}</h1>
  <p class="mt-2 text-pretty">{words.advice}</p>
  {#if problem.kind !== 'newer'}
    <Button class="mt-4" onclick={() => location.reload()}>Load again</Button>
  {/if}
</main>
