import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { FocalisDatabase, SetupRow } from '$lib/data';
import { MemoryStorage, openApp, ready, until } from '$lib/testing/app';
import { App } from './app.svelte';

let database: FocalisDatabase;
let app: App;
let close: () => Promise<void>;
const id = 'demo-west-door';

const row = (of = app): SetupRow => {
  const found = of.row(id);
  if (!found) throw new Error('gone');
  return found;
};

beforeEach(async () => {
  ({ app, database, close } = await openApp());
});
afterEach(() => close());

describe('editing', () => {
  it('shows at once, stores soon, and plans anew', async () => {
    const before = app.plan(row());
    expect(
      app.edit(id, 'Distance', (draft) => void (draft.camera.placement = { kind: 'distance', distanceMm: 3000 }))
    ).toBe(true);
    const after = app.plan(row());
    expect(after.kind === 'plan' && after.distanceMm).toBe(3000);
    expect(before).not.toBe(after);
    expect(app.plan(row())).toBe(after);
    await app.flush();
    expect((await database.setups.get(id))?.setup.camera.placement).toEqual({ kind: 'distance', distanceMm: 3000 });
  });

  it('refuses what is not valid, says why, and keeps what was', () => {
    const before = row().setup;
    expect(
      app.edit(id, 'Distance', (draft) => void (draft.camera.placement = { kind: 'distance', distanceMm: -5 }))
    ).toBe(false);
    expect(app.message?.text).toMatch(/^Distance: must be at least 50/);
    expect(row().setup).toBe(before);
    expect(app.canUndo).toBe(false);
  });

  it('takes a whole gesture back in one step of undo, and brings it again', async () => {
    const turn = (deg: number) =>
      app.edit(id, 'Head turn', (draft) => void ((draft.people[0] ?? { headYawDeg: 0 }).headYawDeg = deg), 'drag');
    [10, 20, 30].forEach(turn);
    app.endGesture();
    turn(50);
    await app.undo();
    await until(() => expect(row().setup.people[0]?.headYawDeg).toBe(30));
    await app.undo();
    await until(() => expect(row().setup.people[0]?.headYawDeg).toBe(40));
    expect(app.canUndo).toBe(false);
    await app.redo();
    await until(() => expect(row().setup.people[0]?.headYawDeg).toBe(30));
  });

  it('undoes several steps at once, all within one millisecond', async () => {
    const turn = (deg: number) =>
      app.edit(id, 'Head turn', (draft) => void ((draft.people[0] ?? { headYawDeg: 0 }).headYawDeg = deg));
    vi.spyOn(Date, 'now').mockReturnValue(Date.now());
    [10, 20, 30].forEach(turn);
    await Promise.all([app.undo(), app.undo(), app.undo()]);
    await until(() => expect(row().setup.people[0]?.headYawDeg).toBe(40));
    await Promise.all([app.redo(), app.redo()]);
    await until(() => expect(row().setup.people[0]?.headYawDeg).toBe(20));
    vi.restoreAllMocks();
  });

  it('merges with another window and undoes only its own', async () => {
    const other = new App(database);
    const stopOther = other.start();
    await ready(other);
    app.edit(id, 'Notes', (draft) => void (draft.notes = 'mine'));
    other.edit(id, 'Name', (draft) => void (draft.name = 'Theirs'));
    await Promise.all([app.flush(), other.flush()]);
    await until(() => expect(row().setup).toMatchObject({ notes: 'mine', name: 'Theirs' }));
    await app.undo();
    await until(() => expect(row(other).setup.name).toBe('Theirs'));
    await until(() => expect(row(other).setup.notes).not.toBe('mine'));
    stopOther();
  });

  it('keeps a setting changed when the page goes before it is stored, and never shows the old one meanwhile', async () => {
    const kept = new MemoryStorage();
    const storage = localStorage as unknown as MemoryStorage;
    const seen: string[] = [];
    const set = app.setSettings({ theme: 'dim' });
    void app.setSettings({ printShape: '1:1' });
    app.leave();
    const key = storage.key(0) ?? '';
    kept.setItem(key, storage.getItem(key) ?? '');
    seen.push(app.settings.theme);
    await set;
    seen.push(app.settings.theme);
    expect(seen).toEqual(['dim', 'dim']);
    // The old page's writes never arrived.
    await database.settings.clear();
    vi.stubGlobal('localStorage', kept);
    const next = new App(database);
    const stopNext = next.start();
    await ready(next);
    expect(next.settings).toMatchObject({ theme: 'dim', printShape: '1:1' });
    expect(kept.length).toBe(0);
    stopNext();
  });

  it('keeps what was typed when the page goes before it is stored', async () => {
    app.edit(id, 'Notes', (draft) => void (draft.notes = 'last words'));
    const kept = new MemoryStorage();
    const storage = localStorage as unknown as MemoryStorage;
    app.leave();
    for (let i = 0; i < storage.length; i++)
      kept.setItem(storage.key(i) ?? '', storage.getItem(storage.key(i) ?? '') ?? '');
    expect(kept.length).toBe(1);
    // A new window finds the journal before the old one's write has arrived.
    await app.flush();
    await database.setups.update(id, { setup: { ...row().setup, notes: 'old' } });
    vi.stubGlobal('localStorage', kept);
    const next = new App(database);
    const stopNext = next.start();
    await ready(next);
    expect(row(next).setup.notes).toBe('last words');
    expect(kept.length).toBe(0);
    stopNext();
  });
});

describe('jobs', () => {
  it('adds, copies, moves and removes setups, each with undo', async () => {
    const jobId = row().jobId;
    const names = () => app.setupsOf(jobId).map((item) => item.setup.name);
    const at = names();
    const added = await app.addSetup(jobId, { template: 'couple' });
    await until(() => expect(names()).toEqual([...at, 'A couple']));
    await app.duplicateSetup(row());
    await until(() => expect(names()[1]).toBe('West door (2)'));
    await app.moveSetup(row(), 1);
    await until(() => expect(names().slice(0, 2)).toEqual(['West door (2)', 'West door']));
    const couple = app.row(added);
    if (couple) await app.removeSetup(couple);
    await until(() => expect(names()).not.toContain('A couple'));
    for (let i = 0; i < 4; i++) await app.undo();
    await until(() => expect(names()).toEqual(at));
  });

  it('exports what it imports, and refuses a bad file without a trace', async () => {
    const text = app.exportJob(row().jobId) ?? '';
    const first = await app.importFile(new File([text], 'job.json'));
    expect(first).not.toBeNull();
    await until(() => expect(app.jobs).toHaveLength(3));
    const refused = await app.importFile(new File([text.slice(0, 500)], 'half.json'));
    expect(refused).toBeNull();
    expect(app.message).toMatchObject({ kind: 'problem' });
    expect(app.jobs).toHaveLength(3);
  });

  it('starts empty without the untouched demo, and loads it again on request', async () => {
    const empty = await app.startEmpty();
    await until(() => expect(app.jobs.map((item) => item.id)).toEqual([empty]));
    await app.loadDemo();
    await until(() => expect(app.jobs.map((item) => item.job.name)).toContain('Fernhall Glasshouse'));
  });

  it('keeps a profile’s settings', async () => {
    await app.setSettings({ unit: 'feet', theme: 'dim' });
    const next = new App(database);
    const stopNext = next.start();
    await until(() => expect(next.settings).toMatchObject({ unit: 'feet', theme: 'dim' }));
    stopNext();
  });
});
