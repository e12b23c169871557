<script lang="ts">
  import type { RibbonPiece } from './ribbons';

  /** A piece of ribbon: black where it is in use, a line where it is only carried; open where it goes on. */
  let { piece }: { piece: RibbonPiece | null } = $props();
</script>

<span class="flex h-full w-2.5 justify-center" aria-hidden="true">
  {#if piece}
    <span
      class="block {piece.used ? 'w-2.5 bg-ink' : 'w-px bg-line'} {piece.starts ? 'mt-1.5' : ''} {piece.ends
        ? 'mb-1.5'
        : ''}"
    ></span>
  {/if}
</span>
