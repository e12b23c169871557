<script lang="ts">
  import { zoomer } from '../floor/zoomable';
  import { objectUrl } from '$lib/controls/objectUrl.svelte';
  import { framePicture } from './picture.svelte';

  interface Pan {
    readonly k: number;
    readonly x: number;
    readonly y: number;
  }
  interface Props {
    frameId: string;
    faceId: string | undefined;
    name: string;
    /** Shared by all that are beside each other. */
    pan: Pan;
    onpan: (pan: Pan) => unknown;
  }
  /** Somebody's eyes in one frame, brought nearer and moved with those beside it. */
  let { frameId, faceId, name, pan, onpan }: Props = $props();
  const picture = framePicture(() => frameId);
  const url = objectUrl(() => picture.eyesOf(faceId));
  const zoom = zoomer<HTMLDivElement>((next) => onpan(next), [0.5, 16]);
  $effect(() => zoom.follow(pan));
  /** Nearer (above 1) or further, about the middle. */
  export const by = (factor: number) => zoom.by(factor);
</script>

<div
  class="relative min-h-40 flex-1 touch-none overflow-hidden bg-surround"
  {@attach zoom.attach}
  data-testid="locked-eyes"
>
  {#if url.current !== ''}
    <img
      src={url.current}
      alt="{name}’s eyes"
      draggable="false"
      class="absolute inset-0 h-full w-full origin-top-left object-contain {pan.k > 2
        ? '[image-rendering:pixelated]'
        : ''}"
      style:transform="translate({pan.x}px, {pan.y}px) scale({pan.k})"
    />
  {:else if faceId === undefined}
    <p class="p-3 text-[#111]">not found</p>
  {/if}
</div>
