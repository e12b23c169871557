import { describe, expect, it } from 'vitest';
import { defaultHabits } from '../habits/habits';
import { builtInKit } from '../kit/builtInKit';
import type { Body, Lens } from '../kit/schema';
import { defaultCamera, newPerson } from '../setup/defaults';
import { approach, shakeDisc, stabiliserStops } from './motion';
import { autofocusSpread, holdSpread, swayOf } from './spread';

const [main, second, steady] = builtInKit.bodies as [Body, Body, Body];

describe('where the plane of focus lands', () => {
  it('spreads by the method’s share of the depth of focus wide open, κ N C/m²', () => {
    // A cross point holds a sixth of f/1.8 × 0.030 mm on the sensor, which at m = 0.05 is 400 times that in front of it.
    expect(autofocusSpread(defaultHabits, 'crossPoint', 1.8, main, 0.05)).toBeCloseTo((1.8 * 0.03 * 400) / 6, 9);
    const byEye = autofocusSpread(defaultHabits, 'byEye', 1.8, main, 0.05);
    expect(byEye).toBeCloseTo(6 * autofocusSpread(defaultHabits, 'crossPoint', 1.8, main, 0.05), 9);
    // A smaller format's disc is smaller in proportion.
    expect(autofocusSpread(defaultHabits, 'byEye', 1.8, second, 0.05) / byEye).toBeCloseTo(28.207 / 43.267, 4);
  });

  it('is the body’s own where that is known, in µm behind the lens, whatever the lens', () => {
    const known = { ...main, focusSpreadUm: 10 };
    for (const widestN of [1.4, 4]) {
      expect(autofocusSpread(defaultHabits, 'crossPoint', widestN, known, 0.05)).toBeCloseTo(0.01 * 400, 9);
      // A lesser point is twice as wide, as the habits have it; by hand the body has no say.
      expect(autofocusSpread(defaultHabits, 'ordinaryPoint', widestN, known, 0.05)).toBeCloseTo(0.02 * 400, 9);
      expect(autofocusSpread(defaultHabits, 'byEye', widestN, known, 0.05)).toBe(
        autofocusSpread(defaultHabits, 'byEye', widestN, main, 0.05)
      );
    }
  });

  it('drifts with the hands by the square root of the time, until sway grows no more', () => {
    const hold = (seconds: number) => holdSpread(defaultHabits, 'standing', seconds);
    expect(hold(1)).toBe(8);
    expect(hold(0.25)).toBeCloseTo(4, 9);
    expect(hold(3)).toBeCloseTo(8 * Math.sqrt(3), 9);
    expect(hold(60)).toBe(hold(3));
    expect(holdSpread(defaultHabits, 'tripod', 1)).toBe(0.5);
  });

  it('is left behind by who approaches: by the whole time, or, followed, by its lag alone', () => {
    const walker = newPerson('w', 'W', { towardsMmPerS: 1200 });
    const camera = { ...defaultCamera, secondsToShutter: 0.5 };
    expect(approach(defaultHabits, walker, { ...camera, focusMode: 'single' })).toBeCloseTo(600, 9);
    expect(approach(defaultHabits, walker, { ...camera, focusMode: 'continuous' })).toBeCloseTo(60, 9);
  });
});

describe('sway', () => {
  it('is their own where it is known, else by what they are and how they stand', () => {
    const of = (changes: Parameters<typeof newPerson>[2]) => swayOf(defaultHabits, newPerson('p', 'P', changes));
    expect(of({})).toBe(5);
    expect(of({ posture: 'seated' })).toBe(3);
    expect(of({ being: 'child', posture: 'seated' })).toBe(20);
    expect(of({ being: 'baby' })).toBe(20);
    expect(of({ being: 'pet' })).toBe(25);
    expect(of({ being: 'pet', swayMm: 0 })).toBe(0);
    expect(of({ swayMm: 12.5 })).toBe(12.5);
  });
});

describe('camera shake', () => {
  it('is taken by the better stabiliser of body and lens', () => {
    const lens = builtInKit.lenses[0] as Lens;
    expect(stabiliserStops(main, lens)).toBe(5);
    expect(stabiliserStops(steady, { ...lens, stabiliserStops: 3 })).toBe(3);
    expect(stabiliserStops(main, { ...lens, stabiliserStops: 6 })).toBe(6);
  });

  it('at 1/focal length just reaches the customary disc, by hand and without stabiliser (common practice, no source)', () => {
    const camera = { ...defaultCamera, focalLengthMm: 200 };
    expect(shakeDisc(defaultHabits, camera, 0, 1 / 200)).toBeCloseTo(0.03, 12);
    expect(shakeDisc(defaultHabits, camera, 0, 1 / 50)).toBeCloseTo(0.12, 12);
    // Five stops of stabiliser leave a thirty-second part, a tripod nothing.
    expect(shakeDisc(defaultHabits, camera, 5, 1 / 200)).toBeCloseTo(0.03 / 32, 12);
    expect(shakeDisc(defaultHabits, { ...camera, stance: 'braced' }, 0, 1 / 200)).toBeCloseTo(0.015, 12);
    expect(shakeDisc(defaultHabits, { ...camera, stance: 'tripod' }, 0, 1 / 50)).toBe(0);
  });
});
