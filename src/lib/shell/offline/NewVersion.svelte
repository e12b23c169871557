<script lang="ts">
  import { getApp } from '$lib/state/app.svelte';
  import type { Offline } from './offline.svelte';

  /** A new version waits until nothing is unsaved, and until somebody wants it. */
  let { offline }: { offline: Offline } = $props();
  const app = getApp();
  const importing = $derived(['running', 'paused'].includes(app.frames.bringing.now?.state ?? 'done'));
  const saved = $derived(app.store.saving.kind === 'saved');
  let later = $state(false);

  async function start() {
    if (await app.store.flush()) offline.takeOver();
  }
</script>

{#if offline.waiting && !later}
  <div
    role="status"
    class="fixed right-3 bottom-3 left-3 z-40 mx-auto flex max-w-md flex-wrap items-center gap-x-4 gap-y-2 border-l-4 border-cool bg-ink px-3 py-2 text-surface print:hidden"
  >
    <p class="min-w-0 flex-1">
      A new version of Focalis is ready.{importing
        ? ' It waits until your photos are in.'
        : saved
          ? ''
          : ' It waits until everything is saved.'}
    </p>
    <button type="button" class="min-h-11 underline disabled:opacity-40" disabled={!saved || importing} onclick={start}
      >Start it</button
    >
    <button type="button" class="min-h-11 underline" onclick={() => (later = true)}>Later</button>
  </div>
{/if}
