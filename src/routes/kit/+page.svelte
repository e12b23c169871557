<script lang="ts">
  import { onMount } from 'svelte';
  import KitScreen from '$lib/kit/KitScreen.svelte';
  import Header from '$lib/shell/Header.svelte';
  import { getApp } from '$lib/state/app.svelte';

  const app = getApp();
  // The header speaks of a job: the one at hand, else the one last worked in.
  onMount(() => void app.openLast());
</script>

<svelte:head><title>Kit · Focalis</title></svelte:head>

<Header jobId={app.open.id ?? ''} page="kit" />
<KitScreen />
