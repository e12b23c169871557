<script lang="ts">
  import './plotly.css';
  import type { Config, Data, Layout } from 'plotly.js';
  import type { Attachment } from 'svelte/attachments';
  import type { LensInLine } from '$core/call/lineUp';
  import { blurBehind } from '$core/optics/blurCurve';
  import { mmPerFoot, mmPerInch } from '$core/words/length';
  import { getApp } from '$lib/state/app.svelte';
  import { getWorkspace } from '$lib/state/workspace.svelte';

  /** Detail lost against distance behind the plane of focus, for the lenses chosen, each at its own stop. */
  let { lines }: { lines: readonly LensInLine[] } = $props();
  const workspace = getWorkspace();
  const app = getApp();

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

  const draw: Attachment<HTMLElement> = (element) => {
    const css = getComputedStyle(document.documentElement);
    // Reading the theme here draws the chart anew when it changes.
    void app.settings.now.theme;
    const colour = (name: string) => css.getPropertyValue(name).trim();
    const ink = colour('--ink');
    const soft = colour('--ink-soft');
    const grid = colour('--line');
    let others = 0;
    const data: Data[] = lines.flatMap((line): Data[] => {
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
            ? { color: colour('--pencil'), width: 2.5 }
            : { color: soft, width: 1.75, dash: strokes[others++ % strokes.length]?.dash }
        }
      ];
    });
    const axis = { gridcolor: grid, zerolinecolor: grid, tickfont: { size: 11 }, linecolor: grid };
    const layout: Partial<Layout> = {
      height: 210,
      margin: { l: 46, r: 8, t: 8, b: 40 },
      paper_bgcolor: 'rgba(0,0,0,0)',
      plot_bgcolor: 'rgba(0,0,0,0)',
      font: { family: 'Archivo Variable, sans-serif', size: 12, color: ink },
      xaxis: { ...axis, title: { text: `behind the plane of focus, ${feet ? 'ft' : 'm'}` }, rangemode: 'tozero' },
      yaxis: { ...axis, title: { text: `detail lost, ${feet ? 'in' : 'cm'}` }, rangemode: 'tozero' },
      legend: { x: 0.02, y: 1, bgcolor: 'rgba(0,0,0,0)', font: { size: 11.5 } },
      showlegend: true,
      hovermode: 'x unified'
    };
    const config: Partial<Config> = { displayModeBar: false, responsive: true };
    let gone = false;
    void import('plotly.js-basic-dist-min').then((plotly) => {
      if (!gone) void plotly.react(element, data, layout, config);
    });
    return () => void (gone = true);
  };
</script>

<div
  class="mt-3"
  role="img"
  aria-label="Detail lost against distance behind the plane of focus: {words}"
  data-testid="blur-chart"
>
  <div {@attach draw}></div>
</div>
