/** A day's setups one after the other: when each begins, where a lens is changed, where one walks, where times clash. */
import { minuteOf, type Schedule } from '../setup/schedule';

/** What of a setup the day is made of. */
export interface DayItem {
  readonly id: string;
  readonly name: string;
  readonly bodyId: string;
  readonly lensId: string;
  readonly placeId: string;
  readonly schedule: Schedule;
}

/** Minutes of trouble (common practice, no source). */
export const minutesOf = { lensChange: 1, walk: 4 } as const;

export interface DayEntry {
  readonly item: DayItem;
  /** Minutes after the midnight before the day; null before the first time that is said. */
  readonly startsAt: number | null;
  readonly endsAt: number | null;
  /** Its body's lens is another than that body held before. */
  readonly lensChange: boolean;
  /** Its place is another than the one before. */
  readonly walk: boolean;
  /** What comes before runs so many minutes into its time; 0 when it does not. */
  readonly clashMinutes: number;
}

export interface Timetable {
  readonly entries: readonly DayEntry[];
  readonly lensChanges: number;
  readonly walks: number;
  /** Minutes of pictures, lens changes and walks, without waiting. */
  readonly minutes: number;
  readonly clashes: number;
}

/** Past midnight a day goes on until this hour: 00:30 after 23:00 is later, 08:00 after 14:00 is a clash. */
const nightEndsAt = 6 * 60;

/**
 * @param held the lens on each body at the start; a body that is not named takes its first lens without a change
 */
export function timetable(items: readonly DayItem[], held: ReadonlyMap<string, string | null> = new Map()): Timetable {
  const lenses = new Map(held);
  let place: string | null = null;
  let free: number | null = null;
  let minutes = 0;
  const entries = items.map((item): DayEntry => {
    const { schedule } = item;
    const on = lenses.get(item.bodyId);
    const lensChange = on !== undefined && on !== item.lensId;
    const walk = place !== null && place !== item.placeId;
    const trouble = (lensChange ? minutesOf.lensChange : 0) + (walk ? minutesOf.walk : 0);
    const ready: number | null = free === null ? null : free + trouble;
    const said = schedule.startsAt === null ? null : minuteOf(schedule.startsAt);
    // The small hours belong to the evening before.
    const startsAt: number | null =
      said === null ? ready : free !== null && said < nightEndsAt && free - said > 12 * 60 ? said + 1440 : said;
    const clashMinutes = ready !== null && startsAt !== null ? Math.max(0, ready - startsAt) : 0;
    lenses.set(item.bodyId, item.lensId);
    place = item.placeId;
    const endsAt = startsAt === null ? null : startsAt + schedule.minutes;
    // Somebody who is late goes on late.
    free = endsAt === null ? null : Math.max(endsAt, (ready ?? 0) + schedule.minutes);
    minutes += trouble + schedule.minutes;
    return { item, startsAt, endsAt, lensChange, walk, clashMinutes };
  });
  const count = (has: (entry: DayEntry) => boolean) => entries.filter(has).length;
  return {
    entries,
    minutes,
    lensChanges: count((entry) => entry.lensChange),
    walks: count((entry) => entry.walk),
    clashes: count((entry) => entry.clashMinutes > 0)
  };
}

/** Neighbours that share something, as one stretch: what a ribbon is drawn of. */
export interface Stretch {
  readonly from: number;
  readonly to: number;
  readonly key: string;
}

export function stretches(keys: readonly string[]): Stretch[] {
  const found: Stretch[] = [];
  keys.forEach((key, index) => {
    const last = found[found.length - 1];
    if (last?.key === key) found[found.length - 1] = { ...last, to: index };
    else found.push({ from: index, to: index, key });
  });
  return found;
}
