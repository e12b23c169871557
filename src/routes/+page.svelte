<script lang="ts">
  import { onMount } from 'svelte';
  import { goto } from '$app/navigation';
  import { getApp } from '$lib/state/app.svelte';

  const app = getApp();
  // Straight to the picture last worked on; a profile without any job gets one to begin with.
  onMount(() => void app.firstPath().then((path) => goto(path, { replaceState: true })));
</script>
