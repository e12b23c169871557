<script lang="ts">
  import { Button } from 'flowbite-svelte';
  import { Plus } from '@lucide/svelte';
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import { betterOrderWords, costWords, dayTitle } from '$core/words/day';
  import type { TemplateChoices } from '$core/setup/templates';
  import HowComputed from '$lib/controls/HowComputed.svelte';
  import OnceOpen from '$lib/controls/OnceOpen.svelte';
  import Header from '$lib/shell/Header.svelte';
  import JobFields from '$lib/shell/JobFields.svelte';
  import Missing from '$lib/shell/Missing.svelte';
  import NewSetupDialog from '$lib/shell/NewSetupDialog.svelte';
  import TemplateChoice from '$lib/shell/TemplateChoice.svelte';
  import BagPanel from '$lib/day/BagPanel.svelte';
  import CastPanel from '$lib/day/CastPanel.svelte';
  import ChosenPanel from '$lib/day/ChosenPanel.svelte';
  import DayList from '$lib/day/DayList.svelte';
  import { getApp } from '$lib/state/app.svelte';

  const app = getApp();
  const jobId = $derived(page.params['job'] ?? '');
  const job = $derived(app.store.table('jobs').get(jobId)?.value ?? (app.open.id === jobId ? app.open.job : undefined));
  const isOpen = $derived(app.open.id === jobId);
  const { day } = app;
  let adding = $state(false);
  let taking = $state(false);
  let listing = $state(false);
  let chosen = $state.raw<readonly string[]>([]);
  const still = $derived(chosen.filter((id) => app.open.row(id)));
  $effect(() => {
    if (job && !isOpen) void app.openJob(jobId);
  });

  async function sendBack() {
    if (await app.travel.sendBack())
      app.messages.done('Sent. It waits ten minutes: click “Receive” where it came from.');
  }
  async function add(choices: TemplateChoices) {
    const added = app.setups.add(choices);
    if (added) await goto(`/setup/${added}?new=${choices.template}`);
  }
</script>

<svelte:head><title>{job ? `${job.name} · Focalis` : 'Focalis'}</title></svelte:head>

{#if job}
  <Header {jobId} page="day" />
  <main class="mx-auto w-full max-w-[1400px] px-4 py-5">
    <h1 class="sr-only">{job.name}</h1>
    {#if !isOpen}
      <p class="label mt-10">Reading the job.</p>
    {:else if day.items.length === 0}
      <JobFields {jobId} {job} />
      <section class="mx-auto mt-8 max-w-2xl">
        <h2 class="condensed mb-3 text-2xl font-bold">What are you shooting?</h2>
        <TemplateChoice onchoose={add} />
        <p class="label mt-3">Pick one to get a usable plan. You can change all of it afterwards.</p>
        <Button color="alternative" class="mt-3" onclick={() => (listing = true)}>Import a shot list…</Button>
      </section>
    {:else}
      <div class="grid gap-x-10 gap-y-8 lg:grid-cols-[minmax(0,1fr)_21rem]">
        <div class="min-w-0">
          <div class="mb-3 flex flex-wrap items-baseline gap-x-5 gap-y-1">
            <h2 class="condensed text-[24px] leading-tight font-bold">{dayTitle(day.table)}</h2>
            <p class="text-soft" data-testid="day-cost">{costWords(day.table)}<HowComputed of="cost" /></p>
            <span class="flex gap-2 lg:order-last lg:ml-auto">
              {#if app.travel.came}
                <Button color="alternative" disabled={app.travel.busy !== ''} onclick={sendBack}>Send back</Button>
              {/if}
              {#if app.travel.sent.length > 0}
                <Button
                  color="alternative"
                  disabled={app.travel.busy !== ''}
                  onclick={() => void app.travel.bringBack()}>Receive</Button
                >
              {/if}
              <Button color="alternative" onclick={() => (listing = true)}>Print and export</Button>
              <Button onclick={() => (taking = true)}>Send to phone</Button>
            </span>
            {#if day.better}
              {@const better = day.better}
              <button
                type="button"
                class="min-h-6 text-left font-medium underline decoration-1 underline-offset-3"
                onclick={() =>
                  day.reorder(
                    better.items.map((item) => item.id),
                    betterOrderWords(better).split(':')[0]
                  )}>{betterOrderWords(better)}</button
              >
            {/if}
          </div>
          <DayList chosen={still} onchoose={(ids) => (chosen = ids)} />
          <Button color="alternative" class="mt-4" onclick={() => (adding = true)}>
            <Plus size={14} aria-hidden="true" class="mr-1" />Setup
          </Button>
        </div>
        <aside class="min-w-0" aria-label="About the day">
          {#if still.length > 0}<ChosenPanel chosen={still} onclear={() => (chosen = [])} />{/if}
          <BagPanel />
          {#await import('$lib/day/AlikePanel.svelte') then { default: AlikePanel }}<AlikePanel />{/await}
          <CastPanel />
          <section aria-labelledby="job-title">
            <h2 id="job-title" class="condensed mb-2 text-[18px] font-bold">The job</h2>
            <JobFields {jobId} {job} narrow />
          </section>
        </aside>
      </div>
    {/if}
  </main>
  <OnceOpen open={taking}>
    {#await import('$lib/day/TakeAlong.svelte') then { default: TakeAlong }}<TakeAlong bind:open={taking} />{/await}
  </OnceOpen>
  <OnceOpen open={listing}>
    {#await import('$lib/day/FilesDialog.svelte') then { default: FilesDialog }}<FilesDialog
        bind:open={listing}
        chosen={still}
      />{/await}
  </OnceOpen>
  <NewSetupDialog bind:open={adding} onchoose={add} />
{:else}
  <Missing />
{/if}
