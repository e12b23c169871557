/** What a job that comes would take away here, before it does. */
import { same } from '$core/plain/merge';
import type { Change } from '$lib/data';

export interface ArrivalLosses {
  /** Names of what is here and would be otherwise afterwards: setups, people, places. */
  readonly replaced: readonly string[];
  /** Names of what is here and would be gone. */
  readonly removed: readonly string[];
}

const parts = ['setups', 'people', 'places'];
const nameOf = (value: unknown): string =>
  typeof value === 'object' && value !== null && 'name' in value ? String(value.name) : '';

/** What these changes replace and remove of a job's own rows; kit only ever comes in beside what is there. */
export function arrivalLosses(changes: readonly Change[]): ArrivalLosses {
  const own = changes.filter(({ table, before }) => before && (parts.includes(table) || table === 'jobs'));
  const names = (list: readonly Change[]) => list.map(({ before }) => nameOf(before?.value));
  return {
    replaced: names(own.filter(({ before, after }) => after && !same(before?.value, after.value))),
    removed: names(own.filter(({ after }) => !after))
  };
}

export const losesWork = ({ replaced, removed }: ArrivalLosses): boolean => replaced.length + removed.length > 0;
