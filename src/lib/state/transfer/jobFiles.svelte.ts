/** Jobs in and out of files. */
import { refusedWords } from '$core/words/refused';
import { maxJobFileBytes, jobFileTooLarge, writeJobFile, type JobFileResult } from '$core/formats/jobFile';
import { demoJobs, demoParts } from '$core/job/demo';
import { builtInKit } from '$core/kit/builtInKit';
import { same } from '$core/plain/merge';
import { addJob, readJobParts, type Row } from '$lib/data';
import type { Jobs } from '$lib/state/job/jobs.svelte';
import { errorReason, type Services } from '$lib/state/job/services';
import type { readJob } from '../../../workers/clients/files';

export class JobFiles {
  readonly #parts: Services;
  readonly #jobs: Jobs;
  readonly #readJob: typeof readJob;
  /** Share of an import done, 0 to 1; null when none is under way. */
  importing = $state<number | null>(null);
  #cancel: AbortController | null = null;

  constructor(parts: Services, jobs: Jobs, read: typeof readJob) {
    this.#parts = parts;
    this.#jobs = jobs;
    this.#readJob = read;
  }

  async loadDemo(): Promise<string | null> {
    const [wedding, band] = demoJobs();
    const added = await this.#add('Demo loaded', { job: wedding.job, kit: builtInKit, ...demoParts(wedding) });
    await this.#add('Demo loaded', { job: band.job, kit: builtInKit, ...demoParts(band) });
    return added.firstSetupId;
  }

  async #add(label: string, file: Parameters<typeof addJob>[1]) {
    const { database, store, open, settings, newId, now, messages } = this.#parts;
    const own = settings.now.habits;
    const habits = file.job.habits !== null && same(file.job.habits, own) ? null : file.job.habits;
    const there = { jobNames: this.#jobs.names, kit: open.kit, awaited: store.awaited };
    const added = await addJob(database, { ...file, job: { ...file.job, habits } }, there, newId, now());
    const step = await store.apply(label, added.changes);
    messages.done(`${label}.`, step);
    return added;
  }

  /** Reads a job file into the store. Returns where to go, or null when it was refused. */
  async importFile(file: File): Promise<string | null> {
    const { messages } = this.#parts;
    const refuse = (reason: string) => {
      messages.problem(refusedWords(`import ${file.name}`, reason));
      return null;
    };
    if (file.size > maxJobFileBytes) return refuse(jobFileTooLarge(file.size));
    try {
      const result = await this.#read(file);
      if (!result.ok) return refuse(result.field === '' ? result.reason : `${result.field}: ${result.reason}`);
      const added = await this.#add(`${result.file.job.name} imported`, result.file);
      return added.firstSetupId ? `/setup/${added.firstSetupId}` : `/day/${added.jobId}`;
    } catch (error) {
      return refuse(errorReason(error));
    }
  }

  async #read(file: File): Promise<JobFileResult> {
    this.#cancel = new AbortController();
    this.importing = 0;
    try {
      return await this.#readJob(file, (share) => void (this.importing = share), this.#cancel.signal);
    } finally {
      this.importing = null;
      this.#cancel = null;
    }
  }

  cancelImport(): void {
    this.#cancel?.abort();
  }

  /** The text of a job's file, with everything on the screen, stored or not; null when there is no such job. */
  async exportText(id: string): Promise<string | null> {
    const { database, store, open, settings } = this.#parts;
    const job = store.table('jobs').get(id)?.value ?? (open.id === id ? open.job : undefined);
    if (!job) return null;
    const values = <V>(rows: readonly Row<V>[]) => rows.map((row) => row.value);
    const parts =
      open.id === id
        ? {
            people: values(store.table('people').list),
            places: values(store.table('places').list),
            setups: values(store.table('setups').list)
          }
        : await readJobParts(database, id);
    const habits = job.habits ?? settings.now.habits;
    return writeJobFile({ job: { ...job, habits }, kit: open.kit, ...parts });
  }
}
