<script lang="ts">
  import { Button } from 'flowbite-svelte';
  import { sum } from 'd3-array';
  import { bytesWords } from '$lib/settings/space';
  import { getApp } from '$lib/state/app.svelte';

  /** Whether the pictures themselves are kept in the browser, and what room they take. */
  const app = getApp();
  const { originals } = $derived(app.frames);
  const frames = $derived(app.frames.list);
  let kept = $state.raw({ count: 0, bytes: 0 });
  let busy = $state(false);
  let said = $state('');
  $effect(() => {
    const owner = app.open.id;
    void originals.changes;
    if (owner !== null) void originals.keptHere(owner).then((now) => (kept = now));
  });
  const all = $derived(sum(frames, ({ frame }) => frame.file.bytes));

  async function keep() {
    const owner = app.open.id;
    if (owner === null) return;
    busy = true;
    said = '';
    try {
      const missing = await originals.keepHere(owner, frames);
      if (missing > 0)
        said = `${missing === 1 ? 'One photo is' : `${missing} photos are`} missing: drop ${missing === 1 ? 'it' : 'them'} here again, then keep.`;
    } catch (error) {
      said = `Couldn’t keep all of them: ${error instanceof Error ? error.message : String(error)}`;
    } finally {
      busy = false;
    }
  }
</script>

<section class="mt-5 border-t border-line pt-3" aria-label="Photos">
  <p data-testid="kept-here">
    {kept.count === 0
      ? 'The photos themselves are not kept here.'
      : `${kept.count} of ${frames.length} photos kept here, ${bytesWords(kept.bytes)}.`}
  </p>
  <div class="mt-2 flex flex-wrap gap-3">
    {#if kept.count < frames.length}
      <Button color="alternative" disabled={busy} onclick={keep}
        >{busy ? 'Keeping …' : `Keep the photos here (${bytesWords(all)})`}</Button
      >
    {/if}
    {#if kept.count > 0}
      <Button color="alternative" onclick={() => app.open.id && originals.letGo(app.open.id)}
        >Delete these copies</Button
      >
    {/if}
  </div>
  {#if said !== ''}<p role="alert" class="mt-2">{said}</p>{/if}
</section>
