/** The record of measured frames: numbers alone, kept when their pictures go. Read when it is looked at, never at the start. */
import type Dexie from 'dexie';
import { recordedSchema, type Recorded } from '$core/record/schema';

interface RecordRow {
  readonly id: string;
  /** The job it came from, which may be no more. */
  readonly jobId: string;
  /** What it was worked out from; null where it came as a file. */
  readonly stamp: string | null;
  readonly value: Recorded;
}

export class RecordShelf {
  readonly #database: Dexie;

  constructor(database: Dexie) {
    this.#database = database;
  }

  get #table() {
    return this.#database.table<RecordRow, string>('record');
  }

  /** All that can be read; a damaged row stays where it is and counts nowhere. */
  async all(): Promise<Recorded[]> {
    const rows = await this.#table.toArray();
    return rows.flatMap(({ value }) => {
      const parsed = recordedSchema.safeParse(value);
      return parsed.success ? [parsed.data] : [];
    });
  }

  /** What is known of a job's frames, by their id. */
  async ofJob(jobId: string): Promise<ReadonlyMap<string, RecordRow>> {
    const rows = await this.#table.where('jobId').equals(jobId).toArray();
    return new Map(rows.map((row) => [row.id, row]));
  }

  /** All of it or nothing. @throws what the database throws */
  async change(put: readonly RecordRow[], drop: readonly string[] = []): Promise<void> {
    await this.#database.transaction('rw', this.#table, async () => {
      await this.#table.bulkDelete([...drop]);
      await this.#table.bulkPut([...put]);
    });
  }

  /** Takes frames from a file; those that are here already stay as they are. @returns how many were new */
  async add(frames: readonly Recorded[]): Promise<number> {
    return this.#database.transaction('rw', this.#table, async () => {
      const there = new Set(await this.#table.toCollection().primaryKeys());
      const fresh = frames.filter(({ id }) => !there.has(id));
      await this.#table.bulkPut(fresh.map((value) => ({ id: value.id, jobId: value.jobId, stamp: null, value })));
      return fresh.length;
    });
  }

  /** How many of these are not here. */
  async missing(frames: readonly Recorded[]): Promise<number> {
    if (frames.length === 0) return 0;
    const there = new Set(await this.#table.toCollection().primaryKeys());
    return frames.filter(({ id }) => !there.has(id)).length;
  }

  async forget(ids: readonly string[]): Promise<void> {
    await this.#table.bulkDelete([...ids]);
  }
}
