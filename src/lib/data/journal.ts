/**
 * What was typed in the last moments of a page. The store writes asynchronously and a closing page may not let it
 * finish, so pending changes also go, synchronously, into local storage, and are applied when a page next opens.
 */
import { migrateSetup, setupVersion } from '$core/formats/migrations';
import { applyChanges, type RowChange } from './changes';
import type { FocalisDatabase } from './database';

const prefix = 'focalis.journal.';

/** Keeps the changes of one page. An empty list forgets them. */
export function keepJournal(storage: Storage, pageId: string, changes: readonly RowChange[]): void {
  if (changes.length === 0) storage.removeItem(prefix + pageId);
  else storage.setItem(prefix + pageId, JSON.stringify({ version: setupVersion, changes } satisfies Journal));
}

interface Journal {
  readonly version: number;
  readonly changes: readonly RowChange[];
}

/** The changes of a journal, whatever release wrote it; version 1 wrote the bare list. */
function readJournal(text: string): readonly RowChange[] {
  const stored = JSON.parse(text) as Journal | readonly RowChange[];
  const { version, changes } = 'changes' in stored ? stored : { version: 1, changes: stored };
  return changes.map((change) => {
    if (change.table !== 'setups') return change;
    const renewed = (row: typeof change.before) =>
      row && ({ ...row, setup: migrateSetup(row.setup, version) } as NonNullable<typeof row>);
    return { ...change, before: renewed(change.before), after: renewed(change.after) };
  });
}

/** Applies what earlier pages left behind. Applying a change that had been stored after all changes nothing. */
export async function applyJournals(database: FocalisDatabase, storage: Storage, now: number): Promise<void> {
  const keys = Array.from({ length: storage.length }, (_, index) => storage.key(index) ?? '');
  for (const key of keys.filter((name) => name.startsWith(prefix))) {
    const text = storage.getItem(key);
    storage.removeItem(key);
    if (text === null) continue;
    try {
      await applyChanges(database, { label: 'Journal', changes: readJournal(text) }, now);
    } catch {
      // A journal that no longer fits the store has nothing to give; the store itself is whole.
    }
  }
}
