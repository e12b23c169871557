<script lang="ts">
  import { page } from '$app/state';
  import FieldCard from '$lib/card/FieldCard.svelte';
  import Missing from '$lib/shell/Missing.svelte';
  import { getApp } from '$lib/state/app.svelte';

  const app = getApp();
  const row = $derived(app.row(page.params['id'] ?? ''));
</script>

<svelte:head><title>{row ? `${row.setup.name}, field card · Focalis` : 'Focalis'}</title></svelte:head>

{#if row}<FieldCard {row} />{:else}<Missing />{/if}
