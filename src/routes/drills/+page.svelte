<script lang="ts">
  import { onMount } from 'svelte';
  import DrillsScreen from '$lib/drills/DrillsScreen.svelte';
  import Header from '$lib/shell/Header.svelte';
  import { getApp } from '$lib/state/app.svelte';

  const app = getApp();
  onMount(() => void app.openLast());
</script>

<svelte:head><title>Drills · Focalis</title></svelte:head>

<Header jobId={app.open.id ?? ''} page="drills" />
<DrillsScreen />
