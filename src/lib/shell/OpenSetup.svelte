<script lang="ts">
  import type { Snippet } from 'svelte';
  import { getApp } from '$lib/state/app.svelte';
  import type { SetupRow } from '$lib/state/job/openJob.svelte';
  import Missing from './Missing.svelte';

  /** Has the job of a setup at hand, and shows the setup; or says that there is none. */
  let { id, children }: { id: string; children: Snippet<[SetupRow]> } = $props();
  const app = getApp();
  const row = $derived(app.open.row(id));
  let missing = $state('');
  $effect(() => {
    if (row) return;
    const asked = id;
    void app.openSetup(asked).then((found) => (missing = found ? '' : asked));
  });
</script>

{#if row}
  {@render children(row)}
{:else if missing === id}
  <Missing />
{/if}
