/** What every table of the store holds, whatever it is about. */
import type { z } from 'zod';

export interface Row<V = unknown> {
  readonly id: string;
  /** The row it belongs to and goes with; null where it stands alone. */
  readonly owner: string | null;
  /** Order among its like; fractions go between. */
  readonly position: number;
  /** Strictly increasing for one row: each stored state has a time of its own. */
  readonly updatedAt: number;
  /** When it was put away; null while it is in use. What is put away can be brought back. */
  readonly removedAt: number | null;
  readonly value: V;
}

/** All that the store knows of a table. */
export interface Descriptor<V> {
  readonly schema: z.ZodType<V>;
  /** The table its rows belong to; they are read and watched only while their owner is open. Null: always. */
  readonly ownedBy: string | null;
  /** What to call a row that cannot be read. */
  readonly noun: string;
}

/** The values of each table by its name. */
export type Values = Readonly<Record<string, unknown>>;
export type Descriptors<T extends Values> = { readonly [N in keyof T & string]: Descriptor<T[N]> };
export type TableName<T extends Values> = keyof T & string;

/** One row before and after; null for absent. */
export interface Change {
  readonly table: string;
  readonly id: string;
  readonly before: Row | null;
  readonly after: Row | null;
}

/** A row that is not what its table holds. It stays where it is, untouched; everything else works. */
export interface Damaged {
  readonly table: string;
  readonly id: string;
  readonly noun: string;
  /** Its name, if it still has one. */
  readonly name: string;
  readonly reason: string;
  readonly raw: unknown;
}

export const rowKey = (change: { readonly table: string; readonly id: string }) => `${change.table}/${change.id}`;

export function newRow<V>(id: string, value: V, rest: Partial<Omit<Row<V>, 'id' | 'value'>> = {}): Row<V> {
  return { id, owner: null, position: 0, updatedAt: 0, removedAt: null, ...rest, value };
}

/** A row that comes in anew. */
export function addition<V extends { readonly id: string }>(
  table: string,
  value: V,
  rest: Partial<Omit<Row<V>, 'id' | 'value'>> = {}
): Change {
  return { table, id: value.id, before: null, after: newRow(value.id, value, rest) };
}
