/**
 * What was typed in the last moments of a page. The store writes asynchronously and a closing page may not let it
 * finish, so pending changes also go, synchronously, into local storage, and are applied when a page next opens.
 */
import { applyChanges, type RowChange } from './changes';
import type { FocalisDatabase } from './database';

const prefix = 'focalis.journal.';

/** Keeps the changes of one page. An empty list forgets them. */
export function keepJournal(storage: Storage, pageId: string, changes: readonly RowChange[]): void {
  if (changes.length === 0) storage.removeItem(prefix + pageId);
  else storage.setItem(prefix + pageId, JSON.stringify(changes));
}

/** Applies what earlier pages left behind. Applying a change that had been stored after all changes nothing. */
export async function applyJournals(database: FocalisDatabase, storage: Storage, now: number): Promise<void> {
  const keys = Array.from({ length: storage.length }, (_, index) => storage.key(index) ?? '');
  for (const key of keys.filter((name) => name.startsWith(prefix))) {
    const text = storage.getItem(key);
    storage.removeItem(key);
    if (text === null) continue;
    try {
      await applyChanges(database, { label: 'Journal', changes: JSON.parse(text) as RowChange[] }, now);
    } catch {
      // A journal that no longer fits the store has nothing to give; the store itself is whole.
    }
  }
}
