/** What is laid out before any stop is asked: who is before the lens, in the picture and in reach, and what the lens is. */
import { describe, expect, it } from 'vitest';
import { builtInKit } from '../kit/builtInKit';
import { newLens } from '../kit/defaults';
import type { Kit } from '../kit/schema';
import { defaultHabits } from '../habits/habits';
import { sensorDiagonal } from '../optics/criterion';
import { newBackground, newPerson, newSetup, newThing } from '../setup/defaults';
import type { Camera, Setup } from '../setup/schema';
import { stretchAt } from '../setup/stretch';
import { eyesMidpoint } from '../setup/scene';
import { prepare } from './planSetup';
import type { Situation } from './situation';

const distanceMm = 3000;
function laid(changes: Partial<Setup>, camera: Partial<Camera> = {}, kit: Kit = builtInKit) {
  const base = newSetup('s', 'S', { backgrounds: [], ...changes });
  const setup: Setup = {
    ...base,
    camera: {
      ...base.camera,
      lensId: 'lens-50',
      focalLengthMm: 50,
      placement: { kind: 'distance', distanceMm },
      ...camera
    }
  };
  return prepare({ setup, kit, habits: defaultHabits, stopStep: 'full' });
}
function situation(...of: Parameters<typeof laid>): Situation {
  const prepared = laid(...of);
  if (prepared.kind === 'noPlan') throw new Error(prepared.reason.code);
  return prepared;
}
const reason = (...of: Parameters<typeof laid>) => {
  const prepared = laid(...of);
  return prepared.kind === 'noPlan' ? prepared.reason : null;
};
const ada = newPerson('ada', 'Ada');

describe('before the lens', () => {
  /** Its front lies so far from the lens; and its back, where it is deep. */
  const thing = (fromLensMm: number, deepMm = 0, importance: 'must' | 'maySoft' = 'must') =>
    newThing('t', 'tray', { depthMm: fromLensMm + deepMm / 2 - distanceMm, deepMm, importance, heightMm: 1570 });

  it('is what lies further than 50 mm from it, with all its points', () => {
    expect(reason({ people: [ada], things: [thing(50)] })).toEqual({ code: 'behindCamera', name: 'tray' });
    expect(reason({ people: [ada], things: [thing(40, 60)] })).toEqual({ code: 'behindCamera', name: 'tray' });
    expect(situation({ people: [ada], things: [thing(51)] }).subjects.map(({ id }) => id)).toEqual(['ada', 't']);
  });

  it('nobody need be who may be soft: they are left out', () => {
    for (const at of [50, -400])
      expect(situation({ people: [ada], things: [thing(at, 0, 'maySoft')] }).subjects.map(({ id }) => id)).toEqual([
        'ada'
      ]);
    expect(reason({ people: [], things: [thing(-400, 0, 'maySoft')] })).toEqual({ code: 'nothingRequired' });
  });

  it('nobody is any more who runs into the lens before the shutter opens', () => {
    const running = { towardsMmPerS: 2000 };
    const camera = { secondsToShutter: 1.5, focusMode: 'single' } as const;
    expect(reason({ people: [newPerson('r', 'Rio', running), ada] }, camera)).toEqual({
      code: 'behindCamera',
      name: 'Rio'
    });
    expect(reason({ people: [newPerson('r', 'Rio', running)] }, { ...camera, secondsToShutter: 0.5 })).toBeNull();
  });
});

describe('in reach', () => {
  it('is nobody nearer than the lens focuses: the furthest of them is named', () => {
    const near = { placement: { kind: 'distance', distanceMm: 200 } } as const;
    const found = reason({ people: [ada, newPerson('bo', 'Bo', { depthMm: 60, lateralMm: 15 })] }, near);
    if (found?.code !== 'tooClose') throw new Error('not too close');
    const lens = builtInKit.lenses.find(({ id }) => id === 'lens-50');
    // From the sensor to the pupil there are the focal length and the extension between.
    expect(found.closestFocusMm).toBeGreaterThan((lens?.closestFocusMm ?? 0) - 120);
    expect(found.closestFocusMm).toBeLessThan(lens?.closestFocusMm ?? 0);
    // Both eyes of two people who look at the lens, each at the depth of their midpoint.
    expect(found.nearestMm).toBeCloseTo(260, -1);
  });

  it('is nothing within the focal length itself, as the pupil counts it', () => {
    const kit = {
      ...builtInKit,
      lenses: [newLens('odd', 'odd', { shortestMm: 50, longestMm: 50, closestFocusMm: 10 })]
    };
    for (const pupilMagnification of [0.5, 1]) {
      const lenses = kit.lenses.map((lens) => ({ ...lens, pupilMagnification }));
      const { closest } = situation({ people: [ada] }, { lensId: 'odd' }, { ...kit, lenses });
      // Closest focus as makers write it cannot be: at the least, object and image lie as far apart as they ever do at 1:1.
      expect(closest).toBeCloseTo(50 + 50 / pupilMagnification, 9);
    }
  });
});

describe('the picture', () => {
  it('has somebody whose eyes it shows, and a thing of which it shows any part', () => {
    const half = (3000 * 36) / 50 / 2 - 30;
    const out = situation({
      people: [ada, newPerson('in', 'In', { lateralMm: half - 60 }), newPerson('out', 'Out', { lateralMm: half + 60 })],
      things: [
        newThing('deep', 'shelf', {
          lateralMm: half + 40,
          depthMm: 0,
          deepMm: 1200,
          heightMm: 1570,
          importance: 'should'
        })
      ]
    });
    // The shelf's far end is in, its near one is not.
    expect(out.outOfFrame).toEqual(['out']);
    const must = newPerson('aside', 'Aside', { lateralMm: 4000, importance: 'maySoft' });
    expect(situation({ people: [ada, must] }).outOfFrame).toEqual([]);
  });

  it('names whose head a wide lens draws longest, from 12% on', () => {
    const wide = { lensId: 'lens-24-70', focalLengthMm: 24 };
    const people = [
      newPerson('m', 'M'),
      newPerson('a', 'A', { lateralMm: -1300 }),
      newPerson('b', 'B', { lateralMm: 1900 })
    ];
    const found = situation({ people }, wide);
    const factor = (id: string) => {
      const person = people.find((item) => item.id === id);
      return person ? stretchAt(found.view, eyesMidpoint(person)) : 0;
    };
    expect(factor('b')).toBeGreaterThan(factor('a'));
    expect(found.stretched()).toEqual({ subjectId: 'b', factor: factor('b') });
    expect(situation({ people: people.slice(0, 1) }, wide).stretched()).toBeNull();
    expect(situation({ people: [], things: [newThing('t', 'T', { lateralMm: 1900 })] }, wide).stretched()).toBeNull();
  });

  it('in a crop mode is drawn by the whole lens: its edge stays where it is', () => {
    const bodies = builtInKit.bodies.map((item) => ({
      ...item,
      cropModes: [{ name: 'small', factor: 1.5 }]
    }));
    // Not the first of the kit.
    const kit: Kit = { ...builtInKit, bodies: [...bodies].reverse() };
    const body = bodies.find(({ id }) => id === 'body-main');
    if (!body) throw new Error('no body');
    const people = [newPerson('a', 'A', { lateralMm: 400 })];
    const [whole, cropped] = [situation({ people }, {}, kit), situation({ people }, { cropMode: 'small' }, kit)];
    expect(cropped.picture.width).toBeLessThan(whole.picture.width);
    for (const of of [whole, cropped]) expect(of.sharpness.formatDiagonalMm).toBe(sensorDiagonal(body.sensor));
    expect(cropped.imageHeights.get('a')).toBeCloseTo(whole.imageHeights.get('a') ?? 0, 9);
    // As far off the axis as 400 of 3000 mm is with a 50, of half the diagonal.
    const off = (Math.hypot(400, 0) * (50 / (3000 - 50))) / (sensorDiagonal(body.sensor) / 2);
    expect(whole.imageHeights.get('a')).toBeCloseTo(off, 1);
  });

  it('whose frames are stitched has everybody on the axis', () => {
    const stitch = { columns: 2, rows: 1, overlap: 0.3 };
    const people = [newPerson('a', 'A', { lateralMm: 400 })];
    expect(situation({ people }, { stitch }).imageHeights.size).toBe(0);
    expect(situation({ people }).imageHeights.size).toBe(1);
  });

  it('hides who stands behind somebody, and says nothing of who may', () => {
    const before = newPerson('f', 'Front', { depthMm: -800, statureMm: 1900 });
    const behind = (importance: 'must' | 'maySoft') => [
      before,
      newPerson('b', 'Back', { importance, statureMm: 1600 })
    ];
    expect(situation({ people: behind('must') }).hidden()).toEqual(['b']);
    expect(situation({ people: behind('maySoft') }).hidden()).toEqual([]);
  });

  it('has the backgrounds as they are wished, from the lens', () => {
    const wall = newBackground('w', 'wall', { depthMm: 1500, wish: 'hint', detailMm: 70 });
    expect(situation({ people: [ada], backgrounds: [wall] }).backgrounds).toEqual([
      { id: 'w', name: 'wall', wish: 'hint', detailMm: 70, depthMm: 4500 }
    ]);
  });
});

describe('two frames', () => {
  it('part a group where the deeper of the two is the shallowest, seen from the lens', () => {
    const at = (...depths: readonly number[]) =>
      depths.map((depthMm, index) =>
        newPerson(`p${index}`, 'P', { depthMm, lateralMm: index * 100 - 150, sharp: 'nearEye' })
      );
    const groups = (...depths: readonly number[]) => {
      const base = newSetup('s', 'S');
      return situation({ people: at(...depths), intent: { ...base.intent, frames: 'two' } }).groups.map(({ members }) =>
        members.map(({ subject }) => subject.id).sort()
      );
    };
    expect(groups(0, 100, 900, 1000)).toEqual([['p0', 'p1'], ['p2', 'p3']]); // prettier-ignore
    expect(groups(1000, 0, 950, 900)).toEqual([['p1'], ['p0', 'p2', 'p3']]); // prettier-ignore
    // Near the lens the same depth is more.
    expect(groups(-2000, -1500, -900, 3000)).toEqual([['p0', 'p1'], ['p2', 'p3']]); // prettier-ignore
    expect(groups(0)).toEqual([['p0']]);
  });
});
