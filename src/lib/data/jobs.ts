/** Jobs as a whole: what is read of them, and what adding one means, as changes to rows. */
import type Dexie from 'dexie';
import type { JobFile } from '$core/formats/jobFile';
import { demoJobs, demoParts } from '$core/job/demo';
import { renameJobKit, renameKit, renamePeople } from '$core/job/normalise';
import { usedKitOf } from '$core/setup/usedKit';
import type { JobSetup } from '$core/job/schema';
import type { Adapter, Body, Kit, Lens } from '$core/kit/schema';
import { same } from '$core/plain/merge';
import { recordedSchema } from '$core/record/schema';
import { recordWithoutNames } from '$core/record/withoutNames';
import { defaultProfile, profileId } from './profile';
import { readTableRows } from './read';
import { addition, newRow, rowKey, type Change, type Row } from './rows';
import { tables } from './tables';

type NewId = () => string;

const dayMs = 24 * 3600 * 1000;
/** How long a removed job is kept at least, ms; and for as many days of use. */
export const removedKeptMs = 30 * dayMs;

/** Tables whose rows belong to a job. */
const parts = ['people', 'places', 'setups'] as const;
const owned = [...parts, 'journeys', 'frames'] as const;

/** A name not yet taken: "Fernhall", "Fernhall (2)". */
export function freeName(name: string, taken: readonly string[]): string {
  if (!taken.includes(name)) return name;
  const base = name.replace(/ \(\d+\)$/, '').slice(0, 74);
  for (let n = 2; ; n++) if (!taken.includes(`${base} (${n})`)) return `${base} (${n})`;
}

/** What is stored of a job, in order. */
export async function readJobParts(database: Dexie, jobId: string): Promise<Pick<JobFile, (typeof parts)[number]>> {
  const byPosition = <V>(rows: readonly Row<V>[]) =>
    [...rows].sort((a, b) => a.position - b.position || (a.id < b.id ? -1 : 1)).map((row) => row.value);
  const [people, places, setups] = await Promise.all([
    readTableRows(database, 'people', tables.people, jobId),
    readTableRows(database, 'places', tables.places, jobId),
    readTableRows(database, 'setups', tables.setups, jobId)
  ]);
  return { people: byPosition(people.rows), places: byPosition(places.rows), setups: byPosition(setups.rows) };
}

function changesOf({ job, people, places, setups }: Omit<JobFile, 'kit'>, position: number): Change[] {
  const owned = (table: string, values: readonly { readonly id: string }[]) =>
    values.map((value, at) => addition(table, value, { owner: job.id, position: at }));
  return [
    addition('jobs', job, { position }),
    ...owned('people', people),
    ...owned('places', places),
    ...owned('setups', setups)
  ];
}

interface AddedJob {
  readonly changes: readonly Change[];
  readonly jobId: string;
  readonly firstSetupId: string | null;
}

/** What a new job has to go by. */
interface Present {
  readonly jobNames: readonly string[];
  readonly kit: Kit;
  /** Keys of rows that are not stored, and yet may come (`Store.awaited`): their ids are taken. */
  readonly awaited: ReadonlySet<string>;
}

/** A job that is new to the store: its ids are kept where they are free and replaced where they are taken. */
export async function addJob(
  database: Dexie,
  file: JobFile,
  there: Present,
  newId: NewId,
  now: number
): Promise<AddedJob> {
  const free = async (table: string, items: readonly { readonly id: string }[]) => {
    const ids = items.map((item) => item.id);
    const found = await database.table<unknown, string>(table).bulkGet(ids);
    const isFree = (id: string, index: number) =>
      found[index] === undefined && !there.awaited.has(rowKey({ table, id }));
    return new Map(ids.map((id, index) => [id, isFree(id, index) ? id : newId()]));
  };
  const [jobs, people, places, setups] = await Promise.all([
    free('jobs', [file.job]),
    free('people', file.people),
    free('places', file.places),
    free('setups', file.setups)
  ]);
  const bodies = placeKit(file.kit.bodies, there.kit.bodies, newId);
  const lenses = placeKit(file.kit.lenses, there.kit.lenses, newId);
  const adapters = placeKit(file.kit.adapters, there.kit.adapters, newId);
  const as = (ids: ReadonlyMap<string, string>, id: string) => ids.get(id) ?? id;
  const jobId = as(jobs, file.job.id);
  const kitId = kitIdOf(bodies, lenses, adapters);
  const placed = file.setups.map((setup) => ({
    ...renameKit(
      renamePeople(setup, (id) => as(people, id)),
      kitId
    ),
    id: as(setups, setup.id),
    placeId: as(places, setup.placeId)
  }));
  const job = { ...renameJobKit(file.job, kitId), id: jobId, name: freeName(file.job.name, there.jobNames) };
  const whole = {
    job,
    people: file.people.map((person) => ({ ...person, id: as(people, person.id) })),
    places: file.places.map((place) => ({ ...place, id: as(places, place.id) })),
    setups: placed
  };
  return {
    jobId,
    firstSetupId: placed[0]?.id ?? null,
    changes: [
      ...bodies.added.map((item) => addition('bodies', item, { position: now })),
      ...lenses.added.map((item) => addition('lenses', item, { position: now })),
      ...adapters.added.map((item) => addition('adapters', item, { position: now })),
      ...changesOf(whole, now)
    ]
  };
}

type KitItem = Body | Lens | Adapter;

/**
 * Kit that is already there, in use or retired, is used whatever its id; kit that differs under the same id comes in under a
 * new one.
 */
export function placeKit<T extends KitItem>(incoming: readonly T[], present: readonly T[], newId: NewId) {
  const ids = new Map<string, string>();
  const news: T[] = [];
  for (const item of incoming) {
    const alike = present.find((other) =>
      same({ ...other, id: '', retired: false }, { ...item, id: '', retired: false })
    );
    const id = alike?.id ?? (present.some((other) => other.id === item.id) ? newId() : item.id);
    ids.set(item.id, id);
    if (!alike) news.push({ ...item, id });
  }
  return { ids, added: news };
}

/** The id each item has here. */
export function kitIdOf(...placed: readonly { readonly ids: ReadonlyMap<string, string> }[]): (id: string) => string {
  return (id) => placed.map(({ ids }) => ids.get(id)).find((found) => found !== undefined) ?? id;
}

/** What is kept of frames apart from their rows. */
const apart = ['framePictures', 'originals', 'ownEyes'] as const;

/** Erases a job and all that hangs on it, for good. Of its frames the record keeps the numbers, and nobody's name. */
export async function eraseJob(database: Dexie, jobId: string): Promise<readonly { table: string; id: string }[]> {
  return database.transaction('rw', ['jobs', 'record', ...apart, ...owned], async () => {
    await hideRecordNames(database, jobId);
    const erased = [{ table: 'jobs', id: jobId }];
    for (const table of owned) {
      const own = database.table<Row, string>(table).where('owner').equals(jobId);
      erased.push(...(await own.primaryKeys()).map((id) => ({ table, id })));
      await own.delete();
    }
    for (const table of apart) await database.table(table).where('owner').equals(jobId).delete();
    await database.table('jobs').delete(jobId);
    return erased;
  });
}

async function hideRecordNames(database: Dexie, jobId: string): Promise<void> {
  const record = database.table<{ readonly value: unknown }, string>('record');
  const rows = await record.where('jobId').equals(jobId).toArray();
  const readable = rows.flatMap((row) => {
    const parsed = recordedSchema.safeParse(row.value);
    return parsed.success ? [{ row, frame: parsed.data }] : [];
  });
  const hidden = recordWithoutNames(readable.map(({ frame }) => frame));
  await record.bulkPut(readable.map(({ row }, index) => ({ ...row, value: hidden[index] ?? row.value })));
}

/**
 * Erases jobs removed long ago: by the clock, and by as many days on which Focalis was used since. A clock that was set
 * ahead is one day of use, and so takes nothing away.
 */
export async function eraseOld(database: Dexie, now: number): Promise<void> {
  const old = await database.transaction('rw', ['profile', 'jobs'], async () => {
    const profiles = database.table<Row, string>('profile');
    const row = (await profiles.get(profileId)) ?? newRow(profileId, defaultProfile);
    const profile = tables.profile.schema.safeParse(row.value).data ?? defaultProfile;
    const jobs = await database.table<Partial<Row>, string>('jobs').toArray();
    const removed = jobs.flatMap(({ id, removedAt }) =>
      typeof id === 'string' && typeof removedAt === 'number' ? [{ id, removedAt }] : []
    );
    const usedOn = new Date(now).toISOString().slice(0, 10);
    const another = usedOn === profile.usedOn ? 0 : 1;
    const days = new Map(removed.map(({ id }) => [id, (profile.removedFor[id] ?? 0) + another]));
    const value = { ...profile, usedOn, removedFor: Object.fromEntries(days) };
    if (!same(value, profile)) await profiles.put({ ...row, value, updatedAt: Math.max(now, row.updatedAt + 1) });
    return removed.filter(
      ({ id, removedAt }) => now - removedAt > removedKeptMs && (days.get(id) ?? 0) >= removedKeptMs / dayMs
    );
  });
  for (const { id } of old) await eraseJob(database, id);
}

/** Puts the demo into a profile that has never had it. Safe when two tabs start at once. */
export async function offerDemo(database: Dexie, now: number): Promise<void> {
  await database.transaction('rw', ['profile', 'jobs', ...parts], async () => {
    const profiles = database.table<Row, string>('profile');
    const row = await profiles.get(profileId);
    const profile = tables.profile.schema.safeParse(row?.value).data ?? defaultProfile;
    if (profile.demoOffered) return;
    await profiles.put(newRow(profileId, { ...profile, demoOffered: true }, { updatedAt: now }));
    if ((await database.table('jobs').count()) > 0) return;
    // A moment apart, so that they stay in order.
    const changes = demoJobs().flatMap((demo, index) => changesOf({ job: demo.job, ...demoParts(demo) }, now + index));
    await Promise.all(
      ['jobs', ...parts].map((table) => {
        const rows = changes.filter((change) => change.table === table);
        return database.table(table).bulkAdd(rows.map(({ after }) => ({ ...after, updatedAt: now })));
      })
    );
  });
}

/** Demo jobs nobody has touched: those that a new job of one's own may put away. */
export async function untouchedDemos(database: Dexie): Promise<string[]> {
  const untouched = await Promise.all(
    demoJobs().map(async (demo) => {
      const row = await database.table<Row, string>('jobs').get(demo.job.id);
      const stored = await readJobParts(database, demo.job.id);
      const shipped = demoParts(demo);
      const byId = (items: readonly { readonly id: string }[]) => new Map(items.map((item) => [item.id, item]));
      return (
        row?.removedAt === null &&
        same(tables.jobs.schema.safeParse(row.value).data, demo.job) &&
        same(stored.setups, shipped.setups) &&
        same(Object.fromEntries(byId(stored.people)), Object.fromEntries(byId(shipped.people))) &&
        same(stored.places, shipped.places)
      );
    })
  );
  return demoJobs().flatMap(({ job }, index) => (untouched[index] ? [job.id] : []));
}

/** A setup that holds an item of the kit. */
export interface KitUse {
  readonly setupId: string;
  readonly setup: string;
  readonly job: string;
}

/** Every stored setup that holds a body, a lens or an adapter, with the names of it and of its job. */
export async function setupsHolding(
  database: Dexie,
  table: 'bodies' | 'lenses' | 'adapters',
  itemId: string
): Promise<readonly KitUse[]> {
  const [setups, jobs] = await Promise.all([
    readTableRows(database, 'setups', tables.setups),
    readTableRows(database, 'jobs', tables.jobs)
  ]);
  const names = new Map(jobs.rows.map((row) => [row.id, row.value.name]));
  const holds = (setup: JobSetup) =>
    usedKitOf(setup).some(({ bodyId, lensId, adapterIds }) =>
      ({ bodies: [bodyId], lenses: [lensId], adapters: adapterIds })[table].includes(itemId)
    );
  return setups.rows
    .filter((row) => row.removedAt === null && holds(row.value))
    .map((row) => ({ setupId: row.id, setup: row.value.name, job: names.get(row.owner ?? '') ?? '' }));
}

/** The job a setup belongs to, or null when there is no such setup. */
export async function jobOfSetup(database: Dexie, setupId: string): Promise<string | null> {
  return (await database.table<Row, string>('setups').get(setupId))?.owner ?? null;
}

/** How many setups each job has. */
export async function countSetups(database: Dexie, jobIds: readonly string[]): Promise<ReadonlyMap<string, number>> {
  const setups = database.table<Row, string>('setups');
  const counts = await Promise.all(jobIds.map((id) => setups.where('owner').equals(id).count()));
  return new Map(jobIds.map((id, index) => [id, counts[index] ?? 0]));
}

/** A job's first setup, or null. */
export async function firstSetupOf(database: Dexie, jobId: string): Promise<string | null> {
  const rows = await database.table<Row, string>('setups').where('owner').equals(jobId).toArray();
  return rows.sort((a, b) => a.position - b.position)[0]?.id ?? null;
}
