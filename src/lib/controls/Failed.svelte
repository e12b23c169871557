<script lang="ts">
  import { Button } from 'flowbite-svelte';

  /** What could not be worked out, why, and another go. */
  let { what, why, onretry }: { what: string; why: string; onretry: () => unknown } = $props();
</script>

<div role="alert" class="flex items-center gap-3">
  <p class="min-w-0 text-pretty">{what} {why}</p>
  <Button color="alternative" size="xs" onclick={() => onretry()}>Try again</Button>
</div>
