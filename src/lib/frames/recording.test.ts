import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { newRow } from '$lib/data';
import { openApp, weddingId, type OpenApp } from '$lib/testing/app';
import { packSpectrum } from '$core/measure/packed';
import { spectrumOf } from '$core/measure/spectrum';
import { degrade, renderedEyes } from '$core/testing/eyePatches';
import { testFace, testFrame } from '$core/testing/frames';
import { recordedFrame } from '$core/testing/recorded';
import { keepRecord } from './recording';

let opened: OpenApp;
beforeEach(async () => {
  opened = await openApp();
  await opened.app.openJob(weddingId);
});
afterEach(() => opened.close());

const setupId = 'demo-west-door';

/** Frames of a setup with everybody sharp, as they are once they have been brought in. */
function bring(numbers: readonly number[], spectra: readonly string[] = []) {
  const { app } = opened;
  const row = app.open.row(setupId);
  if (!row) throw new Error('no such setup');
  const eyeOf = (at: number) => {
    const spectrum = spectra[at];
    // The one with the most to see is taken for the sharpest.
    const seen = spectrum === undefined ? {} : { spectrum };
    return { ok: true as const, discPx: 0.6 + 0.1 * at, low: 0, high: 1.4, smear: null, ...seen };
  };
  const frames = numbers.map((number, at) =>
    testFrame({
      id: `f${number}`,
      setupId,
      body: 'Some Body',
      shutterS: 1 / 500,
      iso: 100,
      focalLengthMm: row.setup.camera.focalLengthMm,
      fNumber: 1.4,
      clockMs: number * 2000,
      file: { name: `A_${number}.JPG`, bytes: 1, hash: number.toString(16).padStart(64, '0'), modifiedAt: null },
      faces: app.frames
        .expected(row)
        .map(({ personId }, index) => testFace({ left: eyeOf(at), right: eyeOf(at) }, { id: `face${index}`, personId }))
    })
  );
  app.store.edit('Frames imported', (draft) =>
    frames.forEach((frame, position) =>
      draft.put('frames', newRow(frame.id, frame, { owner: weddingId, position: position }))
    )
  );
}
const ids = async () => (await opened.app.record.all()).map(({ id }) => id).sort();

describe('the record', () => {
  it('has every measured frame by itself, follows what becomes of it, and lets it go when it is taken back', async () => {
    const { app } = opened;
    bring([101, 102, 103]);
    await keepRecord(app);
    expect(await ids()).toEqual(['f101', 'f102', 'f103']);
    const first = async () => (await app.record.all()).find(({ id }) => id === 'f101');
    expect(await first()).toMatchObject({ complete: true, choice: null, sharp: 'all', setup: 'West door' });
    app.frames.choose(['f101'], 'reject', 'expression');
    app.frames.sayComplete(['f101', 'f102', 'f103'], false);
    await keepRecord(app);
    expect(await first()).toMatchObject({ complete: false, choice: 'reject', reason: 'expression' });
    app.frames.remove(['f102']);
    await keepRecord(app);
    expect(await ids()).toEqual(['f101', 'f103']);
    await app.step('undo');
    await keepRecord(app);
    expect(await ids()).toEqual(['f101', 'f102', 'f103']);
  });

  it('is worked out anew once eyes have been held against their sharpest frame, and keeps what was promised', async () => {
    const { app } = opened;
    const spectra = [0, 8].map((disc) => {
      const [eye] = renderedEyes();
      if (!eye) throw new Error('no eye');
      return packSpectrum(spectrumOf(degrade(eye, { disc }), eye.side), eye.side);
    });
    bring([101, 102], spectra);
    await keepRecord(app);
    const second = async () => (await app.record.all()).find(({ id }) => id === 'f102');
    const before = await second();
    expect(before?.sharp).toBe('all');
    const [face] = app.frames.list[1]?.frame.faces ?? [];
    await app.frames.whose.name('f102', face?.id ?? '', face?.personId ?? null);
    await keepRecord(app);
    expect(await second()).toMatchObject({ sharp: 'some', odds: before?.odds });
  });

  it('keeps what was promised and measured, whatever becomes of the setup and the figures; and outlives the job', async () => {
    const { app } = opened;
    bring([101, 102]);
    await keepRecord(app);
    const before = await app.record.all();
    app.settings.set({
      habits: { ...app.settings.now.habits, focusSpreadUm: { crossPoint: 60, ordinaryPoint: 90 } }
    });
    app.open.edit(setupId, 'Nearer', (setup) => {
      setup.camera.placement = { kind: 'distance', distanceMm: 3000 };
    });
    await keepRecord(app);
    expect(await app.record.all()).toEqual(before);
    app.jobs.remove(weddingId);
    await keepRecord(app);
    expect(await ids()).toEqual(['f101', 'f102']);
  });

  it('stays while a frame does though its setup goes, and goes with who is of no setup', async () => {
    const { app } = opened;
    bring([101, 102]);
    await keepRecord(app);
    const before = await app.record.all();
    app.store.edit('Setup removed', (draft) => draft.remove('setups', setupId));
    await keepRecord(app);
    expect(await app.record.all()).toEqual(before);
    await app.step('undo');
    await app.frames.moveTo(['f101'], null);
    await keepRecord(app);
    expect(await ids()).toEqual(['f102']);
  });

  it('forgotten does not come back by itself, and does from a file that was saved before', async () => {
    const { app, database } = opened;
    bring([101, 102]);
    await keepRecord(app);
    const saved = await app.record.all();
    await app.record.forget(['f101', 'f102']);
    await keepRecord(app);
    app.frames.choose(['f101'], 'keep');
    await keepRecord(app);
    expect(await ids()).toEqual([]);
    // Nothing is left of them but that they are not wanted.
    expect(JSON.stringify(await database.table('record').toArray())).not.toContain('West door');
    expect(await app.record.missing(saved)).toBe(2);
    expect(await app.record.add(saved)).toBe(2);
    expect(await ids()).toEqual(['f101', 'f102']);
  });

  it('takes a file beside what is there, and a damaged row hides nothing else', async () => {
    const { app, database } = opened;
    bring([101, 102]);
    await keepRecord(app);
    expect(await app.record.add([recordedFrame('f101'), recordedFrame('other')])).toBe(1);
    await database.table('record').put({ id: 'broken', jobId: 'x', stamp: null, value: { id: 'broken' } });
    expect(await ids()).toEqual(['f101', 'f102', 'other']);
    await keepRecord(app);
    expect(await ids()).toEqual(['f101', 'f102', 'other']);
    await app.record.forget(['f101', 'f102', 'other']);
    expect(await ids()).toEqual([]);
  });
});
