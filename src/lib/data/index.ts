/** The store: only this folder knows Dexie. */
import type Dexie from 'dexie';
import { defineDatabase } from './database';
import type { SafeStorage } from './storage';
import type { Store } from './store.svelte';
import type { FocalisValues } from './tables';

export type Database = Dexie;
export type FocalisStore = Store<FocalisValues>;

export { databaseVersion, openDatabase, storeSilentAfterMs, type StoreProblem } from './database';
export { Drafts } from './drafts';
export { FramePictures, type FramePicture } from './framePictures';
export { OwnEyes } from './ownEyes';
export { OriginalsCache, type Original } from './originals';
export { RecordRepository } from './recordRepository';
export type { Handoff } from './handoff';
export { asidePrefix, keepJournal, readJournals } from './journal';
export {
  addJob,
  countSetups,
  eraseJob,
  eraseOld,
  firstSetupOf,
  freeName,
  kitIdOf,
  jobOfSetup,
  offerDemo,
  placeKit,
  readJobParts,
  removedKeptMs,
  setupsHolding,
  untouchedDemos,
  type KitUse
} from './jobs';
export { defaultProfile, overlays, profileId, themes, type Overlay, type Profile, type Theme } from './profile';
export { readRows, readTableRows } from './read';
export { addition, newRow, type Change, type Damaged, type Descriptor, type Row } from './rows';
export { safeStorage, type SafeStorage } from './storage';
export { Store, type EditOptions, type EditResult, type EditManner, type StepResult } from './store.svelte';
export { tables, type FocalisValues } from './tables';
export { Thumbnails } from './thumbnails';
export { forgetOldJournals } from './upgrade';
export type { SaveState } from './writer';

let defined: Dexie | undefined;

/** The one database of this page. */
export function database(storage: SafeStorage): Dexie {
  defined ??= defineDatabase('focalis', storage);
  return defined;
}
