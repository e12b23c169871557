<script lang="ts">
  import type { Plan } from '$core/call/plan';
  import type { FocusMethodOption } from '$core/technique/ways';
  import { oddsWords } from '$core/words/call';
  import { missedBy, missedOnTarget, wayName, wayReason } from '$core/words/ways';
  import { getWorkspace } from '$lib/state/screen/workspace.svelte';
  import TakeButton from './TakeButton.svelte';

  /** One way of focusing: in a hundred frames, how many are sharp, and what the others landed on. */
  let { plan, way, ontake }: { plan: Plan; way: FocusMethodOption; ontake: () => unknown } = $props();
  const workspace = getWorkspace();
  const name = $derived(wayName(plan, way));
  const lost = $derived(missedBy(plan, way));
  const most = $derived(lost[0]);
  const rest = $derived(lost.slice(1).reduce((sum, { share }) => sum + share, 0));
  const sway = $derived(missedOnTarget(plan, way));
  /** Wide enough to be named inside. */
  const namedFrom = 0.17;
  const percent = (share: number) => `${(share * 100).toFixed(2)}%`;
  function look() {
    workspace.looked = {
      area: way.area,
      planes: [
        { depth: way.planeMm, chance: 1 },
        ...way.parts.filter(({ part }) => part !== 'target').map(({ depth, chance }) => ({ depth, chance }))
      ],
      setup: null,
      name
    };
  }
  const leave = () => workspace.lookAway();
</script>

<li
  class="grid grid-cols-[minmax(0,1fr)_4.5rem] items-center gap-x-3 gap-y-1 border-b border-line py-2 sm:grid-cols-[minmax(0,10fr)_minmax(0,9fr)_4.5rem]"
  onpointerenter={look}
  onpointerleave={leave}
  onfocusin={look}
  onfocusout={leave}
>
  <p class="min-w-0 text-pretty">
    <span class={way.inUse ? 'font-bold' : 'font-medium'}>{name}</span>
    <span class="condensed block text-soft">{wayReason(plan, way, workspace.unit)}</span>
  </p>
  <div
    class="flex h-6 w-full overflow-hidden bg-surround/40 max-sm:order-last max-sm:col-span-2"
    role="img"
    aria-label="{oddsWords(way.odds)} sharp{most ? `, ${oddsWords(most.share)} lost to ${most.name}` : ''}"
  >
    <span
      class="flex items-center bg-cool pl-2 text-[12px] font-bold text-surface"
      style:width={percent(Math.max(way.odds, 0.001))}
    >
      {#if way.odds >= 0.1}{oddsWords(way.odds)}{/if}
    </span>
    {#if most}
      <span
        class="condensed flex min-w-0 items-center truncate border-l border-surface bg-[#8d8d8d] pl-1.5 text-[11.5px] text-black"
        style:width={percent(most.share)}
      >
        {#if most.share >= namedFrom}<span class="truncate">{most.name}</span>{/if}
      </span>
    {/if}
    {#if rest > 0.004}<span class="border-l border-surface bg-[#aaaaaa]" style:width={percent(rest)}></span>{/if}
    {#if sway > 0.004}<span class="border-l border-surface" style:width={percent(sway)}></span>{/if}
  </div>
  <TakeButton {name} inUse={way.inUse} {ontake} />
</li>
