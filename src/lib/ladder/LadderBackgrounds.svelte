<script lang="ts">
  import type { Plan } from '$core/call/plan';
  import { goalWords } from '$core/setup/choices';
  import { formatLength } from '$core/units/length';
  import { getWorkspace } from '$lib/state/screen/workspace.svelte';

  let { plan, unit }: { plan: Plan; unit: { mm: number; name: string } } = $props();
  const workspace = getWorkspace();

  function detail(mm: number): string {
    const value = mm / unit.mm;
    return value >= 9.5 ? String(Math.round(value)) : value.toFixed(1).replace(/\.0$/, '');
  }
</script>

{#each plan.backgrounds as background, position (background.id)}
  {@const before = background.depthMm < plan.distanceMm}
  <tr class={position === 0 ? 'border-t border-line' : ''}>
    <th scope="row" class="sticky left-0 z-1 bg-surface condensed h-6 p-0 pr-2 text-left font-normal">
      <span class="flex items-baseline gap-1.5">
        <span class="truncate font-semibold">{background.name}</span>
        <span class="ml-auto whitespace-nowrap text-soft">
          {before ? 'in front, ' : ''}{goalWords[background.wish]} · {formatLength(background.detailMm, workspace.unit)}
        </span>
      </span>
    </th>
    {#each plan.stops as entry (entry.stop.label)}
      {@const state = entry.backgrounds[position]}
      {#if state}
        <td
          class="condensed p-0 text-center text-[11.5px] {state.met ? 'font-medium' : 'text-soft line-through'}"
          data-say="{background.name} at f/{entry.stop.label}: details under {formatLength(
            state.lostDetailMm,
            workspace.unit
          )} disappear; these are {formatLength(background.detailMm, workspace.unit)}. {state.met
            ? 'As you want it.'
            : `Not as you want it: ${state.shortfallStops.toFixed(1)} stops off.`}"
        >
          {detail(state.lostDetailMm)}<span class="sr-only">
            {unit.name} of blur, {state.met ? 'as you want' : 'not as you want'}
          </span>
        </td>
      {/if}
    {/each}
  </tr>
{/each}
