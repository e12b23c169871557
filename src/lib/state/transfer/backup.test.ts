/** Everything saved in one profile and restored in another, or in the same later on. */
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { BenchTest } from '$core/bench/schema';
import { testFace, testFrame } from '$core/testing/frames';
import { looseLenses } from '$core/testing/kit';
import { recordedFrame } from '$core/testing/recorded';
import { newRow } from '$lib/data';
import { openApp, weddingId, type OpenApp } from '$lib/testing/app';
import type { RestoreHow } from '$core/job/restoring';

const stopsTest = {
  kind: 'stops',
  id: 't1',
  madeAt: 5,
  simulated: false,
  bodyId: 'b',
  body: 'Body',
  lensId: 'l',
  lens: 'Lens',
  focalLengthMm: 50,
  pixelMm: 0.006,
  stops: [{ fNumber: 2, frames: 1, centre: null, middle: null, corner: null, overshoot: 0 }]
} as const satisfies BenchTest;
const [lens] = looseLenses;
if (!lens) throw new Error('no lens');
let here: OpenApp;
let fresh: OpenApp;
beforeEach(async () => {
  here = await openApp();
  fresh = await openApp();
});
afterEach(async () => {
  vi.restoreAllMocks();
  await here.close();
  await fresh.close();
});

const saved = async ({ app }: OpenApp): Promise<Blob> => {
  const blob = await app.backup.save();
  if (!blob) throw new Error(app.messages.shown?.text ?? 'not saved');
  return blob;
};
const looked = async ({ app }: OpenApp, file: Blob, how: RestoreHow) => {
  const found = await app.backup.look(file, how);
  if (typeof found === 'string') throw new Error(found);
  return found;
};
const restored = async (opened: OpenApp, file: Blob, how: RestoreHow) => {
  const found = await looked(opened, file, how);
  expect(await opened.app.backup.restore(found)).toBe(true);
  return found.words;
};
/** What an archive leaves out, and why that is no loss; the page names what is. */
const leftOut: Readonly<Record<string, string>> = {
  originals: 'photos themselves, kept with their frames: the page says so',
  ownEyes: 'worked out of the frames again',
  journeys: 'keys of codes that have run out',
  aside: 'rows of versions before, which nothing could read',
  profile: 'compared by itself: some settings are of this device'
};
/** All that is stored, as another profile would have to have it too. */
async function everything({ app, database }: OpenApp) {
  await app.store.flush();
  const compared = database.tables.map(({ name }) => name).filter((name) => !(name in leftOut));
  const all = await Promise.all(
    compared.map(async (name) => {
      const stored: Readonly<Record<string, unknown>>[] = await database.table(name).toArray();
      const rows = stored
        .filter((row) => !row['removedAt'])
        .map((row) => ('value' in row ? { id: row['id'], value: row['value'] } : row));
      const key = (row: Readonly<Record<string, unknown>>) => String(row['id'] ?? row['key']);
      return [name, rows.sort((a, b) => (key(a) < key(b) ? -1 : 1))];
    })
  );
  return JSON.parse(JSON.stringify(Object.fromEntries(all))) as Record<string, unknown[]>;
}
/** Bytes of what is to be seen of a frame, which JSON does not show. */
async function seenBytes({ app }: OpenApp, id: string) {
  const seen = await app.framePictures.get(id);
  const bytes = async (blob: Blob) => [...new Uint8Array(await blob.arrayBuffer())];
  return seen && Promise.all([seen.thumbnail, ...seen.crops.map(({ picture }) => picture)].map(bytes));
}
const jpeg = (...bytes: number[]) => new Blob([new Uint8Array(bytes)], { type: 'image/jpeg' });
const eye = { ok: true, discPx: 1, low: 0, high: 2, smear: null } as const;
/** Two measured frames, one of them chosen and with all that is kept of it; and one of every other table. */
async function withFrames({ app }: OpenApp): Promise<void> {
  const faces = [testFace({ left: eye, right: eye }, { id: 'face-1', personId: 'ines' })];
  const frames = [testFrame({ id: 'f1', setupId: 'demo-rings', faces, choice: 'keep' }), testFrame({ id: 'f2' })];
  const others = [
    ['bags', { id: 'bag', name: 'Shoulder', bodies: [], lensIds: [], adapterIds: [] }],
    ['drills', { kind: 'ticks', id: 'diagonal', ticked: ['stand'] }]
  ] as const;
  const made = app.store.edit('Frames imported', (draft) => {
    frames.forEach((frame, position) => draft.put('frames', newRow(frame.id, frame, { owner: weddingId, position })));
    for (const [table, value] of others) draft.put(table, newRow(value.id, value) as never);
    draft.put('benchTests', newRow('t1', stopsTest));
  });
  expect(made).toMatchObject({ ok: true });
  await app.framePictures.keep({
    id: 'f1',
    owner: weddingId,
    thumbnail: jpeg(0xff, 0xd8, 1),
    sidecar: '<x:xmpmeta/>',
    crops: [{ faceId: 'face-1', picture: jpeg(0xff, 0xd8, 2, 3) }]
  });
  await app.record.add([recordedFrame('f1', { jobId: weddingId })]);
}
const message = ({ app }: OpenApp) => app.messages.shown?.text ?? '';

describe('everything as one file', () => {
  it('is the same in a fresh profile that takes it in place of what it had, settings and kit and all', async () => {
    const { app } = here;
    app.open.edit('demo-rings', 'Name', (draft) => void (draft.name = 'The rings'));
    app.day.taken(['demo-rings'], 'Note', { note: 'Once more with the 50.' });
    app.settings.set({ unit: 'feet', theme: 'sun' });
    app.store.edit('Lens', (draft) =>
      draft.put('lenses', {
        id: 'own',
        owner: null,
        position: 1,
        updatedAt: 0,
        removedAt: null,
        value: { ...lens, id: 'own', name: 'Of my own' }
      })
    );
    const own = await app.jobs.start();
    await app.openJob(own);
    app.jobs.change(own, 'Name', { name: 'Of my own' });
    app.setups.add({ template: 'couple' });
    await app.thumbnails.keep({
      key: 'card-x',
      drawnFrom: '{"a":1}',
      picture: new Blob([new Uint8Array([1, 2])], { type: 'image/jpeg' })
    });
    await app.openJob(weddingId);
    await withFrames(here);
    const file = await saved(here);
    expect(app.backup.at).not.toBeNull();

    await restored(fresh, file, 'replace');
    const [there, as] = [await everything(fresh), await everything(here)];
    for (const table of ['frames', 'framePictures', 'record', 'thumbnails', 'benchTests', 'drills', 'bags', 'lenses'])
      expect(as[table]?.length, table).toBeGreaterThan(0);
    expect(there).toEqual(as);
    expect(await seenBytes(fresh, 'f1')).toEqual(await seenBytes(here, 'f1'));
    expect(fresh.app.settings.now).toMatchObject({ unit: 'feet', theme: 'sun' });
    expect(fresh.app.backup.at).toBeNull();
    expect(await fresh.app.thumbnails.kept('card-x', '{"a":1}')).not.toBeNull();
    // All of it is one step.
    await fresh.app.step('undo');
    expect(fresh.app.settings.now.unit).toBe('metric');
    expect(fresh.app.store.table('lenses').get('own')).toBeUndefined();
    expect(fresh.app.jobs.list.map((row) => row.value.name)).not.toContain('Of my own');
  });

  it('added to what is here brings what is missing, and touches nothing else', async () => {
    const file = await saved(here);
    const { app } = fresh;
    app.open.edit('demo-rings', 'Name', (draft) => void (draft.name = 'Mine now'));
    const door = app.open.row('demo-west-door');
    if (!door) throw new Error('no such setup');
    app.setups.remove(door);
    app.settings.set({ unit: 'feet' });
    expect(await restored(fresh, file, 'merge')).toEqual(['1 setup added.']);
    expect(app.open.row('demo-west-door')?.setup.name).toBe('West door');
    expect(app.open.row('demo-rings')?.setup.name).toBe('Mine now');
    expect(app.settings.now.unit).toBe('feet');
    // Once more changes nothing.
    const again = await looked(fresh, file, 'merge');
    expect(again.idle).toBe(true);
    expect(again.words).toEqual(['Nothing would change: all of it is here already.']);
  });

  it('brings back a job that was put away; in place of all, others are put away for thirty days', async () => {
    const file = await saved(here);
    const { app } = fresh;
    app.jobs.remove(weddingId);
    expect((await looked(fresh, file, 'merge')).words).toEqual(['1 job added.']);
    const other = await app.jobs.start();
    const words = await restored(fresh, file, 'replace');
    expect(words[0]).toMatch(/job.* put away for thirty days\.$/);
    expect(app.jobs.list.map((row) => row.id)).toContain(weddingId);
    expect(app.jobs.removed.map((row) => row.id)).toContain(other);
  });

  it('says before anything is changed what would be', async () => {
    const file = await saved(here);
    const before = await everything(fresh);
    fresh.app.open.edit('demo-rings', 'Name', (draft) => void (draft.name = 'Mine now'));
    const found = await looked(fresh, file, 'replace');
    expect(found.words).toEqual(['1 setup changed.']);
    expect(fresh.app.open.row('demo-rings')?.setup.name).toBe('Mine now');
    await fresh.app.step('undo');
    expect(await everything(fresh)).toEqual(before);
  });

  it('from before frames were in it leaves those that are here; two jobs with the same parts are refused', async () => {
    const file = await saved(here);
    await withFrames(fresh);
    await fresh.app.store.flush();
    const before = await everything(fresh);
    const found = await looked(fresh, file, 'replace');
    const old = await fresh.app.backup.weigh({ ...found.archive, frames: null }, 'replace');
    if (typeof old === 'string') throw new Error(old);
    await fresh.app.backup.restore(old);
    expect((await everything(fresh))['frames']).toEqual(before['frames']);
    // Parts that stand in another job here are no crash, and change nothing.
    const row = await fresh.database.table('setups').get('demo-rings');
    await fresh.database.table('setups').put({ ...row, owner: 'another' });
    expect(await fresh.app.backup.weigh(found.archive, 'merge')).toMatch(
      /has parts that belong to another job here\.$/
    );
  });

  it('that cannot be read is a sentence; that cannot be stored changes nothing', async () => {
    expect(await fresh.app.backup.look(new Blob(['no zip']), 'merge')).toBe('This zip is cut off or damaged.');
    const file = await saved(here);
    const door = fresh.app.open.row('demo-west-door');
    if (!door) throw new Error('no such setup');
    fresh.app.setups.remove(door);
    const found = await looked(fresh, file, 'merge');
    const before = await everything(fresh);
    // The disk is full in the middle of it.
    fresh.database.table('setups').hook('creating', () => {
      throw new DOMException('The disk is full.', 'QuotaExceededError');
    });
    expect(await fresh.app.backup.restore(found)).toBe(false);
    expect(message(fresh)).toMatch(/^Couldn’t restore the backup\. .*The disk is full\.[^]*Nothing was changed\.$/);
    expect(await everything(fresh)).toEqual(before);
    expect(fresh.app.backup.busy).toBe('');
  });
});

describe('the reminder', () => {
  it('comes two weeks after there is work, waits a week when told so, and goes with a backup', async () => {
    const { app } = here;
    await app.backup.watch();
    expect(app.settings.now.remindAt).toBeNull();
    app.open.edit('demo-rings', 'Name', (draft) => void (draft.name = 'The rings'));
    await app.store.flush();
    await app.backup.watch();
    const day = 24 * 3600 * 1000;
    expect(app.backup.due).toBe(false);
    const clock = vi.spyOn(Date, 'now');
    const start = Date.now();
    clock.mockReturnValue(start + 13.9 * day);
    expect(app.backup.due).toBe(false);
    clock.mockReturnValue(start + 14.1 * day);
    expect(app.backup.due).toBe(true);
    app.backup.later();
    expect(app.backup.due).toBe(false);
    clock.mockReturnValue(start + 21.2 * day);
    expect(app.backup.due).toBe(true);
    await saved(here);
    expect(app.backup.due).toBe(false);
  });
});
