<script lang="ts">
  import { drills, type ListedDrill } from '$core/drills/kinds';
  import { KitInUse } from '$lib/kit/usedKit.svelte';
  import KitPickers from '$lib/kit/KitPickers.svelte';
  import { getApp } from '$lib/state/app.svelte';
  import FrameDrill from './FrameDrill.svelte';
  import GuessDrill from './GuessDrill.svelte';
  import JudgeDrill from './JudgeDrill.svelte';
  import ModeDrill from './ModeDrill.svelte';
  import { resultsOf } from './results';

  /** One drill, read like a recipe. */
  let { drill }: { drill: ListedDrill } = $props();
  const app = getApp();
  const kit = new KitInUse(app);
  const { body, lens } = $derived(kit);
  const times = $derived(resultsOf(app, drill.id).length);
  const timeWords = $derived(
    times === 0 ? 'not done yet' : times === 1 ? 'done once' : times === 2 ? 'done twice' : `done ${times} times`
  );
</script>

{#snippet pickers()}
  <div class="mt-3 flex flex-wrap gap-2">
    <KitPickers {kit} />
  </div>
{/snippet}

<main class="mx-auto max-w-[1280px] px-4 py-4">
  <div class="grid gap-x-8 gap-y-6 lg:grid-cols-[minmax(0,1fr)_minmax(0,2fr)] lg:grid-rows-[auto_1fr]">
    <header class="min-w-0 lg:col-span-1">
      <p class="text-[13px] text-soft">
        <a class="underline" href="/drills">Drills</a>, {drills.indexOf(drill) + 1} of {drills.length} · {drill.minutes} minutes
        · {timeWords}
      </p>
      <h1 class="condensed text-[26px] leading-tight font-bold">{drill.title}</h1>
      <p class="mt-1 text-pretty">{drill.purpose}</p>
      {#if drill.needs.length > 0}
        <h2 class="mt-4 border-t border-line pt-2 font-semibold">You need</h2>
        <ul class="text-pretty">
          {#each drill.needs as need (need)}<li>{need}</li>{/each}
        </ul>
      {/if}
    </header>
    {#if drill.id === 'judge'}
      <JudgeDrill />
    {:else if body && lens}
      {#key `${body.id} ${lens.id}`}
        {#if drill.frames}
          <FrameDrill {drill} {body} {lens} children={pickers} />
        {:else}
          {@const AtDesk = drill.id === 'mode' ? ModeDrill : GuessDrill}
          <AtDesk {body} {lens} children={pickers} />
        {/if}
      {/key}
    {:else}
      <p class="text-soft">A body and a lens are needed first: they are in the Kit.</p>
    {/if}
  </div>
</main>
