<script lang="ts">
  import { trialRun } from '$core/words/frames';
  import { Button } from 'flowbite-svelte';
  import { isInUse, latestLearned, withLearned, type LearnedAt } from '$core/drills/series/learned';
  import { learnedWords } from '$core/drills/kinds/learnedWords';
  import { dateText } from '$lib/controls/dates';
  import { resultsOf } from '$lib/drills/results';
  import { getApp } from '$lib/state/app.svelte';

  interface Props {
    /** Of one's own frames, or of the simulated camera's. */
    simulated: boolean;
    /** Of its heading. */
    level: 2 | 3;
  }
  /** What the drills say of one's own hands; the plans take it where it is asked for. */
  let { simulated, level }: Props = $props();
  const app = getApp();
  const { unit, habits } = $derived(app.settings.now);
  const all = $derived(latestLearned(resultsOf(app).filter((one) => one.simulated === simulated)));
  function use(one: LearnedAt) {
    const step = app.settings.edit('Drill result used', { habits: withLearned(habits, one, one.stance) });
    app.messages.done('The plans reckon with it.', step);
  }
</script>

{#if all.length > 0}
  <svelte:element this={`h${level}`} class="mt-4 font-semibold"
    >From your drills{simulated ? ', simulated' : ''}</svelte:element
  >
  {#if simulated}<p class="text-soft">{trialRun('hands')}</p>{/if}
  <ul class="mt-1" data-testid="drill-figures">
    {#each all as one (`${one.what} ${one.stance ?? ''}`)}
      <li class="flex items-center justify-between gap-4 border-b border-line py-1">
        <span class="text-pretty"
          >{learnedWords(one, unit)}, {dateText(one.madeAt)}{one.times > 1 ? `, the latest of ${one.times}` : ''}</span
        >
        {#if isInUse(habits, one, one.stance)}
          <span class="whitespace-nowrap text-soft">in use</span>
        {:else}
          <Button size="xs" color="alternative" onclick={() => use(one)}>Use it</Button>
        {/if}
      </li>
    {/each}
  </ul>
{/if}
