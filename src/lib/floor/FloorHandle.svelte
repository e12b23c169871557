<script lang="ts">
  import { movable, type MoveHandlers } from './movable';

  interface Props {
    degrees: number;
    /** px towards where it looks; negative: behind. */
    reach: number;
    hollow?: boolean;
    testid: string;
    turn: () => MoveHandlers;
  }
  /** A handle to turn something by; the keys do the same. */
  let { degrees, reach, hollow = false, testid, turn }: Props = $props();
  const angle = $derived((degrees * Math.PI) / 180);
</script>

<g
  transform="translate({-Math.cos(angle) * reach} {Math.sin(angle) * reach})"
  class="cursor-crosshair"
  data-testid={testid}
  {@attach movable(turn)}
>
  <circle r="11" fill="transparent" />
  {#if hollow}
    <rect
      x="-4"
      y="-4"
      width="8"
      height="8"
      transform="rotate({45 - degrees})"
      fill="var(--raised)"
      stroke="var(--pencil)"
      stroke-width="2"
    />
  {:else}
    <circle r="4.5" fill="var(--raised)" stroke="var(--pencil)" stroke-width="2" />
  {/if}
</g>
