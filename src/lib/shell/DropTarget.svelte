<script lang="ts">
  import type { Snippet } from 'svelte';

  let { onfile, children }: { onfile: (file: File) => unknown; children: Snippet } = $props();
  let over = $state(false);

  const hasFiles = (event: DragEvent) => event.dataTransfer?.types.includes('Files') ?? false;

  function ondragover(event: DragEvent) {
    if (!hasFiles(event)) return;
    event.preventDefault();
    over = true;
  }
  function ondrop(event: DragEvent) {
    over = false;
    const file = event.dataTransfer?.files[0];
    if (!file) return;
    event.preventDefault();
    onfile(file);
  }
</script>

<svelte:window {ondragover} {ondrop} ondragleave={(event) => event.relatedTarget === null && (over = false)} />

{@render children()}
{#if over}
  <div
    class="pointer-events-none fixed inset-3 z-50 grid place-items-center border-2 border-dashed border-ink bg-surface/85"
  >
    <p class="condensed text-2xl font-bold">Drop the job file to import it</p>
  </div>
{/if}
