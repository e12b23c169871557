import { describe, expect, it } from 'vitest';
import { builtInKit } from '../kit/builtInKit';
import { newPerson, newSetup } from '../setup/defaults';
import { equivalentLens, pictureSize, stitchFactor } from '../setup/framing';
import type { Body } from '../kit/schema';
import type { Camera, Setup } from '../setup/schema';
import { defaultHabits } from '../habits/habits';
import { recomposeBias } from './motion';
import { framesForBlinks } from './odds';
import { planSetup } from './planSetup';

const main = builtInKit.bodies[0] as Body;
const withCamera = (setup: Setup, camera: Partial<Camera>): Setup => ({
  ...setup,
  camera: { ...setup.camera, ...camera }
});
const plan = (setup: Setup) => {
  const result = planSetup({ setup, kit: builtInKit, stopStep: 'full', habits: defaultHabits });
  if (result.kind !== 'plan') throw new Error(result.reason.code);
  return result;
};

describe('recomposing', () => {
  it('puts the plane 55.2 mm behind after 15° at 1.5 m from the wrists (closed form)', () => {
    expect(recomposeBias(1500, (15 * Math.PI) / 180, defaultHabits.pivotMm.wrists)).toBeCloseTo(55.2, 1);
  });

  it('is exact: turning a plane at the target back by θ about a point behind the pupil', () => {
    // The pupil stands r before the pivot; focused at s along the turned axis, then turned back by θ.
    const [s, r, angle] = [1500, 250, 0.3];
    const axisBefore = { x: Math.sin(angle), z: Math.cos(angle) };
    const target = { x: axisBefore.x * (s + r), z: axisBefore.z * (s + r) };
    const planeAfter = r + s;
    expect(recomposeBias(s, angle, r)).toBeCloseTo(planeAfter - target.z, 9);
  });

  it('costs more from the waist than from the wrists, and nothing when the point is moved', () => {
    const aside = newSetup('s', 'S', { people: [newPerson('a', 'A', { lateralMm: 450 })], backgrounds: [] });
    const odds = (recompose: Camera['recompose']) => plan(withCamera(aside, { recompose })).stops[0]?.odds ?? 0;
    expect(odds('none')).toBeGreaterThan(odds('wrists'));
    expect(odds('wrists')).toBeGreaterThan(odds('waist'));
  });
});

describe('stitched view', () => {
  it('of 3 × 3 upright frames with an 85 f/1.4 and 30 % overlap is like a 33 mm f/0.55 (closed form)', () => {
    const camera: Camera = {
      ...newSetup('s', 'S').camera,
      orientation: 'portrait',
      stitch: { columns: 3, rows: 3, overlap: 0.3 }
    };
    const { focalLengthMm, fNumber } = equivalentLens(main, camera, 1.4);
    expect(focalLengthMm).toBeCloseTo(33.3, 1);
    expect(fNumber).toBeCloseTo(0.55, 2);
  });

  it('of one frame is one frame', () => {
    const camera: Camera = { ...newSetup('s', 'S').camera, stitch: { columns: 1, rows: 1, overlap: 0.3 } };
    expect(stitchFactor(main, camera)).toBeCloseTo(1, 9);
    expect(pictureSize(main, camera).width).toBeCloseTo(36, 9);
  });

  it('bears a wider stop for the same faces, since the picture is enlarged less', () => {
    const base = withCamera(
      newSetup('s', 'S', { backgrounds: [], people: [newPerson('a', 'A', { headYawDeg: 40 })] }),
      {
        placement: { kind: 'distance', distanceMm: 3000 }
      }
    );
    const wide = plan(withCamera(base, { stitch: { columns: 3, rows: 2, overlap: 0.3 } }));
    expect(wide.permissibleDiscMm).toBeGreaterThan(plan(base).permissibleDiscMm * 1.5);
    expect(wide.stitched?.focalLengthMm ?? 0).toBeLessThan(60);
  });
});

describe('two frames combined', () => {
  it('hold people too deep for one, each focused in its own frame', () => {
    const deep = newSetup('s', 'S', {
      backgrounds: [],
      people: [newPerson('a', 'A'), newPerson('b', 'B', { depthMm: 2500, lateralMm: 300 })]
    });
    const one = plan(deep);
    const two = plan({ ...deep, intent: { ...deep.intent, frames: 'two' } });
    expect(one.window).toBeNull();
    expect(two.window).not.toBeNull();
    const entry = two.stops[two.recommended];
    expect(entry?.target.subjectId).toBe('a');
    expect(entry?.secondTarget?.subjectId).toBe('b');
  });
});

describe('blinks', () => {
  it('want people/3 frames in good light and people/2 in poor light (Svenson and Barnes 2006)', () => {
    expect([framesForBlinks(14, false), framesForBlinks(14, true), framesForBlinks(1, false)]).toEqual([5, 7, 1]);
  });
});
