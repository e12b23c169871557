<script lang="ts">
  import { trialRun } from '$core/words/frames';
  import { Button } from 'flowbite-svelte';
  import { leastFieldFrames } from '$core/bench/fieldCurve';
  import { edgeDistances } from '$core/bench/guide';
  import { formatLength } from '$core/units/length';
  import { fieldProblems, shortLength } from '$core/words/bench';
  import HowComputed from '$lib/controls/HowComputed.svelte';
  import type { FieldRun } from './kinds/field.svelte';

  let { run }: { run: FieldRun } = $props();
  const { figures, lens, unit } = $derived(run);
  const { found, said, problem, f, widthMm } = $derived(figures);
  const length = (times: number) => formatLength(times * lens.longestMm, unit);
</script>

{#if found && said}
  <h1 class="condensed text-[26px] leading-tight font-bold text-pretty" data-testid="field-verdict">{said.title}</h1>
  <p class="mt-1 text-pretty">
    {said.detail}
    {found.frames} frames, {found.by === 'moving'
      ? 'the camera moved between them'
      : 'the ring turned between them'}.<HowComputed of="field" class="ml-1" />
  </p>
  <div class="mt-2 max-w-4xl">
    {#await import('./FieldChart.svelte') then { default: FieldChart }}
      <FieldChart {found} {f} {widthMm} {unit} />
    {/await}
  </div>
  {#if run.simulated}
    <p class="mt-1 text-soft">{trialRun('lens')}</p>
  {/if}
  <div class="mt-3 flex flex-wrap gap-2">
    {#if figures.inUse}
      <p class="self-center">Setups with the surface “as measured” use it.</p>
    {:else}
      <Button disabled={run.busy} onclick={() => figures.write()}>Write to the lens</Button>
    {/if}
    <Button color="alternative" onclick={() => run.series.clear()}>Test again</Button>
  </div>
{:else}
  <h1 class="condensed text-[26px] leading-tight font-bold text-pretty">Does this lens have field curvature?</h1>
  {#if problem !== null && run.items.length > 0}
    <p class="mt-2 border-l-4 border-pencil bg-raised p-3 text-pretty" role="status">
      {fieldProblems[problem]}
      {#if problem === 'few'}{run.counted.length} so far.{/if}
    </p>
  {/if}
  <ol class="mt-2 max-w-3xl list-decimal space-y-1 pl-6 text-pretty">
    <li>Hang the edge sheet’s pages on a flat wall, where the centre and the corners fall.</li>
    <li>
      {length(edgeDistances.from)} to {length(edgeDistances.to)} away, square to the wall; tripod, timer, stabiliser off,
      f/{lens.widestFNumber}.
    </li>
    <li>
      Focus once in the centre, manually. Then nine frames, {leastFieldFrames} at least: move the camera back by
      <b class="font-semibold">{shortLength(figures.stepMm, unit)}</b> each, from four steps before the wall’s focus to four
      behind. Or leave it standing and turn the ring by as little, from near to far.
    </li>
  </ol>
  {#if run.items.length > 0}
    <div class="mt-3"><Button color="alternative" onclick={() => run.series.clear()}>Test again</Button></div>
  {/if}
{/if}
