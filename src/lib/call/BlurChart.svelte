<script lang="ts">
  import type { Data } from 'plotly.js';
  import type { LensInLine } from '$core/call/lineUp';
  import { blurBehind } from '$core/optics/blurCurve';
  import { mmPerInch } from '$core/units/conversions';
  import { mmPerFoot } from '$core/units/length';
  import Chart from '$lib/controls/Chart.svelte';
  import { getWorkspace } from '$lib/state/screen/workspace.svelte';

  /** Detail lost against distance behind the plane of focus, for the lenses chosen, each at its own stop. */
  let { lines }: { lines: readonly LensInLine[] } = $props();
  const workspace = getWorkspace();

  const strokes: readonly { dash: 'solid' | 'dash' | 'dot' | 'dashdot' | 'longdash' }[] = [
    { dash: 'dash' },
    { dash: 'dot' },
    { dash: 'dashdot' },
    { dash: 'longdash' },
    { dash: 'solid' }
  ];
  const feet = $derived(workspace.unit === 'feet');
  const furthestMm = $derived.by(() => {
    const depths = (workspace.plan?.backgrounds ?? []).map((item) => item.depthMm - workspace.distanceMm);
    return Math.max(2000, Math.min(20_000, Math.max(0, ...depths) * 1.15));
  });
  const words = $derived(lines.map((line) => `${line.focalLengthMm} mm at f/${line.result?.stop}`).join(', '));

  const axisTitle = (text: string) => ({ text, font: { size: 12 } });
</script>

<div class="mt-3">
  <Chart
    label="Background blur against distance behind the plane of focus: {words}"
    testid="blur-chart"
    height={210}
    x={{ title: axisTitle(`behind the plane of focus, ${feet ? 'ft' : 'm'}`), rangemode: 'tozero' }}
    y={{ title: axisTitle(`background blur, ${feet ? 'in' : 'cm'}`), rangemode: 'tozero' }}
    legend={{ x: 0.02, y: 1 }}
    lines={({ soft, pencil }) => {
      let others = 0;
      return lines.flatMap((line): Data[] => {
        if (!line.result) return [];
        const { fNumber, focusDistanceMm, stop } = line.result;
        const points = blurBehind(line.focalLengthMm, fNumber, focusDistanceMm, furthestMm);
        return [
          {
            x: points.map((point) => point.behindMm / (feet ? mmPerFoot : 1000)),
            y: points.map((point) => point.lostDetailMm / (feet ? mmPerInch : 10)),
            name: `${line.focalLengthMm} mm f/${stop}`,
            mode: 'lines',
            line: line.inUse
              ? { color: pencil, width: 2.5 }
              : { color: soft, width: 1.75, dash: strokes[others++ % strokes.length]?.dash }
          }
        ];
      });
    }}
  />
</div>
