<script lang="ts">
  import { verdict } from '$core/optics/sharpness';
  import type { EyeCrop } from '../../render/request';

  /** Somebody's eyes, or the edge of a thing, in plain lines, until the lens has drawn them. */
  let { crop, width, height }: { crop: EyeCrop; width: number; height: number } = $props();
  /** Screen pixels to a millimetre of the scene. */
  const pxPerMm = $derived((crop.at.scale * width) / (crop.cutout.right - crop.cutout.left));
  const opening = $derived(30 * pxPerMm);
  const apart = $derived(63 * pxPerMm);
  const middles = $derived(crop.roles.length > 1 ? [(width - apart) / 2, (width + apart) / 2] : [width / 2]);
  const blurPx = { sharp: 0, touchSoft: 1, soft: 3 } as const;
  const isEye = $derived(crop.roles.some((role) => role === 'nearEye' || role === 'farEye'));
</script>

<svg {width} {height} class="absolute inset-0 bg-[#a9a9a9]" aria-hidden="true">
  {#if isEye}
    <g style:filter="blur({blurPx[verdict(crop.ratio)]}px)">
      {#each middles as x (x)}
        <ellipse cx={x} cy={height / 2} rx={opening / 2} ry={opening / 4} fill="#f4f4f4" />
        <circle cx={x} cy={height / 2} r={opening / 4.6} fill="#6f6f6f" />
        <circle cx={x} cy={height / 2} r={opening / 11} fill="#161616" />
      {/each}
    </g>
  {/if}
</svg>
