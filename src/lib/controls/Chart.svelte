<script lang="ts">
  import './plotly.css';
  import type { Config, Data, Layout, LayoutAxis } from 'plotly.js';
  import type { Attachment } from 'svelte/attachments';
  import { getApp } from '$lib/state/app.svelte';

  /** The theme's colours a chart is drawn in. */
  interface Colours {
    readonly ink: string;
    readonly soft: string;
    readonly pencil: string;
  }
  interface Props {
    /** What it shows, for who cannot see it. */
    label: string;
    testid: string;
    height: number;
    lines: (colours: Colours) => Data[];
    x: Partial<LayoutAxis>;
    y: Partial<LayoutAxis>;
    /** Place of the legend, in shares of the chart. */
    legend: Partial<Layout['legend']>;
    /** Marks over it. */
    shapes?: (colours: Colours) => Layout['shapes'];
    left?: number;
    /** Points that speak for themselves: no legend, each with words of its own. */
    plain?: boolean;
  }
  let { label, testid, height, lines, x, y, legend, shapes = () => [], left = 46, plain = false }: Props = $props();
  const app = getApp();

  const draw: Attachment<HTMLElement> = (element) => {
    const css = getComputedStyle(document.documentElement);
    // Reading the theme here draws the chart anew when it changes.
    void app.settings.now.theme;
    const colour = (name: string) => css.getPropertyValue(name).trim();
    const colours = { ink: colour('--ink'), soft: colour('--ink-soft'), pencil: colour('--pencil') };
    const grid = colour('--line');
    const axis = { gridcolor: grid, zerolinecolor: grid, tickfont: { size: 11 }, linecolor: grid };
    const layout: Partial<Layout> = {
      height,
      margin: { l: left, r: 8, t: 8, b: 38 },
      paper_bgcolor: 'rgba(0,0,0,0)',
      plot_bgcolor: 'rgba(0,0,0,0)',
      font: { family: 'Archivo Variable, sans-serif', size: 12, color: colours.ink },
      xaxis: { ...axis, ...x },
      yaxis: { ...axis, ...y },
      legend: { bgcolor: 'rgba(0,0,0,0)', font: { size: 11.5 }, ...legend },
      showlegend: !plain,
      hovermode: plain ? 'closest' : 'x unified',
      shapes: shapes(colours) ?? []
    };
    const config: Partial<Config> = { displayModeBar: false, responsive: true };
    const data = lines(colours);
    let gone = false;
    void import('plotly.js-basic-dist-min').then((plotly) => {
      if (!gone) void plotly.react(element, data, layout, config);
    });
    return () => void (gone = true);
  };
</script>

<div role="img" aria-label={label} data-testid={testid}><div {@attach draw}></div></div>
