<script lang="ts">
  import type { Snippet } from 'svelte';
  import type { FocusResult, Precision } from '$core/bench/focusTest';
  import type { FocusShot } from '$core/bench/schema';
  import { focusWords, focusOffsetText } from '$core/words/bench';
  import { formatLength, type LengthUnit } from '$core/units/length';
  import Fold from '$lib/controls/Fold.svelte';
  import HowComputed from '$lib/controls/HowComputed.svelte';
  import FocusDots from './FocusDots.svelte';

  interface Props {
    lens: string;
    f: number;
    fNumber: number;
    shots: readonly (FocusShot & { readonly id: string })[];
    result: FocusResult;
    /** What all is brought to, mm. */
    distanceMm: number;
    allowedUm: number;
    unit: LengthUnit;
    stoppedDown: boolean;
    /** Bias wide open, and its stop, where it is known. */
    wideOpen: { readonly um: number; readonly fNumber: number } | null;
    wished: Precision;
    details: Snippet;
  }
  /** Where the lens focuses at one focal length and stop. */
  let { lens, f, fNumber, shots, result, distanceMm, allowedUm, unit, stoppedDown, wideOpen, wished, details }: Props =
    $props();
  const said = $derived(focusWords(result, { lens, f, distanceMm, unit, frames: shots.length, allowedUm, wished }));
  const stop = (N: number) => Number(N.toFixed(1));
  /** So many times as far away, as computed from the sensor. */
  const others = [0.5, 2, 3];
</script>

<h1 class="condensed text-[26px] leading-tight font-bold text-pretty" data-testid="bench-verdict">{said.title}</h1>
<p class="mt-1 text-pretty">{said.detail}<HowComputed of="bench" class="ml-1" /></p>
<FocusDots {shots} {f} {distanceMm} {allowedUm} {unit} />
<p class="border-l-4 border-pencil bg-raised p-3 text-pretty">
  <b class="font-semibold">{said.advice}</b>
  {#if said.more !== ''}<span class="block text-soft">{said.more}</span>{/if}
</p>
{#if stoppedDown}
  <p class="mt-2 text-pretty" data-testid="focus-shift">
    {#if wideOpen}
      Stopping down from f/{stop(wideOpen.fNumber)} to f/{stop(fNumber)} moves the plane to
      {focusOffsetText(result.bias.value - wideOpen.um, f, distanceMm, unit)}: saved by aperture; plans follow.
    {:else}
      f/{stop(fNumber)} isn’t wide open: without a test wide open it’s kept for comparison only.
    {/if}
  </p>
{/if}
<div class="mt-3">
  <Fold title="Details" of="focus">
    {#if result.verdict !== 'few' && !result.changesWithDistance}
      <p class="text-pretty">
        {#if result.byDistance.length > 1}
          Measured at {result.byDistance.map((one) => formatLength(one.distanceMm, unit)).join(' and ')}.
        {/if}
        Extrapolated: {others
          .map((times) => times * distanceMm)
          .map((mm) => `${focusOffsetText(result.bias.value, f, mm, unit)} at ${formatLength(mm, unit)}`)
          .join(', ')}.
      </p>
    {/if}
    {@render details()}
  </Fold>
</div>
