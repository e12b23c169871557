import { describe, expect, it } from 'vitest';
import { newSetup } from '../setup/defaults';
import { builtInKit } from '../kit/builtInKit';
import { planSetup } from './planSetup';
import { defaultHabits } from '../habits/habits';
import type { Body, Lens } from '../kit/schema';
import { defaultCamera, newPerson } from '../setup/defaults';
import { approach, focusedForS, followSd, shakeDisc, stabiliserStops, steadiness, unfollowedS } from './motion';
import { holdSd, lowLightOf, focusSd, swayAfter, personSway, type Focusing } from './scatter';
import type { Person } from '../setup/schema';

const [main, second, steady] = builtInKit.bodies as [Body, Body, Body];

const focusing = (changes: Partial<Focusing> = {}): Focusing => ({
  method: 'crossPoint',
  stance: 'standing',
  widestN: 1.8,
  body: main,
  lowLight: 1,
  ...changes
});
const behind = (changes: Partial<Focusing> = {}) => focusSd(defaultHabits, focusing(changes));

describe('where the plane of focus lands', () => {
  it('spreads by 10 µm behind the lens with autofocus, whatever the lens, twice that on lesser points', () => {
    for (const widestN of [1.2, 1.8, 5.6]) expect(behind({ widestN })).toBeCloseTo(0.01, 12);
    expect(behind({ method: 'ordinaryPoint' })).toBeCloseTo(0.02, 12);
    // A smaller format's lens and sensor are as much finer.
    expect(behind({ body: second })).toBeCloseTo((0.01 * 28.207) / 43.267, 6);
    // A body's own figure takes its place.
    expect(behind({ body: { ...main, focusSpreadUm: 6 } })).toBeCloseTo(0.006, 12);
    expect(behind({ body: { ...main, focusSpreadUm: 6 }, method: 'ordinaryPoint' })).toBeCloseTo(0.012, 12);
  });

  it('by hand is a share of the depth of focus wide open: a quarter magnified, a tenth on a tripod, half as much again by eye', () => {
    const depth = 1.8 * 0.03;
    expect(behind({ method: 'magnifier' })).toBeCloseTo(depth / 4, 12);
    expect(behind({ method: 'magnifier', stance: 'tripod' })).toBeCloseTo(depth / 10, 12);
    expect(behind({ method: 'byEye' })).toBeCloseTo(depth * 1.5, 12);
    // A smaller format's disc is smaller in proportion; low light and the body's own spread have no say.
    expect(behind({ method: 'byEye', body: second }) / behind({ method: 'byEye' })).toBeCloseTo(28.207 / 43.267, 4);
    expect(behind({ method: 'byEye', lowLight: 3, body: { ...main, focusSpreadUm: 6 } })).toBe(
      behind({ method: 'byEye' })
    );
  });

  it('grows under EV 2 in a straight line to the light the body is rated for', () => {
    const at = (ev: number | null, focusLimitEv = -4) => lowLightOf(defaultHabits, { focusLimitEv }, ev);
    expect([at(null), at(15), at(2)]).toEqual([1, 1, 1]);
    expect(at(-4)).toBeCloseTo(3, 12);
    expect(at(-1)).toBeCloseTo(2, 12);
    expect(at(-1, -1)).toBeCloseTo(3, 12);
    expect(behind({ lowLight: at(-1) })).toBeCloseTo(0.02, 12);
  });

  it('drifts with the hands by the square root of the time, until sway grows no more', () => {
    const hold = (seconds: number) => holdSd(defaultHabits, 'standing', seconds);
    expect(hold(1)).toBe(5);
    expect(hold(0.25)).toBeCloseTo(2.5, 9);
    expect(hold(3)).toBeCloseTo(5 * Math.sqrt(3), 9);
    expect(hold(60)).toBe(hold(3));
    expect(holdSd(defaultHabits, 'tripod', 1)).toBe(0.3);
  });

  it('is left behind by who approaches: by the whole time, or, followed, by its lag alone', () => {
    const walker = newPerson('w', 'W', { towardsMmPerS: 1200 });
    const camera = { ...defaultCamera, secondsToShutter: 0.5 };
    expect(approach(defaultHabits, walker, { ...camera, focusMode: 'single' })).toBeCloseTo(600, 9);
    expect(approach(defaultHabits, walker, { ...camera, focusMode: 'continuous' })).toBeCloseTo(24, 9);
  });

  it('varies where a body follows somebody, and only there', () => {
    const walker = newPerson('w', 'W', { towardsMmPerS: -1200 });
    expect(followSd(defaultHabits, walker, { ...defaultCamera, focusMode: 'continuous' })).toBeCloseTo(36, 9);
    expect(followSd(defaultHabits, walker, { ...defaultCamera, focusMode: 'single' })).toBe(0);
    const byHand = { ...defaultCamera, focusMode: 'continuous', focusMethod: 'magnifier' } as const;
    expect(followSd(defaultHabits, walker, byHand)).toBe(0);
    expect(followSd(defaultHabits, newPerson('p', 'P'), { ...defaultCamera, focusMode: 'continuous' })).toBe(0);
  });

  it('goes on for longer where one comes back from a magnified view, or turns', () => {
    const camera = { ...defaultCamera, secondsToShutter: 0.5 };
    expect(focusedForS(defaultHabits, camera)).toBe(0.5);
    expect(focusedForS(defaultHabits, { ...camera, focusMethod: 'magnifier' })).toBe(2);
    expect(focusedForS(defaultHabits, { ...camera, recompose: 'wrists' })).toBe(1);
    // Focused by hand nothing is turned for.
    expect(focusedForS(defaultHabits, { ...camera, focusMethod: 'byEye', recompose: 'wrists' })).toBe(0.5);
    expect(unfollowedS(defaultHabits, { ...camera, focusMethod: 'magnifier', focusMode: 'continuous' }, true)).toBe(2);
  });
});

describe('sway', () => {
  it('is their own where it is known, else by what they are and how they stand', () => {
    const of = (changes: Parameters<typeof newPerson>[2]) => personSway(defaultHabits, newPerson('p', 'P', changes));
    expect(of({})).toBe(3.5);
    expect(of({ posture: 'seated' })).toBe(2);
    expect(of({ being: 'child', posture: 'seated' })).toBe(14);
    expect(of({ being: 'baby' })).toBe(14);
    expect(of({ being: 'pet' })).toBe(14);
    expect(of({ being: 'pet', swayMm: 0 })).toBe(0);
    expect(of({ swayMm: 12.5 })).toBe(12.5);
    expect(of({ mood: 'restless' })).toBeCloseTo(3.5 * 2.5, 9);
    expect(of({ being: 'child', mood: 'lively' })).toBe(140);
  });

  it('comes to what is seen of people: 2 to 3 mm at half a second, 6 to 8 at three (from memory)', () => {
    const after = (seconds: number) =>
      swayAfter(defaultHabits, personSway(defaultHabits, newPerson('p', 'P')), seconds);
    expect(after(0.5)).toBeGreaterThan(2);
    expect(after(0.5)).toBeLessThan(3);
    expect(after(3)).toBeGreaterThan(6);
    expect(after(3)).toBeLessThan(8);
    expect(after(100)).toBe(after(3));
    expect(after(0)).toBe(0);
    const child = (mood: Person['mood'], seconds: number) =>
      swayAfter(defaultHabits, personSway(defaultHabits, newPerson('c', 'C', { being: 'child', mood })), seconds);
    expect(child('still', 0.5)).toBeCloseTo(9.9, 1);
    // Playing, 50 to 250 mm in half a second.
    expect(child('lively', 0.5)).toBeGreaterThan(50);
    expect(child('lively', 0.5)).toBeLessThan(250);
  });

  it('by the distance scale lands within a share of the distance, whatever the lens', () => {
    const spreadAt = (distanceMm: number) => {
      const base = newSetup('s', 'S');
      const camera = { ...base.camera, focusMethod: 'scale', placement: { kind: 'distance', distanceMm } } as const;
      const plan = planSetup({ setup: { ...base, camera }, kit: builtInKit, stopStep: 'full', habits: defaultHabits });
      return plan.kind === 'plan'
        ? (plan.stops[0]?.scatter.focusMm ?? 0) / (plan.stops[0]?.target.focusDistanceMm ?? 1)
        : 0;
    };
    expect(spreadAt(2000)).toBeCloseTo(0.07, 9);
    expect(spreadAt(9000)).toBeCloseTo(0.07, 9);
  });

  it('shrinks in continuous focusing, which follows it', () => {
    const single = { ...defaultCamera, focusMode: 'single', secondsToShutter: 0.5 } as const;
    expect(unfollowedS(defaultHabits, single, true)).toBe(0.5);
    // It is no better on those who keep still.
    expect(unfollowedS(defaultHabits, { ...single, focusMode: 'continuous' }, false)).toBe(0.5);
    expect(unfollowedS(defaultHabits, { ...single, focusMode: 'continuous' }, true)).toBe(0.02);
    // A body that switches by itself does so where somebody moves, and later.
    expect(unfollowedS(defaultHabits, { ...single, focusMode: 'automatic' }, false)).toBe(0.5);
    expect(unfollowedS(defaultHabits, { ...single, focusMode: 'automatic' }, true)).toBe(0.15);
  });
});

describe('camera shake', () => {
  it('is taken by the better stabiliser of body and lens', () => {
    const lens = builtInKit.lenses[0] as Lens;
    // What is rated, less one and a half.
    expect(stabiliserStops(defaultHabits, main, lens)).toBe(3.5);
    expect(stabiliserStops(defaultHabits, steady, { ...lens, stabiliserStops: 3 })).toBe(1.5);
    expect(stabiliserStops(defaultHabits, main, { ...lens, stabiliserStops: 6 })).toBe(4.5);
    expect(stabiliserStops(defaultHabits, steady, lens)).toBe(0);
  });

  it('at 1/focal length, by hand and without stabiliser, is 0.5 to 0.8 of the customary disc (from memory)', () => {
    const camera = { ...defaultCamera, focalLengthMm: 200 };
    const at = (stops: number, shutterS: number, stance = camera.stance) =>
      shakeDisc(defaultHabits, { ...camera, stance }, stops, shutterS) / 0.03;
    expect(at(0, 1 / 200)).toBeGreaterThan(0.5);
    expect(at(0, 1 / 200)).toBeLessThan(0.8);
    expect(at(0, 1 / 50)).toBeCloseTo(4 * at(0, 1 / 200), 12);
    expect(at(5, 1 / 200)).toBeCloseTo(at(0, 1 / 200) / 32, 12);
    expect(at(0, 1 / 200, 'tripod')).toBe(0);
    expect(steadiness(defaultHabits, { ...camera, stance: 'braced' }, 2)).toBeCloseTo((0.65 / 0.4) * 4, 9);
    expect(steadiness(defaultHabits, camera, 0)).toBe(1);
  });
});
