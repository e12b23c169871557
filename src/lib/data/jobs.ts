/** What can be done with jobs as a whole, as change sets or reads. */
import type { JobFile } from '$core/formats/jobFile';
import { builtInKit } from '$core/setup/builtInKit';
import { demoJobs, type DemoJob } from '$core/setup/demo';
import { same } from '$core/setup/merge';
import type { Body, Job, Kit, Lens, Setup } from '$core/setup/schema';
import type { ChangeSet, RowChange } from './changes';
import type { FocalisDatabase, JobRow, SetupRow } from './database';

export type NewId = () => string;

/** A name not yet taken: "Fernhall", "Fernhall (2)". */
export function freeName(name: string, taken: readonly string[]): string {
  if (!taken.includes(name)) return name;
  const base = name.replace(/ \(\d+\)$/, '').slice(0, 74);
  for (let n = 2; ; n++) if (!taken.includes(`${base} (${n})`)) return `${base} (${n})`;
}

function rowsOf(job: Job, setups: readonly Setup[], now: number): RowChange[] {
  const jobRow: JobRow = { id: job.id, job, createdAt: now, updatedAt: now };
  return [
    { table: 'jobs', id: job.id, before: null, after: jobRow },
    ...setups.map((setup, position): RowChange => {
      const after: SetupRow = { id: setup.id, jobId: job.id, position, setup, updatedAt: now };
      return { table: 'setups', id: setup.id, before: null, after };
    })
  ];
}

/** A job that is new to the store: its ids are kept where they are free and replaced where they are taken. */
export async function addJob(
  database: FocalisDatabase,
  label: string,
  { job, setups, kit }: JobFile,
  newId: NewId,
  now: number
): Promise<ChangeSet & { readonly jobId: string; readonly firstSetupId: string | null }> {
  const jobs = await database.jobs.toArray();
  const jobId = jobs.some((row) => row.id === job.id) ? newId() : job.id;
  const name = freeName(
    job.name,
    jobs.map((row) => row.job.name)
  );
  const own = await ownKit(database);
  const bodies = placeKit(kit.bodies, [...builtInKit.bodies, ...own.bodies], newId);
  const lenses = placeKit(kit.lenses, [...builtInKit.lenses, ...own.lenses], newId);
  const takenIds = new Set(await database.setups.toCollection().primaryKeys());
  const placed = setups.map((setup) => ({
    ...setup,
    id: takenIds.has(setup.id) ? newId() : setup.id,
    camera: {
      ...setup.camera,
      bodyId: bodies.ids.get(setup.camera.bodyId) ?? setup.camera.bodyId,
      lensId: lenses.ids.get(setup.camera.lensId) ?? setup.camera.lensId
    }
  }));
  return {
    label,
    jobId,
    firstSetupId: placed[0]?.id ?? null,
    changes: [
      ...bodies.added.map((after): RowChange => ({ table: 'bodies', id: after.id, before: null, after })),
      ...lenses.added.map((after): RowChange => ({ table: 'lenses', id: after.id, before: null, after })),
      ...rowsOf({ ...job, id: jobId, name }, placed, now)
    ]
  };
}

/** Kit that is already there is used; kit that differs under the same id comes in under a new one. */
function placeKit<T extends Body | Lens>(incoming: readonly T[], present: readonly T[], newId: NewId) {
  const ids = new Map<string, string>();
  const added: T[] = [];
  for (const item of incoming) {
    const alike = present.find((other) => same({ ...other, id: '' }, { ...item, id: '' }));
    if (alike) {
      ids.set(item.id, alike.id);
      continue;
    }
    const id = present.some((other) => other.id === item.id) ? newId() : item.id;
    ids.set(item.id, id);
    added.push({ ...item, id });
  }
  return { ids, added };
}

/** Bodies and lenses beyond the built-in ones. */
export async function ownKit(database: FocalisDatabase): Promise<Kit> {
  return { bodies: await database.bodies.toArray(), lenses: await database.lenses.toArray() };
}

/** Removes a job and its setups. */
export async function removeJob(database: FocalisDatabase, jobId: string): Promise<ChangeSet> {
  const row = await database.jobs.get(jobId);
  const setups = await database.setups.where('jobId').equals(jobId).toArray();
  return {
    label: `${row?.job.name ?? 'Job'} removed`,
    changes: [
      ...setups.map((before): RowChange => ({ table: 'setups', id: before.id, before, after: null })),
      ...(row ? [{ table: 'jobs', id: jobId, before: row, after: null } satisfies RowChange] : [])
    ]
  };
}

const demoOffered = 'demoOffered';

/** Puts the demo into a profile that has never had it. Safe when two tabs start at once. */
export async function offerDemo(database: FocalisDatabase, now: number): Promise<void> {
  await database.transaction('rw', [database.jobs, database.setups, database.settings], async () => {
    if (await database.settings.get(demoOffered)) return;
    await database.settings.put({ key: demoOffered, value: true });
    if ((await database.jobs.count()) > 0) return;
    for (const [index, { job, setups }] of demoJobs().entries()) {
      // A moment apart, so that they stay in order.
      for (const change of rowsOf(job, setups, now + index)) {
        if (change.table === 'jobs' && change.after) await database.jobs.add(change.after);
        if (change.table === 'setups' && change.after) await database.setups.add(change.after);
      }
    }
  });
}

/** Demo jobs nobody has touched: those that "start empty" may put away. */
export async function untouchedDemos(database: FocalisDatabase): Promise<string[]> {
  const untouched = await Promise.all(demoJobs().map((demo) => isUntouched(database, demo)));
  return demoJobs().flatMap(({ job }, index) => (untouched[index] ? [job.id] : []));
}

async function isUntouched(database: FocalisDatabase, { job, setups }: DemoJob): Promise<boolean> {
  const row = await database.jobs.get(job.id);
  const stored = await database.setups.where('jobId').equals(job.id).sortBy('position');
  const shipped = same(row?.job, job);
  return (
    shipped &&
    same(
      stored.map((item) => item.setup),
      setups
    )
  );
}
