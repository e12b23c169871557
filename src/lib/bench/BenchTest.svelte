<script lang="ts">
  import { getApp } from '$lib/state/app.svelte';
  import type { Body, Lens } from '$core/kit/schema';
  import { BenchRun } from './benchRun.svelte';
  import EarlierTests from './EarlierTests.svelte';
  import type { ListedBenchKind } from './kinds';
  import Lacking from './Lacking.svelte';
  import Refused from './Refused.svelte';
  import SeriesTools from './SeriesTools.svelte';

  interface Props {
    kind: ListedBenchKind;
    body: Body;
    lens: Lens;
  }
  /** One test: what it says, pictures in, and what was measured before. A component of its own for each kind, body and lens. */
  let { kind, body, lens }: Props = $props();
  // svelte-ignore state_referenced_locally
  const run = new BenchRun(getApp(), kind, body, lens);
  // svelte-ignore state_referenced_locally
  const { Said, Beside, Before } = kind;
  const whose = { pair: 'pair', lens: 'lens', body: 'body' } as const;
</script>

{#snippet test()}
  <Said {run} />
  <SeriesTools
    series={run.series}
    label={kind.pictures}
    sheet={kind.sheet}
    onfiles={run.add}
    onsimulate={() => void run.simulate()}
  >
    {#if Before}<Before {run} />{/if}
  </SeriesTools>
  <Lacking items={run.lacking} {lens} each={kind.ownStops} busy={run.busy} onfill={run.again} />
  {#if !Beside}<Refused items={run.refused} onremove={(id) => run.series.remove(id)} />{/if}
  <EarlierTests
    title="Earlier tests of this {whose[kind.of]}"
    testid="earlier-tests"
    tests={run.earlier}
    words={(one) => kind.earlierText(one, run)}
  />
{/snippet}

{#if Beside}
  <div class="grid gap-x-8 gap-y-4 lg:grid-cols-2">
    <section aria-label="The sheet" class="min-w-0"><Beside {run} /></section>
    <section aria-label={kind.name} class="min-w-0">{@render test()}</section>
  </div>
{:else}
  <section aria-label={kind.name}>{@render test()}</section>
{/if}
