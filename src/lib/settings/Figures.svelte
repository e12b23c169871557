<script lang="ts">
  import { Button } from 'flowbite-svelte';
  import { allowed, habitGroups, shownFigure, withFigure } from '$core/habits/figures';
  import { defaultHabits, type Habits } from '$core/habits/habits';
  import { ownWords } from '$core/words/record';
  import { formatNumber } from '$core/units/number';
  import Fold from '$lib/controls/Fold.svelte';
  import NumberField from '$lib/controls/NumberField.svelte';
  import { getApp } from '$lib/state/app.svelte';

  /** The photographer's own figures for what the odds rest on. */
  const app = getApp();
  const habits = $derived(app.settings.now.habits);
  const nameOf = (id: string) =>
    [...app.open.kit.bodies, ...app.open.kit.lenses].find((item) => item.id === id)?.name ?? 'kit no longer here';
  function undoable(label: string, next: Habits) {
    app.messages.done(`${label}.`, app.settings.edit(label, { habits: next }));
  }
  const usual = $derived(JSON.stringify(habits) === JSON.stringify(defaultHabits));
</script>

<p class="text-pretty">
  How accurate AF is, and how much you and your subjects sway: our estimates, until you measure. Click the keeper rate
  on any setup to see which ones matter.
</p>
{#if habits.own.length > 0}
  <h3 class="mt-3 font-semibold">Measured: your Record or the Bench</h3>
  <ul class="mt-1">
    {#each habits.own as own (`${own.bodyId} ${own.lensId} ${own.method} ${own.recomposed}`)}
      <li class="flex flex-wrap items-center justify-between gap-x-4 border-b border-line py-1">
        <span>{ownWords(own, nameOf)}</span>
        <button
          type="button"
          class="min-h-6 underline"
          onclick={() => undoable('Back to our estimate', { ...habits, own: habits.own.filter((one) => one !== own) })}
          >Back to our estimate</button
        >
      </li>
    {/each}
  </ul>
{/if}
<div class="mt-3">
  <Fold title="Advanced" of="numbers" note={usual ? '' : 'some are your own'}
    ><div class="mt-3 space-y-4">
      {#each habitGroups as group (group.title)}
        <fieldset>
          <legend class="font-semibold">{group.title}</legend>
          <div class="mt-1 grid grid-cols-2 items-start gap-x-3 gap-y-2 sm:grid-cols-4">
            {#each group.figures as figure (figure.path.join('.'))}
              {@const unit = figure.unit === '' || figure.unit === '×' ? '' : `, ${figure.unit}`}
              {@const { min, max } = allowed(figure)}
              <div>
                <NumberField
                  label="{figure.label}{unit}"
                  value={shownFigure(habits, figure)}
                  {min}
                  {max}
                  step={figure.step}
                  onchange={(value) =>
                    void app.settings.edit(figure.label, { habits: withFigure(habits, figure, value) })}
                />
                <p class="label mt-0.5">
                  {formatNumber(figure.plausible[0])} to {formatNumber(figure.plausible[1])}
                </p>
              </div>
            {/each}
          </div>
        </fieldset>
      {/each}
    </div>
    <div class="mt-4">
      <Button
        size="sm"
        color="alternative"
        disabled={usual}
        onclick={() => undoable('Back to our estimates', defaultHabits)}>Back to our estimates</Button
      >
    </div>
  </Fold>
</div>
