<script lang="ts">
  import type { Honesty } from '$core/record/honesty';
  import Chart from '$lib/controls/Chart.svelte';

  /** What was said against what came, in tenths; on the line is honest. */
  let { honesty }: { honesty: Honesty } = $props();
  const per100 = (share: number) => Math.round(share * 1000) / 10;
  const words = $derived(
    honesty.bins.map((bin) => `said ${per100(bin.said)}%, ${bin.count} of ${bin.of} sharp`).join('; ')
  );
  const axis = (text: string) => ({
    title: { text, font: { size: 12 } },
    range: [-3, 103],
    dtick: 25,
    ticksuffix: '%'
  });
</script>

<div class="mt-2 max-w-[30rem]">
  {#key honesty}
    <Chart
      label="Predicted against sharp: {words}"
      testid="honesty-chart"
      height={260}
      left={56}
      plain
      x={axis('said')}
      y={axis('sharp')}
      legend={{}}
      shapes={({ soft }) => [
        { type: 'line', x0: 0, x1: 100, y0: 0, y1: 100, line: { color: soft, width: 1, dash: 'dash' } }
      ]}
      lines={({ ink }) => [
        {
          type: 'scatter',
          mode: 'markers',
          x: honesty.bins.map((bin) => per100(bin.said)),
          y: honesty.bins.map((bin) => per100(bin.share)),
          error_y: {
            type: 'data',
            symmetric: false,
            array: honesty.bins.map((bin) => per100(bin.high - bin.share)),
            arrayminus: honesty.bins.map((bin) => per100(bin.share - bin.low)),
            color: ink,
            thickness: 1.5,
            width: 3
          },
          marker: { color: ink, size: honesty.bins.map((bin) => 7 + Math.min(9, Math.sqrt(bin.of))) },
          text: honesty.bins.map((bin) => `${bin.count} of ${bin.of} sharp, predicted ${per100(bin.said)}%`),
          hoverinfo: 'text'
        }
      ]}
    />
  {/key}
</div>
