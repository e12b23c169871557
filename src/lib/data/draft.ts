/** An edit in the making: rows as they will be, over rows as they are. */
import { same } from '$core/plain/merge';
import { rowKey, type Change, type Row, type TableName, type Values } from './rows';

export class Draft<T extends Values> {
  readonly #current: (table: string, id: string) => Row | undefined;
  readonly #changed = new Map<string, Change>();

  constructor(current: (table: string, id: string) => Row | undefined) {
    this.#current = current;
  }

  row<N extends TableName<T>>(table: N, id: string): Row<T[N]> | undefined {
    const changed = this.#changed.get(rowKey({ table, id }));
    return (changed ? changed.after : this.#current(table, id)) as Row<T[N]> | undefined;
  }

  /** Adds a row, or replaces it. */
  put<N extends TableName<T>>(table: N, row: Row<T[N]>): void {
    this.#set(table, row.id, row);
  }

  /** Changes the value of a row that is there. */
  change<N extends TableName<T>>(table: N, id: string, recipe: (value: T[N]) => T[N]): void {
    const row = this.row(table, id);
    if (row) this.#set(table, id, { ...row, value: recipe(row.value) });
  }

  remove(table: TableName<T>, id: string): void {
    this.#set(table, id, null);
  }

  #set(table: string, id: string, after: Row | null): void {
    const key = rowKey({ table, id });
    const before = this.#changed.get(key)?.before ?? this.#current(table, id) ?? null;
    this.#changed.set(key, { table, id, before, after });
  }

  /** What differs from what is. */
  get changes(): readonly Change[] {
    return [...this.#changed.values()].filter(({ before, after }) => {
      if (!before || !after) return before !== after;
      return (
        !same(before.value, after.value) ||
        before.position !== after.position ||
        before.removedAt !== after.removedAt ||
        before.owner !== after.owner
      );
    });
  }
}
