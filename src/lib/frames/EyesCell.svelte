<script lang="ts">
  import type { FaceJudged } from '$core/frames/eyes';
  import { unmeasurableText } from '$core/words/frames';
  import { verdictWords } from '$core/words/call';
  import Glyph from '../ladder/Glyph.svelte';
  import { objectUrl } from '$lib/controls/objectUrl.svelte';

  /** Somebody's eyes in one frame, and how sharp they are. */
  let { face, picture, name }: { face: FaceJudged | undefined; picture: Blob | undefined; name: string } = $props();
  const url = objectUrl(() => picture);
</script>

<div class="w-[var(--eyes,108px)] shrink-0 pb-1" data-testid="eyes-cell">
  {#if face}
    <div class="aspect-[108/46] w-full bg-surround">
      {#if url.current !== ''}<img src={url.current} alt="{name}’s eyes" class="h-full w-full object-cover" />{/if}
    </div>
    <p class="condensed mt-0.5 flex min-h-5 items-center gap-1.5 text-[13px] whitespace-nowrap">
      {#if face.closed}
        <span>closed</span>
      {:else if face.ratio === null}
        <span>{face.why ? unmeasurableText(face.why) : 'can’t tell'}</span>
      {:else}
        <Glyph ratio={face.ratio} size={12} /><span class="sr-only"
          >{face.judged === 'unknown' ? '' : verdictWords[face.judged]}</span
        >{face.ratio < 0.3 ? '' : face.ratio.toFixed(1)}
      {/if}
    </p>
  {:else}
    <p class="condensed pt-4 text-[13px]">not found</p>
  {/if}
</div>
