/**
 * Every change to the store, from a nudge to an import, is a list of rows before and after. It is applied in one
 * transaction, on top of whatever another tab has stored meanwhile, and undone by applying it backwards.
 */
import { merge, same } from '$core/setup/merge';
import { bodySchema, jobSchema, lensSchema, setupSchema, type Body, type Lens } from '$core/setup/schema';
import type { Table } from 'dexie';
import type { FocalisDatabase, JobRow, SetupRow } from './database';

interface Rows {
  jobs: JobRow;
  setups: SetupRow;
  bodies: Body;
  lenses: Lens;
}

type ChangeOf<T extends keyof Rows> = {
  readonly table: T;
  readonly id: string;
  readonly before: Rows[T] | null;
  readonly after: Rows[T] | null;
};

export type RowChange = { [T in keyof Rows]: ChangeOf<T> }[keyof Rows];

export interface ChangeSet {
  /** What was done, for the undo message: "Head turn". */
  readonly label: string;
  readonly changes: readonly RowChange[];
}

export function reversed({ label, changes }: ChangeSet): ChangeSet {
  return {
    label,
    changes: changes.map((change) => ({ ...change, before: change.after, after: change.before }) as RowChange).reverse()
  };
}

/** Stored rows after the change; a removed row is absent. */
export async function applyChanges(database: FocalisDatabase, { changes }: ChangeSet, now: number): Promise<void> {
  const tables = [database.jobs, database.setups, database.bodies, database.lenses];
  await database.transaction('rw', tables, async () => {
    for (const change of changes) {
      switch (change.table) {
        case 'jobs':
          await applyTo(database.jobs, change, (row) => jobSchema.safeParse(row.job).success, now);
          break;
        case 'setups':
          await applyTo(database.setups, change, (row) => setupSchema.safeParse(row.setup).success, now);
          break;
        case 'bodies':
          await applyTo(database.bodies, change, (row) => bodySchema.safeParse(row).success, undefined);
          break;
        case 'lenses':
          await applyTo(database.lenses, change, (row) => lensSchema.safeParse(row).success, undefined);
          break;
      }
    }
  });
}

async function applyTo<T extends { readonly id: string }>(
  table: Table<T, string>,
  { id, before, after }: { readonly id: string; readonly before: T | null; readonly after: T | null },
  isValid: (row: T) => boolean,
  now: number | undefined
): Promise<void> {
  const stored = await table.get(id);
  if (!after) {
    // Another tab has changed it since: what was typed there outlives the removal.
    const untouched = !stored || !before || same({ ...stored, updatedAt: 0 }, { ...before, updatedAt: 0 });
    if (untouched) await table.delete(id);
    return;
  }
  const merged = before && stored ? merge(before, after, stored) : after;
  const row = isValid(merged) ? merged : after;
  // Each state of a row has a time of its own, also when several are stored within one millisecond: screens tell them apart by it.
  const last = (stored as { readonly updatedAt?: number } | undefined)?.updatedAt ?? 0;
  await table.put(now === undefined ? row : { ...row, updatedAt: Math.max(now, last + 1) });
}
