/** What the whole page knows: everything stored, edits on their way there, and undo. */
import { produce } from 'immer';
import { createContext } from 'svelte';
import type { NoPlan, Plan } from '$core/call/plan';
import { planSetup } from '$core/call/planSetup';
import { readJobFile, tooLarge, maxJobFileBytes, writeJobFile } from '$core/formats/jobFile';
import { builtInKit, mergedKit } from '$core/setup/builtInKit';
import { newJob } from '$core/setup/defaults';
import { demoJobs } from '$core/setup/demo';
import { merge } from '$core/setup/merge';
import { changeProblem } from '$core/setup/changed';
import type { Job, Setup } from '$core/setup/schema';
import { setupFrom, type TemplateChoices } from '$core/setup/templates';
import {
  addJob,
  applyChanges,
  applyJournals,
  keepJournal,
  changeSettings,
  defaultSettings,
  freeName,
  keepPicture,
  offerDemo,
  readPicture,
  readStored,
  removeJob,
  reversed,
  untouchedDemos,
  watch,
  type ChangeSet,
  type FocalisDatabase,
  type JobRow,
  type RowChange,
  type Settings,
  type SetupRow,
  type Stored
} from '$lib/data';

export interface Message {
  readonly text: string;
  readonly kind: 'done' | 'problem';
  readonly canUndo: boolean;
}

/** An edit shown at once and stored a little later. */
interface Pending {
  readonly before: SetupRow;
  readonly after: SetupRow;
  /** When it was handed to the store; null while still waiting. */
  readonly writtenAt: number | null;
}

interface HistoryEntry extends ChangeSet {
  /** Edits of one drag or one run of key presses share a gesture and one step of undo. */
  readonly gesture: string | null;
}

const saveDelayMs = 150;
const historyLength = 200;

export class App {
  status = $state<'loading' | 'ready' | 'failed'>('loading');
  failure = $state('');
  jobs = $state.raw<readonly JobRow[]>([]);
  setups = $state.raw<readonly SetupRow[]>([]);
  settings = $state.raw<Settings>(defaultSettings);
  message = $state.raw<Message | null>(null);
  savedAt = $state<number | null>(null);
  saving = $state(false);
  kit = $state.raw(builtInKit);
  #undo = $state.raw<readonly HistoryEntry[]>([]);
  #redo = $state.raw<readonly HistoryEntry[]>([]);
  canUndo = $derived(this.#undo.length > 0);
  canRedo = $derived(this.#redo.length > 0);

  readonly #database: FocalisDatabase;
  readonly #pageId = crypto.randomUUID();
  // eslint-disable-next-line svelte/prefer-svelte-reactivity -- bookkeeping that no screen reads
  readonly #pending = new Map<string, Pending>();
  readonly #plans = new WeakMap<
    Setup,
    { readonly key: unknown; readonly step: string; readonly plan: Plan | NoPlan }
  >();
  /** Settings the store has not confirmed. */
  #pendingSettings: Partial<Settings> = {};
  #settingsWrites: Promise<void> = Promise.resolve();
  #timer: ReturnType<typeof setTimeout> | undefined;
  #writes: Promise<void> = Promise.resolve();

  constructor(database: FocalisDatabase) {
    this.#database = database;
  }

  /** Opens the store, offers the demo to a new profile, and follows every change. Returns the way to stop. */
  start(): () => void {
    let stop: () => void = () => undefined;
    let stopped = false;
    const fail = (error: unknown) => {
      this.status = 'failed';
      this.failure = error instanceof Error ? error.message : String(error);
    };
    const open = async () => {
      await offerDemo(this.#database, Date.now());
      await applyJournals(this.#database, localStorage, Date.now());
      if (!stopped) stop = watch(this.#database, (stored) => this.#receive(stored), fail);
    };
    open().catch(fail);
    return () => {
      stopped = true;
      stop();
    };
  }

  #receive(stored: Stored): void {
    this.jobs = stored.jobs;
    this.settings = { ...stored.settings, ...this.#pendingSettings };
    this.kit = mergedKit(stored.kit);
    this.setups = stored.setups.map((row) => {
      const pending = this.#pending.get(row.id);
      if (!pending) return this.setups.find((known) => known.updatedAt === row.updatedAt && known.id === row.id) ?? row;
      if (pending.writtenAt !== null && row.updatedAt >= pending.writtenAt) {
        this.#pending.delete(row.id);
        return row;
      }
      return merge(pending.before, pending.after, row);
    });
    this.status = 'ready';
  }

  job(id: string): Job | undefined {
    return this.jobs.find((row) => row.id === id)?.job;
  }

  setupsOf(jobId: string): readonly SetupRow[] {
    return this.setups.filter((row) => row.jobId === jobId);
  }

  row(id: string): SetupRow | undefined {
    return this.setups.find((row) => row.id === id);
  }

  /** The plan of a setup, computed once for each state of it. */
  plan(row: SetupRow): Plan | NoPlan {
    const step = this.job(row.jobId)?.stopStep ?? 'half';
    const known = this.#plans.get(row.setup);
    if (known && known.key === this.kit && known.step === step) return known.plan;
    const plan = planSetup({ setup: row.setup, kit: this.kit, stopStep: step });
    this.#plans.set(row.setup, { key: this.kit, step, plan });
    return plan;
  }

  /**
   * Changes one setup: at once on the screen, then in the store. Edits that share a gesture are one step of undo.
   * An edit that would make the setup invalid is refused with the reason.
   */
  edit(id: string, label: string, recipe: (draft: Setup) => void, gesture: string | null = null): boolean {
    const row = this.row(id);
    if (!row) return false;
    const setup = produce(row.setup, recipe);
    if (setup === row.setup) return true;
    const problem = changeProblem(row.setup, setup);
    if (problem !== null) {
      this.say(`${label}: ${problem}.`, 'problem');
      return false;
    }
    const after = { ...row, setup };
    const top = this.#undo[this.#undo.length - 1];
    const first = top?.changes[0];
    if (gesture !== null && top?.gesture === gesture && first?.table === 'setups' && first.id === id) {
      const change: RowChange = { ...first, after };
      this.#undo = [...this.#undo.slice(0, -1), { ...top, changes: [change] }];
    } else {
      this.#remember({ label, gesture, changes: [{ table: 'setups', id, before: row, after }] });
    }
    this.#redo = [];
    this.setups = this.setups.map((item) => (item.id === id ? after : item));
    const waiting = this.#pending.get(id);
    // What is already on its way counts as stored: the store merges in the order of writing.
    const before = waiting && waiting.writtenAt === null ? waiting.before : row;
    this.#pending.set(id, { before, after, writtenAt: null });
    this.#saveSoon();
    return true;
  }

  /** Ends a drag or a run of key presses: the next edit is a step of undo of its own. */
  endGesture(): void {
    const top = this.#undo[this.#undo.length - 1];
    if (top?.gesture) this.#undo = [...this.#undo.slice(0, -1), { ...top, gesture: null }];
  }

  #remember(entry: HistoryEntry): void {
    this.#undo = [...this.#undo, entry].slice(-historyLength);
  }

  #saveSoon(): void {
    this.saving = true;
    clearTimeout(this.#timer);
    this.#timer = setTimeout(() => void this.flush(), saveDelayMs);
  }

  /** The page may be going: whatever the store has not confirmed is kept where a closing page can still write. */
  leave(): void {
    const changes = [...this.#pending].map(([id, { before, after }]): RowChange => ({
      table: 'setups',
      id,
      before,
      after
    }));
    keepJournal(localStorage, this.#pageId, changes, this.#pendingSettings);
    void Promise.all([this.flush(), this.#settingsWrites]).then(() => keepJournal(localStorage, this.#pageId, []));
  }

  /** Hands every waiting edit to the store. */
  flush(): Promise<void> {
    clearTimeout(this.#timer);
    const now = Date.now();
    const changes: RowChange[] = [];
    for (const [id, pending] of this.#pending) {
      if (pending.writtenAt !== null) continue;
      this.#pending.set(id, { ...pending, writtenAt: now });
      changes.push({ table: 'setups', id, before: pending.before, after: pending.after });
    }
    if (changes.length > 0) this.#write({ label: '', changes }, now);
    return this.#writes;
  }

  #write(change: ChangeSet, now = Date.now()): Promise<void> {
    this.saving = true;
    const written = this.#writes.then(() => applyChanges(this.#database, change, now));
    this.#writes = written.then(
      () => {
        this.savedAt = now;
        this.saving = [...this.#pending.values()].some((pending) => pending.writtenAt === null);
      },
      (error: unknown) => {
        this.saving = false;
        this.say(
          `Not saved: ${error instanceof Error ? error.message : String(error)}. Export the job to a file.`,
          'problem'
        );
      }
    );
    return written;
  }

  /** Does a change to the store with undo. */
  async do(change: ChangeSet, announce = true): Promise<void> {
    await this.flush();
    await this.#write(change);
    // Whoever goes to another page now must find there what has just been done.
    this.#receive(await readStored(this.#database));
    this.#remember({ ...change, gesture: null });
    this.#redo = [];
    if (announce) this.say(`${change.label}.`, 'done', true);
  }

  undo(): Promise<string | null> {
    return this.#step('undo');
  }

  redo(): Promise<string | null> {
    return this.#step('redo');
  }

  /** One step back or forth. Returns the setup it touched, so that the screen can show it. */
  async #step(direction: 'undo' | 'redo'): Promise<string | null> {
    const entry = direction === 'undo' ? this.#undo[this.#undo.length - 1] : this.#redo[this.#redo.length - 1];
    if (!entry) return null;
    if (direction === 'undo') {
      this.#undo = this.#undo.slice(0, -1);
      this.#redo = [...this.#redo, { ...entry, gesture: null }];
    } else {
      this.#redo = this.#redo.slice(0, -1);
      this.#undo = [...this.#undo, { ...entry, gesture: null }];
    }
    await this.flush();
    await this.#write(direction === 'undo' ? reversed(entry) : entry);
    this.#receive(await readStored(this.#database));
    this.say(`${direction === 'undo' ? 'Undone' : 'Done again'}: ${entry.label}.`, 'done');
    const touched = entry.changes.find((change) => change.table === 'setups');
    const remains = direction === 'undo' ? touched?.before : touched?.after;
    return remains && touched ? touched.id : null;
  }

  /** A small picture drawn before, if it was drawn from the same. */
  async keptPicture(key: string, drawnFrom: string): Promise<Blob | null> {
    const row = await readPicture(this.#database, key);
    return row?.drawnFrom === drawnFrom ? row.png : null;
  }

  async keepPicture(key: string, drawnFrom: string, png: Blob): Promise<void> {
    await keepPicture(this.#database, { key, drawnFrom, png });
  }

  say(text: string, kind: Message['kind'], canUndo = false): void {
    this.message = { text, kind, canUndo };
  }

  async setSettings(changes: Partial<Settings>): Promise<void> {
    this.settings = { ...this.settings, ...changes };
    const pending = { ...this.#pendingSettings, ...changes };
    this.#pendingSettings = pending;
    const written = changeSettings(this.#database, changes);
    this.#settingsWrites = written;
    await written;
    // Whatever was set meanwhile is still on its way.
    if (this.#pendingSettings === pending) this.#pendingSettings = {};
  }

  async addSetup(jobId: string, choices: TemplateChoices): Promise<string> {
    const rows = this.setupsOf(jobId);
    const id = crypto.randomUUID();
    const base = setupFrom(choices, id);
    const name = freeName(
      base.name,
      rows.map((row) => row.setup.name)
    );
    const position = (rows[rows.length - 1]?.position ?? -1) + 1;
    const after: SetupRow = { id, jobId, position, setup: { ...base, name }, updatedAt: Date.now() };
    await this.do({ label: `${name} added`, changes: [{ table: 'setups', id, before: null, after }] }, false);
    return id;
  }

  async duplicateSetup(row: SetupRow): Promise<string> {
    const rows = this.setupsOf(row.jobId);
    const next = rows[rows.indexOf(row) + 1];
    const position = next ? (row.position + next.position) / 2 : row.position + 1;
    const id = crypto.randomUUID();
    const name = freeName(
      row.setup.name,
      rows.map((item) => item.setup.name)
    );
    const after: SetupRow = { ...row, id, position, setup: { ...row.setup, id, name } };
    await this.do({ label: `${name} added`, changes: [{ table: 'setups', id, before: null, after }] }, false);
    return id;
  }

  removeSetup(row: SetupRow): Promise<void> {
    const change: RowChange = { table: 'setups', id: row.id, before: row, after: null };
    return this.do({ label: `${row.setup.name} removed`, changes: [change] });
  }

  /** Moves a setup one place up (−1) or down (+1) in its job. */
  async moveSetup(row: SetupRow, by: -1 | 1): Promise<void> {
    const rows = this.setupsOf(row.jobId);
    const index = rows.findIndex((item) => item.id === row.id);
    const other = rows[index + by];
    if (!other) return;
    const beyond = rows[index + 2 * by];
    const position = beyond ? (other.position + beyond.position) / 2 : other.position + by;
    const change: RowChange = { table: 'setups', id: row.id, before: row, after: { ...row, position } };
    await this.do({ label: `${row.setup.name} moved`, changes: [change] }, false);
  }

  async changeJob(id: string, label: string, changes: Partial<Job>): Promise<void> {
    const row = this.jobs.find((item) => item.id === id);
    if (!row) return;
    const after = { ...row, job: { ...row.job, ...changes } };
    await this.do({ label, changes: [{ table: 'jobs', id, before: row, after }] }, false);
  }

  async addEmptyJob(): Promise<string> {
    const taken = this.jobs.map((row) => row.job.name);
    const job = newJob(crypto.randomUUID(), freeName('New job', taken));
    const now = Date.now();
    const after: JobRow = { id: job.id, job, createdAt: now, updatedAt: now };
    await this.do({ label: `${job.name} added`, changes: [{ table: 'jobs', id: job.id, before: null, after }] }, false);
    return job.id;
  }

  /** An empty job to begin with; the demo goes, unless somebody has worked in it. */
  async startEmpty(): Promise<string> {
    await this.flush();
    const demos = await untouchedDemos(this.#database);
    const id = await this.addEmptyJob();
    if (demos.length > 0) {
      const removals = await Promise.all(demos.map((demo) => removeJob(this.#database, demo)));
      await this.do({ label: 'Demo put away', changes: removals.flatMap((removal) => removal.changes) });
    }
    return id;
  }

  async removeJob(id: string): Promise<void> {
    await this.flush();
    await this.do(await removeJob(this.#database, id));
  }

  /** The demo again, as new jobs beside whatever is there. */
  async loadDemo(): Promise<string | null> {
    const [wedding, band] = demoJobs();
    const { firstSetupId } = await this.#add('Demo loaded', { ...wedding, kit: builtInKit });
    await this.#add('Demo loaded', { ...band, kit: builtInKit });
    return firstSetupId;
  }

  async #add(label: string, file: Parameters<typeof addJob>[2]) {
    await this.flush();
    const change = await addJob(this.#database, label, file, () => crypto.randomUUID(), Date.now());
    await this.do(change);
    return change;
  }

  /** Reads a job file into the store. Returns its first setup, or null when it was refused. */
  async importFile(file: File): Promise<string | null> {
    const refuse = (reason: string) => {
      this.say(`${file.name} was not imported. ${reason}`, 'problem');
      return null;
    };
    if (file.size > maxJobFileBytes) return refuse(tooLarge(file.size));
    const result = readJobFile(await file.text());
    if (!result.ok) return refuse(result.field === '' ? result.reason : `${result.field}: ${result.reason}`);
    const added = await this.#add(`${result.file.job.name} imported`, result.file);
    return added.firstSetupId ?? this.setupsOf(added.jobId)[0]?.id ?? null;
  }

  /** The text of a job's file, or null when there is no such job. */
  exportJob(id: string): string | null {
    const job = this.job(id);
    if (!job) return null;
    return writeJobFile({ job, kit: this.kit, setups: this.setupsOf(id).map((row) => row.setup) });
  }
}

export const [getApp, setApp] = createContext<App>();
