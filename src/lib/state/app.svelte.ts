/** Puts the parts together and starts them: the store, what is done with it, and what the screens share. */
import { createContext } from 'svelte';
import {
  Drafts,
  eraseOld,
  firstSetupOf,
  forgetOldJournals,
  jobOfSetup,
  keepJournal,
  offerDemo,
  openDatabase,
  readJournals,
  Store,
  tables,
  untouchedDemos,
  FramePictures,
  OriginalsCache,
  OwnEyes,
  RecordRepository,
  Thumbnails,
  type Change,
  type Database,
  type FocalisStore,
  type SafeStorage,
  type StoreProblem
} from '$lib/data';
import { Quarantine } from '$lib/state/job/quarantine.svelte';
import { Backup } from '$lib/state/transfer/backup.svelte';
import type { Packing } from '../../workers/packing';
import { Day } from '$lib/state/job/day.svelte';
import { Frames } from '$lib/state/frames/frames.svelte';
import { JobFiles } from '$lib/state/transfer/jobFiles.svelte';
import { OwnKit } from '$lib/state/job/kit.svelte';
import { Jobs } from '$lib/state/job/jobs.svelte';
import { Messages } from '$lib/state/job/messages.svelte';
import { OpenJob } from '$lib/state/job/openJob.svelte';
import { UnfinishedImports } from '$lib/state/frames/unfinished.svelte';
import { Originals } from '$lib/state/frames/originals.svelte';
import { errorReason } from '$lib/state/job/services';
import { Places } from '$lib/state/job/places';
import type { GetPhotoReader } from '$lib/state/frames/photoReader';
import { packing, readJob } from '../../workers/clients/files';
import { Settings } from '$lib/state/job/settings.svelte';
import { Setups } from '$lib/state/job/setups';
import { Transfer } from '$lib/state/transfer/transfer.svelte';

interface AppOptions {
  readonly database: Database;
  readonly storage: SafeStorage;
  readonly newId: () => string;
  readonly now: () => number;
  /** From 0 to 1, for what is made up: simulated frames, drills at the desk. */
  readonly random: () => number;
  /** Asks the browser to keep the store when space runs short. */
  readonly persist?: () => unknown;
  /** Reads a job file; in a worker where nothing else is said. */
  readonly readFile?: typeof readJob;
  /** Packs and unpacks everything; in a worker where nothing else is said. */
  readonly packing?: Packing;
  /** Reads pictures; in workers where nothing else is said. */
  readonly reading?: GetPhotoReader;
  /** The way to the server. */
  readonly fetch?: typeof fetch;
}

export class App {
  status = $state<'loading' | 'ready' | 'failed'>('loading');
  problem = $state.raw<StoreProblem | null>(null);
  /** Where the page wants dropped pictures of its own; null where the job's Frames or nobody does. */
  takesPictures = $state.raw<((files: File[]) => unknown) | null>(null);
  /** Whether edits the store has not taken are at least kept elsewhere in this browser. */
  journalKept = $state(true);
  readonly store: FocalisStore;
  readonly messages = new Messages();
  readonly settings: Settings;
  readonly open: OpenJob;
  readonly jobs: Jobs;
  readonly setups: Setups;
  readonly day: Day;
  readonly files: JobFiles;
  readonly travel: Transfer;
  readonly backup: Backup;
  readonly places: Places;
  readonly kit: OwnKit;
  readonly drafts: Drafts;
  readonly thumbnails: Thumbnails;
  readonly framePictures: FramePictures;
  readonly frames: Frames;
  readonly record: RecordRepository;
  readonly aside: Quarantine;
  readonly newId: () => string;
  readonly now: () => number;
  readonly random: () => number;
  readonly #options: AppOptions;
  readonly #pageId: string;
  #persisted = false;
  #stopped = false;
  #opening: { readonly id: string; readonly done: Promise<void> } | null = null;

  constructor(options: AppOptions) {
    this.#options = options;
    const { database, storage, newId, now } = options;
    this.newId = newId;
    this.now = now;
    this.random = options.random;
    this.#pageId = newId();
    this.store = new Store({
      database,
      descriptors: tables,
      now,
      keep: (changes) => this.#keep(changes),
      onCleared: () => void this.#storeAgain()
    });
    this.settings = new Settings(this.store);
    this.open = new OpenJob(this.store, this.settings);
    this.drafts = new Drafts(storage, now);
    this.thumbnails = new Thumbnails(database);
    this.framePictures = new FramePictures(database);
    this.aside = new Quarantine(database, storage, () => this.store.atHand.damaged);
    const { store, settings, messages, open } = this;
    const parts = { database, store, open, settings, messages, newId, now };
    this.jobs = new Jobs(parts);
    this.setups = new Setups(parts);
    this.day = new Day(parts);
    this.places = new Places(parts);
    this.frames = new Frames(
      parts,
      {
        pictures: this.framePictures,
        originals: new Originals(new OriginalsCache(database)),
        ownEyes: new OwnEyes(database),
        unfinished: new UnfinishedImports(storage, this.#pageId)
      },
      options.reading
    );
    this.record = new RecordRepository(database);
    this.kit = new OwnKit(parts);
    const read = options.readFile ?? readJob;
    this.files = new JobFiles(parts, this.jobs, read);
    const fetcher: typeof fetch = (...asked) => (options.fetch ?? fetch)(...asked);
    this.travel = new Transfer(parts, this.files, read, fetcher);
    const { thumbnails, record, framePictures } = this;
    this.backup = new Backup(parts, { thumbnails, record, framePictures }, options.packing ?? packing);
  }

  /** What a run of the simulated camera begins with. */
  newSeed(): number {
    return Math.floor(this.random() * 1e6);
  }

  #keep(changes: readonly Change[]): void {
    this.journalKept = keepJournal(this.#options.storage, this.#pageId, changes);
    if (!this.#persisted && this.store.history.canUndo) {
      this.#persisted = true;
      void this.#options.persist?.();
    }
  }

  /** Opens the store, takes up what earlier pages left, offers the demo to a new profile. */
  async start(silentMs?: number): Promise<void> {
    const { database, storage, now } = this.#options;
    const opened = await openDatabase(database, (problem) => this.#onProblem(problem), silentMs);
    if (!opened) {
      this.status = 'failed';
      return;
    }
    try {
      forgetOldJournals(storage);
      const refused = await this.#takeUpJournals();
      await offerDemo(database, now());
      await eraseOld(database, now());
      await this.store.atHand.load();
      await this.#adopt(refused);
      await this.aside.load();
      this.status = 'ready';
      // Nobody waits for it, and without it nothing is reminded of.
      await this.backup.watch().catch(() => undefined);
    } catch (error) {
      this.problem = { kind: 'failed', reason: errorReason(error) };
      this.status = 'failed';
    }
  }

  #onProblem(problem: StoreProblem | null): void {
    if (problem?.kind !== 'cleared' || this.status !== 'ready') this.problem = problem;
    // Whoever clears the store under an open page has not closed it: what is at hand is stored again.
    else if (this.problem === null && !this.#stopped) void this.#storeAgain();
  }

  /** After the browser's store was emptied: what is at hand is stored again, and what is lost is said. */
  async #storeAgain(): Promise<void> {
    const { database } = this.#options;
    try {
      if (!database.isOpen()) await database.open();
      const gone = await this.store.storeAgain();
      const names = gone.flatMap(({ value, removedAt }) =>
        removedAt === null && typeof value === 'object' && value !== null && 'name' in value ? [String(value.name)] : []
      );
      const lost = names.length > 0 ? ` Gone: ${names.join(', ')}. Restore them from a backup in Settings.` : '';
      this.messages.problem(
        `The browser’s storage was cleared while Focalis was open. Settings, kit and the open job are stored again.${lost}`
      );
    } catch (error) {
      this.problem = { kind: 'failed', reason: errorReason(error) };
    }
  }

  /**
   * A journal is applied before it is removed; applying one that had been stored after all changes nothing. The latest
   * comes first: those before it yield to it.
   *
   * @returns those the store does not take just now
   */
  async #takeUpJournals(): Promise<ReturnType<typeof readJournals>['journals']> {
    const { storage } = this.#options;
    const { journals } = readJournals(storage, Object.keys(tables));
    const refused: (typeof journals)[number][] = [];
    for (const journal of journals) {
      try {
        await this.store.takeUp(journal.changes);
        storage.remove(journal.key);
      } catch {
        refused.push(journal);
      }
    }
    return refused;
  }

  /** Shows what could not be taken up, and goes on trying; each journal stays until this page has one of its own. */
  async #adopt(journals: ReturnType<typeof readJournals>['journals']): Promise<void> {
    if (journals.length === 0) return;
    await this.store.adopt(journals.map(({ changes }) => changes));
    this.#keep(this.store.unconfirmed);
    if (this.journalKept) for (const { key } of journals) this.#options.storage.remove(key);
  }

  /** Has a job at hand. */
  async openJob(id: string): Promise<void> {
    if (this.open.id === id) return;
    if (this.#opening?.id !== id) this.#opening = { id, done: this.store.open(id) };
    const { done } = this.#opening;
    try {
      await done;
      void this.frames.opened();
    } catch (error) {
      this.messages.problem(`This job could not be read: ${errorReason(error)}`);
    } finally {
      if (this.#opening?.id === id) this.#opening = null;
    }
  }

  /** Has the job of a setup at hand. False when there is no such setup. */
  async openSetup(id: string): Promise<boolean> {
    if (this.open.row(id)) return true;
    const jobId = await jobOfSetup(this.#options.database, id);
    if (jobId === null) return false;
    await this.openJob(jobId);
    return this.open.row(id) !== undefined;
  }

  /** Has a job at hand where none is: the one last worked in, else the first. */
  async openLast(): Promise<void> {
    if (this.open.id !== null) return;
    const { lastSetupId } = this.settings.now;
    if (lastSetupId !== null && (await this.openSetup(lastSetupId))) return;
    const [first] = this.jobs.current;
    if (first) await this.openJob(first.id);
  }

  /** Whether nobody has worked here yet: there is the demo and nothing else, and nothing of it has been looked at. */
  async firstVisit(): Promise<boolean> {
    const { welcomed, lastSetupId } = this.settings.now;
    if (welcomed !== 'no' || lastSetupId !== null) return false;
    const untouched = await untouchedDemos(this.#options.database);
    return this.jobs.list.every((row) => untouched.includes(row.id));
  }

  /** Where to begin: the picture last worked on, else the first of the first job. */
  async firstPath(): Promise<string> {
    const { database } = this.#options;
    const { lastSetupId } = this.settings.now;
    const last = lastSetupId === null ? null : await jobOfSetup(database, lastSetupId);
    if (last !== null && this.jobs.list.some((row) => row.id === last)) return `/setup/${lastSetupId ?? ''}`;
    const [first] = this.jobs.current;
    const jobId = first?.id ?? (await this.jobs.start());
    const setupId = await firstSetupOf(database, jobId);
    return setupId === null ? `/day/${jobId}` : `/setup/${setupId}`;
  }

  /** The page may be going: whatever the store has not confirmed is kept where a closing page can still write. */
  leave(): void {
    this.#keep(this.store.unconfirmed);
    void this.store.flush();
  }

  /** The page is looked at again. */
  async comeBack(): Promise<void> {
    if (this.status !== 'ready') return;
    if (await this.store.isCleared().catch(() => false)) await this.#storeAgain();
    else if (await this.store.flush()) await this.store.atHand.refreshAll();
  }

  /** One step back or forth, said. Returns the setup it touched and left there, so that the screen can show it. */
  async step(direction: 'undo' | 'redo'): Promise<string | null> {
    return this.#said(
      await this.store[direction](),
      direction === 'undo' ? 'Undone' : 'Done again',
      direction === 'undo'
    );
  }

  /** Takes back the step a message names. */
  async takeBack(step: number): Promise<string | null> {
    return this.#said(await this.store.takeBack(step), 'Undone', true);
  }

  #said(result: Awaited<ReturnType<FocalisStore['undo']>>, word: string, back: boolean): string | null {
    if (!result) return null;
    const { step } = result;
    if (result.kind === 'failed') {
      this.messages.problem(`${step.label} was not ${back ? 'undone' : 'done again'}: ${errorReason(result.error)}`);
      return null;
    }
    const partly = ' What has been changed since was left as it is.';
    this.messages.done(`${word}: ${step.label}.${result.partly ? partly : ''}`);
    const touched = step.changes.find((change) => change.table === 'setups');
    const remains = back ? touched?.before : touched?.after;
    return remains && touched ? touched.id : null;
  }

  stop(): void {
    this.#stopped = true;
    this.store.stop();
  }
}

export const [getApp, setApp] = createContext<App>();
