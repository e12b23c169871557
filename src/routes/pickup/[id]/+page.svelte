<script lang="ts">
  import { Button } from 'flowbite-svelte';
  import { onMount } from 'svelte';
  import { goto, replaceState } from '$app/navigation';
  import { page } from '$app/state';
  import { canSeal } from '$lib/state/transfer/sealed';
  import { getApp } from '$lib/state/app.svelte';

  const app = getApp();
  const { travel } = app;
  const place = $derived(page.params['id'] ?? '');
  let secret = $state('');
  // The key is in memory only from here on: not in the history, not in what is shared of the address.
  onMount(() => {
    secret = location.hash.slice(1);
    if (secret !== '') setTimeout(() => replaceState(location.pathname, {}));
  });

  async function collect() {
    const path = await travel.collect(place, secret);
    if (path) await goto(path, { replaceState: true });
  }
</script>

<svelte:head><title>Collect a job · Focalis</title></svelte:head>

<main class="mx-auto flex min-h-dvh max-w-md flex-col justify-center gap-5 px-4 py-8">
  <h1 class="condensed text-[34px] leading-tight font-bold">A job waits for this device.</h1>
  {#if !canSeal()}
    <p class="text-[17px] text-pretty">
      It is encrypted, and this page may not open it: the address must begin with https. Take the job along as a file
      instead.
    </p>
  {:else}
    <p class="text-[17px] text-pretty">
      It is stored in this browser and works without a network. If the job is here already, it becomes as it is there;
      what you have done here since stays.
    </p>
    <Button class="h-14 text-[19px]" onclick={() => void collect()} disabled={travel.busy !== ''}>Collect</Button>
    {#if travel.busy !== ''}<p role="status">{travel.busy} …</p>{/if}
  {/if}
  <a href="/" class="min-h-11 content-center underline">To Focalis</a>
</main>
