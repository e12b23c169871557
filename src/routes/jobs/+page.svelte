<script lang="ts">
  import { Button, Input, Label } from 'flowbite-svelte';
  import { goto } from '$app/navigation';
  import type { Job } from '$core/job/schema';
  import type { Row } from '$lib/data';
  import { dateWords } from '$lib/controls/dates';
  import Header from '$lib/shell/Header.svelte';
  import { getApp } from '$lib/state/app.svelte';

  const app = getApp();
  const { jobs } = app;
  let searched = $state('');
  let counts = $state.raw<ReadonlyMap<string, number>>(new Map());
  $effect(() => {
    void jobs.list;
    void jobs.counts().then((found) => (counts = found));
  });
  $effect(() => void app.openLast());

  const shelves = $derived([
    { title: 'Jobs', rows: found(jobs.current), none: 'No job is open.' },
    { title: 'Templates of your own', rows: found(jobs.templates), none: '' },
    { title: 'Archived', rows: found(jobs.archived), none: '' }
  ]);
  /** The latest date first; without one, the latest made. */
  function found(rows: readonly Row<Job>[]): readonly Row<Job>[] {
    const words = searched.toLocaleLowerCase().split(/\s+/).filter(Boolean);
    return rows
      .filter(({ value }) => {
        const text = `${value.name} ${value.date ?? ''} ${value.notes}`.toLocaleLowerCase();
        return words.every((word) => text.includes(word));
      })
      .sort((a, b) => (b.value.date ?? '').localeCompare(a.value.date ?? '') || b.position - a.position);
  }

  async function go(job: Promise<string | null>) {
    const id = await job;
    if (id) await goto(`/day/${id}`);
  }
</script>

<svelte:head><title>Jobs · Focalis</title></svelte:head>

<Header jobId={app.open.id ?? ''} page="jobs" />
<main class="mx-auto w-full max-w-4xl px-4 py-5">
  <div class="flex flex-wrap items-end gap-4">
    <h1 class="condensed text-[24px] leading-tight font-bold">Jobs</h1>
    <div class="ml-auto w-60">
      <Label for="job-search">Search by name, date or notes</Label>
      <Input id="job-search" type="search" bind:value={searched} autocomplete="off" />
    </div>
    <Button onclick={() => void go(jobs.start())}>New job</Button>
  </div>
  {#each shelves as shelf (shelf.title)}
    {#if shelf.rows.length > 0 || (shelf.none !== '' && searched === '')}
      <section class="mt-6" aria-label={shelf.title}>
        {#if shelf.title !== 'Jobs'}<h2 class="condensed mb-1 text-[18px] font-bold">{shelf.title}</h2>{/if}
        <ul class="border-b border-line">
          {#each shelf.rows as row (row.id)}
            {@const count = counts.get(row.id)}
            <li class="flex min-h-14 flex-wrap items-center gap-x-4 gap-y-1 border-t border-line py-2">
              <a href="/day/{row.id}" class="min-w-0 flex-1">
                <span class="condensed block truncate text-[17px] font-semibold">{row.value.name}</span>
                <span class="block text-soft">
                  {[
                    row.value.date === null ? '' : dateWords(row.value.date),
                    count === undefined ? '' : `${count} ${count === 1 ? 'picture' : 'pictures'}`
                  ]
                    .filter(Boolean)
                    .join(' · ')}
                </span>
              </a>
              <span class="flex flex-wrap gap-2">
                {#if row.value.state === 'template'}
                  <Button
                    color="alternative"
                    onclick={() => void go(jobs.duplicate(row.id, 'fromTemplate'))}
                    aria-label="Start a job from {row.value.name}">Start a job</Button
                  >
                {:else}
                  <Button
                    color="alternative"
                    onclick={() => void jobs.duplicate(row.id, 'copy')}
                    aria-label="Duplicate {row.value.name}">Duplicate</Button
                  >
                  {#if row.value.state === 'open'}
                    <Button
                      color="alternative"
                      onclick={() => void jobs.duplicate(row.id, 'template')}
                      aria-label="Keep as template: {row.value.name}">Keep as template</Button
                    >
                  {/if}
                  <Button
                    color="alternative"
                    onclick={() => jobs.archive(row.id, row.value.state === 'open')}
                    aria-label="{row.value.state === 'open' ? 'Archive' : 'Open again'} {row.value.name}"
                    >{row.value.state === 'open' ? 'Archive' : 'Open again'}</Button
                  >
                {/if}
                <Button color="alternative" onclick={() => jobs.remove(row.id)} aria-label="Remove {row.value.name}"
                  >Remove</Button
                >
              </span>
            </li>
          {:else}
            <li class="border-t border-line py-3 text-soft">{shelf.none}</li>
          {/each}
        </ul>
      </section>
    {/if}
  {/each}
  {#if searched !== '' && shelves.every((shelf) => shelf.rows.length === 0)}
    <p class="mt-6">Nothing is called so.</p>
  {/if}
</main>
