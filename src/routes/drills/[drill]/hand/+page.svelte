<script lang="ts">
  import { onMount } from 'svelte';
  import { page } from '$app/state';
  import { stances } from '$core/setup/schema';
  import { drills } from '$core/drills/kinds';
  import CardDrill from '$lib/drills/CardDrill.svelte';
  import { KitInUse } from '$lib/kit/usedKit.svelte';
  import { getApp } from '$lib/state/app.svelte';

  const app = getApp();
  onMount(() => void app.openLast());
  const drill = $derived(drills.find(({ id }) => id === page.params.drill));
  const kit = new KitInUse(app, {
    bodyId: page.url.searchParams.get('body') ?? '',
    lensId: page.url.searchParams.get('lens') ?? ''
  });
  /** As one stands, where that is what is measured. */
  const stance = stances.find((one) => one === page.url.searchParams.get('stance')) ?? 'tripod';
</script>

<svelte:head><title>{drill?.title ?? 'Drills'}, step by step · Focalis</title></svelte:head>

{#if drill && kit.body && kit.lens}
  {#key drill.id}<CardDrill {drill} {stance} body={kit.body} lens={kit.lens} />{/key}
{:else}
  <main class="px-4 py-6">
    <h1 class="condensed text-[26px] font-bold">
      {drill ? 'A body and a lens are needed first: they are in the Kit.' : 'There is no such drill.'}
    </h1>
    <p class="mt-2"><a class="underline" href="/drills">All drills</a></p>
  </main>
{/if}
