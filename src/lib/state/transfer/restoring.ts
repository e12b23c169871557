/** What taking everything out of an archive changes in the store. */
import type { Archive, ArchivedJob } from '$core/formats/archive';
import type { RestoreHow, RestoreWords } from '$core/job/restoring';
import { builtInKit } from '$core/kit/builtInKit';
import { same } from '$core/plain/merge';
import {
  addition,
  defaultProfile,
  newRow,
  profileId,
  readRows,
  tables,
  type Change,
  type Descriptor,
  type Profile,
  type Row
} from '$lib/data';
import type { Services } from '$lib/state/job/services';

const kitTables = ['bodies', 'lenses', 'adapters'] as const;
const jobParts = ['people', 'places', 'setups', 'frames'] as const;
type PartTable = (typeof jobParts)[number];

/** Settings that belong to this device or to this moment, and so stay. */
const ofThisDevice = [
  'lastSetupId',
  'demoOffered',
  'backedUpAt',
  'remindAt',
  'usedOn',
  'removedFor',
  'welcomed'
] as const satisfies readonly (keyof Profile)[];

/** What taking an archive would change here, and how much of what. @throws when it cannot be taken this way */
export async function restoring(parts: Services, archive: Archive<Blob>, how: RestoreHow) {
  const replace = how === 'replace';
  const kit = kitChanges(parts, archive, replace);
  const { jobs, setups, others, frames } = await jobChanges(parts, archive, replace);
  const settings = replace ? settingsChanges(parts, archive) : [];
  const counts: RestoreWords = {
    jobs: counted(jobs),
    setups: counted(setups),
    frames: counted(frames),
    kit: counted(kit),
    settings: settings.length > 0
  };
  return { changes: [...kit, ...jobs, ...others, ...setups, ...frames, ...settings], counts };
}

function kitChanges(
  { store, now }: Services,
  { kit, bags, jobs, benchTests, drills }: Archive<Blob>,
  replace: boolean
): Change[] {
  const position = now();
  const changes = kitTables.flatMap((table): Change[] => {
    const known = new Set<string>([...kit[table], ...builtInKit[table]].map((item) => item.id));
    // What a job holds and nobody knows any more comes with the job.
    const held = jobs.flatMap(({ file }) => [...file.kit[table]] as { readonly id: string }[]);
    const unknown = new Map(held.filter((item) => !known.has(item.id)).map((item) => [item.id, item]));
    const wanted = [...kit[table], ...unknown.values()];
    return rowChanges(store.table(table).list, wanted, { table, replace, position });
  });
  return [
    ...changes,
    ...rowChanges(store.table('bags').list, bags, { table: 'bags', replace, position }),
    // Tests only ever come to those that are here: each is a measurement of its day.
    ...rowChanges(store.table('benchTests').list, benchTests, { table: 'benchTests', replace: false, position }),
    ...rowChanges(store.table('drills').list, drills, { table: 'drills', replace: false, position })
  ];
}

async function jobChanges({ database, store, now }: Services, { jobs, frames }: Archive<Blob>, replace: boolean) {
  const framesOf = new Map((frames ?? []).map((item) => [item.jobId, item.frames.map(({ frame }) => frame)]));
  const partOf = ({ file }: ArchivedJob, table: PartTable): readonly { readonly id: string }[] =>
    table === 'frames' ? (framesOf.get(file.job.id) ?? []) : file[table];
  const here = store.table('jobs').list;
  const ids = new Set(jobs.map(({ file }) => file.job.id));
  const ofJobs: Change[] = jobs.flatMap(({ file, position }) => {
    const { job } = file;
    const row = here.find((item) => item.id === job.id);
    if (!row) return [addition('jobs', job, { position })];
    const after = replace ? { ...row, removedAt: null, value: job } : { ...row, removedAt: null };
    return sameRow(row, after) ? [] : [{ table: 'jobs', id: job.id, before: row, after }];
  });
  if (replace)
    for (const row of here)
      if (!ids.has(row.id) && row.removedAt === null)
        ofJobs.push({ table: 'jobs', id: row.id, before: row, after: { ...row, removedAt: now() } });
  const byTable: Record<PartTable, Change[]> = { people: [], places: [], setups: [], frames: [] };
  // An archive without frames says nothing about those that are here.
  for (const table of frames ? jobParts : jobParts.filter((name) => name !== 'frames')) {
    const rows: readonly Row[] = await readRows<unknown>(database, table, tables[table] as Descriptor<unknown>);
    const stored = new Map<string, Row>(rows.map((row) => [row.id, row]));
    for (const job of jobs) {
      const { file } = job;
      const values = partOf(job, table);
      const owner = file.job.id;
      const own = rows.filter((row) => row.owner === owner);
      const last = Math.max(-1, ...own.map((row) => row.position));
      // Where the order is the same, every row keeps its place.
      const ordered = same(
        [...own].sort((a, b) => a.position - b.position).map((row) => row.id),
        values.map((value) => value.id)
      );
      let added = 0;
      const wanted = new Set<string>();
      for (const [index, value] of values.entries()) {
        wanted.add(value.id);
        const row = stored.get(value.id);
        if (row && row.owner !== owner && !replace)
          throw new Error(`${file.job.name} has parts that belong to another job here.`);
        if (!row) byTable[table].push(addition(table, value, { owner, position: replace ? index : last + ++added }));
        else if (replace) {
          const after = { ...row, owner, removedAt: null, position: ordered ? row.position : index, value };
          if (!sameRow(row, after)) byTable[table].push({ table, id: row.id, before: row, after });
        }
      }
      if (!replace) continue;
      for (const row of own)
        if (!wanted.has(row.id)) byTable[table].push({ table, id: row.id, before: row, after: null });
    }
  }
  const { people, places, setups, frames: measured } = byTable;
  return { jobs: ofJobs, setups, others: [...people, ...places], frames: measured };
}

function settingsChanges({ store }: Services, { settings }: Archive<Blob>): Change[] {
  const row = store.table('profile').get(profileId);
  const now = row?.value ?? defaultProfile;
  const read = tables.profile.schema.parse({ ...settings, ...stayingOf(now) });
  if (same(now, read)) return [];
  return [
    row
      ? { table: 'profile', id: profileId, before: row, after: { ...row, value: read } }
      : { table: 'profile', id: profileId, before: null, after: newRow(profileId, read) }
  ];
}

const isStaying = (key: string): boolean => (ofThisDevice as readonly string[]).includes(key);
/** The settings that go into an archive. */
export const travelling = (profile: Profile): Readonly<Record<string, unknown>> =>
  Object.fromEntries(Object.entries(profile).filter(([key]) => !isStaying(key)));
const stayingOf = (profile: Profile): Readonly<Record<string, unknown>> =>
  Object.fromEntries(Object.entries(profile).filter(([key]) => isStaying(key)));

interface Taking {
  readonly table: string;
  readonly replace: boolean;
  readonly position: number;
}

/** What has to change so that these values stand there; others go only where all is replaced. */
function rowChanges(rows: readonly Row[], wanted: readonly { readonly id: string }[], to: Taking): Change[] {
  const { table, replace, position } = to;
  const byId = new Map(rows.map((row) => [row.id, row]));
  const changes = wanted.flatMap((value): Change[] => {
    const row = byId.get(value.id);
    if (!row) return [addition(table, value, { position })];
    return replace && !sameWritten(row.value, value)
      ? [{ table, id: row.id, before: row, after: { ...row, removedAt: null, value } }]
      : [];
  });
  if (!replace) return changes;
  const kept = new Set(wanted.map((item) => item.id));
  const gone = rows.filter((row) => !kept.has(row.id));
  return [...changes, ...gone.map((row): Change => ({ table, id: row.id, before: row, after: null }))];
}

const isRemoval = ({ after, before }: Change): boolean =>
  after === null || (after.removedAt !== null && before?.removedAt === null);
const isAddition = ({ before, after }: Change): boolean =>
  before === null || (before.removedAt !== null && after?.removedAt === null);

/** Whether a value is the one that was written and read again: minus nought is nought then. */
const sameWritten = (stored: unknown, read: unknown): boolean => same(JSON.parse(JSON.stringify(stored)), read);
const sameRow = (a: Row, b: Row): boolean =>
  a.owner === b.owner && a.position === b.position && a.removedAt === b.removedAt && sameWritten(a.value, b.value);

function counted(changes: readonly Change[]) {
  const removed = changes.filter(isRemoval).length;
  const added = changes.filter((change) => !isRemoval(change) && isAddition(change)).length;
  const changed = changes.filter(
    ({ before, after }) =>
      before?.removedAt === null && after?.removedAt === null && !sameWritten(before.value, after.value)
  ).length;
  return { added, removed, changed };
}
