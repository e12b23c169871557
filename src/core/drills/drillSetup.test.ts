import { describe, expect, it } from 'vitest';
import { defaultHabits } from '../habits/habits';
import { builtInKit } from '../kit/builtInKit';
import { blurDiscDiameter } from '../optics/blur';
import { isSameStop } from '../optics/stops';
import { arrangedFor, drillOf } from './kinds';
import { type DrillStep } from './series/steps';
import { expectedFrame } from './drillSetup';
import type { DrillId } from './kinds/ids';

const body = builtInKit.bodies[0];
const lens = builtInKit.lenses.find(({ longestMm, shortestMm }) => longestMm === 85 && shortestMm === 85);
if (!body || !lens) throw new Error('The kit has both.');
const kit = { body, lens, focalLengthMm: 85, habits: defaultHabits, stance: 'standing', stabiliserStops: 0 } as const;
const inHand = { focalLengthMm: 85, widestFNumber: lens.widestFNumber, smallestFNumber: 16, closestMm: 800 };
const arrangedOf = (drill: DrillId) => arrangedFor(drill, { ...inHand, discMm: 0.03, stabilised: true });
const frames = (drill: DrillId) => {
  const arranged = arrangedOf(drill);
  if (!arranged) throw new Error('It has things.');
  return arranged.steps.map((step) => {
    const expected = expectedFrame(drillOf(drill)?.frames?.shows ?? 'objects', arranged, step, kit);
    if (!expected) throw new Error(`No plan for ${step.id}`);
    return { arranged, step, ...expected };
  });
};
const planesOf = (drill: DrillId) =>
  Object.fromEntries(frames(drill).map(({ step, planeMm }) => [step.id, planeMm] as const));

describe('what a step must look like', () => {
  it('is a plan at the stop of the step, with every step of every drill of frames', () => {
    for (const drill of ['stopLadder', 'diagonal', 'eyeNose', 'edges', 'sway', 'steady'] as const)
      for (const { step, plan } of frames(drill))
        expect(isSameStop(plan.stops[plan.selected]?.stop.fNumber ?? 0, step.fNumber), `${drill} ${step.id}`).toBe(
          true
        );
  });

  it('has its plane on the thing focused on, as far behind the first as it stands', () => {
    const [first] = frames('diagonal');
    const planes = planesOf('diagonal');
    const apart = first?.arranged.spacingMm ?? 0;
    expect((planes['focus1'] ?? 0) - (planes['focus0'] ?? 0)).toBeCloseTo(apart, 6);
    expect((planes['focus2'] ?? 0) - (planes['focus0'] ?? 0)).toBeCloseTo(2 * apart, 6);
    // Focused on the first, the third is blurred as the closed form says.
    const [, , third] = first?.plan.subjects ?? [];
    const depth = third?.points[0]?.depth ?? 0;
    const drawn = first?.plan.stops[first.plan.selected];
    expect(blurDiscDiameter(85, drawn?.stop.fNumber ?? 1, drawn?.drawnFocusMm ?? 0, depth)).toBeGreaterThan(0.1);
    expect(drawn?.drawnFocusMm).toBe(first?.planeMm);
  });

  it('has the nose before the eye by what faces have', () => {
    const planes = planesOf('eyeNose');
    for (const at of [0, 1, 2]) {
      const apart = (planes[`from${at}on0`] ?? 0) - (planes[`from${at}on1`] ?? 0);
      // 30 mm before the corneas, the head turned by 20°: by hand 30 cos 20° less 31.5 sin 20° for the nearer eye.
      expect(apart).toBeCloseTo(30 * Math.cos(Math.PI / 9) - 31.5 * Math.sin(Math.PI / 9), 0);
    }
  });

  it('has the plane behind by turning, further by leaning, and a track only where time is tried', () => {
    const planes = planesOf('edges');
    const straight = planes['straight1'] ?? 0;
    const turned = (planes['turnleft'] ?? 0) - straight;
    expect(turned).toBeGreaterThan(5);
    expect((planes['leanleft'] ?? 0) - straight).toBeCloseTo(turned + defaultHabits.leanMm, 6);
    // Upright the longer side is up.
    expect((planes['turnUprighttop'] ?? 0) - straight).toBeCloseTo(turned, 6);
    const tracks = frames('steady').map(({ step, trackMm }) => trackMm / ((step.shutterS ?? 1) * 85));
    expect(Math.max(...tracks) / Math.min(...tracks)).toBeCloseTo(1, 9);
    expect(Math.min(...tracks)).toBeGreaterThan(0);
    expect(frames('diagonal').every(({ trackMm }) => trackMm === 0)).toBe(true);
  });

  it('is nothing where the lens has no such stop', () => {
    const arranged = arrangedOf('diagonal');
    const [step] = arranged?.steps ?? [];
    if (!arranged || !step) throw new Error('It has steps.');
    const wider: DrillStep = { ...step, fNumber: 0.7 };
    expect(expectedFrame('objects', arranged, wider, kit)).toBeNull();
  });
});
