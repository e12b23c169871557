<script lang="ts">
  import { trialRun } from '$core/words/frames';
  import { Button } from 'flowbite-svelte';
  import { edgeDistances } from '$core/bench/guide';
  import { decentredFrom, sharpenedFrom } from '$core/bench/stopSeries';
  import { formatLength } from '$core/units/length';
  import { notWrittenWords, overshootWords } from '$core/words/bench';
  import Choice from '$lib/controls/Choice.svelte';
  import Fold from '$lib/controls/Fold.svelte';
  import HowComputed from '$lib/controls/HowComputed.svelte';
  import { dateText } from '$lib/controls/dates';
  import OnceOpen from '$lib/controls/OnceOpen.svelte';
  import Picker from '$lib/controls/Picker.svelte';
  import CropSeries from './CropSeries.svelte';
  import { measures, type Measure, type StopsRun } from './kinds/stops.svelte';
  import StopsTable from './StopsTable.svelte';

  let { run }: { run: StopsRun } = $props();
  const { figures, counted, lens, unit } = $derived(run);
  const { rows, said, other, others, overshoot, uneven, tone, barred } = $derived(figures);
  const length = (times: number) => formatLength(times * lens.longestMm, unit);
</script>

{#if said}
  <h1 class="condensed text-[26px] leading-tight font-bold text-pretty" data-testid="stops-verdict">{said.title}</h1>
  <p class="mt-1 text-pretty">{said.detail}<HowComputed of="edges" class="ml-1" /></p>
  <div class="mt-3 grid gap-x-8 gap-y-4 lg:grid-cols-[minmax(0,1.25fr)_minmax(0,1fr)]">
    <div class="min-w-0">
      <p class="text-soft">{measures[figures.measure].words}, slanted edge after ISO 12233</p>
      <div class="mt-1 flex flex-wrap items-end gap-x-4 gap-y-1">
        {#if others.length > 0}
          <Picker
            label="Compared with"
            items={[
              { value: '', name: 'nothing' },
              ...others.map((one) => ({ value: one.id, name: `${one.lens} on ${one.body}, ${dateText(one.madeAt)}` }))
            ]}
            value={figures.otherId}
            onchange={(id) => (figures.otherId = id)}
          />
        {/if}
      </div>
      <StopsTable {run} />
      {#if uneven && uneven.less > decentredFrom}
        <p class="mt-1 text-pretty">
          One corner is {Math.round(uneven.less * 100)}% under the others (page {uneven.page + 1}): the wall was not
          square, or the lens is decentred. Turn the camera over and look whether it moves with it.
        </p>
      {/if}
      {#if run.simulated}
        <p class="mt-1 text-soft">{trialRun('lens')}</p>
      {/if}
      {#if barred !== null}<p class="mt-1 text-pretty">{notWrittenWords[barred]}</p>{/if}
      <div class="mt-3 flex flex-wrap gap-2">
        {#if figures.inUse}
          <p class="self-center">The plans use it.</p>
        {:else}
          <Button disabled={barred !== null || run.busy} onclick={() => figures.write()}>Write to the lens</Button>
        {/if}
        <Button color="alternative" onclick={() => run.series.clear()}>Test again</Button>
      </div>
      <div class="mt-3">
        <Fold title="Details" of="stops">
          <div class="flex flex-wrap items-end gap-x-4 gap-y-1">
            <Choice
              legend="Measure"
              hideLegend
              small
              value={figures.measure}
              options={(Object.keys(measures) as Measure[]).map((value) => ({ value, name: measures[value].name }))}
              onchange={(value) => (figures.measure = value)}
            />
            {#if figures.measure !== 'rise'}
              <Choice
                legend="Edges"
                hideLegend
                small
                value={figures.edges}
                options={[
                  { value: 'all', name: 'all edges' },
                  { value: 'standing', name: 'vertical edges' },
                  { value: 'lying', name: 'horizontal edges' }
                ]}
                onchange={(value) => (figures.edges = value)}
              />
            {/if}
          </div>
          <p class="mt-2 text-pretty text-soft">
            Pixels of {(1000 * figures.pixelMm).toFixed(1)} µm; {counted.length === 1
              ? 'one frame'
              : `${counted.length} frames`}. Three per aperture are better than one.
          </p>
          {#if tone !== ''}<p class="mt-1 text-pretty">{tone}</p>{/if}
          {#if overshoot > sharpenedFrom}<p class="mt-1 text-pretty">{overshootWords(overshoot)}</p>{/if}
        </Fold>
      </div>
    </div>
    <div class="min-w-0">
      {#key [rows, other]}
        <OnceOpen open={rows.length > 1}>
          {#await import('./StopsChart.svelte') then { default: StopsChart }}<StopsChart
              {rows}
              other={other ? { name: figures.otherName, rows: other.stops } : null}
            />{/await}
        </OnceOpen>
      {/key}
    </div>
  </div>
  <CropSeries
    crops={counted.map(({ id, read: one }) => ({ id, fNumber: one.fNumber, crop: one.crop }))}
    title={lens.name}
  />
{:else}
  <h1 class="condensed text-[26px] leading-tight font-bold text-pretty">
    How sharp is this lens, and at which aperture?
  </h1>
  <ol class="mt-2 max-w-3xl list-decimal space-y-1 pl-6 text-pretty">
    <li>Print the edge sheet: nine pages, five are enough. Stick them on a flat wall where centre and corners fall.</li>
    <li>
      {length(edgeDistances.from)} to {length(edgeDistances.to)} away, square to the wall; tripod, timer, stabiliser off,
      even light, base ISO.
    </li>
    <li>Focus once, magnified, then one frame, better three, at each aperture from f/{lens.widestFNumber} on.</li>
  </ol>
{/if}
