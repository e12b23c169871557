import 'fake-indexeddb/auto';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { builtInKit } from '$core/setup/builtInKit';
import { demoJobs } from '$core/setup/demo';
import type { Lens, Setup } from '$core/setup/schema';
import Dexie from 'dexie';
import { jobFileSchema } from '$core/formats/jobFile';
import version1 from '$core/formats/job-v1.focalis.json';
import {
  addJob,
  applyChanges,
  applyJournals,
  offerDemo,
  openDatabase,
  removeJob,
  reversed,
  untouchedDemos,
  type FocalisDatabase,
  type SetupRow
} from './index';

let database: FocalisDatabase;
let count = 0;
const newId = () => `new-${++count}`;
const demoId = demoJobs()[0].job.id;
const [firstSetup] = demoJobs()[0].setups as [Setup];

beforeEach(async () => {
  database = openDatabase(`test-${++count}`);
  await offerDemo(database, 1);
});
afterEach(() => database.delete());

async function row(id = firstSetup.id): Promise<SetupRow> {
  const found = await database.setups.get(id);
  if (!found) throw new Error('gone');
  return found;
}

/** One tab's edit of a setup as it saw it. */
function edit(before: SetupRow, changes: Partial<Setup>) {
  const after = { ...before, setup: { ...before.setup, ...changes } };
  return { label: 'Edit', changes: [{ table: 'setups', id: before.id, before, after }] } as const;
}

const everything = async () => ({
  jobs: await database.jobs.toArray(),
  setups: (await database.setups.toArray()).map(({ updatedAt: _, ...rest }) => rest),
  lenses: await database.lenses.toArray()
});

describe('the store', () => {
  it('offers the demo once, also to two tabs at once, and never again after it was removed', async () => {
    await Promise.all([offerDemo(database, 2), offerDemo(database, 3)]);
    expect(await database.jobs.count()).toBe(2);
    for (const { job } of demoJobs()) await applyChanges(database, await removeJob(database, job.id), 4);
    await offerDemo(database, 5);
    expect(await database.jobs.count()).toBe(0);
  });

  it('keeps what two tabs change in one setup', async () => {
    const seen = await row();
    await applyChanges(database, edit(seen, { notes: 'from tab one' }), 2);
    await applyChanges(database, edit(seen, { name: 'From tab two' }), 3);
    expect((await row()).setup).toMatchObject({ notes: 'from tab one', name: 'From tab two' });
  });

  it('undoes one tab’s change and leaves the other’s', async () => {
    const seen = await row();
    const mine = edit(seen, { notes: 'mine' });
    await applyChanges(database, mine, 2);
    await applyChanges(database, edit(await row(), { name: 'Theirs' }), 3);
    await applyChanges(database, reversed(mine), 4);
    expect((await row()).setup).toMatchObject({ notes: firstSetup.notes, name: 'Theirs' });
  });

  it('brings a removed job back whole', async () => {
    const before = await everything();
    const removal = await removeJob(database, demoId);
    await applyChanges(database, removal, 2);
    expect(await database.setups.where('jobId').equals(demoId).count()).toBe(0);
    await applyChanges(database, reversed(removal), 1);
    const after = await everything();
    expect(after.setups).toEqual(before.setups);
  });

  it('does not remove a setup another tab has changed since', async () => {
    const removal = await removeJob(database, demoId);
    await applyChanges(database, edit(await row(), { notes: 'just typed' }), 2);
    await applyChanges(database, removal, 3);
    expect((await row()).setup.notes).toBe('just typed');
  });

  it('stores nothing of a change set that fails half-way', async () => {
    const before = await everything();
    const broken = {
      label: 'Broken',
      changes: [
        {
          table: 'jobs',
          id: 'x',
          before: null,
          after: { id: 'x', job: demoJobs()[0].job, createdAt: 1, updatedAt: 1 }
        },
        // IndexedDB cannot store a function.
        { table: 'setups', id: 'y', before: null, after: { id: 'y', bad: () => 1 } as unknown as SetupRow }
      ]
    } as const;
    await expect(applyChanges(database, broken, 2)).rejects.toThrow();
    expect(await everything()).toEqual(before);
  });
});

describe('what an earlier release stored', () => {
  const jobRow = { id: version1.job.id, job: version1.job, createdAt: 1, updatedAt: 1 };
  const rows = version1.setups.map((setup, position) => ({
    id: setup.id,
    jobId: version1.job.id,
    position,
    setup,
    updatedAt: 1
  }));

  it('is brought up to date when the store opens, with nothing lost', async () => {
    const name = `test-${++count}`;
    const old = new Dexie(name);
    old.version(1).stores({
      jobs: 'id, createdAt',
      setups: 'id, [jobId+position], jobId',
      bodies: 'id',
      lenses: 'id',
      settings: 'key'
    });
    await old.table('jobs').add(jobRow);
    await old.table('setups').bulkAdd(rows);
    old.close();
    const renewed = openDatabase(name);
    const setups = (await renewed.setups.toArray()).sort((a, b) => a.position - b.position);
    expect(jobFileSchema.shape.setups.safeParse(setups.map((item) => item.setup)).error).toBeUndefined();
    expect(setups.map((item) => item.setup)).toMatchObject(version1.setups);
    expect(setups[1]?.setup.intent.picture).toBe('couple');
    await renewed.delete();
  });

  it('is brought up to date from the journal of a page that closed before the update', async () => {
    const [first] = rows;
    const stored = new Map([
      [
        'focalis.journal.old-page',
        JSON.stringify([
          {
            table: 'setups',
            id: first?.id,
            before: first,
            after: { ...first, setup: { ...first?.setup, notes: 'typed last' } }
          }
        ])
      ]
    ]);
    const storage = {
      length: 1,
      key: () => 'focalis.journal.old-page',
      getItem: (key: string) => stored.get(key) ?? null,
      removeItem: (key: string) => stored.delete(key)
    } as unknown as Storage;
    await applyJournals(database, storage, 5);
    expect((await row()).setup.notes).toBe('typed last');
    expect((await row()).setup.people[0]?.bodyYawDeg).toBe(20);
  });
});

describe('adding a job', () => {
  const file = { ...demoJobs()[0], kit: builtInKit };

  it('gives a second copy of its own, beside the first', async () => {
    const added = await addJob(database, 'Import', file, newId, 2);
    await applyChanges(database, added, 2);
    const jobs = await database.jobs.toArray();
    expect(jobs.map((item) => item.job.name).sort()).toEqual([
      'Fernhall Glasshouse',
      'Fernhall Glasshouse (2)',
      'Quayside Brass'
    ]);
    expect(await database.setups.where('jobId').equals(added.jobId).count()).toBe(file.setups.length);
    expect(await database.lenses.count()).toBe(0);
  });

  it('brings a differing lens in under a new id and points the setups at it', async () => {
    const lenses = builtInKit.lenses.map((lens): Lens =>
      lens.id === 'lens-85' ? { ...lens, closestFocusMm: 700 } : lens
    );
    await applyChanges(
      database,
      await addJob(database, 'Import', { ...file, kit: { ...builtInKit, lenses } }, newId, 2),
      2
    );
    const [own] = await database.lenses.toArray();
    expect(own?.closestFocusMm).toBe(700);
    const users = (await database.setups.toArray()).filter((item) => item.setup.camera.lensId === own?.id);
    expect(users).toHaveLength(file.setups.filter((setup) => setup.camera.lensId === 'lens-85').length);
  });

  it('knows whether the demo has been touched', async () => {
    expect(await untouchedDemos(database)).toEqual(demoJobs().map(({ job }) => job.id));
    await applyChanges(database, edit(await row(), { notes: 'my own words' }), 2);
    expect(await untouchedDemos(database)).toEqual(['demo-quayside']);
  });
});
