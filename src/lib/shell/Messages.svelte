<script lang="ts">
  import { Button } from 'flowbite-svelte';
  import { MediaQuery } from 'svelte/reactivity';
  import { X } from '@lucide/svelte';
  import { getApp } from '$lib/state/app.svelte';

  const app = getApp();
  const { messages } = app;
  const doneStaysMs = 8000;
  /** What can be taken back leaves time to decide. */
  const undoStaysMs = 20_000;

  // Good news goes by itself; a problem stays until it is read.
  $effect(() => {
    const { shown } = messages;
    if (shown?.kind !== 'done') return;
    const timer = setTimeout(() => messages.close(shown), shown.step === null ? doneStaysMs : undoStaysMs);
    return () => clearTimeout(timer);
  });
  // Where it lies below everything, everything leaves it room.
  let height = $state(0);
  const below = new MediaQuery('max-width: 79.999rem', false);
  const takesRoom = $derived(messages.shown !== null && (below.current || app.store.saving.kind === 'failed'));
  $effect(() => {
    document.documentElement.style.setProperty('--message-room', takesRoom ? `${height}px` : '0px');
  });
  /** The very step the message names, while it can be taken back. */
  const step = $derived(
    messages.shown?.step != null && app.store.history.canUndo
      ? app.store.history.find(messages.shown.step)?.id
      : undefined
  );
</script>

<!-- Where nothing is: in the middle of the header where it is wide enough and says nothing itself, else below everything. -->
<div
  class="pointer-events-none fixed inset-x-0 bottom-0 z-40 flex justify-center px-4 pb-2 print:hidden {app.store.saving
    .kind === 'failed'
    ? ''
    : 'xl:top-1 xl:right-84 xl:bottom-auto xl:left-88 xl:px-0 xl:pb-0'}"
  aria-live="polite"
  bind:clientHeight={height}
>
  {#if messages.shown}
    {@const { text, kind } = messages.shown}
    <div
      data-testid="message"
      class="pointer-events-auto flex max-w-2xl min-w-0 items-center gap-3 border-l-4 bg-ink py-1 pr-1 pl-3 text-surface {kind ===
      'problem'
        ? 'border-pencil'
        : 'border-ink'}"
      role={kind === 'problem' ? 'alert' : 'status'}
    >
      <p class="text-[13px] leading-tight text-pretty break-words">{text}</p>
      {#if step !== undefined}
        <Button color="light" onclick={() => void app.takeBack(step)}>Undo</Button>
      {/if}
      <button
        type="button"
        class="grid size-8 place-items-center"
        aria-label="Close this message"
        onclick={() => messages.close()}
      >
        <X size={16} aria-hidden="true" />
      </button>
    </div>
  {/if}
</div>
