/** Eyes held against themselves in their sharpest frames: worked out from frames, kept so that it need not be again. */
import type Dexie from 'dexie';
import type { RemeasuredEye } from '$core/frames/ownEyes';

interface OwnEyesRow {
  /** The frame's id. */
  readonly id: string;
  /** The job's. */
  readonly owner: string;
  readonly eyes: readonly RemeasuredEye[];
}

export class OwnEyes {
  readonly #database: Dexie;

  constructor(database: Dexie) {
    this.#database = database;
  }

  get #table() {
    return this.#database.table<OwnEyesRow, string>('ownEyes');
  }

  of(owner: string): Promise<OwnEyesRow[]> {
    return this.#table.where('owner').equals(owner).toArray();
  }

  async keep(row: OwnEyesRow): Promise<void> {
    await this.#table.put(row);
  }
}
