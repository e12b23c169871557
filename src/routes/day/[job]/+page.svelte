<script lang="ts">
  import { Button } from 'flowbite-svelte';
  import { Plus } from '@lucide/svelte';
  import { WindowVirtualizer } from 'virtua/svelte';
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import type { TemplateChoices } from '$core/setup/templates';
  import Header from '$lib/shell/Header.svelte';
  import JobFields from '$lib/shell/JobFields.svelte';
  import Missing from '$lib/shell/Missing.svelte';
  import NewSetupDialog from '$lib/shell/NewSetupDialog.svelte';
  import TemplateChoice from '$lib/shell/TemplateChoice.svelte';
  import DayRow from '$lib/day/DayRow.svelte';
  import { getApp } from '$lib/state/app.svelte';

  const app = getApp();
  const jobId = $derived(page.params['job'] ?? '');
  const job = $derived(app.store.table('jobs').get(jobId)?.value ?? (app.open.id === jobId ? app.open.job : undefined));
  const isOpen = $derived(app.open.id === jobId);
  const rows = $derived(isOpen ? app.open.rows : []);
  let adding = $state(false);
  $effect(() => {
    if (job && !isOpen) void app.openJob(jobId);
  });

  async function add(choices: TemplateChoices) {
    const added = app.setups.add(choices);
    if (added) await goto(`/setup/${added}?new=${choices.template}`);
  }
</script>

<svelte:head><title>{job ? `${job.name} · Focalis` : 'Focalis'}</title></svelte:head>

{#if job}
  <Header {jobId} page="day" />
  <main class="mx-auto w-full max-w-5xl px-4 py-6">
    <h1 class="sr-only">{job.name}</h1>
    <JobFields {jobId} {job} />
    {#if !isOpen}
      <p class="label mt-10">Reading the job.</p>
    {:else if rows.length === 0}
      <section class="mx-auto mt-8 max-w-2xl">
        <h2 class="condensed mb-3 text-2xl font-bold">What are you shooting?</h2>
        <TemplateChoice onchoose={add} />
        <p class="label mt-3">One press gives a usable answer; everything about it can be changed then.</p>
      </section>
    {:else}
      <div class="mt-5 border-b border-line" role="list" aria-label="Setups in order">
        <WindowVirtualizer data={rows} getKey={(row) => row.id} itemSize={85} bufferSize={500}>
          {#snippet children(row, index)}
            <DayRow {row} {index} count={rows.length} />
          {/snippet}
        </WindowVirtualizer>
      </div>
      <Button color="alternative" class="mt-4" onclick={() => (adding = true)}>
        <Plus size={14} aria-hidden="true" class="mr-1" />Setup
      </Button>
    {/if}
  </main>
  <NewSetupDialog bind:open={adding} onchoose={add} />
{:else}
  <Missing />
{/if}
