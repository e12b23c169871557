<script lang="ts">
  import { zones } from '$core/bench/schema';
  import { diffractionLpPerMm, type StopRow } from '$core/bench/stopSeries';
  import Chart from '$lib/controls/Chart.svelte';

  /** MTF50 by stop, centre to corner, under diffraction's own; beside those of another lens or copy. */
  let {
    rows,
    other
  }: { rows: readonly StopRow[]; other: { readonly name: string; readonly rows: readonly StopRow[] } | null } =
    $props();
  const label = (fNumber: number) => `f/${Number(fNumber.toFixed(1))}`;
  const stops = $derived(rows.map(({ fNumber }) => label(fNumber)));
  const every = $derived(
    [...new Set([...rows, ...(other?.rows ?? [])].map(({ fNumber }) => fNumber))].sort((a, b) => a - b).map(label)
  );
  const dashes = { centre: 'solid', middle: 'dash', corner: 'dot' } as const;
  const most = $derived(
    1.25 * Math.max(...[...rows, ...(other?.rows ?? [])].flatMap((row) => zones.map((zone) => row[zone]?.lpPerMm ?? 0)))
  );
  const words = $derived(
    rows
      .map(
        (row) =>
          `${label(row.fNumber)} ${zones.map((zone) => `${zone} ${Math.round(row[zone]?.lpPerMm ?? 0)}`).join(', ')}`
      )
      .join('; ')
  );
</script>

<Chart
  label="MTF50 by aperture: {words}"
  testid="stops-chart"
  height={280}
  x={{ type: 'category', categoryorder: 'array', categoryarray: every }}
  y={{ title: { text: 'lp/mm', font: { size: 12 } }, range: [0, most] }}
  legend={{ orientation: 'h', y: -0.16 }}
  lines={({ ink, soft }) => [
    ...zones
      .filter((zone) => rows.some((row) => row[zone]))
      .map((zone) => ({
        type: 'scatter' as const,
        mode: 'lines+markers' as const,
        name: zone,
        x: stops,
        y: rows.map((row) => row[zone]?.lpPerMm ?? null),
        line: { color: ink, width: 2, dash: dashes[zone] },
        marker: { color: ink, size: 6 }
      })),
    ...(other === null ? [] : zones)
      .filter((zone) => other?.rows.some((row) => row[zone]))
      .map((zone) => ({
        type: 'scatter' as const,
        mode: 'lines+markers' as const,
        name: `${zone}, ${other?.name ?? ''}`,
        x: other?.rows.map(({ fNumber }) => label(fNumber)) ?? [],
        y: other?.rows.map((row) => row[zone]?.lpPerMm ?? null) ?? [],
        line: { color: soft, width: 1.5, dash: dashes[zone] },
        marker: { color: soft, size: 5, symbol: 'circle-open' }
      })),
    {
      type: 'scatter',
      mode: 'lines',
      name: 'diffraction',
      x: stops,
      y: rows.map((row) => diffractionLpPerMm(row.fNumber)),
      line: { color: soft, width: 1 }
    }
  ]}
/>
