<script lang="ts">
  import { SvelteSet } from 'svelte/reactivity';
  import type { Plan } from '$core/call/plan';
  import HowComputed from '$lib/controls/HowComputed.svelte';
  import Choice from '$lib/controls/Choice.svelte';
  import { getWorkspace } from '$lib/state/screen/workspace.svelte';
  import Glyph from './Glyph.svelte';
  import LadderBackgrounds from './LadderBackgrounds.svelte';
  import LadderFaces from './LadderFaces.svelte';
  import LadderHead from './LadderHead.svelte';
  import LadderSettings from './LadderSettings.svelte';
  import { ladderRows, type LadderOrder } from './rows';

  let { plan }: { plan: Plan } = $props();
  const workspace = getWorkspace();

  const labelWidth = 148;
  const leastColumn = 24;
  /** Whether the row of the lens and diffraction is shown. */
  let lens = $state(false);
  let width = $state(540);
  let order = $state<LadderOrder>('byRow');
  /** What the pointed cell says. */
  let said = $state('');
  const turned = new SvelteSet<string>();
  const column = $derived(Math.max(leastColumn, Math.floor((width - labelWidth) / plan.stops.length)));
  const rows = $derived(ladderRows(plan, order, turned));
  const detailUnit = $derived(workspace.unit === 'feet' ? { mm: 25.4, name: 'in' } : { mm: 10, name: 'cm' });

  function turn(key: string) {
    if (turned.has(key)) turned.delete(key);
    else turned.add(key);
  }
  function point(event: PointerEvent) {
    said = (event.target as Element).closest<HTMLElement>('[data-say]')?.dataset['say'] ?? '';
  }
  function choose(event: MouseEvent) {
    const cell = (event.target as Element).closest('td');
    if (cell) workspace.chooseStop(cell.cellIndex - 1);
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
    <!-- A cell is the mouse's shortcut to its stop; the buttons in the head are the keyboard's way. -->
    <!-- svelte-ignore a11y_click_events_have_key_events, a11y_no_noninteractive_element_interactions -->
    <table
      class="relative table-fixed border-collapse"
      style:width="{labelWidth + column * plan.stops.length}px"
      aria-label="Ladder: every aperture against every face and background"
      onpointerover={point}
      onpointerleave={() => (said = '')}
      onclick={choose}
    >
      <colgroup>
        <col style:width="{labelWidth}px" />
        {#each plan.stops as entry (entry.stop.label)}<col style:width="{column}px" />{/each}
      </colgroup>
      <thead><LadderHead {plan} /></thead>
      <tbody>
        <LadderFaces {plan} {rows} onturn={turn} />
        <LadderBackgrounds {plan} unit={detailUnit} />
        <LadderSettings {plan} {lens} />
      </tbody>
    </table>
  </div>
</div>
<div class="mt-1 flex min-h-9 items-start gap-3">
  {#if said !== ''}
    <p class="text-[12px] leading-tight" data-testid="ladder-says">{said}</p>
  {:else}
    <p class="label flex flex-wrap items-center gap-x-3">
      <span class="flex items-center gap-1"><Glyph ratio={0.5} size={12} /> sharp</span>
      <span class="flex items-center gap-1"><Glyph ratio={1.3} size={12} /> a touch soft</span>
      <span class="flex items-center gap-1"><Glyph ratio={3} size={12} /> soft<HowComputed of="sharpness" /></span>
      {#if plan.backgrounds.length > 0}<span class="flex items-center"
          >background blur, {detailUnit.name}<HowComputed of="background" /></span
        >{/if}
      {#if plan.window}<span class="flex items-center gap-1"
          ><span class="inline-block h-3 w-4 bg-band"></span> works</span
        >{/if}
      <button
        type="button"
        class="min-h-6 underline underline-offset-2"
        aria-pressed={lens}
        onclick={() => (lens = !lens)}>lens blur</button
      >
    </p>
    {#if plan.subjects.length > 3}
      <div class="ml-auto">
        <Choice
          legend="Faces sorted"
          hideLegend
          small
          value={order}
          options={[
            { value: 'byRow', name: 'by row' },
            { value: 'byRisk', name: 'by risk' }
          ]}
          onchange={(value) => (order = value)}
        />
      </div>
    {/if}
  {/if}
</div>
