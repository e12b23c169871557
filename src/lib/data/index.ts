import { liveQuery } from 'dexie';
import { openDatabase, type FocalisDatabase, type JobRow, type SetupRow } from './database';
import { ownKit } from './jobs';
import { readSettings, type Settings } from './settings';
import type { Kit } from '$core/setup/schema';

export { applyChanges, reversed, type ChangeSet, type RowChange } from './changes';
export type { FocalisDatabase, JobRow, SetupRow } from './database';
export { openDatabase } from './database';
export { applyJournals, keepJournal } from './journal';
export { addJob, offerDemo, removeJob, untouchedDemos, freeName } from './jobs';
export { keepPicture, readPicture } from './pictures';
export {
  changeSettings,
  defaultSettings,
  overlays,
  printShapes,
  themes,
  type Overlay,
  type PrintShape,
  type Settings,
  type Theme
} from './settings';

/** Everything stored, as one consistent picture. */
export interface Stored {
  readonly jobs: readonly JobRow[];
  readonly setups: readonly SetupRow[];
  readonly kit: Kit;
  readonly settings: Settings;
}

/** What is stored now. */
export function readStored(database: FocalisDatabase): Promise<Stored> {
  const { jobs: jobTable, setups: setupTable, bodies, lenses, settings: settingTable } = database;
  return database.transaction('r', [jobTable, setupTable, bodies, lenses, settingTable], async (): Promise<Stored> => {
    const [jobs, setups, kit, settings] = await Promise.all([
      database.jobs.orderBy('createdAt').toArray(),
      database.setups.orderBy('[jobId+position]').toArray(),
      ownKit(database),
      readSettings(database)
    ]);
    return { jobs, setups, kit, settings };
  });
}

/** Calls back with what is stored, now and after every change in any tab. Returns the way to stop. */
export function watch(
  database: FocalisDatabase,
  onChange: (stored: Stored) => void,
  onError: (error: unknown) => void
): () => void {
  const subscription = liveQuery(() => readStored(database)).subscribe({ next: onChange, error: onError });
  return () => subscription.unsubscribe();
}

let opened: FocalisDatabase | undefined;

/** The one store of this page. */
export function database(): FocalisDatabase {
  opened ??= openDatabase();
  return opened;
}
