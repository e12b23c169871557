<script lang="ts">
  import { Button } from 'flowbite-svelte';

  /** One press takes a way of doing it; the one that is taken is in use. */
  let { name, inUse, ontake }: { name: string; inUse: boolean; ontake: () => unknown } = $props();
</script>

{#if inUse}
  <span class="justify-self-start border-b-2 border-pencil font-semibold">In use</span>
{:else}
  <Button size="xs" color="alternative" class="justify-self-start" aria-label="Use: {name}" onclick={ontake}>Use</Button
  >
{/if}
