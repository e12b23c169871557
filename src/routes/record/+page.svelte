<script lang="ts">
  import { onMount } from 'svelte';
  import RecordScreen from '$lib/record/RecordScreen.svelte';
  import Header from '$lib/shell/Header.svelte';
  import { getApp } from '$lib/state/app.svelte';

  const app = getApp();
  onMount(() => void app.openLast());
</script>

<svelte:head><title>Record · Focalis</title></svelte:head>

<Header jobId={app.open.id ?? ''} page="record" />
<RecordScreen />
