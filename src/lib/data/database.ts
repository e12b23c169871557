/** The browser's store. Only this folder knows Dexie. */
import Dexie, { type Table } from 'dexie';
import { migrateBody, migrateSetup } from '$core/formats/migrations';
import type { Body, Job, Lens, Setup } from '$core/setup/schema';

export interface JobRow {
  readonly id: string;
  readonly job: Job;
  readonly createdAt: number;
  readonly updatedAt: number;
}

export interface SetupRow {
  readonly id: string;
  readonly jobId: string;
  /** Order within the job; fractions go between. */
  readonly position: number;
  readonly setup: Setup;
  readonly updatedAt: number;
}

export interface SettingRow {
  readonly key: string;
  readonly value: unknown;
}

/** A small picture of a setup, kept so that it need not be drawn again. */
export interface PictureRow {
  readonly key: string;
  /** What it was drawn from; another value means it is out of date. */
  readonly drawnFrom: string;
  readonly png: Blob;
}

export type FocalisDatabase = Dexie & {
  jobs: Table<JobRow, string>;
  setups: Table<SetupRow, string>;
  bodies: Table<Body, string>;
  lenses: Table<Lens, string>;
  settings: Table<SettingRow, string>;
  pictures: Table<PictureRow, string>;
};

/** Opens the store. Each release that changes it adds a `version(n)` with its upgrade; none is ever edited. */
export function openDatabase(name = 'focalis'): FocalisDatabase {
  const database = new Dexie(name) as FocalisDatabase;
  database.version(1).stores({
    jobs: 'id, createdAt',
    setups: 'id, [jobId+position], jobId',
    bodies: 'id',
    lenses: 'id',
    settings: 'key'
  });
  database
    .version(2)
    .stores({ pictures: 'key' })
    .upgrade(async (change) => {
      await change
        .table<{ setup: unknown }>('setups')
        .toCollection()
        .modify((row) => {
          row.setup = migrateSetup(row.setup, 1);
        });
      await change
        .table<Body>('bodies')
        .toCollection()
        .modify((row, ref) => {
          ref.value = migrateBody(row, 1) as Body;
        });
    });
  return database;
}
