<script lang="ts">
  import type { FaceJudged } from '$core/frames/eyes';
  import type { Frame } from '$core/frames/schema';
  import { unmeasurableText } from '$core/words/frames';
  import { verdictWords } from '$core/words/call';
  import { objectUrl } from '$lib/controls/objectUrl.svelte';
  import { framePicture } from './picture.svelte';

  /** One person's eyes, large, with the frame they are of. */
  let { frame, face, name, number }: { frame: Frame; face: FaceJudged; name: string; number: string } = $props();
  const picture = framePicture(() => frame.id);
  const url = objectUrl(() => picture.eyesOf(face.faceId));
  const words = $derived(
    face.closed
      ? 'eyes closed'
      : face.ratio === null || face.judged === 'unknown'
        ? face.why
          ? unmeasurableText(face.why)
          : 'can’t tell'
        : `${verdictWords[face.judged]}${face.ratio < 0.3 ? '' : `, ${face.ratio.toFixed(1)}`}`
  );
</script>

<span class="block aspect-[9/4] bg-[#6f6f6f]">
  {#if url.current !== ''}<img src={url.current} alt="{name}’s eyes" class="h-full w-full object-cover" />{/if}
</span>
<span class="condensed mt-1 block">
  <b>{number}</b>
  {words}{frame.choice === 'keep' ? ' · kept' : frame.choice === 'reject' ? ' · rejected' : ''}
</span>
