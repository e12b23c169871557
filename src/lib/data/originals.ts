/** Pictures themselves, where somebody asked for that, or the way back to them on the disk. They go when their job is erased. */
import type Dexie from 'dexie';

export interface Original {
  /** The frame's id. */
  readonly id: string;
  /** The job's. */
  readonly owner: string;
  /** The picture, kept here. */
  readonly picture?: Blob;
  /** Where it lies, as the browser has it; it has to be asked each time. */
  readonly handle?: FileSystemFileHandle;
}

export class OriginalsCache {
  readonly #database: Dexie;

  constructor(database: Dexie) {
    this.#database = database;
  }

  get #table() {
    return this.#database.table<Original, string>('originals');
  }

  get(id: string): Promise<Original | undefined> {
    return this.#table.get(id);
  }

  of(owner: string): Promise<Original[]> {
    return this.#table.where('owner').equals(owner).toArray();
  }

  /** @throws when it cannot be stored */
  async keep(original: Original): Promise<void> {
    const before = await this.#table.get(original.id);
    await this.#table.put({ ...before, ...original });
  }

  /** Pictures kept here are let go; ways back to the disk stay. */
  async letGo(owner: string): Promise<void> {
    const all = await this.of(owner);
    await this.#table.bulkPut(all.flatMap(({ picture: _kept, ...rest }) => (rest.handle ? [rest] : [])));
    await this.#table.bulkDelete(all.flatMap(({ id, handle }) => (handle ? [] : [id])));
  }
}
