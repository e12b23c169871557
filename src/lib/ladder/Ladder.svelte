<script lang="ts">
  import { tick } from 'svelte';
  import type { Plan, PointSharpness } from '$core/call/plan';
  import { verdict } from '$core/optics/sharpness';
  import { formatLength } from '$core/words/length';
  import { roleWords, verdictWords, wishWords } from '$core/words/call';
  import { getWorkspace } from '$lib/state/workspace.svelte';
  import Glyph from './Glyph.svelte';
  import { ladderRows } from './rows';

  let { plan }: { plan: Plan } = $props();
  const workspace = getWorkspace();

  const labelWidth = 148;
  const leastColumn = 24;
  let width = $state(540);
  const column = $derived(Math.max(leastColumn, Math.floor((width - labelWidth) / plan.stops.length)));
  const rows = $derived(ladderRows(plan));
  const detailUnit = $derived(workspace.unit === 'feet' ? { mm: 25.4, name: 'in' } : { mm: 10, name: 'cm' });

  function detail(mm: number): string {
    const value = mm / detailUnit.mm;
    return value >= 9.5 ? String(Math.round(value)) : value.toFixed(1).replace(/\.0$/, '');
  }

  function cellWords(sharpness: PointSharpness, who: string, label: string): string {
    return `${who} at f/${label}: ${verdictWords[verdict(sharpness.ratio)]}, ${sharpness.ratio.toFixed(2)} of the blur allowed`;
  }

  function onkeydown(event: KeyboardEvent) {
    const by = event.key === 'ArrowLeft' ? -1 : event.key === 'ArrowRight' ? 1 : 0;
    if (by === 0) return;
    event.preventDefault();
    event.stopPropagation();
    workspace.stepStop(by);
    const head = (event.currentTarget as HTMLElement).closest('tr');
    void tick().then(() => head?.querySelector<HTMLButtonElement>('[aria-pressed=true]')?.focus());
  }
</script>

<div class="overflow-x-auto" bind:clientWidth={width} data-testid="ladder">
  <div class="relative w-fit min-w-full">
    {#if plan.window}
      <div
        class="pointer-events-none absolute inset-y-0 rounded-[3px] bg-band transition-[left,width] duration-200"
        data-testid="window-band"
        style:left="{labelWidth + plan.window.first * column}px"
        style:width="{(plan.window.last - plan.window.first + 1) * column}px"
      ></div>
    {/if}
    <table
      class="relative table-fixed border-collapse"
      style:width="{labelWidth + column * plan.stops.length}px"
      aria-label="Ladder: every stop against every face and background"
    >
      <colgroup>
        <col style:width="{labelWidth}px" />
        {#each plan.stops as entry (entry.stop.label)}<col style:width="{column}px" />{/each}
      </colgroup>
      <thead>
        <tr>
          <th scope="col" class="sticky left-0 z-1 bg-surface label text-left font-normal">f-number</th>
          {#each plan.stops as entry, index (entry.stop.label)}
            {@const chosen = index === plan.selected}
            <th scope="col" class="h-9 p-0 font-normal">
              <button
                type="button"
                aria-pressed={chosen}
                data-stop={entry.stop.label}
                aria-label="f/{entry.stop.label}"
                tabindex={chosen ? 0 : -1}
                class="condensed relative h-8 w-full text-[13px] {chosen ? 'font-bold' : ''}"
                onclick={() => workspace.chooseStop(index)}
                {onkeydown}
              >
                {entry.stop.label}
                {#if chosen}
                  <svg
                    class="pointer-events-none absolute top-1/2 left-1/2 -translate-x-1/2 -translate-y-1/2 overflow-visible"
                    width="34"
                    height="26"
                    viewBox="-17 -13 34 26"
                    aria-hidden="true"
                  >
                    <path
                      d="M-13.5 2.2C-14.5-6-7-11.6 1-11.4 9.5-11.2 15.6-6.6 15 .6 14.4 8 7 11.6-1 11.3-8 11-13.6 7.4-13.9.8c-.2-3.6 2-7 5.4-9"
                      fill="none"
                      stroke="var(--pencil)"
                      stroke-width="2"
                      stroke-linecap="round"
                    />
                  </svg>
                {/if}
              </button>
            </th>
          {/each}
        </tr>
      </thead>
      <tbody>
        {#each rows as row (row.key)}
          <tr class={row.first ? 'border-t border-line' : ''}>
            <th scope="row" class="sticky left-0 z-1 bg-surface condensed h-6 p-0 pr-2 text-left font-normal">
              <span class="flex items-baseline gap-1.5">
                <span class="truncate font-semibold"
                  >{#if row.first}{row.name}{:else}<span class="sr-only">{row.name}</span>{/if}</span
                >
                <span class="ml-auto whitespace-nowrap text-soft">{roleWords[row.role]}</span>
              </span>
            </th>
            {#each row.cells as cell, index (index)}
              {@const label = plan.stops[index]?.stop.label ?? ''}
              <td
                class="p-0 text-center leading-none"
                title={cellWords(cell, `${row.name}’s ${roleWords[row.role]}`, label)}
              >
                <span class={row.required ? '' : 'opacity-45'}><Glyph ratio={cell.ratio} /></span>
                <span class="sr-only">{verdictWords[verdict(cell.ratio)]}, {cell.ratio.toFixed(1)}</span>
              </td>
            {/each}
          </tr>
        {/each}
        {#each plan.backgrounds as background, position (background.id)}
          <tr class={position === 0 ? 'border-t border-line' : ''}>
            <th scope="row" class="sticky left-0 z-1 bg-surface condensed h-6 p-0 pr-2 text-left font-normal">
              <span class="flex items-baseline gap-1.5">
                <span class="truncate font-semibold">{background.name}</span>
                <span class="ml-auto whitespace-nowrap text-soft">
                  {wishWords[background.wish]} · {formatLength(background.detailMm, workspace.unit)}
                </span>
              </span>
            </th>
            {#each plan.stops as entry (entry.stop.label)}
              {@const state = entry.backgrounds[position]}
              {#if state}
                <td
                  class="condensed p-0 text-center text-[11.5px] {state.met ? 'font-medium' : 'text-soft line-through'}"
                  title="{background.name} at f/{entry.stop.label}: detail under {formatLength(
                    state.lostDetailMm,
                    workspace.unit
                  )} is lost; {state.met ? 'as wished' : 'not as wished'}"
                >
                  {detail(state.lostDetailMm)}<span class="sr-only">
                    {detailUnit.name} lost, {state.met ? 'as wished' : 'not as wished'}
                  </span>
                </td>
              {/if}
            {/each}
          </tr>
        {/each}
        <tr class="border-t border-line">
          <th scope="row" class="sticky left-0 z-1 bg-surface condensed h-7 p-0 text-left font-semibold"
            >Keeper odds, %</th
          >
          {#each plan.stops as entry (entry.stop.label)}
            <td
              class="relative p-0 text-center"
              title="{Math.round(entry.odds * 100)} % of frames keep every face sharp"
            >
              <span class="absolute inset-x-0.5 bottom-0.5 bg-ink/12" style:height="{Math.round(entry.odds * 22)}px"
              ></span>
              <span
                class="condensed relative text-[11.5px] {entry.odds >= plan.oddsWanted ? 'font-medium' : 'text-soft'}"
              >
                {Math.min(99, Math.round(entry.odds * 100))}
              </span>
            </td>
          {/each}
        </tr>
      </tbody>
    </table>
  </div>
</div>
<p class="label mt-1.5 flex flex-wrap items-center gap-x-3">
  <span class="flex items-center gap-1"><Glyph ratio={0.5} size={12} /> sharp</span>
  <span class="flex items-center gap-1"><Glyph ratio={1.3} size={12} /> a touch soft</span>
  <span class="flex items-center gap-1"><Glyph ratio={3} size={12} /> soft</span>
  {#if plan.backgrounds.length > 0}<span>numbers: detail lost, {detailUnit.name}</span>{/if}
  {#if plan.window}<span class="flex items-center gap-1"><span class="inline-block h-3 w-4 bg-band"></span> works</span
    >{/if}
</p>
