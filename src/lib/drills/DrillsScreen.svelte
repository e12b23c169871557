<script lang="ts">
  import { Button } from 'flowbite-svelte';
  import { drills } from '$core/drills/kinds';
  import { writeDrillsCsv } from '$core/formats/drillsCsv';
  import { figureWords } from '$core/drills/kinds';
  import { dateText } from '$lib/controls/dates';
  import { saveBlob } from '$lib/controls/download';
  import { getApp } from '$lib/state/app.svelte';
  import { resultsOf } from './results';
  import TwoWeeks from './TwoWeeks.svelte';

  /** All drills, each with how it went last. */
  const app = getApp();
  const { unit } = $derived(app.settings.now);
  const results = $derived(resultsOf(app));
</script>

<main class="mx-auto max-w-[1280px] px-4 py-6">
  <h1 class="condensed text-[26px] leading-tight font-bold">Practice you can measure</h1>
  <p class="mt-1 max-w-2xl text-pretty text-soft">
    Each drill is set for your kit. Shoot it, import the frames, see what you got against what you should get, and one
    thing to work on. Photos and results stay in this browser.
  </p>
  <ol class="mt-5 border-t border-line" aria-label="Drills">
    {#each drills as drill, index (drill.id)}
      {@const own = results.filter((one) => one.drill === drill.id)}
      {@const last = own[0]}
      <li class="border-b border-line">
        <a
          href="/drills/{drill.id}"
          class="grid gap-x-6 gap-y-1 py-3 hover:bg-raised sm:grid-cols-[2.5rem_minmax(0,14rem)_minmax(0,1fr)_minmax(0,14rem)]"
        >
          <span class="condensed text-[21px] leading-tight font-bold text-soft tabular-nums">{index + 1}</span>
          <span class="condensed text-[21px] leading-tight font-bold">{drill.title}</span>
          <span class="text-pretty">{drill.purpose}</span>
          <span class="text-soft tabular-nums sm:text-right">
            {#if last}{figureWords(last, unit)}, {dateText(last.madeAt)}{:else}{drill.minutes} minutes{/if}
          </span>
        </a>
      </li>
    {/each}
  </ol>
  {#if results.length > 0}
    <div class="mt-4">
      <Button
        color="alternative"
        onclick={() => saveBlob(new Blob([writeDrillsCsv(results)], { type: 'text/csv' }), 'Focalis-drills.csv')}
        >All results as CSV</Button
      >
    </div>
  {/if}
  <TwoWeeks />
</main>
