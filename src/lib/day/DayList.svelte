<script lang="ts">
  import { dragHandleZone, type DndEvent } from 'svelte-dnd-action';
  import { timetable } from '$core/day/timetable';
  import { getApp } from '$lib/state/app.svelte';
  import DayRow from './DayRow.svelte';
  import { lensLanes, placePieces } from './ribbons';

  interface Props {
    chosen: readonly string[];
    onchoose: (ids: readonly string[]) => void;
  }
  /** The day downwards by the clock; while a setup is dragged, the ribbons it would make. */
  let { chosen, onchoose }: Props = $props();
  const app = getApp();
  const flipDurationMs = 120;
  /** The order while something is dragged; null otherwise. */
  let dragged = $state.raw<readonly { readonly id: string }[] | null>(null);
  const known = $derived(app.day.items.map(({ id }) => ({ id })));
  const items = $derived(dragged ?? known);
  const table = $derived(
    dragged
      ? timetable(
          // The one in the hand is a shadow with a mark of its own, but the same id.
          app.day.inOrder(dragged.map((item) => item.id)),
          app.day.held
        )
      : app.day.table
  );
  const lanes = $derived(lensLanes(table.entries));
  const places = $derived(placePieces(table.entries));
  const placeNames = $derived(new Map(app.open.places.map((place) => [place.id, place.name])));
  const byId = $derived(new Map(table.entries.map((entry, index) => [entry.item.id, index])));

  const consider = (event: CustomEvent<DndEvent>) => void (dragged = event.detail.items as { id: string }[]);
  function drop(event: CustomEvent<DndEvent>) {
    const ids = (event.detail.items as { id: string }[]).map((item) => item.id);
    dragged = null;
    if (ids.join() !== known.map((item) => item.id).join()) app.day.reorder(ids);
  }

  function choose(id: string, event: MouseEvent) {
    const last = chosen[chosen.length - 1];
    if (event.shiftKey && last !== undefined) {
      const [a, b] = [byId.get(last) ?? 0, byId.get(id) ?? 0];
      const range = known.slice(Math.min(a, b), Math.max(a, b) + 1).map((item) => item.id);
      onchoose([...new Set([...chosen, ...range])]);
    } else if (chosen.includes(id)) onchoose(chosen.filter((item) => item !== id));
    else if (event.ctrlKey || event.metaKey || chosen.length > 1) onchoose([...chosen, id]);
    else onchoose([id]);
  }
  function lensLabel(index: number): string {
    const entry = table.entries[index];
    if (!entry) return '';
    const starts = lanes[index]?.some((piece) => piece?.used && piece.starts);
    if (!starts) return '';
    return app.open.kit.lenses.find((lens) => lens.id === entry.item.lensId)?.name ?? 'a lens no longer there';
  }
</script>

<div
  class="border-b border-line"
  role="list"
  aria-label="Setups in order"
  use:dragHandleZone={{
    items: items as { id: string }[],
    flipDurationMs,
    dropTargetStyle: {},
    morphDisabled: true,
    type: 'day',
    zoneItemTabIndex: -1
  }}
  onconsider={consider}
  onfinalize={drop}
>
  {#each items as item (item.id)}
    {@const index = byId.get(item.id) ?? 0}
    {@const entry = table.entries[index]}
    <div role="listitem" class="bg-surface">
      {#if entry}
        <DayRow
          {entry}
          {index}
          lanes={lanes[index] ?? []}
          lensLabel={lensLabel(index)}
          place={places[index] ?? { used: true, starts: true, ends: true }}
          placeName={placeNames.get(entry.item.placeId) ?? ''}
          chosen={chosen.includes(item.id)}
          onchoose={(event) => choose(item.id, event)}
        />
      {/if}
    </div>
  {/each}
</div>
