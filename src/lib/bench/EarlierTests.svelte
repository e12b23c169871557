<script lang="ts" generics="T extends BenchTest">
  import type { BenchTest } from '$core/bench/schema';
  import { dateText } from '$lib/controls/dates';

  interface Props {
    title: string;
    testid: string;
    tests: readonly T[];
    words: (test: T) => string;
  }
  /** What was measured before, the latest first: before and after an adjustment, or another copy. */
  let { title, testid, tests, words }: Props = $props();
</script>

{#if tests.length > 0}
  <h2 class="condensed mt-6 text-[21px] leading-tight font-bold">{title}</h2>
  <ul class="mt-1" data-testid={testid}>
    {#each tests as test (test.id)}
      <li class="flex flex-wrap justify-between gap-x-4 border-b border-line py-1">
        <span>{dateText(test.madeAt)}{test.simulated ? ', simulated' : ''}</span>
        <span class="tabular-nums">{words(test)}</span>
      </li>
    {/each}
  </ul>
{/if}
