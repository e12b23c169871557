<script lang="ts">
  import { eyesPx } from '$core/frames/eyes';
  import { eyesAt } from '$core/fromPhoto/rulers';
  import { formatLength, type LengthUnit } from '$core/units/length';
  import { objectUrl } from '$lib/controls/objectUrl.svelte';
  import type { PhotoReading } from './photoReading.svelte';

  /** The photo with a ring about each face and how far away it is; pressed, a face is taken off or back in. */
  let { photo, unit }: { photo: PhotoReading; unit: LengthUnit } = $props();
  const address = objectUrl(() => photo.read?.frame.thumbnail);
  /** A head is about so many times as wide as its eyes are apart. */
  const headPerEyes = 2.6;
  const rings = $derived.by(() => {
    const { read, answer, without } = photo;
    if (!read) return [];
    const { width, height } = read.frame;
    return read.faces.map((face, index) => {
      const at = eyesAt(face);
      const found = answer?.group.people.find(({ id }) => id === face.id);
      const off = without.includes(face.id);
      const side = headPerEyes * eyesPx(face);
      return {
        id: face.id,
        name: `Face ${index + 1}`,
        off,
        far: off ? 'off' : found ? formatLength(found.aheadMm, unit) : '?',
        left: `${(100 * at.x) / width}%`,
        top: `${(100 * at.y) / height}%`,
        size: `${Math.max(3.5, (100 * side) / width)}%`
      };
    });
  });
</script>

{#if photo.read}
  <div class="relative self-start bg-surround" data-testid="photo-faces">
    <img
      src={address.current}
      alt=""
      class="block w-full"
      width={photo.read.frame.width}
      height={photo.read.frame.height}
    />
    {#each rings as ring (ring.id)}
      <button
        type="button"
        aria-label="{ring.name}, {ring.far}"
        aria-pressed={!ring.off}
        title={ring.off ? 'Count this face' : 'Leave this face out'}
        class="absolute grid aspect-square -translate-x-1/2 -translate-y-[45%] place-items-center rounded-full border-2 {ring.off
          ? 'border-dashed border-white/60'
          : 'border-white'}"
        style:left={ring.left}
        style:top={ring.top}
        style:width={ring.size}
        onclick={() => photo.toggle(ring.id)}
      >
        <span
          class="condensed absolute top-full mt-0.5 rounded-[2px] bg-black/75 px-1 text-[12px] leading-4 whitespace-nowrap text-white"
          >{ring.far}</span
        >
      </button>
    {/each}
  </div>
{/if}
