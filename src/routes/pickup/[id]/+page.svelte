<script lang="ts">
  import { Button } from 'flowbite-svelte';
  import { onMount } from 'svelte';
  import { goto, replaceState } from '$app/navigation';
  import { page } from '$app/state';
  import { canSeal } from '$lib/state/transfer/sealed';
  import { getApp } from '$lib/state/app.svelte';
  import { losesWork } from '$lib/state/transfer/arrival';
  import type { Arrival } from '$lib/state/transfer/transfer.svelte';

  const app = getApp();
  const { travel } = app;
  const place = $derived(page.params['id'] ?? '');
  let secret = $state('');
  // The key is in memory only from here on: not in the history, not in what is shared of the address.
  onMount(() => {
    secret = location.hash.slice(1);
    if (secret !== '') setTimeout(() => replaceState(location.pathname, {}));
  });

  /** What was fetched and would change something here: it waits for a yes. */
  let arrival = $state.raw<Arrival | null>(null);

  async function collect() {
    const fetched = await travel.fetchJob(place, secret);
    if (!fetched) return;
    if (losesWork(fetched)) arrival = fetched;
    else await accept(fetched);
  }
  async function accept(fetched: Arrival) {
    const path = await travel.accept(fetched);
    if (path) await goto(path, { replaceState: true });
  }
  async function cancel() {
    arrival = null;
    await goto('/jobs', { replaceState: true });
  }
</script>

<svelte:head><title>Collect a job · Focalis</title></svelte:head>

<main class="mx-auto flex min-h-dvh max-w-md flex-col justify-center gap-5 px-4 py-8">
  <h1 class="condensed text-[34px] leading-tight font-bold">A job waits for this device.</h1>
  {#if !canSeal()}
    <p class="text-[17px] text-pretty">
      It’s encrypted, and this page can’t open it: the address must begin with https. Export the job as a file instead.
    </p>
  {:else}
    {#if arrival}
      {@const { replaced, removed, file } = arrival}
      <div class="border-l-4 border-pencil pl-3" data-testid="arrival">
        <p class="text-[17px] font-medium">{file.job.name} is on this device already. Taking it changes it here:</p>
        <ul class="mt-2 text-[17px]">
          {#if replaced.length > 0}<li>{replaced.length} changed: {replaced.join(', ')}</li>{/if}
          {#if removed.length > 0}<li>{removed.length} removed: {removed.join(', ')}</li>{/if}
        </ul>
        <p class="mt-2 text-soft">The job as it is here now is kept for thirty days, under Jobs.</p>
      </div>
      <Button class="h-14 text-[19px]" onclick={() => arrival && void accept(arrival)} disabled={travel.busy !== ''}
        >Update the job here</Button
      >
      <Button color="alternative" class="h-14 text-[19px]" onclick={() => void cancel()}>Cancel</Button>
    {:else}
      <p class="text-[17px] text-pretty">
        It’s stored in this browser and works offline. If the job is here already, the two are merged; you see what
        changes first.
      </p>
      <Button class="h-14 text-[19px]" onclick={() => void collect()} disabled={travel.busy !== ''}>Collect</Button>
    {/if}
    {#if travel.busy !== ''}<p role="status">{travel.busy} …</p>{/if}
  {/if}
  {#if !arrival}<a href="/" class="min-h-11 content-center underline">To Focalis</a>{/if}
</main>
