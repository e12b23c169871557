<script lang="ts">
  import { Button } from 'flowbite-svelte';
  import Dialog from '$lib/controls/Dialog.svelte';
  import { removedKeptMs, type Row } from '$lib/data';
  import { getApp } from '$lib/state/app.svelte';

  /** Jobs that were removed, for as long as they are kept. */
  let { open = $bindable(false) }: { open: boolean } = $props();
  const app = getApp();
  let erasing = $state('');

  const until = (row: Row) =>
    new Date((row.removedAt ?? 0) + removedKeptMs).toLocaleDateString([], { dateStyle: 'long' });
</script>

<Dialog bind:open title="Removed jobs" size="sm">
  {#if app.jobs.removed.length === 0}
    <p>Nothing has been removed.</p>
  {:else}
    <ul class="divide-y divide-line border-y border-line">
      {#each app.jobs.removed as row (row.id)}
        <li class="flex items-center gap-3 py-2">
          <p class="min-w-0 flex-1">
            <span class="block truncate font-semibold">{row.value.name}</span>
            <span class="label">kept until {until(row)} at least</span>
          </p>
          {#if erasing === row.id}
            <p>For good?</p>
            <Button size="xs" onclick={() => void app.jobs.erase(row)}>Erase</Button>
            <Button size="xs" color="alternative" onclick={() => (erasing = '')}>Keep</Button>
          {:else}
            <Button
              size="xs"
              color="alternative"
              aria-label="Restore {row.value.name}"
              onclick={() => void app.jobs.bringBack(row)}>Restore</Button
            >
            <Button
              size="xs"
              color="alternative"
              aria-label="Erase {row.value.name} now"
              onclick={() => (erasing = row.id)}>Erase now</Button
            >
          {/if}
        </li>
      {/each}
    </ul>
  {/if}
</Dialog>
