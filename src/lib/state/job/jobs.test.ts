import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { resolveSetup } from '$core/job/resolve';
import { castOf } from '$core/testing/cast';
import { defaultHabits } from '$core/habits/habits';
import { readJobFile } from '$core/formats/jobFile';
import { limits } from '$core/schema/values';
import { recordedFrame } from '$core/testing/recorded';
import { eraseOld, readJobParts, removedKeptMs, type Database } from '$lib/data';
import { openApp, until, weddingId, type OpenApp } from '$lib/testing/app';
import type { App } from '$lib/state/app.svelte';

let opened: OpenApp;
let app: App;
let database: Database;
const id = 'demo-west-door';

beforeEach(async () => {
  opened = await openApp();
  ({ app, database } = opened);
});
afterEach(async () => {
  vi.restoreAllMocks();
  await opened.close();
});

const names = () => app.open.rows.map((item) => item.setup.name);
const jobNames = () => app.jobs.list.map((item) => item.value.name);
const rowOf = (which: string) => {
  const found = app.open.row(which);
  if (!found) throw new Error(which);
  return found;
};
const jobOf = (which: string) => {
  const found = app.store.table('jobs').get(which);
  if (!found) throw new Error(which);
  return found;
};
const file = (text: string, name = 'job.json') => new File([text], name);

describe('setups', () => {
  it('are added, copied, moved and removed, each with undo', async () => {
    const at = names();
    const added = app.setups.add({ template: 'couple' });
    expect(names()).toEqual([...at, 'A couple']);
    app.setups.duplicate(rowOf(id));
    expect(names()[1]).toBe('West door (2)');
    const [first = '', second = '', ...rest] = app.day.items.map((item) => item.id);
    app.day.reorder([second, first, ...rest]);
    expect(names().slice(0, 2)).toEqual(['West door (2)', 'West door']);
    app.setups.remove(rowOf(added ?? ''));
    expect(names()).not.toContain('A couple');
    for (let i = 0; i < 4; i++) await app.step('undo');
    expect(names()).toEqual(at);
  });

  it('removed, with another edited since: the message’s Undo brings back the one it names', async () => {
    app.setups.remove(rowOf('demo-rings'));
    const step = app.messages.shown?.step ?? -1;
    app.open.edit(id, 'Notes', (draft) => void (draft.notes = 'kept'));
    expect(await app.takeBack(step)).toBe('demo-rings');
    expect(names()).toContain('Rings');
    expect(rowOf(id).setup.notes).toBe('kept');
  });

  it('new in a job stand at its place, with people of their own who share no name', () => {
    const first = rowOf(app.setups.add({ template: 'couple' }) ?? '');
    const second = rowOf(app.setups.add({ template: 'couple' }) ?? '');
    expect(first.setup.place.scenery).toBe('palmHouse');
    const people = [...first.setup.people, ...second.setup.people];
    expect(people.map((person) => person.name)).toEqual(['Adult 1', 'Adult 2', 'Adult 3', 'Adult 4']);
    expect(new Set(people.map((person) => person.id)).size).toBe(4);
  });

  it('share their people with a copy, and an unnamed somebody goes with the last picture', () => {
    const added = app.setups.add({ template: 'couple' }) ?? '';
    const copy = app.setups.duplicate(rowOf(added)) ?? '';
    const [who] = rowOf(added).setup.people;
    const known = () => app.open.people.some((person) => person.id === who?.id);
    const leave = (from: string) => app.open.edit(from, 'Gone', (draft) => void draft.people.shift());
    leave(added);
    expect(known()).toBe(true);
    leave(copy);
    expect(known()).toBe(false);
    const [ines] = rowOf(id).setup.people;
    app.open.edit(id, 'Gone', (draft) => void (draft.people = []));
    expect(app.open.people.some((person) => person.id === ines?.id)).toBe(true);
  });

  it('copied to another job take their people and their place along, once', async () => {
    const there = () => readJobParts(database, 'demo-quayside');
    const before = await there();
    await app.setups.copy(rowOf('demo-under-palms'), 'demo-quayside');
    await app.setups.copy(rowOf('demo-under-palms'), 'demo-quayside');
    const after = await there();
    expect(after.setups).toHaveLength(before.setups.length + 2);
    expect(after.people).toHaveLength(before.people.length + 2);
    expect(after.places).toHaveLength(before.places.length + 1);
    const copies = after.setups.filter((setup) => setup.name === 'Under the palms');
    const original = rowOf('demo-under-palms').setup;
    for (const copy of copies) {
      const resolved = resolveSetup(copy, castOf(after.people, after.places));
      expect(resolved.people.map((person) => person.name)).toEqual(original.people.map((person) => person.name));
      expect(resolved).toMatchObject({ place: original.place, light: original.light, camera: original.camera });
    }
  });

  it('are at most three hundred in a job, also by copying', () => {
    const rows = Array.from({ length: limits.maxSetups }, () => rowOf(id));
    vi.spyOn(app.open, 'rows', 'get').mockReturnValue(rows);
    expect(app.setups.add({ template: 'onePerson' })).toBeNull();
    expect(app.setups.duplicate(rowOf(id))).toBeNull();
    expect(app.messages.shown).toMatchObject({ kind: 'problem', text: expect.stringMatching(/at most 300 setups/) });
  });
});

describe('jobs', () => {
  it('removed are kept with all that hangs on them, and come back after a reload', async () => {
    app.jobs.remove(weddingId);
    expect(jobNames()).toEqual(['Quayside Brass']);
    await app.store.flush();
    const next = await opened.tab();
    expect(next.jobs.removed.map((row) => row.value.name)).toEqual(['Fernhall Glasshouse']);
    await next.jobs.bringBack(next.jobs.removed[0] ?? jobOf(weddingId));
    await next.store.flush();
    await until(() => expect(jobNames()).toEqual(['Fernhall Glasshouse', 'Quayside Brass']));
    expect(names()).toContain('West door');
  });

  it('removed are erased after thirty days of use, and not by a clock that was set ahead', async () => {
    app.jobs.remove(weddingId);
    await app.store.flush();
    const left = async () => (await database.table('jobs').get(weddingId)) !== undefined;
    const dayMs = 24 * 3600 * 1000;
    const onDay = (day: number) => eraseOld(database, Date.now() + day * dayMs);
    // Forty days ahead, and back: a day of use each, however often it is opened.
    for (const day of [40, 40, 0]) await onDay(day);
    expect(await left()).toBe(true);
    for (let day = 1; day <= 28; day++) await onDay(day);
    expect(await left()).toBe(true);
    await onDay(29);
    await onDay(31);
    expect(31 * dayMs).toBeGreaterThan(removedKeptMs);
    expect(await left()).toBe(false);
    for (const table of ['people', 'places', 'setups'])
      expect(await database.table(table).where('owner').equals(weddingId).count()).toBe(0);
  });

  it('erased leave the numbers of their frames in the record, and nobody’s name', async () => {
    await app.record.add([recordedFrame('f1', { jobId: weddingId, setup: 'Ines at the door' })]);
    await app.jobs.erase(jobOf(weddingId));
    const [kept] = await app.record.all();
    expect(kept).toMatchObject({
      id: 'f1',
      setup: 'someone at the door',
      people: [{ name: 'Person 1', sharp: true }]
    });
  });

  it('removed in one tab while edited in the other: the edit is kept, and the job is offered back', async () => {
    const other = await opened.tab();
    other.jobs.remove(weddingId);
    app.open.edit(id, 'Notes', (draft) => void (draft.notes = 'typed meanwhile'));
    await Promise.all([other.store.flush(), app.store.flush()]);
    await until(() => expect(app.open.jobRow?.removedAt).not.toBeNull());
    expect(rowOf(id).setup.notes).toBe('typed meanwhile');
    await app.jobs.bringBack(app.open.jobRow ?? jobOf(weddingId));
    await app.store.flush();
    await until(() => expect(other.jobs.list).toHaveLength(2));
    const parts = await readJobParts(database, weddingId);
    expect(parts.setups.find((setup) => setup.id === id)?.notes).toBe('typed meanwhile');
  });

  it('erased in one tab while edited in the other: no orphan, and it can be restored whole', async () => {
    const before = await readJobParts(database, weddingId);
    const other = await opened.tab();
    other.jobs.remove(weddingId);
    await other.store.flush();
    await other.jobs.erase(other.jobs.removed[0] ?? jobOf(weddingId));
    await until(() => expect(app.open.erasedRow).not.toBeNull());
    app.open.edit(id, 'Notes', (draft) => void (draft.notes = 'typed after'));
    await app.store.flush();
    expect(await database.table('setups').where('owner').equals(weddingId).count()).toBe(0);
    const last = app.open.erasedRow;
    if (!last) throw new Error('nothing to bring back');
    await app.jobs.bringBack(last);
    await app.store.flush();
    const after = await readJobParts(database, weddingId);
    expect(after.setups).toHaveLength(before.setups.length);
    expect(after.people).toEqual(before.people);
    expect(after.setups.find((setup) => setup.id === id)?.notes).toBe('typed after');
    expect(app.jobs.list.map((row) => row.id)).toContain(weddingId);
  });

  it('new: the untouched demo is put away, one that was touched stays', async () => {
    app.open.edit(id, 'Notes', (draft) => void (draft.notes = 'my own words'));
    const started = await app.jobs.start();
    expect(app.jobs.list.map((row) => row.id)).toEqual([weddingId, started]);
    await app.step('undo');
    expect(jobNames()).toEqual(['Fernhall Glasshouse', 'Quayside Brass']);
    await app.files.loadDemo();
    expect(jobNames()).toContain('Fernhall Glasshouse (2)');
  });
});

describe('files', () => {
  it('bring in what was taken out, as a second copy with ids of its own', async () => {
    const text = (await app.files.exportText(weddingId)) ?? '';
    const path = await app.files.importFile(file(text));
    expect(path).toMatch(/^\/setup\//);
    expect(jobNames()).toEqual(['Fernhall Glasshouse', 'Quayside Brass', 'Fernhall Glasshouse (2)']);
    const copyId = app.jobs.list[2]?.id ?? '';
    await app.openJob(copyId);
    const copy = await app.files.exportText(copyId);
    const [a, b] = [text, copy ?? ''].map((content) => {
      const result = readJobFile(content);
      if (!result.ok) throw new Error(result.reason);
      const { people, places, setups } = result.file;
      return setups.map((setup) => ({
        ...resolveSetup(setup, castOf(people, places)),
        id: '',
        people: resolveSetup(setup, castOf(people, places)).people.map((person) => ({ ...person, id: '' }))
      }));
    });
    expect(a?.map((setup) => ({ ...setup, intent: null }))).toEqual(b?.map((setup) => ({ ...setup, intent: null })));
    await app.step('undo');
    expect(jobNames()).toHaveLength(2);
    expect(await database.table('people').where('owner').equals(copyId).count()).toBe(0);
  });

  it('hold everything on the screen, stored or not, also of a job that is not open', async () => {
    vi.spyOn(database, 'transaction').mockRejectedValue(new Error('full'));
    app.open.edit(id, 'Notes', (draft) => void (draft.notes = 'unsaved words'));
    await app.store.flush();
    expect(await app.files.exportText(weddingId)).toContain('unsaved words');
    vi.restoreAllMocks();
    expect(await app.files.exportText('demo-quayside')).toContain('Quayside Brass');
    expect(await app.files.exportText('nowhere')).toBeNull();
  });

  it('that are bad are refused without a trace', async () => {
    const text = (await app.files.exportText(weddingId)) ?? '';
    for (const bad of [text.slice(0, 500), '{}', text.replace('"notes":"', '"notes":7,"x":"')]) {
      expect(await app.files.importFile(file(bad, 'half.json'))).toBeNull();
      expect(app.messages.shown).toMatchObject({ kind: 'problem' });
    }
    expect(app.jobs.list).toHaveLength(2);
  });

  it('that the store cannot take leave nothing behind', async () => {
    const text = (await app.files.exportText(weddingId)) ?? '';
    const before = await database.table('setups').count();
    const original = database.transaction.bind(database) as (...rest: unknown[]) => unknown;
    const spy = vi
      .spyOn(database, 'transaction')
      .mockImplementation(((mode: string, ...rest: unknown[]) =>
        mode === 'rw'
          ? Promise.reject(new DOMException('full', 'QuotaExceededError'))
          : original(mode, ...rest)) as never);
    expect(await app.files.importFile(file(text))).toBeNull();
    expect(app.messages.shown).toMatchObject({ kind: 'problem' });
    spy.mockRestore();
    expect(await database.table('setups').count()).toBe(before);
    expect(app.jobs.list).toHaveLength(2);
    expect(app.store.saving.kind).toBe('saved');
  });

  it('with habits of their own keep them for their job, and those like mine are mine', async () => {
    const text = (await app.files.exportText(weddingId)) ?? '';
    await app.files.importFile(file(text));
    expect(app.jobs.list[2]?.value.habits).toBeNull();
    const steady = { ...defaultHabits, holdMm: { ...defaultHabits.holdMm, standing: 1 } };
    await app.files.importFile(file(text.replace(JSON.stringify(defaultHabits), JSON.stringify(steady))));
    expect(app.jobs.list[3]?.value.habits).toEqual(steady);
    await app.openJob(app.jobs.list[3]?.id ?? '');
    const setup = app.open.rows[0]?.setup;
    if (!setup) throw new Error('empty');
    expect(app.open.input(setup).habits).toEqual(steady);
    app.jobs.change(app.open.id ?? '', 'My own figures', { habits: null });
    expect(app.open.input(setup).habits).toEqual(defaultHabits);
  });
});
