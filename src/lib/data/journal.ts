/**
 * What was typed in the last moments of a page. The store writes asynchronously and a closing page may not let it
 * finish, so pending changes also go, synchronously, into local storage, and are applied when a page next opens.
 */
import { migrateSetup, setupVersion } from '$core/formats/migrations';
import { applyChanges, type RowChange } from './changes';
import type { FocalisDatabase } from './database';
import { changeSettings, type Settings } from './settings';

const prefix = 'focalis.journal.';

/** Keeps the changes of one page, of its setups and its settings. Nothing at all forgets what was kept. */
export function keepJournal(
  storage: Storage,
  pageId: string,
  changes: readonly RowChange[],
  settings: Partial<Settings> = {}
): void {
  const nothing = changes.length === 0 && Object.keys(settings).length === 0;
  if (nothing) storage.removeItem(prefix + pageId);
  else storage.setItem(prefix + pageId, JSON.stringify({ version: setupVersion, changes, settings } satisfies Journal));
}

interface Journal {
  readonly version: number;
  readonly changes: readonly RowChange[];
  /** Absent in journals of earlier releases. */
  readonly settings?: Partial<Settings>;
}

/** What a journal holds, whatever release wrote it; version 1 wrote the bare list. */
function readJournal(text: string): { readonly changes: readonly RowChange[]; readonly settings: Partial<Settings> } {
  const stored = JSON.parse(text) as Journal | readonly RowChange[];
  const { version, changes, settings = {} }: Journal = 'changes' in stored ? stored : { version: 1, changes: stored };
  const current = changes.map((change) => {
    if (change.table !== 'setups') return change;
    const renewed = (row: typeof change.before) =>
      row && ({ ...row, setup: migrateSetup(row.setup, version) } as NonNullable<typeof row>);
    return { ...change, before: renewed(change.before), after: renewed(change.after) };
  });
  return { changes: current, settings };
}

/** Applies what earlier pages left behind. Applying a change that had been stored after all changes nothing. */
export async function applyJournals(database: FocalisDatabase, storage: Storage, now: number): Promise<void> {
  const keys = Array.from({ length: storage.length }, (_, index) => storage.key(index) ?? '');
  for (const key of keys.filter((name) => name.startsWith(prefix))) {
    const text = storage.getItem(key);
    storage.removeItem(key);
    if (text === null) continue;
    try {
      const { changes, settings } = readJournal(text);
      await applyChanges(database, { label: 'Journal', changes }, now);
      await changeSettings(database, settings);
    } catch {
      // A journal that no longer fits the store has nothing to give; the store itself is whole.
    }
  }
}
