/** Everything that is done can be taken back to the start and done again to the end, over all tables and several jobs. */
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { seededRandom } from '$core/testing/random';
import { openApp, weddingId, type OpenApp } from '$lib/testing/app';

let opened: OpenApp;
let ids = 0;
beforeEach(async () => {
  ids = 0;
  opened = await openApp({ newId: () => `id-${++ids}` });
});
afterEach(() => opened.close());

/** What is stored and can be taken back: settings and keys of codes are no steps. */
const tables = ['jobs', 'people', 'places', 'setups', 'bodies', 'lenses', 'adapters', 'bags', 'benchTests', 'drills'];
interface Stored {
  readonly id: string;
  readonly owner: string | null;
  readonly removedAt: number | null;
  readonly value: unknown;
}
async function stored(): Promise<Record<string, unknown[]>> {
  await opened.app.store.flush();
  const read = async (table: string) => {
    const rows = (await opened.database.table<Stored, string>(table).toArray()).sort((a, b) => (a.id < b.id ? -1 : 1));
    return rows.map(({ id, owner, removedAt, value }) => ({ id, owner, removed: removedAt !== null, value }));
  };
  return Object.fromEntries(await Promise.all(tables.map(async (table) => [table, await read(table)] as const)));
}

/** One thing a person may do, by chance. */
async function act(random: () => number, count: number): Promise<void> {
  const { app } = opened;
  const one = <T>(items: readonly T[]): T | undefined => items[Math.floor(random() * items.length)];
  const row = one(app.open.rows);
  const job = one(app.jobs.list);
  const name = (what: string) => `${what} ${count}`;
  const kinds: readonly (() => unknown)[] = [
    () => row && app.open.edit(row.id, 'Name', (draft) => void (draft.name = name('Setup'))),
    () => row && app.open.edit(row.id, 'Notes', (draft) => void (draft.notes = name('Note')), { gesture: 'typing' }),
    () => row && app.open.edit(row.id, 'Notes', (draft) => void (draft.notes = name('Held')), { hold: true }),
    () =>
      row &&
      app.open.edit(row.id, 'Height', (draft) => {
        for (const person of draft.people) person.statureMm = 1500 + Math.floor(300 * random());
      }),
    () => row && app.setups.duplicate(row),
    () => row && app.open.rows.length > 2 && app.setups.remove(row),
    () => app.setups.add({ template: 'couple' }),
    () => row && app.places.add(row.id),
    () => row && app.places.share(row.id),
    () => row && app.places.follow(row.id),
    () => row && app.places.rename(app.places.of(row.id)?.id ?? '', name('Place')),
    () => row && app.day.schedule([row.id], 'Time', { startsAt: `1${Math.floor(10 * random())}:00`, fixed: true }),
    () => row && app.day.tick(row.id, random() < 0.5),
    () => app.day.reorder([...app.open.rows.map(({ id }) => id)].sort(() => random() - 0.5)),
    () => job && app.jobs.change(job.id, 'Name', { name: name('Job') }),
    () => job && app.jobs.change(job.id, 'Date', { date: `2027-0${1 + Math.floor(9 * random())}-11` }),
    () => app.jobs.list.length < 6 && app.jobs.start(),
    () => job && app.jobs.list.length < 8 && app.jobs.duplicate(job.id, 'copy'),
    () => job && app.jobs.list.length > 2 && app.jobs.remove(job.id),
    () => job && app.jobs.archive(job.id, random() < 0.5),
    () => {
      const removed = one(app.jobs.removed);
      return removed && app.jobs.bringBack(removed);
    },
    () => job && app.openJob(job.id),
    () => row && job && app.setups.copy(row, job.id),
    async () => {
      const text = job && (await app.files.exportText(job.id));
      if (text && app.jobs.list.length < 8) await app.files.importFile(new File([text], 'a.json'));
    },
    () => app.kit.addBag(),
    () => app.kit.duplicate('lenses', one(app.open.kit.lenses)?.id ?? '')
  ];
  await one(kinds)?.();
}

/** Moves a setup to another job. It is waited for: what is edited while it goes stays where it was, by intent. */
async function move(random: () => number): Promise<void> {
  const { app } = opened;
  const row = app.open.rows[Math.floor(random() * app.open.rows.length)];
  const job = app.jobs.list[Math.floor(random() * app.jobs.list.length)];
  if (row && job) await app.setups.transfer([row], job.id, 'moved');
}

describe('undo and redo', () => {
  it.each([2, 105, 115])('lead back to the start and on to the end, by chance %i', async (seed) => {
    const { app } = opened;
    const random = seededRandom(seed);
    const pending: Promise<void>[] = [];
    const start = await stored();
    for (let count = 0; count < 140; count++) {
      if (random() < 0.05) await move(random);
      const acted = act(random, count);
      // Some go on before the last has come to its end; some take back or do again meanwhile.
      if (random() < 0.7) await acted;
      else pending.push(acted);
      if (random() < 0.1) await app.store.undo();
      if (random() < 0.05) await app.store.redo();
    }
    await Promise.all(pending);
    await app.store.redo();
    while (app.store.history.canRedo) await app.store.redo();
    const end = await stored();
    let steps = 0;
    while (app.store.history.canUndo) {
      expect((await app.store.undo())?.kind).toBe('done');
      steps++;
    }
    expect(steps).toBeGreaterThan(40);
    expect(await stored()).toEqual(start);
    for (let step = 1; step <= steps; step++)
      expect((await app.store.redo())?.kind, `${step} of ${steps}`).toBe('done');
    expect(app.store.history.canRedo).toBe(false);
    expect(await stored()).toEqual(end);
  });

  it('bring a removed setup back though a file with it was imported meanwhile', async () => {
    const { app } = opened;
    const text = (await app.files.exportText(weddingId)) ?? '';
    const rings = app.open.row('demo-rings');
    if (!rings) throw new Error('no such setup');
    app.setups.remove(rings);
    await app.files.importFile(new File([text], 'wedding.json'));
    await app.openJob(weddingId);
    await app.store.undo();
    await app.store.undo();
    expect(app.open.row('demo-rings')?.setup.name).toBe('Rings');
    await app.store.redo();
    await app.store.redo();
    expect(app.open.row('demo-rings')).toBeUndefined();
    expect(app.jobs.list).toHaveLength(3);
  });
});
