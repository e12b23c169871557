import Dexie from 'dexie';
import { afterEach, describe, expect, it } from 'vitest';
import version1 from '$core/formats/versions/job-v1.focalis.json';
import version2 from '$core/formats/versions/job-v2.focalis.json';
import { resolveSetup } from '$core/job/resolve';
import { castOf } from '$core/testing/cast';
import type { Job } from '$core/job/schema';
import { MemoryStorage } from '$lib/testing/app';
import { defineDatabase } from './database';
import { readJobParts } from './jobs';
import { journalPrefix } from './journal';
import { readTableRows } from './read';
import type { Row } from './rows';
import { safeStorage } from './storage';
import { tables } from './tables';
import { forgetOldJournals } from './upgrade';

let count = 0;
let name = '';
const open: Dexie[] = [];
afterEach(async () => {
  for (const database of open.splice(0)) database.close();
  await Dexie.delete(name);
});

const stores1 = {
  jobs: 'id, createdAt',
  setups: 'id, [jobId+position], jobId',
  bodies: 'id',
  lenses: 'id',
  settings: 'key'
};

interface Stored {
  readonly job: { readonly id: string };
  readonly setups: readonly { readonly id: string }[];
  readonly kit: { readonly bodies: readonly object[]; readonly lenses: readonly object[] };
}

/** A store as a release of that version left it. */
async function storeOf(version: 1 | 2, { job, setups, kit }: Stored, more: Readonly<Record<string, object[]>> = {}) {
  name = `old-${++count}`;
  const old = new Dexie(name);
  old.version(1).stores(stores1);
  if (version === 2) old.version(2).stores({ pictures: 'key' });
  await old.table('jobs').add({ id: job.id, job, createdAt: 5, updatedAt: 5 });
  await old
    .table('setups')
    .bulkAdd(setups.map((setup, position) => ({ id: setup.id, jobId: job.id, position, setup, updatedAt: 1 })));
  await old.table('bodies').bulkAdd([...kit.bodies]);
  await old.table('lenses').bulkAdd([...kit.lenses]);
  await old.table('settings').bulkAdd([
    { key: 'profile', value: { unit: 'feet', theme: 'dim', lastSetupId: setups[0]?.id } },
    { key: 'demoOffered', value: true }
  ]);
  for (const [table, rows] of Object.entries(more)) await old.table(table).bulkAdd(rows);
  old.close();
}

async function upgraded(storage = new MemoryStorage()) {
  const database = defineDatabase(
    name,
    safeStorage(() => storage)
  );
  open.push(database);
  await database.open();
  return database;
}

async function pictures(database: Dexie, jobId: string) {
  const { people, places, setups } = await readJobParts(database, jobId);
  return setups.map((setup) => resolveSetup(setup, castOf(people, places)));
}

const typed = (setup: object) => {
  const {
    id: _id,
    people,
    intent,
    light,
    ...rest
  } = setup as {
    id: string;
    light: object;
    people: { id: string }[];
    intent: { target: object };
  };
  // What version 2 called the scene of a light is its level.
  const { scene, ...others } = light as { scene?: unknown };
  return {
    ...rest,
    light: scene === undefined ? others : { ...others, level: scene },
    intent: { ...intent, target: { ...intent.target, personId: undefined } },
    people: people.map(({ id: _person, ...person }) => person)
  };
};

describe('a store of version 1', () => {
  it('is brought up to date with nothing lost', async () => {
    await storeOf(1, version1);
    const database = await upgraded();
    const setups = await pictures(database, version1.job.id);
    expect(setups.map(typed)).toMatchObject(version1.setups.map(typed));
    expect(setups[0]?.people[0]).toMatchObject({ headYawDeg: 40, bodyYawDeg: 20 });
    const [job] = await database.table<Row<Job>, string>('jobs').toArray();
    expect(job).toMatchObject({ position: 5, removedAt: null, value: { ...version1.job, habits: null } });
    const { rows, damaged } = await readTableRows(database, 'bodies', tables.bodies);
    expect(damaged).toEqual([]);
    expect(rows.map((row) => row.value)).toMatchObject(version1.kit.bodies);
  });

  it('takes up what a page typed last and could not store', async () => {
    const [first] = version1.setups;
    await storeOf(1, version1);
    const storage = new MemoryStorage();
    const row = { id: first?.id, jobId: version1.job.id, position: 0, setup: first, updatedAt: 1 };
    const after = { ...row, setup: { ...first, notes: 'typed last' } };
    storage.items.set(`${journalPrefix}old`, JSON.stringify([{ table: 'setups', id: first?.id, before: row, after }]));
    const database = await upgraded(storage);
    expect((await pictures(database, version1.job.id))[0]?.notes).toBe('typed last');
    expect(storage.items.size).toBe(1);
    forgetOldJournals(safeStorage(() => storage));
    expect(storage.items.size).toBe(0);
  });
});

describe('a store of version 2', () => {
  it('is brought up to date: every picture as it was, everybody named once, settings kept', async () => {
    await storeOf(2, version2, { pictures: [{ key: 'strip-x', drawnFrom: '', png: 'x' }] });
    const database = await upgraded();
    const setups = await pictures(database, version2.job.id);
    expect(setups.map(typed)).toMatchObject(version2.setups.map(typed));
    const { people } = await readJobParts(database, version2.job.id);
    expect(people.filter((person) => person.name === 'Ines')).toHaveLength(2);
    const { rows } = await readTableRows(database, 'profile', tables.profile);
    expect(rows[0]?.value).toMatchObject({
      unit: 'feet',
      theme: 'dim',
      lastSetupId: version2.setups[0]?.id,
      demoOffered: true
    });
    expect((await readTableRows(database, 'lenses', tables.lenses)).rows.map((row) => row.value)).toEqual(
      expect.arrayContaining(version2.kit.lenses.map((lens) => expect.objectContaining(lens) as unknown))
    );
    expect(database.tables.map((table) => table.name)).not.toContain('settings');
  });

  it('takes up edits and settings of a page that closed before the update', async () => {
    await storeOf(2, version2);
    const [first] = version2.setups;
    const row = { id: first?.id, jobId: version2.job.id, position: 0, setup: first, updatedAt: 1 };
    const after = { ...row, setup: { ...first, notes: 'typed last' } };
    const storage = new MemoryStorage();
    storage.items.set(
      `${journalPrefix}old`,
      JSON.stringify({
        version: 2,
        changes: [{ table: 'setups', id: first?.id, before: row, after }],
        settings: { theme: 'sun' }
      })
    );
    const database = await upgraded(storage);
    expect((await pictures(database, version2.job.id))[0]?.notes).toBe('typed last');
    expect((await readTableRows(database, 'profile', tables.profile)).rows[0]?.value.theme).toBe('sun');
  });

  it('sets aside what does not fit, as it is and named, and brings everything else along', async () => {
    const [first, ...rest] = version2.setups;
    const broken = { ...first, camera: { ...first?.camera, heightMm: 'high' } };
    await storeOf(
      2,
      { ...version2, setups: [broken as never, ...rest] },
      { lenses: [{ id: 'lens-x', name: 'No lens at all' }] }
    );
    const database = await upgraded();
    expect(await pictures(database, version2.job.id)).toHaveLength(rest.length);
    const aside = await database.table('aside').toArray();
    expect(aside).toMatchObject([
      { table: 'lenses', id: 'lens-x', raw: { name: 'No lens at all' } },
      { table: 'setups', id: first?.id, reason: expect.stringMatching(/^camera\.heightMm: /), raw: { setup: broken } }
    ]);
  });

  it('gives ids that occur once also where two jobs use the same', async () => {
    await storeOf(2, version2);
    const old = new Dexie(name);
    old.version(1).stores(stores1);
    old.version(2).stores({ pictures: 'key' });
    const copy = version2.setups.map((setup) => ({ ...setup, id: `copy-${setup.id}` }));
    await old.table('jobs').add({ id: 'copy', job: { ...version2.job, id: 'copy' }, createdAt: 6, updatedAt: 6 });
    await old
      .table('setups')
      .bulkAdd(copy.map((setup, position) => ({ id: setup.id, jobId: 'copy', position, setup, updatedAt: 1 })));
    old.close();
    const database = await upgraded();
    expect((await pictures(database, 'copy')).map(typed)).toMatchObject(copy.map(typed));
    expect((await pictures(database, version2.job.id)).map(typed)).toMatchObject(version2.setups.map(typed));
  });
});
