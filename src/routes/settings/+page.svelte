<script lang="ts">
  import { onMount } from 'svelte';
  import Header from '$lib/shell/Header.svelte';
  import SettingsScreen from '$lib/settings/SettingsScreen.svelte';
  import { getApp } from '$lib/state/app.svelte';

  const app = getApp();
  onMount(() => void app.openLast());
</script>

<svelte:head><title>Settings · Focalis</title></svelte:head>

<Header jobId={app.open.id ?? ''} page="settings" />
<SettingsScreen />
