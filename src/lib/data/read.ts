/** Reads rows, and sets aside in memory those that are not what their table holds. */
import type Dexie from 'dexie';
import { z } from 'zod';
import { issueField, issueReason } from '$core/formats/issues';
import type { Damaged, Descriptor, Row } from './rows';

const frame = z.strictObject({
  id: z.string(),
  owner: z.string().nullable(),
  position: z.number(),
  updatedAt: z.number(),
  removedAt: z.number().nullable(),
  value: z.unknown()
});

interface Sorted<V> {
  readonly rows: readonly Row<V>[];
  readonly damaged: readonly Damaged[];
}

/** Tells sound rows from damaged ones. */
export function sort<V>(table: string, { schema, noun }: Descriptor<V>, raws: readonly unknown[]): Sorted<V> {
  const rows: Row<V>[] = [];
  const damaged: Damaged[] = [];
  for (const raw of raws) {
    const framed = frame.safeParse(raw);
    const value = framed.success ? schema.safeParse(framed.data.value) : null;
    if (framed.success && value?.success) {
      rows.push({ ...framed.data, value: value.data });
      continue;
    }
    const issue = (value?.error ?? framed.error)?.issues[0];
    const field = issueField(issue);
    damaged.push({
      table,
      id: textOf(raw, 'id'),
      noun,
      name: textOf(inside(raw), 'name'),
      reason: field === '' ? issueReason(issue) : `${field}: ${issueReason(issue)}`,
      raw
    });
  }
  return { rows, damaged };
}

function inside(raw: unknown): unknown {
  return typeof raw === 'object' && raw !== null && 'value' in raw ? raw.value : raw;
}

function textOf(value: unknown, key: string): string {
  if (typeof value !== 'object' || value === null) return '';
  const text = (value as Record<string, unknown>)[key];
  return typeof text === 'string' ? text : '';
}

/** Every sound row of a table. */
export async function readRows<V>(
  database: Dexie,
  table: string,
  descriptor: Descriptor<V>
): Promise<readonly Row<V>[]> {
  return (await readTableRows(database, table, descriptor)).rows;
}

/** The rows of a table, or those of one owner. */
export async function readTableRows<V>(
  database: Dexie,
  table: string,
  descriptor: Descriptor<V>,
  owner: string | null = null
): Promise<Sorted<V>> {
  const stored = database.table<unknown, string>(table);
  const raws = await (owner === null ? stored.toArray() : stored.where('owner').equals(owner).toArray());
  return sort(table, descriptor, raws);
}
