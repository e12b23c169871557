<script lang="ts" module>
  export interface Shown {
    readonly views: number;
    readonly of: number;
    readonly reduced: boolean;
    readonly afterMs: number;
  }
</script>

<script lang="ts">
  import type { Snippet } from 'svelte';
  import { getRenderings } from '../../workers/clients/renderer.svelte';
  import type { RenderingQuestion } from '../../render/studio';

  interface Props {
    asked: RenderingQuestion;
    /** CSS size, px. */
    width: number;
    height: number;
    label: string;
    /** Asks only once nothing has changed for so long, ms. */
    restMs?: number;
    onshown?: (shown: Shown, canvas: HTMLCanvasElement) => void;
    /** Stands in until there is a first rendering. */
    outline?: Snippet;
  }
  /** A picture as the lens draws it: the first at once, better ones as they come. */
  let { asked, width, height, label, restMs = 0, onshown, outline }: Props = $props();
  const pictures = getRenderings();
  let canvas = $state<HTMLCanvasElement>();
  let shown = $state.raw<Shown | null>(null);

  $effect(() => {
    const target = canvas;
    const now = asked;
    if (!target) return;
    const ask = () =>
      pictures.ask(now, ({ image, views, of, reduced, afterMs }) => {
        // A canvas does not take the size of what it is handed; whoever saves or keeps it asks for that.
        Object.assign(target, { width: image.width, height: image.height });
        target.getContext('bitmaprenderer')?.transferFromImageBitmap(image);
        shown = { views, of, reduced, afterMs };
        onshown?.(shown, target);
      });
    if (restMs === 0) {
      ask();
      return;
    }
    const timer = setTimeout(ask, restMs);
    return () => clearTimeout(timer);
  });
  const slot = $derived(asked.slot);
  $effect(() => {
    // A slot left is given up; one asked for again is not.
    const left = slot;
    return () => pictures.drop(left);
  });
</script>

{#if !shown && outline}<div class="absolute inset-0" aria-hidden="true">{@render outline()}</div>{/if}
<canvas
  bind:this={canvas}
  class="relative block {shown ? 'bg-surround' : ''}"
  style:width="{width}px"
  style:height="{height}px"
  aria-label={label}
  data-views={shown?.views}
  data-first-ms={shown?.views === 0 ? Math.round(shown.afterMs) : undefined}
></canvas>
