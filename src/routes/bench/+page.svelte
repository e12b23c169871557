<script lang="ts">
  import { onMount } from 'svelte';
  import BenchScreen from '$lib/bench/BenchScreen.svelte';
  import Header from '$lib/shell/Header.svelte';
  import { getApp } from '$lib/state/app.svelte';

  const app = getApp();
  onMount(() => void app.openLast());
</script>

<svelte:head><title>Bench · Focalis</title></svelte:head>

<Header jobId={app.open.id ?? ''} page="bench" />
<BenchScreen />
