<script lang="ts">
  import type { Snippet } from 'svelte';

  /** Mounts what is in it when it is first opened, and keeps it: a dialog that shuts can then give the focus back. */
  let { open, children }: { open: boolean; children: Snippet } = $props();
  let opened = $state(false);
  $effect.pre(() => {
    if (open) opened = true;
  });
</script>

{#if opened}{@render children()}{/if}
