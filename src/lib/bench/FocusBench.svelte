<script lang="ts">
  import { trialRun } from '$core/words/frames';
  import { Button } from 'flowbite-svelte';
  import { isWideOpen } from '$core/bench/focusTest';
  import { focusMethodWords } from '$core/setup/focusChoices';
  import Choice from '$lib/controls/Choice.svelte';
  import Picker from '$lib/controls/Picker.svelte';
  import FocusSaid from './FocusSaid.svelte';
  import { testedMethods, type FocusRun } from './kinds/focus.svelte';

  let { run }: { run: FocusRun } = $props();
  const { figures, lens, unit } = $derived(run);
  const { sets, set, told, wideOpen } = $derived(figures);
</script>

{#if set}
  {#if sets.length > 1}
    <div class="mb-2">
      <Choice
        legend="Focal length and aperture"
        hideLegend
        value={set.key}
        options={sets.map((one) => ({ value: one.key, name: one.key }))}
        onchange={figures.chooseSet}
      />
    </div>
  {/if}
  <FocusSaid
    lens={sets.length > 1 ? `${lens.name}, ${set.key},` : lens.name}
    f={set.focalLengthMm}
    fNumber={set.fNumber}
    shots={set.shots}
    result={set.result}
    distanceMm={figures.distanceMm}
    allowedUm={set.allowedUm}
    {unit}
    stoppedDown={!isWideOpen(lens, set)}
    {wideOpen}
    wished={figures.wished}
  >
    {#snippet details()}
      <div class="mt-2 w-72">
        <Picker
          label="Precision"
          items={(['fifth', 'tenth', 'twentieth'] as const).map((value) => ({
            value,
            name: `a ${value} of the depth of field`
          }))}
          value={figures.wished}
          onchange={(value) => (figures.wished = value)}
        />
      </div>
    {/snippet}
  </FocusSaid>
  {#if run.simulated}
    <p class="mt-2 text-soft">{trialRun('lens')}</p>
  {/if}
  <div class="mt-3 flex flex-wrap items-end gap-2">
    {#if figures.unkept.length > 0 || told.length === 0}
      <Button disabled={told.length === 0 || run.busy} onclick={() => figures.write()}
        >{figures.inUse.length === 0 && told.length > 0 ? 'Keep this test' : 'Save to Kit'}</Button
      >
    {/if}
    <Button color="alternative" onclick={() => run.series.clear()}>Test again</Button>
    <Picker
      label="Focused by"
      items={testedMethods.map((value) => ({ value, name: focusMethodWords[value] }))}
      value={figures.method}
      onchange={(value) => (figures.method = value)}
    />
  </div>
{:else}
  <h1 class="condensed text-[26px] leading-tight font-bold text-pretty">Does this lens front- or back-focus?</h1>
  <p class="mt-1 text-pretty text-soft">
    A printed sheet and ten frames show its error and its scatter. Photos stay in this browser.
  </p>
{/if}
