<script lang="ts">
  import { range } from 'd3-array';
  import { nearerAt, type FieldCurve } from '$core/bench/fieldCurve';
  import type { LengthUnit } from '$core/units/length';
  import Chart from '$lib/controls/Chart.svelte';

  interface Props {
    found: FieldCurve;
    f: number;
    /** Of the picture on the sensor, mm. */
    widthMm: number;
    unit: LengthUnit;
  }
  /** The surface of sharp focus across the picture, with each page where it is sharpest by itself. */
  let { found, f, widthMm, unit }: Props = $props();
  const perUnit = $derived(unit === 'metric' ? 10 : 25.4);
  const name = $derived(unit === 'metric' ? 'cm' : 'in');
  const shares = range(0, 1.001, 0.05);
  const tangentOf = (share: number) => (share * widthMm) / 2 / f;
  const at = (perM: number) => shares.map((share) => nearerAt(perM, tangentOf(share), found.distanceMm) / perUnit);
  const across = $derived(shares.map((share) => 100 * share));
  const placed = $derived(found.places.filter(({ tangent }) => tangent <= 1.35 * tangentOf(1)));
  const words = $derived(placed.map(({ nearerMm }) => `${(nearerMm / perUnit).toFixed(1)} ${name}`).join(', '));
</script>

<Chart
  label="How far the surface of sharp focus comes forward, centre to edge; pages: {words}"
  testid="field-chart"
  height={280}
  x={{ title: { text: 'from the centre to the edge of the frame, %', font: { size: 12 } } }}
  y={{ title: { text: `forward, ${name}`, font: { size: 12 } }, zeroline: true }}
  legend={{ orientation: 'h', y: -0.24 }}
  lines={({ ink, soft }) => [
    {
      type: 'scatter',
      mode: 'lines',
      name: 'nine tenths',
      x: [...across, ...[...across].reverse()],
      y: [...at(found.perM.low), ...at(found.perM.high).reverse()],
      fill: 'toself',
      fillcolor: 'rgba(128,128,128,0.2)',
      line: { color: soft, width: 0 }
    },
    {
      type: 'scatter',
      mode: 'lines',
      name: 'sharp surface',
      x: across,
      y: at(found.perM.value),
      line: { color: ink, width: 2 }
    },
    {
      type: 'scatter',
      mode: 'markers',
      name: 'each page alone',
      x: placed.map(({ tangent }) => (100 * tangent) / tangentOf(1)),
      y: placed.map(({ nearerMm }) => nearerMm / perUnit),
      marker: { color: ink, size: 7, symbol: 'circle-open' }
    }
  ]}
/>
