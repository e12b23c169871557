/** What is done with jobs as a whole. */
import { asBefore, newJob } from '$core/job/defaults';
import type { Job } from '$core/job/schema';
import {
  addJob,
  countSetups,
  eraseJob,
  freeName,
  newRow,
  readJobParts,
  untouchedDemos,
  type FocalisStore,
  type EditManner,
  type Row
} from '$lib/data';
import { errorReason, type Services } from './services';

export class Jobs {
  readonly #parts: Services;
  /** Jobs in use, in the order they were made. */
  readonly list: readonly Row<Job>[] = $derived.by(() =>
    this.#parts.store.table('jobs').list.filter((row) => row.removedAt === null)
  );
  /** Those one works on; archived ones, and those others are started from, are out of the way. */
  readonly current = $derived(this.list.filter((row) => row.value.state === 'open'));
  readonly archived = $derived(this.list.filter((row) => row.value.state === 'archived'));
  readonly templates = $derived(this.list.filter((row) => row.value.state === 'template'));
  /** Jobs put away, which can be restored. */
  readonly removed: readonly Row<Job>[] = $derived.by(() =>
    this.#parts.store.table('jobs').list.filter((row) => row.removedAt !== null)
  );

  constructor(options: Services) {
    this.#parts = options;
  }

  /** Names of jobs in use. */
  get names(): readonly string[] {
    return this.list.map((row) => row.value.name);
  }

  /** Changes a job. Returns why that is not possible, or null. */
  change(id: string, label: string, changes: Partial<Job>, how: EditManner = null): string | null {
    const options = typeof how === 'string' ? { gesture: how } : (how ?? {});
    const result = this.#parts.store.edit(
      label,
      (draft) => draft.change('jobs', id, (job) => ({ ...job, ...changes })),
      options
    );
    return result.ok ? null : result.reason;
  }

  /** A new job of one's own. The demo goes, unless somebody has worked in it. */
  async start(): Promise<string> {
    const { database, store, settings, messages, newId, now } = this.#parts;
    await store.flush();
    const demos = await untouchedDemos(database);
    const job = newJob(newId(), freeName('New job', this.names), { stopStep: settings.now.stopStep });
    const result = store.edit('New job', (draft) => {
      draft.put('jobs', newRow(job.id, job, { position: now() }));
      for (const id of demos) this.#putAway(draft, id);
    });
    if (demos.length > 0 && result.ok) messages.done('The demo was put away.', result.step);
    return job.id;
  }

  /**
   * A copy of a job with all that is in it, and nothing of what was done: another job, or a template to start others from.
   * Null, with a message, when it cannot be made.
   */
  async duplicate(id: string, as: 'copy' | 'template' | 'fromTemplate'): Promise<string | null> {
    const { database, store, open, messages, newId, now } = this.#parts;
    const row = store.table('jobs').get(id);
    if (!row) return null;
    try {
      await store.flush();
      const parts = await readJobParts(database, id);
      const state = as === 'template' ? 'template' : 'open';
      const job: Job = {
        ...row.value,
        state,
        name: freeName(as === 'template' ? `${row.value.name}, template` : row.value.name, this.names),
        date: as === 'copy' ? row.value.date : null,
        packing: row.value.packing.map((item) => ({ ...item, packed: false })),
        clocks: []
      };
      const setups = parts.setups.map(asBefore);
      const file = { job, kit: { bodies: [], lenses: [], adapters: [] }, ...parts, setups };
      const made = await addJob(
        database,
        file,
        { jobNames: this.names, kit: open.kit, awaited: store.awaited },
        newId,
        now()
      );
      const step = await store.apply(`${job.name} made`, made.changes);
      messages.done(as === 'template' ? `${job.name} is kept to start from.` : `${job.name} made.`, step);
      return made.jobId;
    } catch (error) {
      messages.problem(`It could not be copied: ${errorReason(error)}`);
      return null;
    }
  }

  /** How many setups each of the jobs has, stored or not. */
  async counts(): Promise<ReadonlyMap<string, number>> {
    const { database, store } = this.#parts;
    await store.flush();
    return countSetups(
      database,
      this.list.map((row) => row.id)
    );
  }

  /** Out of the way, or back again. */
  archive(id: string, away: boolean): void {
    const { store, messages } = this.#parts;
    const name = store.table('jobs').get(id)?.value.name ?? 'Job';
    const label = away ? `${name} archived` : `${name} is open again`;
    const result = store.edit(label, (draft) =>
      draft.change('jobs', id, (job) => ({ ...job, state: away ? 'archived' : 'open' }))
    );
    if (result.ok) messages.done(`${label}.`, result.step);
  }

  #putAway(draft: Parameters<Parameters<FocalisStore['edit']>[1]>[0], id: string): void {
    const row = draft.row('jobs', id);
    if (row) draft.put('jobs', { ...row, removedAt: this.#parts.now() });
  }

  /** Puts a job away, with all that hangs on it; it can be restored for thirty days. */
  remove(id: string): void {
    const { store, messages } = this.#parts;
    const name = store.table('jobs').get(id)?.value.name ?? 'Job';
    const result = store.edit(`${name} removed`, (draft) => this.#putAway(draft, id));
    if (result.ok) messages.done(`${name} removed.`, result.step);
  }

  /** Brings a job back: one that was put away, or one that another tab has erased while it is open here. */
  async bringBack(row: Row<Job>): Promise<void> {
    const { store, messages } = this.#parts;
    const back = { ...row, removedAt: null };
    if (store.table('jobs').get(row.id)) {
      store.edit(`${row.value.name} restored`, (draft) => draft.put('jobs', back));
      return;
    }
    try {
      await store.bringBack([{ table: 'jobs', id: row.id, before: null, after: back }]);
      messages.done(`${row.value.name} is back, with everything you have changed.`);
    } catch (error) {
      messages.problem(`Couldn’t restore it: ${errorReason(error)}`);
    }
  }

  /** Erases a job for good. */
  async erase(row: Row<Job>): Promise<void> {
    const { database, store, messages } = this.#parts;
    await store.flush();
    const gone = await eraseJob(database, row.id);
    store.erased(gone);
    messages.done(`${row.value.name} was erased.`);
  }
}
