<script lang="ts">
  import { onMount } from 'svelte';
  import { fortnightOf } from '$core/drills/fortnight';
  import type { Recorded } from '$core/record/schema';
  import { drillTitle } from '$core/drills/kinds';
  import { dayBecause, fortnightWords } from '$core/drills/deskWords';
  import HowComputed from '$lib/controls/HowComputed.svelte';
  import { getApp } from '$lib/state/app.svelte';
  import { resultsOf } from './results';

  /** A drill a day for two weeks, from what the record says is weakest. */
  const app = getApp();
  let record = $state.raw<readonly Recorded[] | null>(null);
  let simulated = $state(false);
  let problem = $state('');
  onMount(async () => {
    try {
      const { keepRecord } = await import('$lib/frames/recording');
      await keepRecord(app);
      const all = await app.record.all();
      const own = all.filter((frame) => !frame.simulated);
      // As the Record has it: one's own frames, unless there are only simulated ones.
      simulated = own.length === 0 && all.length > 0;
      record = simulated ? all : own;
    } catch (error) {
      problem = error instanceof Error ? error.message : String(error);
    }
  });
  const plan = $derived(record && fortnightOf(record, resultsOf(app)));
  /** Of each drill the first day says why. */
  const saidBefore = $derived((index: number) =>
    plan?.days.findIndex(({ drill }) => drill === plan?.days[index]?.drill)
  );
</script>

<section class="mt-8" aria-labelledby="two-weeks">
  <h2 id="two-weeks" class="condensed text-[21px] leading-tight font-bold">Your next two weeks</h2>
  {#if problem !== ''}
    <p class="mt-1 text-soft">The record could not be read: {problem}</p>
  {:else if plan}
    <p class="mt-1 max-w-2xl text-pretty text-soft" data-testid="two-weeks-why">
      {fortnightWords(plan, simulated)}<HowComputed of="fortnight" class="ml-1" />
    </p>
    <ol class="mt-3 grid gap-x-8 sm:auto-cols-fr sm:grid-flow-col sm:grid-rows-7" data-testid="two-weeks">
      {#each plan.days as day, index (day.day)}
        <li class="grid grid-cols-[2.5rem_minmax(0,1fr)] border-b border-line py-1">
          <span class="condensed text-[17px] leading-6 font-bold text-soft tabular-nums">{day.day}</span>
          <span class="min-w-0">
            <a class="inline-block min-h-6 leading-6 font-semibold underline" href="/drills/{day.drill}"
              >{drillTitle(day.drill)}</a
            >
            {#if day.day === plan.days.length}
              <span class="text-soft">again, to compare with the first day</span>
            {:else if saidBefore(index) === index && dayBecause(day) !== ''}
              <span class="text-soft">{dayBecause(day)}</span>
            {/if}
          </span>
        </li>
      {/each}
    </ol>
  {/if}
</section>
