<script lang="ts">
  import type { Plan, StopPlan } from '$core/call/plan';
  import type { Setup } from '$core/setup/schema';
  import { backgroundSentence } from '$core/words/call';
  import { compensationOf } from '$core/technique/metering';
  import { cardLines } from '$core/words/card';
  import { getApp } from '$lib/state/app.svelte';

  /** Where to stand, what is sharp, how to focus, what becomes of the background. */
  let { setup, plan, entry }: { setup: Setup; plan: Plan; entry: StopPlan } = $props();
  const app = getApp();
  const compensation = $derived(compensationOf(app.open.input(setup), plan));
  const unit = $derived(app.settings.now.unit);
</script>

<dl class="mt-3 border-t-2 border-ink text-[16px]">
  {#each cardLines(plan, entry, unit, { setup, compensation }) as line (line.name)}
    <div class="flex items-baseline gap-3 border-b border-line py-1">
      <dt class="w-15 shrink-0 leading-tight text-soft">{line.name}</dt>
      <dd class="condensed text-[22px] leading-tight font-bold whitespace-nowrap">{line.value}</dd>
      <dd class="ml-auto text-right text-soft">{line.more}</dd>
    </div>
  {/each}
</dl>
<div class="mt-2 space-y-1 text-[16px] leading-snug">
  {#each plan.backgrounds as background, position (background.id)}
    <p>{backgroundSentence(plan, position, entry, unit)}</p>
  {/each}
</div>
