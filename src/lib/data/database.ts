/** The browser's store. Only this folder knows Dexie. */
import Dexie, { type Table } from 'dexie';
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

export type FocalisDatabase = Dexie & {
  jobs: Table<JobRow, string>;
  setups: Table<SetupRow, string>;
  bodies: Table<Body, string>;
  lenses: Table<Lens, string>;
  settings: Table<SettingRow, string>;
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
  return database;
}
