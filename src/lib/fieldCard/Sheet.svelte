<script lang="ts">
  import { X } from '@lucide/svelte';
  import type { Snippet } from 'svelte';

  /** What is not needed at a glance, over the whole screen: for a thumb, closed at the bottom. */
  let { title, onclose, children }: { title: string; onclose: () => void; children: Snippet } = $props();
  let dialog = $state<HTMLDialogElement>();
  const id = $props.id();
  $effect(() => {
    dialog?.showModal();
  });
</script>

<dialog
  bind:this={dialog}
  aria-labelledby={id}
  class="m-0 h-dvh max-h-none w-screen max-w-none bg-surface p-0 text-ink backdrop:bg-black/60"
  {onclose}
>
  <div class="mx-auto flex h-full max-w-md flex-col">
    <h2 {id} class="condensed shrink-0 border-b-2 border-ink px-4 py-3 text-[20px] font-bold">{title}</h2>
    <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
    <div class="min-h-0 flex-1 overflow-y-auto px-4 py-3" tabindex="0">{@render children()}</div>
    <div class="shrink-0 p-3">
      <button
        type="button"
        class="flex h-14 w-full items-center justify-center gap-2 border-2 border-ink text-[17px] font-semibold"
        onclick={() => dialog?.close()}><X size={20} aria-hidden="true" />Close</button
      >
    </div>
  </div>
</dialog>
