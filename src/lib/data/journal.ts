/**
 * Edits the store has not confirmed. The store writes asynchronously, may fail, and a closing page may not let it finish;
 * so such edits are also kept, synchronously, in local storage until they are confirmed, and are applied when a page next
 * opens. One that cannot be read is set aside under another name, never thrown away.
 */
import { z } from 'zod';
import type { Change } from './rows';
import type { SafeStorage } from './storage';

export const journalPrefix = 'focalis.journal.';
export const asidePrefix = 'focalis.aside.';

/** Version of the rows in it. Journals of versions 1 and 2 held other rows; the upgrade of the database reads those. */
export const journalVersion = 3;

const rowSchema = z.strictObject({
  id: z.string(),
  owner: z.string().nullable(),
  position: z.number(),
  updatedAt: z.number(),
  removedAt: z.number().nullable(),
  value: z.unknown()
});

const journalSchema = z.strictObject({
  version: z.literal(journalVersion),
  changes: z.array(
    z.strictObject({ table: z.string(), id: z.string(), before: rowSchema.nullable(), after: rowSchema.nullable() })
  )
});

/** Keeps the changes of one page; no changes forget what was kept. False when they could not be kept. */
export function keepJournal(storage: SafeStorage, pageId: string, changes: readonly Change[]): boolean {
  if (changes.length > 0)
    return storage.set(journalPrefix + pageId, JSON.stringify({ version: journalVersion, changes }));
  storage.remove(journalPrefix + pageId);
  return true;
}

interface Journal {
  readonly key: string;
  readonly changes: readonly Change[];
}

/** What earlier pages left behind, in tables there are. `setAside` names those that could not be read. */
export function readJournals(
  storage: SafeStorage,
  tables: readonly string[]
): { readonly journals: readonly Journal[]; readonly setAside: readonly string[] } {
  const journals: Journal[] = [];
  const setAside: string[] = [];
  for (const key of storage.keys(journalPrefix)) {
    const text = storage.get(key);
    if (text === null) continue;
    const changes = parsed(text, tables);
    if (changes) journals.push({ key, changes });
    else setAside.push(putAside(storage, key, text));
  }
  return { journals, setAside };
}

function putAside(storage: SafeStorage, key: string, text: string): string {
  const aside = asidePrefix + key.slice(journalPrefix.length);
  // Only what stands elsewhere is taken away here.
  if (storage.set(aside, text)) storage.remove(key);
  return aside;
}

function parsed(text: string, tables: readonly string[]): readonly Change[] | null {
  try {
    const journal = journalSchema.parse(JSON.parse(text));
    return journal.changes.every((change) => tables.includes(change.table)) ? journal.changes : null;
  } catch {
    return null;
  }
}
