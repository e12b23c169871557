<script lang="ts">
  import { trialRun } from '$core/words/frames';
  import { Button } from 'flowbite-svelte';
  import { planSetup } from '$core/call/planSetup';
  import type { StopPlan } from '$core/call/plan';
  import type { Habits } from '$core/habits/habits';
  import { leastFocusings, withOwn, type KitGroup } from '$core/record/groups';
  import { getApp } from '$lib/state/app.svelte';

  interface Props {
    groups: readonly KitGroup[];
    from: 'taken' | 'simulated';
  }
  /** What the record has learned, in place of the usual figures; what that changes is said before. */
  let { groups, from }: Props = $props();
  const app = getApp();
  const ready = $derived(groups.filter(({ learned }) => learned.frames >= leastFocusings));
  const habits = $derived(app.settings.now.habits);
  const next = $derived(withOwn(habits, ready, app.now()));
  const figures = ({ own }: Habits) => JSON.stringify(own.map(({ learnedAt: _, ...figure }) => figure));
  const inUse = $derived(ready.length > 0 && figures(habits) === figures(next));
  const percent = (share: number) => `${Math.round(share * 100)}%`;

  interface Changed {
    readonly id: string;
    readonly name: string;
    readonly before: string;
    readonly after: string;
  }
  const said = (entry: StopPlan | undefined) => (entry ? `f/${entry.stop.label}, ${percent(entry.odds)}` : 'no plan');
  /** The calls of the open job that would be others. */
  const changed = $derived.by((): Changed[] => {
    if (inUse || ready.length === 0 || app.open.job?.habits) return [];
    const lenses = new Set(ready.map(({ lensId }) => lensId));
    return app.open.rows.flatMap(({ id, setup }): Changed[] => {
      if (!lenses.has(setup.camera.lensId)) return [];
      const input = app.open.input(setup);
      const call = (given: Habits) => {
        const plan = planSetup({ ...input, habits: given });
        return said(plan.kind === 'plan' ? plan.stops[plan.selected] : undefined);
      };
      const [before, after] = [call(input.habits), call(withOwn(input.habits, ready, 0))];
      return before === after ? [] : [{ id, name: setup.name, before, after }];
    });
  });

  function back() {
    const label = 'Back to our estimates';
    app.messages.done(`${label}.`, app.settings.edit(label, { habits: { ...habits, own: [] } }));
  }

  function use() {
    const before = app.settings.now.habits;
    const step = app.settings.edit('Your figures in use', { habits: next });
    app.messages.done(
      `Your numbers are in use${before.own.length > 0 ? ', replacing the earlier ones' : ''}: keeper rates, calls and Fixes follow.`,
      step
    );
  }
</script>

{#if ready.length === 0}
  <p class="mt-1 text-pretty text-soft">
    A lens needs {leastFocusings} frames that show where focus landed, from setups whose frames are all here.
  </p>
{:else if inUse}
  <p class="mt-2 text-pretty" data-testid="in-use">
    In use: your measured focus error and scatter, for {ready.length === 1
      ? 'one lens'
      : `${ready.length} combinations of lens and focus method`}.
    <button type="button" class="min-h-6 underline" onclick={back}>Back to our estimates</button>
  </p>
{:else}
  {#if from === 'simulated'}
    <p class="mt-1 text-pretty text-soft">{trialRun('lens')}</p>
  {/if}
  {#if changed.length > 0}
    <p class="mt-2">With them {changed.length === 1 ? 'one call' : `${changed.length} calls`} of this job would be:</p>
    <ul class="mt-1" data-testid="changes">
      {#each changed.slice(0, 6) as one (one.id)}
        <li class="flex justify-between gap-4 border-b border-line py-1">
          <a class="block min-h-6 min-w-0 truncate leading-6 underline" href="/setup/{one.id}">{one.name}</a>
          <span class="whitespace-nowrap tabular-nums">{one.before} → <b class="font-semibold">{one.after}</b></span>
        </li>
      {/each}
    </ul>
    {#if changed.length > 6}<p class="text-soft">and {changed.length - 6} more</p>{/if}
  {:else if !app.open.job?.habits}
    <p class="mt-2 text-soft">No call in this job would change.</p>
  {/if}
  {#if app.open.job?.habits}
    <p class="mt-2 text-pretty text-soft">This job keeps the numbers it came with; switch to yours on its Day.</p>
  {/if}
  <div class="mt-3"><Button onclick={use}>Use my numbers</Button></div>
{/if}
