<script lang="ts">
  import { Modal } from 'flowbite-svelte';
  import type { Snippet } from 'svelte';

  /** A dialog that only others open: the browser's own "it has opened", when it comes late, must not open it again. */
  interface Props {
    open: boolean;
    title: string;
    size: 'xs' | 'sm' | 'lg' | 'xl';
    children: Snippet;
  }
  let { open = $bindable(), title, size, children }: Props = $props();
  const id = $props.id();

  // Whoever opened it by a key is where they were once it has gone.
  let opener: Element | null = null;
  $effect.pre(() => {
    if (open) opener = document.activeElement;
  });
  function giveBack() {
    const to = opener;
    if (to instanceof HTMLElement) requestAnimationFrame(() => to.focus());
  }
</script>

<Modal
  bind:open={
    () => open,
    (now) => {
      if (!now) open = false;
    }
  }
  {size}
  aria-labelledby={id}
  onoutroend={giveBack}
  class="text-ink"
>
  {#snippet header()}<h2 {id}>{title}</h2>{/snippet}
  {@render children()}
</Modal>
