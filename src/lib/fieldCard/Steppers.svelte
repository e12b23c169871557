<script lang="ts">
  import { Minus, Plus, RotateCcw } from '@lucide/svelte';
  import { distanceNow, pressStepper, steppersOf, type Stepper } from '$core/asShot/steppers';
  import { asPlanned, isAsPlanned, type Different } from '$core/setup/schedule';
  import type { Setup } from '$core/setup/schema';
  import { differentWords, stepperNames, stepperValue } from '$core/words/field';
  import { getApp } from '$lib/state/app.svelte';

  interface Props {
    /** As planned, and as it turned out. */
    setup: Setup;
    shot: Setup;
    onmissing: () => void;
  }
  /** What turned out different: the four likeliest for this setup, the others a press away. */
  let { setup, shot, onmissing }: Props = $props();
  const app = getApp();
  const shown = 4;
  const unit = $derived(app.settings.now.unit);
  const kit = $derived(app.open.input(setup).kit);
  const { different } = $derived(setup.taken);
  const all = $derived(steppersOf(setup, kit));
  let more = $state(false);
  const now = $derived(more ? all.slice(shown) : all.slice(0, shown));
  const distance = $derived(distanceNow(setup, kit, different));

  const change = (next: Different, gesture: string | null) =>
    app.day.taken([setup.id], 'What was different', { different: next }, gesture);
  const step = (stepper: Stepper, by: 1 | -1) =>
    change(pressStepper(setup, kit, different, stepper, by, unit), `different ${setup.id}`);
</script>

<section aria-label="What changed?" class="shrink-0 border-t-2 border-ink">
  <div class="flex h-11 items-center gap-2">
    {#if all.length > shown}
      <button
        type="button"
        class="h-11 shrink-0 text-[15px] underline decoration-1 underline-offset-3"
        aria-expanded={more}
        onclick={() => (more = !more)}>{more ? 'Fewer' : 'What else changed?'}</button
      >
    {:else}<span class="shrink-0 text-[15px]">What changed?</span>{/if}
    <span class="condensed ml-auto line-clamp-2 text-right text-[14px] leading-tight" data-testid="different"
      >{differentWords(setup, kit, different, unit)}</span
    >
    {#if !isAsPlanned(different)}
      <button
        type="button"
        class="-mr-2 grid size-11 shrink-0 place-items-center"
        aria-label="As planned again"
        onclick={() => change(asPlanned, null)}><RotateCcw size={20} aria-hidden="true" /></button
      >
    {/if}
  </div>
  <div class="grid grid-cols-2 gap-2">
    {#each now as stepper (stepper)}
      {@const value = stepperValue(stepper, different, shot, distance, unit)}
      {#if stepper === 'missing'}
        <button
          type="button"
          class="flex h-14 flex-col items-center justify-center border-2 border-ink"
          onclick={onmissing}
        >
          <span class="condensed text-[13px] leading-tight">{stepperNames[stepper]}</span>
          <span class="condensed text-[19px] leading-tight font-bold">{value}</span>
        </button>
      {:else}
        <div class="flex h-14 items-stretch border-2 border-ink" role="group" aria-label={stepperNames[stepper]}>
          <button
            type="button"
            class="grid w-11 shrink-0 place-items-center"
            aria-label="{stepperNames[stepper]}, less"
            onclick={() => step(stepper, -1)}><Minus size={20} aria-hidden="true" /></button
          >
          <span class="min-w-0 flex-1 self-center text-center" aria-live="polite">
            <span class="condensed block truncate text-[13px] leading-tight">{stepperNames[stepper]}</span>
            <span class="condensed block truncate text-[19px] leading-tight font-bold">{value}</span>
          </span>
          <button
            type="button"
            class="grid w-11 shrink-0 place-items-center"
            aria-label="{stepperNames[stepper]}, more"
            onclick={() => step(stepper, 1)}><Plus size={20} aria-hidden="true" /></button
          >
        </div>
      {/if}
    {/each}
  </div>
</section>
