/** The rows of one table that are at hand. */
import { share } from '$core/plain/share';
import type { Row } from './rows';

export class MemoryTable<V> {
  #rows = $state.raw<ReadonlyMap<string, Row<V>>>(new Map());
  /** In their order. */
  readonly list = $derived([...this.#rows.values()].sort((a, b) => a.position - b.position || (a.id < b.id ? -1 : 1)));

  get(id: string): Row<V> | undefined {
    return this.#rows.get(id);
  }

  /** Replaces everything; what has not changed keeps its identity. */
  fill(rows: readonly Row<V>[]): void {
    this.#rows = new Map(rows.map((row) => [row.id, this.#shared(row)]));
  }

  /** Puts rows in, or takes them out (null). A row that comes in as it was stays the very same. */
  set(changes: readonly (readonly [id: string, row: Row<V> | null])[]): void {
    const real = changes.flatMap(([id, row]): (readonly [string, Row<V> | null])[] => {
      const shared = row && this.#shared(row);
      return shared === (this.#rows.get(id) ?? null) ? [] : [[id, shared]];
    });
    if (real.length === 0) return;
    const rows = new Map(this.#rows);
    for (const [id, row] of real) {
      if (row) rows.set(id, row);
      else rows.delete(id);
    }
    this.#rows = rows;
  }

  #shared(row: Row<V>): Row<V> {
    const known = this.#rows.get(row.id);
    return known ? share(known, row) : row;
  }
}
