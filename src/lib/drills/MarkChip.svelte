<script lang="ts">
  import { ladderMark } from '$core/bench/sheets';
  import { objectUrl } from '$lib/controls/objectUrl.svelte';

  interface Props {
    index: number;
    /** Diameter of its blur over the mark's own width; of what was drawn. */
    blur?: number;
    /** As photographed, in place of the drawing. */
    image?: Blob | undefined;
    label: string;
    /** As large as the picture of it is: at 100%. */
    full?: boolean;
  }
  /** A mark as it should come out, or as it did. */
  let { index, blur = 0, image, label, full = false }: Props = $props();
  const [width, height] = [74, 46];
  const piece = $derived(ladderMark(index));
  // A disc blurs like a Gaussian of a quarter of its diameter.
  const sigma = $derived((blur * width) / 4);
  const url = objectUrl(() => image);
  const path = (points: readonly (readonly [number, number])[]) => points.map(([px, py]) => `${px},${py}`).join(' ');
</script>

<div
  class="overflow-hidden bg-surround"
  style:width={full ? undefined : `${width}px`}
  style:height={full ? undefined : `${height}px`}
>
  {#if url.current}
    <img src={url.current} alt={label} class={full ? 'block' : 'size-full object-cover'} />
  {:else}
    <svg
      viewBox="-4 2 {piece.width + 8} {piece.height - 4}"
      class="size-full"
      role="img"
      aria-label={label}
      style:filter={sigma > 0.15 ? `blur(${sigma.toFixed(2)}px)` : undefined}
    >
      <rect x="-2" y="6" width={piece.width + 4} height={piece.height - 12} fill="#f4f4f4" />
      {#each piece.polygons as polygon, at (at)}
        <polygon points={path(polygon.points)} fill={polygon.tone > 0.5 ? '#f4f4f4' : '#141414'} />
      {/each}
    </svg>
  {/if}
</div>
