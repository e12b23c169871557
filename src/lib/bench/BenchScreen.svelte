<script lang="ts">
  import { page } from '$app/state';
  import Choice from '$lib/controls/Choice.svelte';
  import { KitInUse } from '$lib/kit/usedKit.svelte';
  import KitPickers from '$lib/kit/KitPickers.svelte';
  import { getApp } from '$lib/state/app.svelte';
  import BenchTest from './BenchTest.svelte';
  import type { BenchKindId } from './benchRun.svelte';
  import { benchKind, benchKinds } from './kinds';
  import SheetButtons from './SheetButtons.svelte';

  /** Where does this lens focus, and at which stops is it good? */
  const app = getApp();
  let test = $state<BenchKindId>('focus');
  // Whoever comes from the record comes with a pair.
  const asked = (name: string) => page.url.searchParams.get(name) ?? '';
  const kit = new KitInUse(app, { bodyId: asked('body'), lensId: asked('lens') });
  const { body, lens } = $derived(kit);
</script>

<main class="mx-auto max-w-[1280px] px-4 py-4">
  <div class="mb-4 flex flex-wrap items-end gap-x-4 gap-y-2">
    <Choice
      legend="Test"
      value={test}
      options={benchKinds.map(({ id, name }) => ({ value: id, name }))}
      onchange={(value) => (test = value)}
    />
    <KitPickers {kit} />
  </div>
  {#if body && lens}
    {#key `${test} ${body.id} ${lens.id}`}
      <BenchTest kind={benchKind(test)} {body} {lens} />
    {/key}
  {:else}
    <p class="text-soft">A body and a lens are needed first: they are in the Kit.</p>
  {/if}
  <section class="mt-8 flex flex-wrap items-center gap-x-4 gap-y-2 border-t border-line pt-3" aria-label="Other sheets">
    <p class="text-soft">Marks for drills, one per object:</p>
    <SheetButtons kind="ladder" name="Marks" />
  </section>
</main>
