<script lang="ts">
  import HowComputed from '$lib/controls/HowComputed.svelte';
  import { oddsWords } from '$core/words/call';
  import type { Plan, StopPlan } from '$core/call/plan';
  import { formatIso, formatShutter, lightWords, whyLight } from '$core/words/light';
  import { getWorkspace } from '$lib/state/screen/workspace.svelte';

  /** `lens`: with what the lens, diffraction and the pixels take of the acceptable blur. */
  let { plan, lens }: { plan: Plan; lens: boolean } = $props();
  const workspace = getWorkspace();
  const short = (iso: number) => (iso >= 10_000 ? `${Math.round(iso / 1000)}k` : formatIso(iso).replaceAll(/\s/g, ''));

  function lensWords({ stop, causes, lensRatio }: StopPlan): string {
    const share = (value: number) => `${Math.round(value * 100)}%`;
    return `At f/${stop.label}, of the acceptable blur: lens ${share(causes.lens)}, diffraction ${share(causes.diffraction)}, pixels ${share(causes.pixels)}, camera shake ${share(causes.shake)}; together ${share(lensRatio)}.`;
  }
</script>

<tr class="border-t border-line">
  <th scope="row" class="sticky left-0 z-1 bg-surface condensed h-7 p-0 text-left font-semibold"
    >Keeper rate, %<HowComputed of="odds" /></th
  >
  {#each plan.stops as entry (entry.stop.label)}
    <td
      class="relative p-0 text-center"
      data-say="At f/{entry.stop.label}, {oddsWords(
        entry.oddsOnTarget
      )} of frames have every face sharp. You asked for {Math.round(plan.oddsWanted * 100)}%."
    >
      <span class="absolute inset-x-0.5 bottom-0.5 bg-ink/12" style:height="{Math.round(entry.oddsOnTarget * 22)}px"
      ></span>
      <span
        class="condensed relative text-[11.5px] {entry.oddsOnTarget >= plan.oddsWanted ? 'font-medium' : 'text-soft'}"
      >
        {Math.min(99, Math.round(entry.oddsOnTarget * 100))}
      </span>
    </td>
  {/each}
</tr>
<tr>
  <th scope="row" class="sticky left-0 z-1 bg-surface condensed h-6 p-0 pr-2 text-left font-normal">
    <span class="flex items-baseline"
      ><span class="font-semibold">At 100%</span><span class="ml-auto text-soft">px</span></span
    >
  </th>
  {#each plan.stops as entry (entry.stop.label)}
    {@const px = entry.worstPixels}
    <td
      class="condensed p-0 text-center text-[11.5px] text-soft"
      data-say="At f/{entry.stop.label} the softest face that must be sharp is blurred over {px.toFixed(
        1
      )} pixels of this body."
    >
      {px < 9.95 ? px.toFixed(1) : Math.min(99, Math.round(px))}
    </td>
  {/each}
</tr>
<tr>
  <th scope="row" class="sticky left-0 z-1 bg-surface condensed h-8 p-0 pr-2 text-left font-normal">
    <span class="flex items-baseline"
      ><span class="font-semibold">Light<HowComputed of="light" /></span><span class="ml-auto text-soft">1/s · ISO</span
      ></span
    >
  </th>
  {#each plan.stops as entry (entry.stop.label)}
    {@const { lack } = lightWords(entry)}
    <td
      class="condensed p-0 text-center text-[10.5px] leading-[1.15] {lack === '' ? '' : 'text-soft line-through'}"
      data-say="f/{entry.stop.label}: {whyLight(workspace.setup, entry)}"
    >
      {formatShutter(entry.light.shutterS).replace(' s', '').replace('1/', '')}<br />{entry.light.iso === null
        ? '–'
        : short(entry.light.iso)}
      {#if lack !== ''}<span class="sr-only">{lack}</span>{/if}
    </td>
  {/each}
</tr>
{#if lens}
  <tr>
    <th scope="row" class="sticky left-0 z-1 bg-surface condensed h-6 p-0 pr-2 text-left font-normal">
      <span class="flex items-baseline"
        ><span class="font-semibold">Lens, diffraction</span><span class="ml-auto text-soft">%</span></span
      >
    </th>
    {#each plan.stops as entry (entry.stop.label)}
      <td
        class="condensed p-0 text-center text-[11.5px] {entry.lensRatio > 1 ? 'line-through' : ''} text-soft"
        data-say={lensWords(entry)}
      >
        {Math.round(entry.lensRatio * 100)}
      </td>
    {/each}
  </tr>
{/if}
