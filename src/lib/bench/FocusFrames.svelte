<script lang="ts">
  import FocusSteps from './FocusSteps.svelte';
  import type { FocusRun } from './kinds/focus.svelte';
  import SheetSeen from './SheetSeen.svelte';

  /** Frame by frame: the sheet as photographed, or what is wrong with it. */
  let { run }: { run: FocusRun } = $props();
  const { items, figures, unit, lens } = $derived(run);
  const shown = $derived(figures.shown);
  const why = $derived(shown ? run.whyNot(shown.read) : null);
  const shot = $derived(shown ? figures.shotOf(shown.id) : undefined);
</script>

{#if shown?.read.kind === 'measured'}
  <SheetSeen read={shown.read} name={shown.name} {unit} />
{:else if shown}
  <div class="border border-line bg-raised p-4">
    <p class="font-semibold">{shown.name}</p>
    <p class="mt-1 text-pretty">{why}</p>
  </div>
{:else}
  <FocusSteps {lens} guides={figures.guides} {unit} />
{/if}
{#if items.length > 0}
  <ul class="mt-3 flex flex-wrap gap-1" aria-label="Frames">
    {#each items as item, index (item.id)}
      {@const wrong = run.whyNot(item.read) !== null}
      <li>
        <button
          type="button"
          class="h-9 min-w-9 border px-1 tabular-nums {item.id === shown?.id
            ? 'border-pencil font-semibold'
            : 'border-line'} {wrong ? 'text-soft line-through' : ''}"
          aria-current={item.id === shown?.id}
          aria-label="Frame {index + 1}{wrong ? ', not counted' : ''}"
          onclick={() => figures.choose(item.id)}>{index + 1}</button
        >
      </li>
    {/each}
  </ul>
{/if}
{#if shown}
  {#each figures.advice as one (one)}<p class="mt-2 text-pretty">{one}</p>{/each}
  <p class="mt-2 flex flex-wrap items-center gap-x-4 gap-y-1 text-[14px] text-soft">
    {#if why !== null && shown.read.kind === 'measured'}<span>{why}</span>{/if}
    {#if shot}
      <span>focused from {shot.from}</span>
      <button type="button" class="min-h-6 underline" onclick={() => figures.turn(shown.id)}
        >Set to {shot.from === 'near' ? 'far' : 'near'}</button
      >
    {/if}
    <button type="button" class="min-h-6 underline" onclick={() => run.series.remove(shown.id)}>Leave out</button>
  </p>
{/if}
