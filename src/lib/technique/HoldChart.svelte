<script lang="ts">
  import '../lineup/plotly.css';
  import type { Config, Data, Layout } from 'plotly.js';
  import type { Attachment } from 'svelte/attachments';
  import { holdSeconds, type Hold } from '$core/technique/hold';
  import { getApp } from '$lib/state/app.svelte';

  /** Odds against the seconds one waits after focusing, by stance. */
  let { hold, wanted }: { hold: Hold; wanted: number } = $props();
  const app = getApp();
  const dashes = ['dash', 'dot', 'dashdot', 'longdash'] as const;
  const words = $derived(
    hold.lines
      .map(({ stance, odds }) => `${stance} ${odds.map((item) => Math.round(item * 100)).join(', ')}`)
      .join('; ')
  );

  const draw: Attachment<HTMLElement> = (element) => {
    const css = getComputedStyle(document.documentElement);
    // Reading the theme here draws the chart anew when it changes.
    void app.settings.now.theme;
    const colour = (name: string) => css.getPropertyValue(name).trim();
    const [ink, soft, grid] = [colour('--ink'), colour('--ink-soft'), colour('--line')];
    let others = 0;
    const data: Data[] = hold.lines.map(({ stance, inUse, odds }): Data => {
      const line = inUse
        ? { color: colour('--pencil'), width: 2.5 }
        : { color: soft, width: 1.75, dash: dashes[others++ % dashes.length] };
      return {
        x: [...holdSeconds],
        y: odds.map((item) => item * 100),
        name: inUse ? `${stance}, as you are` : stance,
        mode: 'lines',
        line
      };
    });
    const axis = { gridcolor: grid, zerolinecolor: grid, tickfont: { size: 11 }, linecolor: grid };
    const layout: Partial<Layout> = {
      height: 170,
      margin: { l: 40, r: 8, t: 8, b: 36 },
      paper_bgcolor: 'rgba(0,0,0,0)',
      plot_bgcolor: 'rgba(0,0,0,0)',
      font: { family: 'Archivo Variable, sans-serif', size: 12, color: ink },
      xaxis: { ...axis, title: { text: 'seconds from focus to shutter', font: { size: 12 } }, rangemode: 'tozero' },
      yaxis: { ...axis, ticksuffix: ' %', range: [0, 101] },
      legend: { x: 0.02, y: 0.02, yanchor: 'bottom', bgcolor: 'rgba(0,0,0,0)', font: { size: 11.5 } },
      showlegend: true,
      hovermode: 'x unified',
      shapes: [
        {
          type: 'line',
          xref: 'paper',
          x0: 0,
          x1: 1,
          y0: wanted * 100,
          y1: wanted * 100,
          line: { color: ink, width: 1, dash: 'dot' }
        }
      ]
    };
    const config: Partial<Config> = { displayModeBar: false, responsive: true };
    let gone = false;
    void import('plotly.js-basic-dist-min').then((plotly) => {
      if (!gone) void plotly.react(element, data, layout, config);
    });
    return () => void (gone = true);
  };
</script>

<div role="img" aria-label="Odds in per cent after {holdSeconds.join(', ')} seconds: {words}" data-testid="hold-chart">
  <div {@attach draw}></div>
</div>
