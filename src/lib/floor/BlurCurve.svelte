<script lang="ts">
  import { line } from 'd3-shape';
  import { getWorkspace } from '$lib/state/screen/workspace.svelte';
  import { getFloor } from './floor.svelte';

  let { height = 44 }: { height?: number } = $props();
  /** Blur disc on the sensor against distance, over the Floor's own depth axis; the blur allowed as a line. */
  const workspace = getWorkspace();
  const floor = getFloor();

  const step = 3;
  const halo = { 'paint-order': 'stroke', stroke: 'var(--surface)', 'stroke-width': 3 } as const;

  const entry = $derived(workspace.entry);
  const samples = $derived.by((): { x: number; ratio: number }[] => {
    const points: { x: number; ratio: number }[] = [];
    for (let x = 0; x <= floor.width; x += step) {
      const ratio = floor.blurRatioAt(x);
      if (ratio !== null) points.push({ x, ratio });
    }
    return points;
  });
  /** The most blur behind the subject, so that the nearest foreground does not flatten the rest. */
  const span = $derived.by(() => {
    const behind = samples.filter(({ x }) => floor.distanceAt(x) > (entry?.planeMm ?? 0));
    return Math.max(3, ...behind.map(({ ratio }) => ratio)) * 1.15;
  });
  // Square roots keep the neighbourhood of the blur allowed readable.
  const y = $derived((ratio: number) => height - 2 - Math.sqrt(Math.min(ratio, span * 1.5) / span) * (height - 14));
  const curve = $derived(
    line<{ x: number; ratio: number }>(
      ({ x }) => x,
      ({ ratio }) => y(ratio)
    )(samples) ?? ''
  );
</script>

<svg
  width={floor.width}
  {height}
  class="block border-t border-line"
  role="img"
  aria-label="Blur against distance, up to {Math.round(span)}× acceptable blur"
  data-testid="blur-curve"
>
  <path d="M0 {y(1)}H{floor.width}" stroke="var(--cool)" stroke-width="1" stroke-dasharray="3 3" />
  <path d={curve} fill="none" stroke="var(--ink)" stroke-width="1.5" />
  <text x="6" y={y(1) - 3} class="fill-cool text-[10.5px]" {...halo}>acceptable blur</text>
</svg>
