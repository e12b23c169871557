/** Opens the browser's store. Only this folder knows Dexie. */
import Dexie from 'dexie';
import type { SafeStorage } from './storage';
import { upgradeTo2, upgradeTo3 } from './upgrade';

/** Counts the tables; what is in them is counted by the version of the job file. */
export const databaseVersion = 10;

/** Dexie's version 7 is version 70 of the database underneath. */
const versionFactor = 10;

/** Each release that changes the store adds a `version(n)` with its upgrade; none is ever edited. */
export function defineDatabase(name: string, storage: SafeStorage): Dexie {
  const database = new Dexie(name);
  database.version(1).stores({
    jobs: 'id, createdAt',
    setups: 'id, [jobId+position], jobId',
    bodies: 'id',
    lenses: 'id',
    settings: 'key'
  });
  database.version(2).stores({ pictures: 'key' }).upgrade(upgradeTo2);
  database
    .version(3)
    .stores({
      profile: 'id',
      jobs: 'id',
      people: 'id, owner',
      places: 'id, owner',
      setups: 'id, owner',
      bodies: 'id',
      lenses: 'id',
      /** Small renderings: large, made anew when wanted, never watched. */
      thumbnails: 'key',
      /** Rows of earlier versions that could not be brought up to date, as they were. */
      aside: 'key',
      pictures: null,
      settings: null
    })
    .upgrade((change) => upgradeTo3(change, storage));
  database.version(4).stores({ adapters: 'id', bags: 'id' });
  database.version(5).stores({ journeys: 'id, owner' });
  database.version(6).stores({
    frames: 'id, owner',
    /** What is to be seen of a frame, apart from it: large, never edited, read one at a time. */
    framePictures: 'id, owner'
  });
  /** What is known of measured frames; it outlives them. */
  database.version(7).stores({ record: 'id, jobId' });
  database.version(8).stores({
    /** Pictures themselves, where that is asked, or the way back to them on the disk. */
    originals: 'id, owner',
    /** What is worked out of the frames of a job together. */
    ownEyes: 'id, owner'
  });
  /** What was measured at the Bench. */
  database.version(9).stores({ benchTests: 'id' });
  /** What came of drills. */
  database.version(databaseVersion).stores({ drills: 'id' });
  return database;
}

/** Why the store cannot be used. */
export type StoreProblem =
  | { readonly kind: 'blocked' }
  /** The browser has thrown the store away while it was open. */
  | { readonly kind: 'cleared' }
  | { readonly kind: 'outdated' }
  | { readonly kind: 'newer' }
  | { readonly kind: 'silent' }
  | { readonly kind: 'failed'; readonly reason: string };

/** A store that has not answered for so long is said to hang. */
export const storeSilentAfterMs = 10_000;

/** Why it cannot be opened: in our words where the browser has no store at all, for Dexie's lead to a page of its own. */
const openFailure = (error: unknown): string =>
  error instanceof Error && error.name === 'MissingAPIError'
    ? 'This browser stores no data for web pages, or is set not to.'
    : error instanceof Error
      ? error.message
      : String(error);

/**
 * Opens the database. `onProblem` is told whatever keeps it from being used, also later on: `blocked` passes when other
 * tabs close, the rest does not. Resolves true once it is open.
 */
export async function openDatabase(
  database: Dexie,
  onProblem: (problem: StoreProblem | null) => void,
  silentMs = storeSilentAfterMs
): Promise<boolean> {
  database.on('blocked', () => onProblem({ kind: 'blocked' }));
  // The browser took the connection away: it does when site data are cleared.
  database.on('close', () => onProblem({ kind: 'cleared' }));
  database.on('versionchange', ({ newVersion }: { readonly newVersion: number | null }) => {
    if (newVersion === null) {
      database.close();
      onProblem({ kind: 'cleared' });
      return;
    }
    // A newer Focalis in another tab wants to bring the store up to date; it cannot while this one holds it.
    database.close();
    onProblem({ kind: 'outdated' });
  });
  const timer = setTimeout(() => onProblem({ kind: 'silent' }), silentMs);
  try {
    await database.open();
    // Dexie opens a newer store as well as it can; what a newer Focalis keeps there is not for this one to touch.
    if (database.backendDB().version > databaseVersion * versionFactor) {
      database.close();
      onProblem({ kind: 'newer' });
      return false;
    }
    onProblem(null);
    return true;
  } catch (error) {
    onProblem({ kind: 'failed', reason: openFailure(error) });
    return false;
  } finally {
    clearTimeout(timer);
  }
}
