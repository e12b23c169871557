<script lang="ts">
  import type { Data } from 'plotly.js';
  import { holdSeconds, type Hold } from '$core/technique/hold';
  import Chart from '$lib/controls/Chart.svelte';

  /** Odds against the seconds one waits after focusing, by stance. */
  let { hold, wanted }: { hold: Hold; wanted: number } = $props();
  const dashes = ['dash', 'dot', 'dashdot', 'longdash'] as const;
  const words = $derived(
    hold.lines
      .map(({ stance, odds }) => `${stance} ${odds.map((item) => Math.round(item * 100)).join(', ')}`)
      .join('; ')
  );
</script>

<Chart
  label="Keeper rate in per cent after {holdSeconds.join(', ')} seconds: {words}"
  testid="hold-chart"
  height={170}
  left={40}
  x={{ title: { text: 'seconds from focus to shutter', font: { size: 12 } }, rangemode: 'tozero' }}
  y={{ ticksuffix: '%', range: [0, 101] }}
  legend={{ x: 0.02, y: 0.02, yanchor: 'bottom' }}
  lines={({ soft, pencil }) => {
    let others = 0;
    return hold.lines.map(({ stance, inUse, odds }): Data => {
      return {
        x: [...holdSeconds],
        y: odds.map((item) => item * 100),
        name: inUse ? `${stance}, as you are` : stance,
        mode: 'lines',
        line: inUse
          ? { color: pencil, width: 2.5 }
          : { color: soft, width: 1.75, dash: dashes[others++ % dashes.length] }
      };
    });
  }}
  shapes={({ ink }) => [
    {
      type: 'line',
      xref: 'paper',
      x0: 0,
      x1: 1,
      y0: wanted * 100,
      y1: wanted * 100,
      line: { color: ink, width: 1, dash: 'dot' }
    }
  ]}
/>
