<script lang="ts">
  import { ChevronDown, ChevronRight } from '@lucide/svelte';
  import type { Plan } from '$core/call/plan';
  import { verdict } from '$core/optics/sharpness';
  import { possessive, verdictWords } from '$core/words/call';
  import Glyph from './Glyph.svelte';
  import type { LadderRow } from './rows';

  interface Props {
    plan: Plan;
    rows: readonly LadderRow[];
    onturn: (key: string) => void;
  }
  let { plan, rows, onturn }: Props = $props();

  function words(row: LadderRow, index: number): string {
    const cell = row.cells[index];
    const label = plan.stops[index]?.stop.label ?? '';
    if (!cell) return '';
    const who =
      row.open !== null && row.worst.length > 0
        ? `${row.name}, worst ${row.worst[index]}`
        : `${possessive(row.name)} ${row.detail}`;
    const limit = row.limits && row.required ? ' This one sets your widest aperture.' : '';
    return `${who} at f/${label}: ${verdictWords[verdict(cell.ratio)]}, ${cell.ratio.toFixed(2)}× acceptable blur.${limit}`;
  }
</script>

{#each rows as row (row.key)}
  <tr class={row.first && row.level === 0 ? 'border-t border-line' : ''}>
    <th scope="row" class="sticky left-0 z-1 bg-surface condensed h-6 p-0 pr-2 text-left font-normal">
      <span class="flex min-h-6 items-center gap-1" style:padding-left="{row.level * 10}px">
        {#if row.open !== null}
          <button
            type="button"
            class="-ml-1 flex min-h-6 min-w-0 items-center font-semibold"
            aria-expanded={row.open}
            onclick={() => onturn(row.turns)}
          >
            {#if row.open}<ChevronDown size={13} class="shrink-0" aria-hidden="true" />{:else}<ChevronRight
                size={13}
                class="shrink-0"
                aria-hidden="true"
              />{/if}
            <span class="truncate">{row.name}</span>
          </button>
        {:else if row.first}
          <span class="truncate font-semibold">{row.name}</span>
        {:else}
          <span class="sr-only">{row.name}</span>
        {/if}
        <span class="ml-auto whitespace-nowrap {row.limits ? 'font-medium' : 'text-soft'}">
          {#if row.limits}<span aria-hidden="true">▸ </span><span class="sr-only"
              >sets the limit,
            </span>{/if}{row.detail}
        </span>
      </span>
    </th>
    {#each row.cells as cell, index (index)}
      <td class="p-0 text-center leading-none" data-say={words(row, index)}>
        <span class={row.required ? '' : 'opacity-45'}><Glyph ratio={cell.ratio} /></span>
        <span class="sr-only">{verdictWords[verdict(cell.ratio)]}, {cell.ratio.toFixed(1)}</span>
      </td>
    {/each}
  </tr>
{/each}
