/**
 * Edits the store has not confirmed. The store writes asynchronously, may fail, and a closing page may not let it finish;
 * so such edits are also kept, synchronously, in local storage until they are confirmed, and are applied when a page next
 * opens. One that cannot be read is set aside under another name, never thrown away.
 *
 * Journals of several pages may wait at once. Each has an order: one more than any other had when it was written, so that
 * the later edit wins whatever the clock says.
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
  order: z.number().int().min(0).default(0),
  changes: z.array(
    z.strictObject({ table: z.string(), id: z.string(), before: rowSchema.nullable(), after: rowSchema.nullable() })
  )
});

/** Keeps the changes of one page; no changes forget what was kept. False when they could not be kept. */
export function keepJournal(storage: SafeStorage, pageId: string, changes: readonly Change[]): boolean {
  const own = journalPrefix + pageId;
  if (changes.length === 0) {
    storage.remove(own);
    return true;
  }
  const others = storage.keys(journalPrefix).filter((key) => key !== own);
  const order = 1 + Math.max(0, ...others.map((key) => orderOf(storage.get(key) ?? '')));
  return storage.set(own, JSON.stringify({ version: journalVersion, order, changes }));
}

/** The order of a journal, which stands near its beginning; 0 for one without. */
const orderOf = (text: string): number => Number(/^\{"version":\d+,"order":(\d+)/.exec(text)?.[1] ?? 0);

interface Journal {
  readonly key: string;
  readonly order: number;
  readonly changes: readonly Change[];
}

/** What earlier pages left behind, in tables there are, the latest first. `setAside` names those that could not be read. */
export function readJournals(
  storage: SafeStorage,
  tables: readonly string[]
): { readonly journals: readonly Journal[]; readonly setAside: readonly string[] } {
  const journals: Journal[] = [];
  const setAside: string[] = [];
  for (const key of storage.keys(journalPrefix)) {
    const text = storage.get(key);
    if (text === null) continue;
    const journal = parsed(text, tables);
    if (journal) journals.push({ key, ...journal });
    else setAside.push(putAside(storage, key, text));
  }
  return { journals: journals.sort((a, b) => b.order - a.order), setAside };
}

function putAside(storage: SafeStorage, key: string, text: string): string {
  const aside = asidePrefix + key.slice(journalPrefix.length);
  // Only what stands elsewhere is taken away here.
  if (storage.set(aside, text)) storage.remove(key);
  return aside;
}

function parsed(text: string, tables: readonly string[]): Omit<Journal, 'key'> | null {
  try {
    const { order, changes } = journalSchema.parse(JSON.parse(text));
    return changes.every((change) => tables.includes(change.table)) ? { order, changes } : null;
  } catch {
    return null;
  }
}
