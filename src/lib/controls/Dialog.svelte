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
</script>

<Modal
  bind:open={
    () => open,
    (now) => {
      if (!now) open = false;
    }
  }
  {title}
  {size}
  class="text-ink">{@render children()}</Modal
>
