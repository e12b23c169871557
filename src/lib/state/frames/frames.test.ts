import { clockKey } from '$core/frames/clocks';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { bursts } from '$core/frames/match';
import { writeSidecar } from '$core/formats/sidecar';
import { noFacts } from '$core/photos/metadata';
import type { FrameFace } from '$core/frames/schema';
import { packSpectrum } from '$core/measure/packed';
import { spectrumOf } from '$core/measure/spectrum';
import { degrade, renderedEyes } from '$core/testing/eyePatches';
import { openApp, until, weddingId, type OpenApp } from '$lib/testing/app';
import type { PhotoResult, ReadFrame } from '../../../photos/measurePhoto';
import type { PhotoReader } from './photoReader';

let opened: OpenApp;
/** What the next pictures are read as, by the name of the file. */
let answers: Record<string, PhotoResult | Error>;
let asked: string[];
const read: PhotoReader['readPhoto'] = (file) => {
  const { name } = file as File;
  asked.push(name);
  const answer = answers[name];
  if (answer instanceof Error) return Promise.reject(answer);
  return Promise.resolve(answer ?? { ok: false, reason: 'It is no picture.' });
};
/** What was pointed at: no face is ever seen there. */
let points: unknown[];
const readPoint: PhotoReader['readPoint'] = (_file, asked) => {
  points.push(asked);
  const figure = { ok: true, discPx: 1, low: 0, high: 2, smear: null, spectrum: '' } as const;
  return Promise.resolve({ kind: 'point', figure, crop: blob() });
};
beforeEach(async () => {
  answers = {};
  points = [];
  asked = [];
  opened = await openApp({ reading: { readPhoto: read, readPoint } });
  await opened.app.openJob(weddingId);
});
afterEach(() => opened.close());

const blob = () => new Blob(['x'], { type: 'image/jpeg' });
const file = (name: string) => new File(['x'], name, { lastModified: 5 });
const hash = (n: number) => n.toString(16).padStart(64, '0');

/** A picture of a setup with a face wherever its plan expects one, moved a little. */
function pictureOf(setupId: string, n: number, more: Partial<ReadFrame['facts']> = {}): PhotoResult {
  const row = opened.app.open.row(setupId);
  if (!row) throw new Error('no such setup');
  const [width, height] = [3000, 2000];
  const eye = { ok: true as const, discPx: 0.5, low: 0, high: 1, smear: null, spectrum: '' };
  const faces = opened.app.frames.expected(row).map((face) => ({
    box: { x: 0, y: 0, width: 100, height: 100 },
    score: 0.9,
    left: { x: (face.x + face.eyes / 2) * width + 4, y: face.y * width + 3 },
    right: { x: (face.x - face.eyes / 2) * width + 4, y: face.y * width + 3 },
    yawDeg: 0,
    pitchDeg: 0,
    rollDeg: 0,
    irisPx: 12,
    lids: { left: 0.3, right: 0.3 },
    contrast: { left: 1, right: 1 },
    eyes: { left: eye, right: eye },
    crop: { picture: blob(), part: { x: 0, y: 0, width: 200, height: 90 } }
  }));
  const facts = { ...noFacts, focalLengthMm: row.setup.camera.focalLengthMm, ...more };
  return {
    ok: true,
    frame: {
      hash: hash(n),
      bytes: 10,
      width,
      height,
      preview: false,
      enlarged: false,
      facts,
      thumbnail: blob(),
      faces,
      sharpest: null
    }
  };
}

describe('pictures brought in', () => {
  it('are matched to their setup by time, lens and faces, everybody named; all of it is one step of undo', async () => {
    const { app } = opened;
    const clockMs = Date.UTC(2027, 5, 12, 14, 50);
    for (const n of [1, 2, 3]) answers[`a${n}.jpg`] = pictureOf('demo-family-steps', n, { clockMs: clockMs + n * 400 });
    await app.frames.add([file('a1.jpg'), file('a2.jpg'), file('a3.jpg')]);
    expect(app.frames.bringing.now).toMatchObject({ state: 'done', done: 3, refused: [] });
    const frames = app.frames.bySetup.get('demo-family-steps') ?? [];
    expect(frames).toHaveLength(3);
    for (const { frame } of frames)
      expect(new Set(frame.faces.map(({ personId }) => personId)).size).toBe(frame.faces.length);
    expect(bursts(frames.map(({ frame }) => frame))).toHaveLength(1);
    const [first] = frames;
    expect((await app.frames.picture(first?.id ?? ''))?.crops).toHaveLength(first?.frame.faces.length ?? -1);
    await app.step('undo');
    expect(app.frames.list).toHaveLength(0);
    await app.step('redo');
    expect(app.frames.list).toHaveLength(3);
  });

  it('that cannot be read are said one by one, the same twice is not kept twice, the rest goes on', async () => {
    const { app } = opened;
    answers['good.jpg'] = pictureOf('demo-west-door', 7);
    answers['again, renamed.jpg'] = pictureOf('demo-west-door', 7);
    answers['crash.jpg'] = new Error('The calculation stopped unexpectedly.');
    answers['last.jpg'] = pictureOf('demo-west-door', 8);
    await app.frames.add(
      ['good.jpg', 'again, renamed.jpg', 'notes.txt', 'crash.jpg', 'last.jpg'].map(file),
      'demo-west-door'
    );
    expect(app.frames.bringing.now?.again).toBe(1);
    expect(app.frames.bringing.now?.refused).toEqual([
      { file: 'notes.txt', reason: 'It is no picture.' },
      { file: 'crash.jpg', reason: 'The calculation stopped unexpectedly.' }
    ]);
    expect(app.frames.list.map(({ frame }) => frame.file.name)).toEqual(['good.jpg', 'last.jpg']);
  });

  it('take what their files do not say, many at once, in one step', async () => {
    const { app } = opened;
    for (const n of [1, 2]) answers[`${n}.jpg`] = pictureOf('demo-west-door', n, { focalLengthMm: null });
    answers['3.jpg'] = pictureOf('demo-west-door', 3, { focalLengthMm: 35 });
    await app.frames.add(['1.jpg', '2.jpg', '3.jpg'].map(file), 'demo-west-door');
    const said = () => app.frames.list.map(({ frame }) => frame.focalLengthMm);
    await app.frames.sayFacts(
      app.frames.list.map(({ id }) => id),
      { focalLengthMm: 85 }
    );
    expect(said()).toEqual([85, 85, 35]);
    await app.step('undo');
    expect(said()).toEqual([null, null, 35]);
  });

  it('follow the corrected clock of their body: matched anew and in its order, in one step; those put by hand stay', async () => {
    const { app } = opened;
    // Its clock is three hours ahead: by it, the picture was taken long after.
    const ahead = 3 * 3_600_000;
    const taken = Date.UTC(2027, 5, 12, 13, 45);
    const facts = { model: 'A', make: 'B', serial: '1', clockMs: taken + ahead };
    answers['a1.jpg'] = pictureOf('demo-west-door', 1, { ...facts, focalLengthMm: null });
    answers['a2.jpg'] = pictureOf('demo-west-door', 2, { ...facts, clockMs: taken + ahead + 500 });
    answers['b1.jpg'] = pictureOf('demo-west-door', 3, { ...facts, serial: '2', clockMs: taken });
    await app.frames.add([file('a1.jpg'), file('b1.jpg')]);
    await app.frames.add([file('a2.jpg')], 'demo-speeches');
    const of = (name: string) => app.frames.list.find(({ frame }) => frame.file.name === name)?.frame;
    const before = of('a1.jpg')?.setupId;
    expect(before).not.toBe('demo-west-door');
    const clock = clockKey({ body: 'B A', serial: '1' });
    await app.frames.setClock(clock, -ahead);
    expect(of('a1.jpg')?.setupId).toBe('demo-west-door');
    expect(of('a2.jpg')?.setupId).toBe('demo-speeches');
    const one = of('a1.jpg');
    expect(one && app.frames.timeOf(one)).toBe(taken);
    expect(app.open.job?.clocks).toEqual([{ body: clock, offsetMs: -ahead }]);
    await app.step('undo');
    expect(of('a1.jpg')?.setupId).toBe(before);
    expect(app.open.job?.clocks).toEqual([]);
  });

  it('cut off by a reload: the next page says which have not come, until they have or nobody wants them', async () => {
    const { app } = opened;
    for (const n of [1, 2, 3]) answers[`a${n}.jpg`] = pictureOf('demo-west-door', n);
    const all = ['a1.jpg', 'a2.jpg', 'a3.jpg'].map(file);
    await app.frames.add(all.slice(0, 1));
    void app.frames.add(all);
    app.frames.bringing.pause();
    const next = await opened.tab();
    await until(() => expect(next.frames.missing).toEqual(['a2.jpg', 'a3.jpg']));
    await next.frames.add(all.slice(0, 2));
    expect(next.frames.missing).toEqual(['a3.jpg']);
    await next.frames.add(all.slice(2));
    expect(next.frames.missing).toEqual([]);
    const third = await opened.tab();
    expect(third.frames.missing).toEqual([]);
    app.frames.bringing.stop();
  });

  it('wait while paused, take more that are dropped meanwhile, and stop where they are stopped', async () => {
    const { app } = opened;
    for (const n of [1, 2, 3, 4]) answers[`${n}.jpg`] = pictureOf('demo-west-door', n);
    const { bringing } = app.frames;
    const first = app.frames.add([file('1.jpg'), file('2.jpg')]);
    bringing.pause();
    const more = app.frames.add([file('3.jpg')]);
    expect(bringing.now).toMatchObject({ state: 'paused', total: 3, done: 0 });
    bringing.goOn();
    await Promise.all([first, more]);
    expect(bringing.now).toMatchObject({ state: 'done', total: 3, done: 3 });
    const last = app.frames.add([file('4.jpg')]);
    bringing.pause();
    bringing.stop();
    await last;
    expect(bringing.now?.state).toBe('stopped');
    expect(app.frames.list).toHaveLength(3);
  });

  it('stop where the disk is full: what came before is kept whole, nothing is kept by half', async () => {
    const { app, database } = opened;
    for (const n of [1, 2, 3, 4]) answers[`${n}.jpg`] = pictureOf('demo-west-door', n);
    let puts = 0;
    database.table('framePictures').hook('creating', () => {
      if (++puts > 2) throw new DOMException('No space left.', 'QuotaExceededError');
    });
    await app.frames.add(['1.jpg', '2.jpg', '3.jpg', '4.jpg'].map(file));
    expect(app.frames.bringing.now?.refused).toHaveLength(1);
    expect(asked).toEqual(['1.jpg', '2.jpg', '3.jpg']);
    expect(app.frames.list).toHaveLength(2);
    expect(await database.table('framePictures').count()).toBe(2);
  });

  it('take the rating of the sidecar they came with, and one that comes later; it is kept as it was', async () => {
    const { app } = opened;
    const xmp = (rating: number) => writeSidecar({ rating, label: 'theirs', measured: '' });
    answers['a.jpg'] = pictureOf('demo-west-door', 1);
    answers['b.jpg'] = pictureOf('demo-west-door', 2);
    await app.frames.add([
      file('a.jpg'),
      new File([xmp(3)], 'A.xmp'),
      file('b.jpg'),
      new File(['no xml <'], 'b.jpg.xmp')
    ]);
    const rated = () => app.frames.list.map(({ frame }) => [frame.file.name, frame.rating, frame.label]);
    expect(rated()).toEqual([
      ['a.jpg', 3, 'theirs'],
      ['b.jpg', null, null]
    ]);
    await app.frames.add([new File([xmp(-1)], 'b.xmp')]);
    expect(rated()[1]).toEqual(['b.jpg', -1, 'theirs']);
    expect((await app.frames.picture(app.frames.list[1]?.id ?? ''))?.sidecar).toBe(xmp(-1));
    await app.step('undo');
    expect(rated()[1]).toEqual(['b.jpg', null, null]);
  });

  it('are ringed, doubted and struck with a reason; the same again takes it back; undo too', async () => {
    const { app } = opened;
    answers['1.jpg'] = pictureOf('demo-west-door', 1);
    await app.frames.add([file('1.jpg')]);
    const id = app.frames.list[0]?.id ?? '';
    const now = () => app.frames.list[0]?.frame;
    app.frames.choose([id], 'reject', 'softEye');
    expect(now()).toMatchObject({ choice: 'reject', reason: 'softEye' });
    app.frames.choose([id], 'keep', 'softEye');
    expect(now()).toMatchObject({ choice: 'keep', reason: null });
    app.frames.choose([id], 'keep');
    expect(now()?.choice).toBeNull();
    await app.step('undo');
    expect(now()?.choice).toBe('keep');
  });

  it('keep the names somebody gave, whichever setup they are moved to', async () => {
    const { app } = opened;
    answers['1.jpg'] = pictureOf('demo-under-palms', 1);
    await app.frames.add([file('1.jpg')], 'demo-under-palms');
    const frame = () => app.frames.list[0]?.frame;
    const id = app.frames.list[0]?.id ?? '';
    const [a, b] = frame()?.faces ?? [];
    expect([a?.personId, b?.personId].sort()).toEqual(['ines', 'tobiah']);
    await app.frames.whose.name(id, a?.id ?? '', b?.personId ?? null);
    const whose = (face: FrameFace | undefined) => frame()?.faces.find((one) => one.id === face?.id)?.personId;
    expect(whose(a)).toBe(b?.personId);
    expect(whose(b)).toBeNull();
    await app.frames.moveTo([id], 'demo-family-steps');
    expect(frame()).toMatchObject({ setupId: 'demo-family-steps', setupByHand: true });
    expect(whose(a)).toBe(b?.personId);
  });

  it('are held against the sharpest frame of each eye once all are in; that is no step of undo', async () => {
    const { app } = opened;
    const [sharp, soft] = [0, 5].map((disc) => {
      const [eye] = renderedEyes();
      if (!eye) throw new Error('no eye');
      return packSpectrum(spectrumOf(degrade(eye, { disc }), eye.side), eye.side);
    });
    const withEyes = (n: number, spectrum = '', discPx = 0): PhotoResult => {
      const read = pictureOf('demo-west-door', n);
      if (!read.ok) throw new Error('not read');
      const eye = { ok: true as const, discPx, low: 0, high: discPx + 1, smear: null, spectrum };
      return {
        ok: true,
        frame: { ...read.frame, faces: read.frame.faces.map((face) => ({ ...face, eyes: { left: eye, right: eye } })) }
      };
    };
    answers['1.jpg'] = withEyes(1, sharp);
    answers['2.jpg'] = withEyes(2, soft, 3);
    await app.frames.add([file('1.jpg'), file('2.jpg')]);
    const own = () =>
      app.frames.list.flatMap(({ frame }) =>
        frame.faces.map(({ eyes: { left } }) => (left.ok ? left.own?.frame : null))
      );
    const [first] = app.frames.list;
    expect(own()).toEqual([undefined, first?.id]);
    await app.step('undo');
    expect(app.frames.list).toEqual([]);
    await app.step('redo');
    expect(own()).toEqual([undefined, first?.id]);
    // On another visit it is known.
    await app.store.flush();
    const later = await opened.tab();
    await until(() => {
      const [, second] = later.frames.list;
      const left = second?.frame.faces[0]?.eyes.left;
      expect(left?.ok ? left.own?.frame : null).toBe(first?.id);
    });
  });

  it('change names with each other, and whoever was not found is pointed at; undo takes each back', async () => {
    const { app } = opened;
    answers['1.jpg'] = pictureOf('demo-under-palms', 1);
    await app.frames.add([file('1.jpg')], 'demo-under-palms');
    const id = app.frames.list[0]?.id ?? '';
    const names = () => app.frames.list[0]?.frame.faces.map(({ personId }) => personId);
    const [a, b] = app.frames.list[0]?.frame.faces ?? [];
    const before = names();
    await app.frames.whose.swap(id, a?.id ?? '', b?.id ?? '');
    expect(names()).toEqual([before?.[1], before?.[0]]);
    await app.step('undo');
    expect(names()).toEqual(before);
    await app.frames.whose.name(id, a?.id ?? '', null);
    const missing = { id: before?.[0] ?? '', name: 'Ines', kind: 'eye', sizePx: 90, side: 'left' } as const;
    expect(await app.frames.whose.point(id, missing, { x: 10, y: 20 })).toBeNull();
    const pointed = app.frames.list[0]?.frame.faces.find((face) => face.pointed);
    expect(pointed).toMatchObject({ personId: before?.[0], left: { x: 10, y: 20 }, byHand: true, pointed: 'eye' });
    expect(points).toEqual([{ at: { x: 10, y: 20 }, kind: 'eye', sizePx: 90 }]);
    expect((await app.frames.picture(id))?.crops.map(({ faceId }) => faceId)).toContain(pointed?.id);
    app.frames.whose.unpoint(id, pointed?.id ?? '');
    expect(names()).toEqual([null, before?.[1]]);
  });

  it('are found again by what is in them, kept here where that is asked, and let go', async () => {
    const { app, database } = opened;
    const picture = file('1.jpg');
    const bytes = new Uint8Array(await crypto.subtle.digest('SHA-256', await picture.arrayBuffer()));
    const read = pictureOf('demo-west-door', 1);
    if (!read.ok) throw new Error('not read');
    const own = Array.from(bytes, (byte) => byte.toString(16).padStart(2, '0')).join('');
    answers['1.jpg'] = { ok: true, frame: { ...read.frame, hash: own, bytes: picture.size } };
    await app.frames.add([picture]);
    await app.store.flush();
    const [entry] = app.frames.list;
    if (!entry) throw new Error('no frame');
    const { originals } = app.frames;
    expect(await originals.find(entry.id, entry.frame)).toBe(picture);

    // Another visit has nothing at hand, takes no other picture for it, and keeps it once it is there.
    const later = await opened.tab();
    const again = later.frames.originals;
    expect(await again.find(entry.id, entry.frame)).toBeNull();
    expect(await again.keepHere(weddingId, [entry])).toBe(1);
    expect(await again.offer(entry.id, weddingId, entry.frame, new File(['y'], '1.jpg'))).toBe(false);
    expect(await again.offer(entry.id, weddingId, entry.frame, file('renamed.jpg'))).toBe(true);
    expect(await again.keepHere(weddingId, [entry])).toBe(0);
    expect(await again.keptHere(weddingId)).toEqual({ count: 1, bytes: 1 });
    expect(await (await opened.tab()).frames.originals.find(entry.id, entry.frame)).not.toBeNull();
    await again.letGo(weddingId);
    expect(await database.table('originals').count()).toBe(0);
  });

  it('go with their job when it is erased, and stay with it while it is only put away', async () => {
    const { app, database } = opened;
    answers['1.jpg'] = pictureOf('demo-west-door', 1);
    await app.frames.add([file('1.jpg')]);
    await app.store.flush();
    app.jobs.remove(weddingId);
    await app.store.flush();
    expect(await database.table('framePictures').count()).toBe(1);
    const [removed] = app.jobs.removed;
    if (!removed) throw new Error('not put away');
    await app.jobs.erase(removed);
    await until(async () => expect(await database.table('framePictures').count()).toBe(0));
    expect(await database.table('frames').count()).toBe(0);
  });
});
