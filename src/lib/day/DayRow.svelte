<script lang="ts">
  import { GripVertical } from '@lucide/svelte';
  import { dragHandle } from 'svelte-dnd-action';
  import type { DayEntry } from '$core/day/timetable';
  import { clockOf } from '$core/setup/schedule';
  import { dayLine, keeperRateWords } from '$core/words/call';
  import { clashWords } from '$core/words/day';
  import { unbroken } from '$core/units/length';
  import { formatIso, formatShutter } from '$core/words/light';
  import { getApp } from '$lib/state/app.svelte';
  import Thumbnail from '$lib/strip/Thumbnail.svelte';
  import { near } from './near';
  import Ribbon from './Ribbon.svelte';
  import type { RibbonPiece } from './ribbons';

  interface Props {
    entry: DayEntry;
    index: number;
    lanes: readonly (RibbonPiece | null)[];
    lensLabel: string;
    place: RibbonPiece;
    placeName: string;
    chosen: boolean;
    onchoose: (event: MouseEvent) => void;
  }
  /** One setup of the Day: when, its picture, its call; beside it what is in the hand and where one is. */
  let { entry, index, lanes, lensLabel, place, placeName, chosen, onchoose }: Props = $props();
  const app = getApp();
  let shown = $state(false);
  const row = $derived(app.open.row(entry.item.id));
  const name = $derived(entry.item.name);
  const planned = $derived(shown && row ? app.open.planned(row.setup) : null);
  const said = $derived(planned ? dayLine(planned.plan, app.settings.now.unit) : null);
  const plan = $derived(planned?.plan.kind === 'plan' ? planned.plan : null);
  const odds = $derived(plan ? keeperRateWords(plan) : '');
  /** Its light, and what was noted. */
  const more = $derived.by(() => {
    const light = plan?.stops[plan.selected]?.light;
    if (!row || !light) return '';
    const settings = light.iso === null ? '' : `${formatShutter(light.shutterS)}, ISO ${formatIso(light.iso)}`;
    return [settings, row.setup.taken.note, row.setup.notes].filter(Boolean).join(' · ');
  });
  const people = $derived.by(() => {
    const all = row?.setup.people ?? [];
    return all.length > 3 ? `${all.length} people` : all.map((person) => person.name).join(', ');
  });
  const clash = $derived(clashWords(entry));
  const done = $derived.by(() => {
    const taken = row?.setup.taken;
    if (!taken) return '';
    if (taken.verdict) return taken.doneAt ? `done, ${taken.verdict}` : taken.verdict;
    if (taken.doneAt) return 'done';
    return entry.item.schedule.priority === 'must' ? 'must' : 'if time';
  });
</script>

<div
  class="grid h-21 grid-cols-[auto_3.5rem_minmax(0,1fr)_auto] items-center sm:grid-cols-[6.5rem_auto_4rem_minmax(0,1fr)_4.5rem_auto_6.5rem]"
  {@attach near((is) => void (shown = is))}
>
  <span class="condensed self-start pt-2 pr-2.5 text-right text-[13px] leading-tight font-semibold max-sm:hidden"
    >{lensLabel}</span
  >
  <span class="mr-2.5 flex h-full gap-1">
    {#each lanes as piece, lane (lane)}<Ribbon {piece} />{/each}
  </span>
  <button
    type="button"
    class="h-full text-left {chosen ? 'bg-ink text-surface' : 'text-soft hover:bg-raised'} border-t border-line px-2"
    aria-pressed={chosen}
    aria-label="Choose {name}"
    onclick={onchoose}
  >
    <span class="block text-[11px]">{index + 1}</span>
    <span class="condensed block text-[15px] {entry.item.schedule.fixed ? 'font-bold' : ''}"
      >{entry.startsAt === null ? '–' : clockOf(entry.startsAt)}</span
    >
    <span class="block text-[11px]">{entry.item.schedule.minutes} min</span>
  </button>
  <div class="flex h-full min-w-0 items-center border-t border-line pl-1">
    <a href="/setup/{entry.item.id}" class="flex min-w-0 flex-1 items-center gap-3">
      <span class="grid w-23 shrink-0 place-items-center max-[400px]:hidden">
        {#if shown && row}<Thumbnail {row} />{:else}<span class="block h-15.5 w-23 bg-surround"></span>{/if}
      </span>
      <span class="min-w-0">
        <span class="flex min-w-0 items-baseline gap-2">
          <span class="condensed truncate text-[16px] font-semibold">{name}</span>
          <span class="condensed shrink-[2] truncate text-soft max-sm:hidden">{people}</span>
        </span>
        {#if said}
          <span class="line-clamp-2 text-[13.5px] leading-snug">{unbroken(said.call)}</span>
          {#if clash !== ''}<span class="block truncate font-medium text-pencil">{clash}</span>
          {:else if plan?.conflict}<span class="block truncate text-soft">{said.more}</span>
          {:else}<span class="condensed block truncate text-soft">{more}</span>{/if}
        {/if}
      </span>
    </a>
  </div>
  <div class="h-full content-center border-t border-line text-right">
    <span class="condensed block text-[17px] leading-tight font-semibold">{odds}</span>
    <span class="block text-[12px] text-soft">{done}</span>
    <span
      use:dragHandle
      class="mt-0.5 ml-auto grid size-6 place-items-center text-soft"
      aria-label="Move {name}: Enter, then arrow keys"
    >
      <GripVertical size={14} aria-hidden="true" />
    </span>
  </div>
  <span class="ml-2.5 h-full max-sm:hidden"><Ribbon piece={place} /></span>
  <span class="condensed self-start pt-2 pl-2.5 text-[13px] leading-tight font-semibold max-sm:hidden"
    >{place.starts ? placeName : ''}</span
  >
</div>
