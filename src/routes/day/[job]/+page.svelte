<script lang="ts">
  import { Button } from 'flowbite-svelte';
  import { ArrowDown, ArrowUp, Copy, Plus, Trash2 } from '@lucide/svelte';
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import { callSentence, conflictSentences, noPlanWords, oddsWords } from '$core/words/call';
  import type { TemplateChoices } from '$core/setup/templates';
  import type { SetupRow } from '$lib/data';
  import Header from '$lib/shell/Header.svelte';
  import JobFields from '$lib/shell/JobFields.svelte';
  import Missing from '$lib/shell/Missing.svelte';
  import NewSetupDialog from '$lib/shell/NewSetupDialog.svelte';
  import TemplateChoice from '$lib/shell/TemplateChoice.svelte';
  import Thumbnail from '$lib/strip/Thumbnail.svelte';
  import { getApp } from '$lib/state/app.svelte';

  const app = getApp();
  const jobId = $derived(page.params['job'] ?? '');
  const job = $derived(app.job(jobId));
  const rows = $derived(app.setupsOf(jobId));
  let adding = $state(false);

  async function add(choices: TemplateChoices) {
    await goto(`/setup/${await app.addSetup(jobId, choices)}`);
  }

  function words(row: SetupRow): { call: string; more: string } {
    const plan = app.plan(row);
    if (plan.kind === 'noPlan') {
      const { title, advice } = noPlanWords(plan.reason, app.settings.unit);
      return { call: title, more: advice };
    }
    const entry = plan.stops[plan.selected];
    const more =
      conflictSentences(plan)?.wishes ?? `${oddsWords(entry?.odds ?? 0)} keeper odds with the ${plan.lensName}`;
    return { call: callSentence(plan, app.settings.unit), more };
  }
</script>

<svelte:head><title>{job ? `${job.name} · Focalis` : 'Focalis'}</title></svelte:head>

{#if job}
  <Header {jobId} page="day" />
  <main class="mx-auto w-full max-w-5xl px-4 py-6">
    <JobFields {jobId} {job} />
    {#if rows.length === 0}
      <section class="mx-auto mt-10 max-w-md">
        <h2 class="condensed mb-3 text-2xl font-bold">What are you shooting?</h2>
        <TemplateChoice onchoose={add} />
        <p class="label mt-3">You get a usable answer at once, on defaults you can change.</p>
      </section>
    {:else}
      <ol class="mt-5 border-b border-line">
        {#each rows as row, index (row.id)}
          {@const said = words(row)}
          <li class="flex items-center gap-4 border-t border-line py-2.5">
            <span class="w-5 text-right text-soft">{index + 1}</span>
            <a href="/setup/{row.id}" class="flex min-w-0 flex-1 items-center gap-4">
              <Thumbnail {row} />
              <span class="min-w-0">
                <span class="condensed block text-[17px] font-semibold">{row.setup.name}</span>
                <span class="block text-[14px]">{said.call}</span>
                <span class="block truncate text-soft">{said.more}</span>
              </span>
            </a>
            <span class="flex">
              {#each [{ icon: ArrowUp, name: 'Move up', by: -1 as const, off: index === 0 }, { icon: ArrowDown, name: 'Move down', by: 1 as const, off: index === rows.length - 1 }] as move (move.name)}
                <button
                  type="button"
                  class="grid size-8 place-items-center disabled:opacity-30"
                  disabled={move.off}
                  aria-label="{move.name}: {row.setup.name}"
                  onclick={() => app.moveSetup(row, move.by)}
                >
                  <move.icon size={16} aria-hidden="true" />
                </button>
              {/each}
              <button
                type="button"
                class="grid size-8 place-items-center"
                aria-label="Copy {row.setup.name}"
                onclick={() => app.duplicateSetup(row)}
              >
                <Copy size={16} aria-hidden="true" />
              </button>
              <button
                type="button"
                class="grid size-8 place-items-center"
                aria-label="Remove {row.setup.name}"
                onclick={() => app.removeSetup(row)}
              >
                <Trash2 size={16} aria-hidden="true" />
              </button>
            </span>
          </li>
        {/each}
      </ol>
      <Button color="alternative" class="mt-4" onclick={() => (adding = true)}>
        <Plus size={14} aria-hidden="true" class="mr-1" />Setup
      </Button>
    {/if}
  </main>
  <NewSetupDialog bind:open={adding} onchoose={add} />
{:else}
  <Missing />
{/if}
