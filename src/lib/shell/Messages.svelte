<script lang="ts">
  import { Button } from 'flowbite-svelte';
  import { X } from '@lucide/svelte';
  import { getApp } from '$lib/state/app.svelte';

  const app = getApp();
  const doneStaysMs = 8000;
  /** What can be taken back leaves time to decide. */
  const undoStaysMs = 20_000;

  // Good news goes by itself; a problem stays until it is read.
  $effect(() => {
    const shown = app.message;
    if (shown?.kind !== 'done') return;
    const stays = shown.canUndo ? undoStaysMs : doneStaysMs;
    const timer = setTimeout(() => app.message === shown && (app.message = null), stays);
    return () => clearTimeout(timer);
  });
</script>

<div class="fixed inset-x-0 bottom-4 z-40 flex justify-center px-4" aria-live="polite">
  {#if app.message}
    {@const { text, kind, canUndo } = app.message}
    <div
      class="flex max-w-2xl items-center gap-3 border-l-4 bg-ink py-2 pr-2 pl-4 text-surface {kind === 'problem'
        ? 'border-pencil'
        : 'border-ink'}"
      role={kind === 'problem' ? 'alert' : 'status'}
    >
      <p class="text-[14px] text-pretty break-words">{text}</p>
      {#if canUndo && app.canUndo}
        <Button color="light" onclick={() => void app.undo()}>Undo</Button>
      {/if}
      <button
        type="button"
        class="grid size-8 place-items-center"
        aria-label="Close this message"
        onclick={() => (app.message = null)}
      >
        <X size={16} aria-hidden="true" />
      </button>
    </div>
  {/if}
</div>
