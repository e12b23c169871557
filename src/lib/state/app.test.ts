import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import Dexie from 'dexie';
import { defineDatabase, databaseVersion } from '$lib/data/database';
import { defaultHabits } from '$core/habits/habits';
import { journalPrefix, journalVersion } from '$lib/data/journal';
import { safeStorage, type Database } from '$lib/data';
import { MemoryStorage, openApp, until, type OpenApp } from '$lib/testing/app';
import { App } from './app.svelte';
import type { SetupRow } from '$lib/state/job/openJob.svelte';

let opened: OpenApp;
let app: App;
let database: Database;
let storage: MemoryStorage;
const id = 'demo-west-door';

const row = (of = app, which = id): SetupRow => {
  const found = of.open.row(which);
  if (!found) throw new Error('gone');
  return found;
};
const storedNotes = async (which = id) =>
  ((await database.table('setups').get(which)) as { value: { notes: string } } | undefined)?.value.notes;
const note = (text: string, of = app) => of.open.edit(id, 'Notes', (draft) => void (draft.notes = text));

beforeEach(async () => {
  opened = await openApp();
  ({ app, database, storage } = opened);
});
afterEach(async () => {
  vi.restoreAllMocks();
  await opened.close();
});

describe('editing a setup', () => {
  it('shows at once, stores soon, and plans anew, once', async () => {
    const before = app.open.planned(row().setup);
    const placement = { kind: 'distance', distanceMm: 3000 } as const;
    expect(app.open.edit(id, 'Distance', (draft) => void (draft.camera.placement = placement)).ok).toBe(true);
    const after = app.open.planned(row().setup);
    expect(after.plan.kind === 'plan' && after.plan.distanceMm).toBe(3000);
    expect(before).not.toBe(after);
    const { computed } = app.open.plans;
    await app.store.flush();
    for (const item of app.open.rows) app.open.planned(item.setup);
    const first = app.open.plans.computed - computed;
    expect(app.open.planned(row().setup)).toBe(after);
    // Confirming the write has voided nothing: only the setups nobody had looked at were planned.
    expect(first).toBe(app.open.rows.length - 1);
    expect((await database.table('setups').get(id))?.value.camera.placement).toEqual(placement);
  });

  it('of another tab voids one plan', async () => {
    for (const item of app.open.rows) app.open.planned(item.setup);
    const other = await opened.tab();
    const { computed } = app.open.plans;
    note('from elsewhere', other);
    await other.store.flush();
    await until(() => expect(row().setup.notes).toBe('from elsewhere'));
    for (const item of app.open.rows) app.open.planned(item.setup);
    expect(app.open.plans.computed - computed).toBe(1);
  });

  it('changes somebody in every setup they stand in', () => {
    const stature = (which: string) => row(app, which).setup.people[0]?.statureMm;
    app.open.edit(id, 'Height', (draft) => {
      for (const person of draft.people) person.statureMm = 1720;
    });
    expect([stature(id), stature('demo-under-palms')]).toEqual([1720, 1720]);
  });

  it('refuses what is not valid, with the field, and keeps what was', () => {
    const before = row().setup;
    const result = app.open.edit(id, 'Distance', (draft) => {
      draft.camera.placement = { kind: 'distance', distanceMm: -5 };
    });
    expect(result).toEqual({ ok: false, field: 'camera.placement.distanceMm', reason: 'Must be at least 50.' });
    expect(row().setup).toBe(before);
    expect(app.store.history.canUndo).toBe(false);
  });

  it('undoes several steps at once, all within one millisecond', async () => {
    const turn = (deg: number) =>
      app.open.edit(id, 'Head turn', (draft) => {
        for (const person of draft.people) person.headYawDeg = deg;
      });
    const yaw = () => row().setup.people[0]?.headYawDeg;
    vi.spyOn(Date, 'now').mockReturnValue(Date.now());
    [10, 20, 30].forEach(turn);
    for (let i = 0; i < 3; i++) await app.step('undo');
    expect(yaw()).toBe(40);
    await Promise.all([app.step('redo'), app.step('redo')]);
    expect(yaw()).toBe(20);
  });

  it('says what was taken back, and what was left because it has changed since', async () => {
    note('mine');
    await app.store.flush();
    const other = await opened.tab();
    note('theirs', other);
    await other.store.flush();
    await app.step('undo');
    expect(app.messages.shown?.text).toBe('Undone: Notes. What has been changed since was left as it is.');
    expect(row().setup.notes).toBe('theirs');
  });

  it('asks for lasting storage at the first edit of one’s own', async () => {
    const persist = vi.fn();
    const lasting = new App({
      database: defineDatabase(
        database.name,
        safeStorage(() => storage)
      ),
      storage: safeStorage(() => storage),
      newId: () => crypto.randomUUID(),
      now: () => Date.now(),
      random: () => 0.5,
      persist
    });
    await lasting.start();
    await lasting.openJob('demo-fernhall');
    expect(persist).not.toHaveBeenCalled();
    note('first', lasting);
    note('second', lasting);
    await lasting.store.flush();
    expect(persist).toHaveBeenCalledTimes(1);
    lasting.stop();
  });
});

describe('a page that closes', () => {
  /** Whatever the old page still writes never arrives. */
  const cutOff = () =>
    vi.spyOn(database, 'transaction').mockImplementation((() => new Promise(() => undefined)) as never);

  it('between key and write loses neither an edit nor a setting', async () => {
    note('last words');
    app.settings.set({ theme: 'dim' });
    cutOff();
    app.leave();
    expect(storage.items.size).toBe(1);
    const next = await opened.tab();
    expect(row(next).setup.notes).toBe('last words');
    expect(next.settings.now.theme).toBe('dim');
    expect(storage.items.size).toBe(0);
  });

  it('whose journal was stored after all changes nothing', async () => {
    note('once');
    app.leave();
    const journal = new Map(storage.items);
    await app.store.flush();
    note('later');
    await app.store.flush();
    for (const [key, value] of journal) storage.items.set(key, value);
    const next = await opened.tab();
    expect(row(next).setup.notes).toBe('later');
  });

  it('leaves a journal where it is while the store takes nothing', async () => {
    note('waiting');
    cutOff();
    app.leave();
    const [key] = [...storage.items.keys()];
    const broken = defineDatabase(
      database.name,
      safeStorage(() => storage)
    );
    const transaction = broken.transaction.bind(broken) as (...rest: unknown[]) => unknown;
    vi.spyOn(broken, 'transaction').mockImplementation(((mode: string, tables: string[], ...rest: unknown[]) =>
      tables.includes('setups') && tables.length < 4 && mode === 'rw'
        ? Promise.reject(new Error('full'))
        : transaction(mode, tables, ...rest)) as never);
    const stuck = new App({
      database: broken,
      storage: safeStorage(() => storage),
      newId: () => 'p',
      now: () => 1,
      random: () => 0.5
    });
    await stuck.start();
    expect(stuck.status).toBe('ready');
    // Kept under its own name from now on, shown, and said not to be saved.
    expect(storage.items.has(key ?? '')).toBe(false);
    expect([...storage.items.values()].join('')).toContain('waiting');
    await stuck.store.flush();
    expect(stuck.store.saving.kind).toBe('failed');
    await stuck.openJob('demo-fernhall');
    expect(row(stuck).setup.notes).toBe('waiting');
    stuck.stop();
    broken.close();
  });

  it('yields to the page after it, in whatever order and by whatever clock their journals are read', async () => {
    const first = await opened.tab();
    const second = await opened.tab();
    // Each leaves, one after the other; whatever they still write never arrives.
    for (const [page, text] of [
      [first, 'thirty-three'],
      [second, 'twenty']
    ] as const) {
      note(text, page);
      vi.spyOn(page.store, 'flush').mockResolvedValue(false);
      page.leave();
      page.stop();
    }
    const journals = [...storage.items];
    expect(journals).toHaveLength(2);
    const before = row().setup.notes;
    for (const order of [journals, journals.toReversed()]) {
      storage.items.clear();
      for (const [key, value] of order) storage.items.set(key, value);
      const next = await opened.tab();
      expect(row(next).setup.notes).toBe('twenty');
      note(before, next);
      await next.store.flush();
      next.stop();
    }
  });

  it('leaves a damaged journal set aside, named, and to be had as a file', async () => {
    storage.items.set(`${journalPrefix}x`, '{"version":3,"changes":[{"table":"setups"');
    storage.items.set(`${journalPrefix}y`, JSON.stringify({ version: journalVersion + 9, changes: [] }));
    const next = await opened.tab();
    expect(next.status).toBe('ready');
    expect(next.aside.names).toHaveLength(2);
    expect(next.aside.text).toContain('{\\"version\\":3,\\"changes\\":[{\\"table\\":\\"setups\\"');
    expect([...storage.items.keys()].filter((key) => key.startsWith(journalPrefix))).toEqual([]);
  });

  it('keeps edits the store refuses in the journal until it takes them', async () => {
    const failing = vi.spyOn(database, 'transaction').mockRejectedValue(new DOMException('full', 'QuotaExceededError'));
    note('refused');
    await app.store.flush();
    expect(app.store.saving.kind).toBe('failed');
    expect(storage.items.size).toBe(1);
    failing.mockRestore();
    await app.store.flush();
    expect(storage.items.size).toBe(0);
    expect(await storedNotes()).toBe('refused');
  });
});

describe('a store that is cleared under an open page', () => {
  const stored = async (table: string) => (await database.table(table).toArray()) as { id: string }[];
  const told = () => app.messages.shown?.text ?? '';

  it('emptied: the next edit notices, and what is at hand is stored again', async () => {
    app.settings.set({ theme: 'dim' });
    note('typed before');
    await app.store.flush();
    for (const table of database.tables) await table.clear();
    note('typed after');
    await app.store.flush();
    await until(() => expect(told()).toMatch(/storage was cleared.*Gone: Quayside Brass\./));
    expect(await storedNotes()).toBe('typed after');
    expect(await stored('setups')).toHaveLength(13);
    expect((await stored('jobs')).map((item) => item.id)).toEqual(['demo-fernhall']);
    expect(app.jobs.list.map((item) => item.value.name)).toEqual(['Fernhall Glasshouse']);
    expect(app.store.homeless).toEqual([]);
    const next = await opened.tab();
    expect(next.settings.now.theme).toBe('dim');
    // And everything goes on.
    note('and on');
    await app.store.flush();
    expect(await storedNotes()).toBe('and on');
  });

  it('emptied while it was out of sight: noticed when it is looked at again', async () => {
    for (const table of database.tables) await table.clear();
    await app.comeBack();
    expect(told()).toContain('storage was cleared');
    expect(await stored('setups')).toHaveLength(13);
    expect(app.open.rows).toHaveLength(13);
  });

  it('deleted as a whole: made anew with what is at hand, and no newer Focalis is blamed', async () => {
    note('typed before');
    await app.store.flush();
    await new Dexie(database.name).delete();
    await until(() => expect(told()).toContain('storage was cleared'));
    expect(app.problem).toBeNull();
    expect(await storedNotes()).toBe('typed before');
    expect(await stored('setups')).toHaveLength(13);
  });

  it('is not what another tab does that erases a job', async () => {
    const other = await opened.tab();
    const wedding = other.jobs.list.find((item) => item.id === 'demo-fernhall');
    if (!wedding) throw new Error('gone');
    await other.jobs.erase(wedding);
    note('typed after');
    await app.store.flush();
    expect(told()).not.toContain('storage was cleared');
    expect(app.store.homeless).toHaveLength(1);
  });
});

describe('local storage', () => {
  it('that is full keeps no edit from the store, and the truth is said', async () => {
    storage.full = true;
    note('stored all the same');
    app.leave();
    await app.store.flush();
    expect(await storedNotes()).toBe('stored all the same');
    vi.spyOn(database, 'transaction').mockRejectedValue(new Error('no'));
    note('nowhere');
    await app.store.flush();
    expect(app.journalKept).toBe(false);
  });

  it('that is barred does not keep the application from starting', async () => {
    storage.barred = true;
    const next = await opened.tab();
    expect(next.status).toBe('ready');
    note('works', next);
    await next.store.flush();
    expect(await storedNotes()).toBe('works');
    next.drafts.keep('field', 'typed');
    expect(next.drafts.get('field')).toBe('typed');
  });

  it('keeps what is typed and not yet taken, from one page to the next', async () => {
    app.drafts.keep('setup/Distance', '12 pac|es');
    const next = await opened.tab();
    expect(next.drafts.get('setup/Distance')).toBe('12 pac|es');
    next.drafts.drop('setup/Distance');
    expect((await opened.tab()).drafts.get('setup/Distance')).toBeNull();
  });
});

describe('a store that cannot be used', () => {
  const safe = safeStorage(() => new MemoryStorage() as unknown as Storage);
  const appOn = (other: Database) =>
    new App({
      database: other,
      storage: safe,
      newId: () => crypto.randomUUID(),
      now: () => Date.now(),
      random: () => 0.5
    });

  it('is from a newer Focalis: it is said, and left alone', async () => {
    const newer = new Dexie('newer');
    newer.version(databaseVersion + 1).stores({ jobs: 'id' });
    await newer.open();
    newer.close();
    const old = appOn(defineDatabase('newer', safe));
    await old.start();
    expect(old).toMatchObject({ status: 'failed', problem: { kind: 'newer' } });
    await newer.open();
    expect(newer.verno).toBe(databaseVersion + 1);
    await newer.delete();
  });

  it('is taken over by a newer Focalis in another tab: it is said', async () => {
    const newer = new Dexie(database.name);
    newer.version(databaseVersion + 1).stores({ jobs: 'id' });
    await newer.open();
    await until(() => expect(app.problem).toEqual({ kind: 'outdated' }));
    newer.close();
  });

  it('is held by an older tab: it waits, says so, and goes on when that closes', async () => {
    const older = indexedDB.open('held', 10);
    const held = await new Promise<IDBDatabase>((resolve) => (older.onsuccess = () => resolve(older.result)));
    const waiting = appOn(defineDatabase('held', safe));
    const started = waiting.start();
    await until(() => expect(waiting.problem).toEqual({ kind: 'blocked' }));
    held.close();
    await started;
    expect(waiting).toMatchObject({ status: 'ready', problem: null });
    waiting.stop();
  });

  it('does not answer: it is said', async () => {
    const silent = defineDatabase('silent', safe);
    vi.spyOn(silent, 'open').mockImplementation((() => new Promise(() => undefined)) as never);
    const waiting = appOn(silent);
    void waiting.start(5);
    await until(() => expect(waiting.problem).toEqual({ kind: 'silent' }));
  });

  it('is barred: the reason is said', async () => {
    const barred = defineDatabase('barred', safe);
    vi.spyOn(barred, 'open').mockRejectedValue(new DOMException('Not allowed here.', 'SecurityError'));
    const none = appOn(barred);
    await none.start();
    expect(none.problem).toEqual({ kind: 'failed', reason: 'Not allowed here.' });
  });
});

describe('settings', () => {
  it('of one’s own figures and answers are taken back; how it looks stays, set before or after', async () => {
    const typed = { ...defaultHabits, restlessFactor: 3.5 };
    expect(app.settings.edit('Restless', { habits: typed })).not.toBeNull();
    app.settings.set({ theme: 'dim' });
    const step = app.settings.edit('Back to the usual figures', { habits: defaultHabits });
    if (step === null) throw new Error('no step');
    await app.takeBack(step);
    expect(app.settings.now).toMatchObject({ habits: typed, theme: 'dim' });
    await app.step('undo');
    expect(app.settings.now).toMatchObject({ habits: defaultHabits, theme: 'dim' });
    await app.step('redo');
    expect(app.settings.now.habits).toEqual(typed);
    // Nothing changed is nothing to take back.
    expect(app.settings.edit('Restless', { habits: typed })).toBeNull();
    await app.store.flush();
    expect((await opened.tab()).settings.now).toMatchObject({ habits: typed, theme: 'dim' });
  });
});

describe('where to begin', () => {
  it('is the picture last worked on, else the first of the first job, else a new job', async () => {
    expect(await app.firstPath()).toBe(`/setup/${app.open.rows[0]?.id ?? ''}`);
    app.settings.set({ lastSetupId: 'demo-rings' });
    expect(await app.firstPath()).toBe('/setup/demo-rings');
    app.settings.set({ lastSetupId: 'gone' });
    expect(await app.firstPath()).toBe(`/setup/${app.open.rows[0]?.id ?? ''}`);
    for (const job of app.jobs.list) app.jobs.remove(job.id);
    expect(await app.firstPath()).toMatch(/^\/day\//);
    expect(app.jobs.list).toHaveLength(1);
  });

  it('finds the job of any setup, and says when there is none', async () => {
    expect(app.open.id).toBe('demo-fernhall');
    const band = (await database.table('setups').where('owner').equals('demo-quayside').primaryKeys())[0] as string;
    expect(await app.openSetup(band)).toBe(true);
    expect(app.open.id).toBe('demo-quayside');
    expect(await app.openSetup('nowhere')).toBe(false);
  });
});
