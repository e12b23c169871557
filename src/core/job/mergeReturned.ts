/**
 * A job that comes home: what was changed away is done to what it has become here meanwhile. `base` is how it left. Nothing
 * that was changed on either side is lost; where both changed the same value, what was done away wins; what comes a second
 * time changes nothing.
 */
import { merge, same } from '../plain/merge';
import type { JobParts } from './normalise';
import type { Job } from './schema';

export type WholeJob = JobParts & { readonly job: Job };

type Identified = { readonly id: string };

/** A row as it should be; null when it should be gone. */
export interface MergedRows<T> {
  readonly id: string;
  readonly value: T | null;
}

export interface MergedReturn {
  readonly job: Job;
  /** Only what differs from what is here. */
  readonly people: readonly MergedRows<JobParts['people'][number]>[];
  readonly places: readonly MergedRows<JobParts['places'][number]>[];
  readonly setups: readonly MergedRows<JobParts['setups'][number]>[];
  /** The setups in their new order, where it was changed away; null where it was not. */
  readonly order: readonly string[] | null;
}

function rows<T extends Identified>(base: readonly T[], away: readonly T[], here: readonly T[]): MergedRows<T>[] {
  const find = (list: readonly T[], id: string) => list.find((item) => item.id === id);
  const ids = new Set([...here, ...away, ...base].map((item) => item.id));
  return [...ids].flatMap((id): MergedRows<T>[] => {
    const [left, came, present] = [find(base, id), find(away, id), find(here, id)];
    const value = arrived(left, came, present);
    return same(value ?? null, present ?? null) ? [] : [{ id, value: value ?? null }];
  });
}

function arrived<T>(left: T | undefined, came: T | undefined, present: T | undefined): T | undefined {
  if (!came) {
    // Removed away: gone, unless it has been changed here, or never went along.
    return left && present && same(left, present) ? undefined : present;
  }
  if (!present) {
    // Removed here: stays so, unless it was changed away, or is new.
    return left && same(left, came) ? undefined : came;
  }
  return left ? merge(left, came, present) : came;
}

/** Those who went along take the places they have here, in the order they have away; the others stay where they are. */
function orderOf(
  base: readonly Identified[],
  away: readonly Identified[],
  here: readonly Identified[]
): string[] | null {
  const ids = (list: readonly Identified[]) => list.map((item) => item.id);
  const common = new Set(ids(base).filter((id) => [away, here].every((list) => list.some((item) => item.id === id))));
  const among = (list: readonly Identified[]) => ids(list).filter((id) => common.has(id));
  const [left, came] = [among(base), among(away)];
  if (same(left, came)) return null;
  const next = came.values();
  return ids(here).map((id) => (common.has(id) ? (next.next().value ?? id) : id));
}

/**
 * @param base how it left
 * @param away how it comes back
 * @param here how it is
 */
export function mergeReturned(base: WholeJob, away: WholeJob, here: WholeJob): MergedReturn {
  return {
    job: merge(base.job, away.job, here.job),
    people: rows(base.people, away.people, here.people),
    places: rows(base.places, away.places, here.places),
    setups: rows(base.setups, away.setups, here.setups),
    order: orderOf(base.setups, away.setups, here.setups)
  };
}

/** What comes home, counted: setups ticked, adjusted or noted, and others changed. */
export function mergedReturnText({ setups, people, places, order }: MergedReturn): string {
  const parts = [
    [setups.length, 'setup', 'setups'],
    [people.length, 'person', 'people'],
    [places.length, 'place', 'places']
  ] as const;
  const said = parts.flatMap(([count, one, many]) => (count === 0 ? [] : [`${count} ${count === 1 ? one : many}`]));
  const all = order ? [...said, 'the order'] : said;
  return all.length === 0 ? 'nothing new' : all.join(', ');
}
