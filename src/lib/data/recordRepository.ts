/** The record of measured frames: numbers alone, kept when their pictures go. Read when it is looked at, never at the start. */
import type Dexie from 'dexie';
import { recordedSchema, type Recorded } from '$core/record/schema';

interface RecordRow {
  readonly id: string;
  /** The job it came from, which may be no more. */
  readonly jobId: string;
  /** What it was worked out from; null where it came as a file. */
  readonly stamp: string | null;
  /** Null where it was forgotten: it does not come back while its frame is there. */
  readonly value: Recorded | null;
}

const forgotten = 'forgotten';

export class RecordRepository {
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
      if (value === null) return [];
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
      const fresh = await this.#fresh(frames);
      await this.#table.bulkPut(fresh.map((value) => ({ id: value.id, jobId: value.jobId, stamp: null, value })));
      return fresh.length;
    });
  }

  /** How many of these are not here. */
  async missing(frames: readonly Recorded[]): Promise<number> {
    return (await this.#fresh(frames)).length;
  }

  async #fresh(frames: readonly Recorded[]): Promise<readonly Recorded[]> {
    const there = await this.#table.bulkGet(frames.map(({ id }) => id));
    return frames.filter((_, index) => !there[index]?.value);
  }

  /** All that was known of them; only their ids stay, so that frames still there are not measured into it again. */
  async forget(ids: readonly string[]): Promise<void> {
    await this.#database.transaction('rw', this.#table, async () => {
      const rows = await this.#table.bulkGet([...ids]);
      await this.#table.bulkPut(rows.flatMap((row) => (row ? [{ ...row, stamp: forgotten, value: null }] : [])));
    });
  }
}
