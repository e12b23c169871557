<script lang="ts">
  import { onMount } from 'svelte';
  import { page } from '$app/state';
  import { drills } from '$core/drills/kinds';
  import DrillScreen from '$lib/drills/DrillScreen.svelte';
  import Header from '$lib/shell/Header.svelte';
  import { getApp } from '$lib/state/app.svelte';

  const app = getApp();
  onMount(() => void app.openLast());
  const drill = $derived(drills.find(({ id }) => id === page.params.drill));
</script>

<svelte:head><title>{drill?.title ?? 'Drills'} · Focalis</title></svelte:head>

<Header jobId={app.open.id ?? ''} page="drills" />
{#if drill}
  {#key drill.id}<DrillScreen {drill} />{/key}
{:else}
  <main class="mx-auto max-w-[1280px] px-4 py-6">
    <h1 class="condensed text-[26px] font-bold">There is no such drill.</h1>
    <p class="mt-2"><a class="underline" href="/drills">All drills</a></p>
  </main>
{/if}
