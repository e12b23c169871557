<script lang="ts">
  import HowComputed from '$lib/controls/HowComputed.svelte';
  import { Button } from 'flowbite-svelte';
  import { alikeSets, lookOf } from '$core/day/variety';
  import { alikeWords } from '$core/words/day';
  import Chart from '$lib/controls/Chart.svelte';
  import { getApp } from '$lib/state/app.svelte';

  /** How the day's pictures spread: background blur across, framing upwards, perspective by the size of the ring. */
  const app = getApp();
  /** Longer days are compared when asked: each picture has to be planned. */
  const byItselfUpTo = 40;
  let asked = $state(false);
  const compared = $derived(asked || app.open.rows.length <= byItselfUpTo);
  const looks = $derived(
    (compared ? app.open.rows : []).flatMap((row, index) => {
      const { plan } = app.open.planned(row.setup);
      return plan.kind === 'plan' ? [{ ...lookOf(row.id, plan), number: index + 1, name: row.setup.name }] : [];
    })
  );
  const shown = $derived(looks.filter((look) => look.blurShare !== null));
  const sets = $derived(alikeSets(looks));
  const numbers = (set: (typeof sets)[number]) =>
    set.map((look) => looks.find((item) => item.setupId === look.setupId)?.number ?? 0);
  const isAlike = (id: string) => sets.some((set) => set.some((look) => look.setupId === id));
  /** Rings for 1 m and for 10 m, px. */
  const ringOf = (distanceMm: number) => Math.max(13, Math.min(34, 16 + 12 * Math.log10(distanceMm / 1000)));
  const said = $derived(sets.map((set) => alikeWords(numbers(set))).join('; '));
</script>

{#if !compared}
  <Button color="alternative" class="mb-6" onclick={() => (asked = true)}>See how alike they are</Button>
{:else if shown.length > 2}
  <section aria-labelledby="alike-title" class="mb-6">
    <h2 id="alike-title" class="condensed text-[18px] font-bold">
      How alike they are<HowComputed of="alike" class="ml-1" />
    </h2>
    <p class="text-soft">{said === '' ? 'No three setups look alike.' : `${said}.`}</p>
    <Chart
      label="Setups by background blur and framing. {said === '' ? 'No three of them are alike' : said}"
      testid="alike-chart"
      height={220}
      left={44}
      x={{ title: { text: 'background blurred away, % of the frame', font: { size: 12 } }, rangemode: 'tozero' }}
      y={{ title: { text: 'head, % of the frame', font: { size: 12 } }, rangemode: 'tozero' }}
      legend={{}}
      plain
      lines={({ ink, pencil }) => [
        {
          x: shown.map((look) => (look.blurShare ?? 0) * 100),
          y: shown.map((look) => look.headShare * 100),
          text: shown.map((look) => String(look.number)),
          customdata: shown.map((look) => `${look.name}, ${(look.distanceMm / 1000).toFixed(1)} m`),
          hovertemplate: '%{customdata}<extra></extra>',
          mode: 'text+markers',
          textfont: { size: 11, color: ink },
          marker: {
            symbol: 'circle',
            size: shown.map((look) => ringOf(look.distanceMm)),
            color: 'rgba(0,0,0,0)',
            line: { width: 1.5, color: shown.map((look) => (isAlike(look.setupId) ? pencil : ink)) }
          }
        }
      ]}
    />
    <p class="label">The larger the ring, the further you stand.</p>
  </section>
{/if}
