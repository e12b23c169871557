/**
 * Every change to the store, from a nudge to an import, is a list of rows before and after. It is stored in one
 * transaction, on top of whatever another tab has stored meanwhile: merged three ways, row by row.
 */
import type Dexie from 'dexie';
import { merge, same } from '$core/plain/merge';
import { rowKey, type Change, type Descriptor, type Descriptors, type Row, type TableName, type Values } from './rows';

/** Who wins where both have changed the same value: an edit ('mine'), or, when something is taken back, what is stored. */
export type Preference = 'mine' | 'stored';

export interface Committed {
  /** What is stored now; null for a row that is not. */
  readonly stored: readonly { readonly table: string; readonly id: string; readonly row: Row | null }[];
  /** Changes to rows whose owner is no longer there: nothing of them was stored. */
  readonly homeless: readonly Change[];
  /** Whether a row that was known, or the owner of one, is no longer there. */
  readonly missing: boolean;
}

/**
 * @throws whatever the database throws; then nothing of it is stored
 */
export async function commit<T extends Values>(
  database: Dexie,
  descriptors: Descriptors<T>,
  changes: readonly Change[],
  { now, prefer }: { readonly now: number; readonly prefer: Preference }
): Promise<Committed> {
  const names = [...new Set(changes.map((change) => change.table))];
  const owners = names.flatMap((name) => descriptorOf(descriptors, name).ownedBy ?? []);
  const stored: Committed['stored'][number][] = [];
  const homeless: Change[] = [];
  let missing = false;
  await database.transaction('rw', [...new Set([...names, ...owners])], async () => {
    // Owners first: what they own may come in with them.
    for (const name of names.sort((a, b) => depthOf(descriptors, a) - depthOf(descriptors, b))) {
      const descriptor = descriptorOf(descriptors, name);
      const own = changes.filter((change) => change.table === name);
      const table = database.table<Row, string>(name);
      const there = await table.bulkGet(own.map((change) => change.id));
      const orphans = await ownerless(database, descriptor, own);
      const puts: Row[] = [];
      const deletes: string[] = [];
      own.forEach((change, index) => {
        const { id, after } = change;
        const current = there[index] ?? null;
        if (change.before && after && !current) missing = true;
        if (after && after.owner !== null && orphans.has(after.owner)) {
          homeless.push(change);
          return;
        }
        const row = outcome(descriptor, change, current, prefer);
        if (row === null) {
          if (current) deletes.push(id);
        } else if (row !== current) puts.push({ ...row, updatedAt: Math.max(now, (current?.updatedAt ?? 0) + 1) });
        stored.push({ table: name, id, row: row === null || row === current ? row : (puts[puts.length - 1] ?? null) });
      });
      await table.bulkPut(puts);
      await table.bulkDelete(deletes);
    }
  });
  return { stored, homeless, missing: missing || homeless.length > 0 };
}

function descriptorOf<T extends Values>(descriptors: Descriptors<T>, name: string): Descriptor<unknown> {
  return descriptors[name as TableName<T>] as Descriptor<unknown>;
}

function depthOf<T extends Values>(descriptors: Descriptors<T>, name: string): number {
  const { ownedBy } = descriptorOf(descriptors, name);
  return ownedBy === null ? 0 : 1 + depthOf(descriptors, ownedBy);
}

/** Owners these changes need that are not stored. */
async function ownerless(
  database: Dexie,
  { ownedBy }: Descriptor<unknown>,
  changes: readonly Change[]
): Promise<ReadonlySet<string>> {
  if (ownedBy === null) return new Set();
  const ids = [...new Set(changes.flatMap(({ after }) => after?.owner ?? []))];
  const there = await database.table<Row, string>(ownedBy).bulkGet(ids);
  return new Set(ids.filter((_, index) => !there[index]));
}

/** The row to be stored; the very `current` when it stays as it is, null when it goes. */
function outcome(
  { schema }: Descriptor<unknown>,
  { before, after }: Change,
  current: Row | null,
  prefer: Preference
): Row | null {
  if (!after) {
    // Another tab has changed it since: what was typed there outlives the removal.
    const untouched = !current || !before || same(content(current), content(before));
    return untouched ? null : current;
  }
  if (!current) return prefer === 'stored' && before ? null : after;
  if (!before) return prefer === 'stored' ? current : after;
  const merged = prefer === 'mine' ? mergeRows(before, after, current) : mergeRows(before, current, after);
  if (same(content(merged), content(current))) return current;
  if (schema.safeParse(merged.value).success) return merged;
  return prefer === 'mine' ? after : current;
}

const content = ({ updatedAt: _, ...rest }: Row) => rest;

function mergeRows(before: Row, mine: Row, theirs: Row): Row {
  return { ...merge(content(before), content(mine), content(theirs)), updatedAt: theirs.updatedAt };
}

/** The same change backwards. */
export function reversed(changes: readonly Change[]): Change[] {
  return changes.map((change) => ({ ...change, before: change.after, after: change.before })).reverse();
}

/** Two runs of changes as one: each row once, as before the first and after the last. */
export function joined(first: readonly Change[], then: readonly Change[]): Change[] {
  const byKey = new Map(first.map((change) => [rowKey(change), change]));
  for (const change of then) {
    const known = byKey.get(rowKey(change));
    byKey.set(rowKey(change), known ? { ...change, before: known.before } : change);
  }
  return [...byKey.values()];
}
