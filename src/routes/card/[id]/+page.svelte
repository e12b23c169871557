<script lang="ts">
  import { page } from '$app/state';
  import FieldCard from '$lib/fieldCard/Pocket.svelte';
  import OpenSetup from '$lib/shell/OpenSetup.svelte';
  import { getApp } from '$lib/state/app.svelte';

  const app = getApp();
  const id = $derived(page.params['id'] ?? '');
  const name = $derived(app.open.row(id)?.setup.name);
</script>

<svelte:head><title>{name === undefined ? 'Focalis' : `${name}, field card · Focalis`}</title></svelte:head>

<OpenSetup {id}>
  {#snippet children(row)}{#key row.id}<FieldCard {row} />{/key}{/snippet}
</OpenSetup>
