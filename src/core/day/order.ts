/** An order of the day that costs less. */
import type { Schedule } from '../setup/schedule';
import { minutesOf, timetable, type DayItem, type Timetable } from './timetable';

export interface BetterOrder {
  readonly kind: 'swap' | 'move';
  /** Places in the list, from 0: the two that change places, or which one goes before which (`to` counted without it). */
  readonly from: number;
  readonly to: number;
  readonly items: readonly DayItem[];
  readonly lensChangesFewer: number;
  readonly walksFewer: number;
}

/** Longer days are not searched: every pair is tried. */
const mostItems = 60;

/** What an order costs, minutes of trouble; a clash outweighs all of it. */
const costOf = ({ lensChanges, walks, entries }: Timetable): number =>
  lensChanges * minutesOf.lensChange +
  walks * minutesOf.walk +
  entries.reduce((sum, entry) => sum + entry.clashMinutes, 0) * 1000;

/**
 * Times belong to the day, not to the picture: whoever takes another's turn takes its time, unless it is fixed. Null when
 * a fixed one would have to move among the others.
 */
export function withTimes(before: readonly DayItem[], order: readonly DayItem[]): DayItem[] | null {
  const fixedBefore = before.flatMap((item, index) => (isFixed(item.schedule) ? [`${index} ${item.id}`] : []));
  const fixedAfter = order.flatMap((item, index) => (isFixed(item.schedule) ? [`${index} ${item.id}`] : []));
  if (fixedBefore.join() !== fixedAfter.join()) return null;
  return order.map((item, index) => {
    const slot = before[index];
    if (!slot || isFixed(item.schedule) || slot.schedule.startsAt === item.schedule.startsAt) return item;
    return { ...item, schedule: { ...item.schedule, startsAt: slot.schedule.startsAt } };
  });
}

const isFixed = ({ fixed, startsAt }: Schedule): boolean => fixed && startsAt !== null;

/**
 * The one swap or move that saves most trouble with no new clash and no fixed time touched; null when none saves anything.
 * Of equals a swap, and the one that moves things least.
 */
export function betterOrder(
  items: readonly DayItem[],
  held: ReadonlyMap<string, string | null> = new Map()
): BetterOrder | null {
  if (items.length < 3 || items.length > mostItems) return null;
  const now = timetable(items, held);
  let best: (BetterOrder & { readonly cost: number; readonly distance: number }) | null = null;
  const consider = (kind: BetterOrder['kind'], from: number, to: number, order: readonly DayItem[]) => {
    const timed = withTimes(items, order);
    if (!timed) return;
    const then = timetable(timed, held);
    const cost = costOf(then);
    const distance = Math.abs(from - to);
    if (then.clashes > now.clashes || cost >= (best?.cost ?? costOf(now))) {
      if (!best || cost !== best.cost || distance >= best.distance) return;
    }
    best = {
      kind,
      from,
      to,
      items: timed,
      lensChangesFewer: now.lensChanges - then.lensChanges,
      walksFewer: now.walks - then.walks,
      cost,
      distance
    };
  };
  for (let a = 0; a < items.length; a++) {
    for (let b = a + 1; b < items.length; b++) {
      const swapped = [...items];
      [swapped[a], swapped[b]] = [items[b] as DayItem, items[a] as DayItem];
      consider('swap', a, b, swapped);
    }
  }
  for (let from = 0; from < items.length; from++) {
    for (let to = 0; to < items.length; to++) {
      // Next to each other, a move is a swap.
      if (Math.abs(from - to) < 2) continue;
      const moved = items.filter((_, index) => index !== from);
      moved.splice(to, 0, items[from] as DayItem);
      consider('move', from, to, moved);
    }
  }
  return best;
}
