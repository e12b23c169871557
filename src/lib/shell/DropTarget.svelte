<script lang="ts">
  import type { Snippet } from 'svelte';

  interface Props {
    onfile: (file: File) => unknown;
    /** Takes everything dropped, folders too, where the page wants pictures; null where it does not. */
    onpictures: ((files: File[]) => unknown) | null;
    children: Snippet;
  }
  let { onfile, onpictures, children }: Props = $props();
  let over = $state(false);

  const hasFiles = (event: DragEvent) => event.dataTransfer?.types.includes('Files') ?? false;

  /** Reads folders; fetched while something hovers, for what is dropped must be read at once. */
  let reader: typeof import('file-selector') | null = null;
  function ondragover(event: DragEvent) {
    if (!hasFiles(event)) return;
    event.preventDefault();
    if (!over && onpictures) void import('file-selector').then((loaded) => (reader = loaded));
    over = true;
  }
  async function ondrop(event: DragEvent) {
    over = false;
    if (!hasFiles(event)) return;
    event.preventDefault();
    const [file, ...more] = event.dataTransfer?.files ?? [];
    const isJob = file && more.length === 0 && /\.(json|zip)$/i.test(file.name);
    if (onpictures && !isJob) {
      const whole = event.dataTransfer ? [...event.dataTransfer.files] : [];
      const read: unknown[] = reader ? await reader.fromEvent(event) : whole;
      onpictures(read.filter((item) => item instanceof File));
    } else if (file) onfile(file);
  }
</script>

<svelte:window {ondragover} {ondrop} ondragleave={(event) => event.relatedTarget === null && (over = false)} />

{@render children()}
{#if over}
  <div
    class="pointer-events-none fixed inset-3 z-50 grid place-items-center border-2 border-dashed border-ink bg-surface/85"
  >
    <p class="condensed text-2xl font-bold">
      {onpictures ? 'Drop photos or folders to measure them' : 'Drop the job file to import it'}
    </p>
  </div>
{/if}
