<script lang="ts">
  import { verdict } from '$core/optics/sharpness';

  /** Sharpness drawn as sharpness: a crisp dot, a ring, or a dot blurred in proportion. */
  let { ratio, size = 16, onPicture = false }: { ratio: number; size?: number; onPicture?: boolean } = $props();
  const kind = $derived(verdict(ratio));
  const spread = $derived(Math.min(2.2, 0.5 + ratio * 0.35));
</script>

<svg viewBox="-8 -8 16 16" width={size} height={size} aria-hidden="true" class="inline-block overflow-visible">
  {#if kind === 'sharp'}
    <circle r="4.6" fill="currentColor" />
  {:else if kind === 'touchSoft'}
    <circle r="4" fill="none" stroke="currentColor" stroke-width="1.7" />
  {:else if onPicture}
    <circle r="4.6" fill="currentColor" style:filter="blur({spread}px)" />
  {:else}
    <circle r="4.6" transform="scale({spread})" fill="url(#soft-dot)" opacity={Math.max(0.35, 1.15 - ratio * 0.12)} />
  {/if}
</svg>
