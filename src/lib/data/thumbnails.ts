/** Small renderings of setups, kept from one visit to the next. They can always be drawn again, and nobody watches them. */
import type Dexie from 'dexie';

interface ThumbnailRow {
  readonly key: string;
  /** What it was drawn from; another value means it is out of date. */
  readonly drawnFrom: string;
  readonly picture: Blob;
}

/** At most so many; beyond, any but the newest go: they are drawn again when they are wanted. */
const mostKept = 700;

export class Thumbnails {
  readonly #database: Dexie;

  constructor(database: Dexie) {
    this.#database = database;
  }

  get #table() {
    return this.#database.table<Partial<ThumbnailRow>, string>('thumbnails');
  }

  /** The one drawn before, if it was drawn from the same. */
  async kept(key: string, drawnFrom: string): Promise<Blob | null> {
    const row = await this.#table.get(key);
    return row?.drawnFrom === drawnFrom ? (row.picture ?? null) : null;
  }

  /** Every one there is. */
  async all(): Promise<ThumbnailRow[]> {
    const rows = await this.#table.toArray();
    return rows.flatMap(({ key, drawnFrom, picture }) =>
      key !== undefined && drawnFrom !== undefined && picture ? [{ key, drawnFrom, picture }] : []
    );
  }

  /** Keeps one. A full disk keeps none: it is drawn again next time. */
  async keep(row: ThumbnailRow): Promise<void> {
    try {
      await this.#database.transaction('rw', this.#table, async () => {
        await this.#table.put(row);
        const count = await this.#table.count();
        if (count <= mostKept) return;
        const old = this.#table.where('key').notEqual(row.key);
        await this.#table.bulkDelete(await old.limit(count - mostKept).primaryKeys());
      });
    } catch {
      return;
    }
  }
}
