/** A job's way to another device and home again, sealed; the server between only holds what it cannot read. */
import { refusedWords } from '$core/words/refused';
import { mergeReturned, mergedReturnText, type MergedRows, type WholeJob } from '$core/job/mergeReturned';
import { renameJobKit, renameKit } from '$core/job/normalise';
import { same } from '$core/plain/merge';
import type { JobFile } from '$core/formats/jobFile';
import { maxPickupBytes } from '$core/service/limits';
import {
  addition,
  addJob,
  kitIdOf,
  newRow,
  placeKit,
  readJobParts,
  readTableRows,
  tables,
  untouchedDemos,
  type Change,
  type Handoff,
  type Row
} from '$lib/data';
import { arrivalLosses, losesWork, type ArrivalLosses } from './arrival';
import type { Direction } from '$lib/state/transfer/sealed';
import type { JobFiles } from './jobFiles.svelte';
import { errorReason, type Services } from '$lib/state/job/services';
import type { readJob } from '../../../workers/clients/files';

/** What another device needs to fetch a job. */
export interface Waiting {
  readonly place: string;
  /** What stands after the # of its address, which no server is ever told. */
  readonly secret: string;
  /** When it goes, ms. */
  readonly until: number;
}

/** A job that was fetched and not yet taken. */
export interface Arrival extends ArrivalLosses {
  readonly place: string;
  readonly key: string;
  readonly jobId: string;
  readonly text: string;
  readonly file: JobFile;
}

/** What seals comes when something is sealed: most never do. */
const sealing = () => import('$lib/state/transfer/sealed');

/** How long the server keeps it, ms. */
const keptMs = 10 * 60_000;
/** What a job is made of beside itself. */
const parts = ['people', 'places', 'setups'] as const;

/** Older ways of a job are forgotten. */
const mostJourneys = 3;

export class Transfer {
  readonly #parts: Services;
  readonly #files: JobFiles;
  readonly #readJob: typeof readJob;
  readonly #fetch: typeof fetch;
  /** What is under way, in words; empty when nothing is. */
  busy = $state('');
  /** Ways of the open job, the latest first. */
  readonly journeys: readonly Row<Handoff>[] = $derived.by(() =>
    [...this.#parts.store.table('journeys').list].sort((a, b) => b.value.at.localeCompare(a.value.at))
  );
  readonly sent = $derived(this.journeys.filter((row) => row.value.side === 'sent'));
  readonly came = $derived(this.journeys.find((row) => row.value.side === 'came'));

  constructor(parts: Services, files: JobFiles, read: typeof readJob, fetcher: typeof fetch) {
    this.#parts = parts;
    this.#files = files;
    this.#readJob = read;
    this.#fetch = fetcher;
  }

  /** Leaves the open job where another device can fetch it. Null, with a message, when that cannot be done. */
  send(): Promise<Waiting | null> {
    return this.#doing('Encrypting the job', 'make a QR code', async () => {
      const { open, store, now } = this.#parts;
      const jobId = open.id ?? '';
      await store.flush();
      const base = await this.#textOf(jobId);
      const { newKey, newPlace, seal } = await sealing();
      const [key, place] = [newKey(), newPlace()];
      await this.#leave(place, await seal(base, key, 'out', jobId));
      this.#remember(jobId, { side: 'sent', key, jobId, at: new Date(now()).toISOString(), base });
      return { place, secret: `${key}.${jobId}`, until: now() + keptMs };
    });
  }

  /** Whether what was left still waits; null when nobody can tell just now. */
  async waits(place: string): Promise<boolean | null> {
    try {
      const response = await this.#fetch(`/api/pickup/${place}`, { cache: 'no-store' });
      const { waits } = (await response.json()) as { readonly waits?: unknown };
      return typeof waits === 'boolean' ? waits : null;
    } catch {
      return null;
    }
  }

  /** Fetches a job and says what taking it would change here; nothing is changed yet. Null, with a message, when it cannot be had. */
  fetchJob(place: string, secret: string): Promise<Arrival | null> {
    return this.#doing('Collecting the job', 'collect the job', async () => {
      const [key = '', jobId = ''] = secret.split('.');
      const { isKey } = await sealing();
      if (!isKey(key) || jobId === '') throw new Error('The address is not complete. Scan the code again.');
      const text = await this.#fetched(place, key, 'out', jobId);
      if (text === null)
        throw new Error(
          'Nothing to collect: it was collected already, or the ten minutes are up. Make a new code on the other device.'
        );
      const file = await this.#read(text);
      await this.#parts.store.flush();
      const { changes } = await this.#arrival(file);
      return { place, key, jobId, text, file, ...arrivalLosses(changes) };
    });
  }

  /**
   * Takes a fetched job. What it replaces or removes here is kept beside it, as a removed job, for thirty days.
   *
   * @returns where to go; null, with a message, when it was not taken: then nothing has changed
   */
  accept({ place, key, jobId, text, file }: Arrival): Promise<string | null> {
    return this.#doing('Storing the job', 'store the job', async () => {
      const { store, messages, now } = this.#parts;
      await store.flush();
      // As it is now: something may have been edited since one looked.
      const { label, changes } = await this.#arrival(file);
      const kept = losesWork(arrivalLosses(changes)) ? await this.#copyKept(jobId) : [];
      const handoff: Handoff = { side: 'came', key, jobId, at: new Date(now()).toISOString(), base: text };
      const step = changes.length > 0 ? await store.apply(label, [...changes, ...kept]) : null;
      await store.open(jobId);
      this.#remember(jobId, handoff);
      const before = kept.length > 0 ? ' As it was here, it is kept for thirty days under Jobs, Removed.' : '';
      messages.done(`${label}.${before}`, step);
      // It is here: nobody else needs it. If this is not heard, its time ends by itself.
      await this.#fetch(`/api/pickup/${place}`, { method: 'DELETE' }).catch(() => undefined);
      return `/day/${jobId}`;
    });
  }

  /** The job as it is here, as a removed job of its own: under ids of its own, and a name that says when. */
  async #copyKept(jobId: string): Promise<readonly Change[]> {
    const { store, database, newId, now } = this.#parts;
    const row = store.table('jobs').get(jobId);
    if (!row) return [];
    const at = now();
    const { job, ...own } = { job: row.value, ...(await readJobParts(database, jobId)) };
    const jobNames = store.table('jobs').list.map((item) => item.value.name);
    const name = `${job.name.slice(0, 60)}, before ${new Date(at).toISOString().slice(0, 10)}`;
    const copy = await addJob(
      database,
      { job: { ...job, name }, kit: { bodies: [], lenses: [], adapters: [] }, ...own },
      { jobNames, kit: this.#parts.open.kit, awaited: store.awaited },
      newId,
      at
    );
    return copy.changes.map((change) =>
      change.table === 'jobs' && change.after ? { ...change, after: { ...change.after, removedAt: at } } : change
    );
  }

  /** Leaves the open job for where it came from. True when it waits there. */
  sendBack(): Promise<boolean | null> {
    return this.#doing('Encrypting the job', 'send the job back', async () => {
      const { open, store } = this.#parts;
      const journey = this.came?.value;
      if (!journey || open.id === null) throw new Error('It did not come from another device.');
      await store.flush();
      const { backOf, seal } = await sealing();
      const back = await backOf(journey.key);
      const text = await this.#textOf(open.id);
      await this.#leave(back.place, await seal(text, back.key, 'back', journey.jobId));
      return true;
    });
  }

  /** Takes home what another device has left of the open job. */
  bringBack(): Promise<boolean | null> {
    return this.#doing('Looking for what came back', 'receive the job', async () => {
      const { store, open, messages } = this.#parts;
      const jobId = open.id ?? '';
      const { backOf } = await sealing();
      for (const { id, value } of this.sent) {
        const back = await backOf(value.key);
        const text = await this.#fetched(back.place, back.key, 'back', value.jobId);
        if (text === null) continue;
        const [base, away] = [await this.#read(value.base), await this.#read(text)];
        await store.flush();
        const job = store.table('jobs').get(jobId)?.value;
        if (!job) throw new Error('The job is no longer there.');
        const here = { job, ...(await readJobParts(this.#parts.database, jobId)) };
        const { changes, words } = await this.#changes(here, this.#withKit(base).whole, away);
        const label = `Received: ${words}`;
        const step = changes.length > 0 ? await store.apply(label, changes) : null;
        // From now on the two sides agree on this.
        store.edit('Journey', (draft) => draft.change('journeys', id, (now) => ({ ...now, base: text })), {
          history: false
        });
        await store.flush();
        messages.done(`${label}.`, step);
        await this.#fetch(`/api/pickup/${back.place}`, { method: 'DELETE' }).catch(() => undefined);
        return true;
      }
      throw new Error('Nothing has been sent back, or its ten minutes are over. Tap “Send back” on the phone again.');
    });
  }

  async #doing<T>(what: string, failed: string, work: () => Promise<T>): Promise<T | null> {
    if (this.busy !== '') return null;
    this.busy = what;
    try {
      return await work();
    } catch (error) {
      const altered = error instanceof DOMException && error.name === 'OperationError';
      const reason = altered ? 'What arrived is not what was sent, or is for another job.' : errorReason(error);
      this.#parts.messages.problem(refusedWords(failed, reason));
      return null;
    } finally {
      this.busy = '';
    }
  }

  async #textOf(jobId: string): Promise<string> {
    const text = await this.#files.exportText(jobId);
    if (text === null) throw new Error('The job is no longer there.');
    return text;
  }

  async #read(text: string): Promise<JobFile> {
    const result = await this.#readJob(new File([text], 'job.json'), () => undefined, new AbortController().signal);
    if (result.ok) return result.file;
    throw new Error(result.field === '' ? result.reason : `${result.field}: ${result.reason}`);
  }

  async #leave(place: string, bytes: Uint8Array<ArrayBuffer>): Promise<void> {
    if (bytes.length > maxPickupBytes)
      throw new Error('This job is too large to send this way. Export it as a file instead.');
    const response = await this.#reached(`/api/pickup/${place}`, {
      method: 'PUT',
      headers: { 'content-type': 'application/octet-stream' },
      body: bytes
    });
    if (!response.ok) throw new Error(await said(response));
  }

  /** What waits at a place, opened; null when nothing does. */
  async #fetched(place: string, key: string, direction: Direction, jobId: string): Promise<string | null> {
    const response = await this.#reached(`/api/pickup/${place}`, { method: 'POST' });
    if (response.status === 404) return null;
    if (!response.ok) throw new Error(await said(response));
    const { unseal } = await sealing();
    return unseal(new Uint8Array(await response.arrayBuffer()), key, direction, jobId);
  }

  async #reached(address: string, options: RequestInit): Promise<Response> {
    try {
      return await this.#fetch(address, { ...options, cache: 'no-store' });
    } catch {
      throw new Error('You’re offline, or Focalis isn’t running there. Try again, or export the job as a file.');
    }
  }

  #remember(jobId: string, journey: Handoff): void {
    const { store, newId } = this.#parts;
    store.edit(
      'Journey',
      (draft) => {
        const alike = this.journeys.filter((row) => row.value.side === journey.side);
        const keep = journey.side === 'came' ? 0 : mostJourneys - 1;
        for (const row of alike.slice(keep)) draft.remove('journeys', row.id);
        draft.put('journeys', newRow(newId(), journey, { owner: jobId }));
      },
      { history: false }
    );
  }

  /** A job that has come: as it was sent, over whatever this device knew of it. */
  async #arrival(file: JobFile): Promise<{ readonly label: string; readonly changes: readonly Change[] }> {
    const { store, database, now } = this.#parts;
    const { job } = file;
    await this.#refuseStrangers(file);
    const there = store.table('jobs').get(job.id);
    if (!there) {
      const { whole, changes } = this.#withKit(file);
      const rows = parts.flatMap((table) =>
        whole[table].map((value, position) => addition(table, value, { owner: job.id, position }))
      );
      const added = addition('jobs', whole.job, { position: now() });
      return { label: `${job.name} is here`, changes: [...changes, added, ...rows] };
    }
    const here: WholeJob = { job: there.value, ...(await readJobParts(database, job.id)) };
    const base = await this.#lastAgreed(here);
    const { changes } = await this.#changes(here, base, file);
    const back = { table: 'jobs', id: job.id, before: there, after: { ...there, removedAt: null } };
    return {
      label: `${job.name} is here, up to date`,
      changes: [...(there.removedAt === null ? [] : [back]), ...changes]
    };
  }

  /**
   * How a job stood when both sides last had it alike. A sample nobody has touched holds no work. Where nothing is known of
   * it, nothing here counts as removed there.
   */
  async #lastAgreed(here: WholeJob): Promise<WholeJob> {
    const { database } = this.#parts;
    const handoffs = await readTableRows(database, 'journeys', tables.journeys, here.job.id);
    const latest = handoffs.rows
      .map((row) => row.value)
      .reduce<Handoff | null>((last, item) => (last && last.at >= item.at ? last : item), null);
    if (latest) return this.#withKit(await this.#read(latest.base)).whole;
    if ((await untouchedDemos(database)).includes(here.job.id)) return here;
    return { job: here.job, people: [], places: [], setups: [] };
  }

  /** Nothing of it may stand where another job's rows stand. @throws with why */
  async #refuseStrangers(file: JobFile): Promise<void> {
    for (const table of parts) {
      const ids = file[table].map((item) => item.id);
      const rows = await this.#parts.database.table<Row, string>(table).bulkGet(ids);
      if (rows.some((row) => row && row.owner !== file.job.id))
        throw new Error(
          'Another job here has parts of it under the same ids: export it as a file and import that instead.'
        );
    }
  }

  /** A job with its kit as this device has it: what is alike is the same, whatever it is called; and what is new here. */
  #withKit(file: JobFile): { readonly whole: WholeJob; readonly changes: readonly Change[] } {
    const { newId, now, open } = this.#parts;
    const bodies = placeKit(file.kit.bodies, open.kit.bodies, newId);
    const lenses = placeKit(file.kit.lenses, open.kit.lenses, newId);
    const adapters = placeKit(file.kit.adapters, open.kit.adapters, newId);
    const kitId = kitIdOf(bodies, lenses, adapters);
    const position = now();
    return {
      whole: {
        people: file.people,
        places: file.places,
        setups: file.setups.map((setup) => renameKit(setup, kitId)),
        job: renameJobKit(file.job, kitId)
      },
      changes: [
        ...bodies.added.map((item) => addition('bodies', item, { position })),
        ...lenses.added.map((item) => addition('lenses', item, { position })),
        ...adapters.added.map((item) => addition('adapters', item, { position }))
      ]
    };
  }

  /** What has to change here so that what was done away is done here too. */
  async #changes(here: WholeJob, base: WholeJob, away: JobFile) {
    const { database, store } = this.#parts;
    const { id } = here.job;
    const { whole, changes: kit } = this.#withKit(away);
    // A job's bag stays where it is packed, and so do the figures of whoever plans.
    const own = { id, bagId: base.job.bagId, habits: base.job.habits };
    const home = mergeReturned(
      { ...base, job: { ...base.job, id } },
      { ...whole, job: { ...whole.job, ...own } },
      here
    );
    const changes: Change[] = [...kit];
    const jobRow = store.table('jobs').get(id);
    if (jobRow && !same(jobRow.value, home.job))
      changes.push({ table: 'jobs', id, before: jobRow, after: { ...jobRow, value: home.job } });
    for (const table of parts) {
      const rows = await database.table<Row, string>(table).where('owner').equals(id).sortBy('position');
      const place = placesIn(rows, table === 'setups' ? home.order : null);
      const values = new Map(
        (home[table] as readonly MergedRows<{ readonly id: string }>[]).map((item) => [item.id, item])
      );
      for (const row of rows) {
        const { value } = values.get(row.id) ?? { value: row.value };
        const position = place.get(row.id) ?? row.position;
        const after = value === null ? null : { ...row, value, position };
        if (values.delete(row.id) || position !== row.position) changes.push({ table, id: row.id, before: row, after });
      }
      let last = Math.max(-1, ...rows.map((row) => row.position));
      for (const { value } of values.values())
        if (value) changes.push(addition(table, value, { owner: id, position: ++last }));
    }
    return { changes, words: mergedReturnText(home) };
  }
}

/** The place of each row in an order: those they have among them, dealt anew. */
function placesIn(rows: readonly Row[], order: readonly string[] | null): ReadonlyMap<string, number> {
  if (!order) return new Map();
  const known = order.filter((id) => rows.some((row) => row.id === id));
  return new Map(known.map((id, index) => [id, rows[index]?.position ?? index]));
}

/** What the server says of a refusal. */
async function said(response: Response): Promise<string> {
  const answer = (await response.json().catch(() => null)) as { readonly reason?: unknown } | null;
  return typeof answer?.reason === 'string' ? answer.reason : 'The server refused it.';
}
