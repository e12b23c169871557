<script lang="ts">
  import type { Background } from '$core/setup/schema';
  import { formatLength } from '$core/units/length';
  import { getWorkspace } from '$lib/state/screen/workspace.svelte';
  import { backgroundEdgePx, getFloor } from './floor.svelte';
  import { toPx } from '../../drawing/geometry';

  /** Its name, above everything that stands on the Floor. */
  let { background, index }: { background: Background; index: number } = $props();
  const workspace = getWorkspace();
  const floor = getFloor();

  const room = 70;
  const wanted = $derived(toPx(floor.scale, background.depthMm, 0).x);
  const off = $derived(wanted > floor.width - backgroundEdgePx);
  const x = $derived(Math.min(floor.width - backgroundEdgePx, wanted));
  const last = $derived(x > floor.width - room);
</script>

<text
  x={last ? floor.width - 6 : x}
  y={40 + (index % 2) * 12}
  text-anchor={last ? 'end' : 'middle'}
  class="floor-text text-[11.5px]"
  pointer-events="none"
>
  {background.name}{off ? ` ${formatLength(background.depthMm + workspace.distanceMm, workspace.unit)} →` : ''}
</text>
