import { describe, expect, it } from 'vitest';
import { seededNormal } from '../testing/random';
import { runs } from '../testing/runs';
import { ownFocus, stopShiftAt } from '../call/scatter';
import { defaultHabits } from '../habits/habits';
import { newLens } from '../kit/defaults';
import { withOwnFocus } from '../record/groups';
import { figuresOf, focusResult, focusSets, leastShots } from './focusTest';
import type { FocusShot } from './schema';

const shot = (offsetUm: number, changes: Partial<FocusShot> = {}): FocusShot => ({
  file: 'a.jpg',
  takenMs: 0,
  from: 'near',
  distanceMm: 2000,
  offsetMm: offsetUm / 2,
  sdMm: 0.5,
  offsetUm,
  sdUm: 1,
  ...changes
});
const normal = seededNormal(15);
const series = (bias: number, spread: number, count = 12): FocusShot[] =>
  Array.from({ length: count }, (_, index) =>
    shot(bias + Math.hypot(spread, 1) * normal(), { from: index % 2 ? 'far' : 'near' })
  );

describe('a focus test', () => {
  it('holds the bias in its interval nine times in ten (300 seeded runs)', () => {
    const times = runs(300);
    let held = 0;
    for (let run = 0; run < times; run++) {
      const [bias, spread] = [25 * normal(), 8 * Math.exp(0.4 * normal())];
      const { bias: found } = focusResult(series(bias, spread), 8, 30);
      if (found.low <= bias && bias <= found.high) held++;
    }
    expect(Math.abs(held / times - 0.9)).toBeLessThanOrEqual(0.03 * Math.sqrt(1000 / times));
  });

  it('says in front, behind, on the mark, scattered, or too few to say', () => {
    expect(focusResult(series(18, 4), 8, 30).verdict).toBe('behind');
    expect(focusResult(series(-18, 4), 8, 30).verdict).toBe('front');
    expect(focusResult(series(0.3, 2), 8, 30).verdict).toBe('onTheMark');
    expect(focusResult(series(3, 30), 8, 30).verdict).toBe('scattered');
    const few = focusResult(series(18, 4, 3), 8, 30);
    expect([few.verdict, few.more >= leastShots - 3]).toEqual(['few', true]);
    expect(() => focusResult([], 8, 30)).toThrow(RangeError);
  });

  it('sees that from near and from far differ, and that distances do', () => {
    const apart = Array.from({ length: 12 }, (_, index) =>
      shot((index % 2 ? 12 : 2) + normal(), { from: index % 2 ? 'far' : 'near' })
    );
    expect(focusResult(apart, 8, 30).approach).toMatchObject({ differ: true });
    expect(focusResult(series(5, 4), 8, 30).approach?.differ).toBe(false);
    const distances = [...series(20, 2, 6), ...series(4, 2, 6).map((one) => ({ ...one, distanceMm: 5000 }))];
    const found = focusResult(distances, 8, 30);
    expect(found.changesWithDistance).toBe(true);
    expect(found.byDistance.map(({ distanceMm, frames }) => [distanceMm, frames])).toEqual([[2000, 6], [5000, 6]]); // prettier-ignore
  });
});

describe('how many frames are needed', () => {
  it('grows with the square of the precision one wishes', () => {
    const shots = series(18, 6, 12);
    const needed = (['fifth', 'tenth', 'twentieth'] as const).map((wished) => {
      const { more } = focusResult(shots, 8, 12, wished);
      return more + shots.length;
    });
    expect((needed[1] ?? 0) / (needed[0] ?? 1)).toBeGreaterThan(2);
    expect((needed[2] ?? 0) / (needed[1] ?? 1)).toBeCloseTo(4, 0);
  });
});

describe('what a test says to the habits', () => {
  const key = { bodyId: 'b', lensId: 'z', method: 'crossPoint', recomposed: false } as const;
  const zoom = newLens('z', 'zoom', { shortestMm: 24, longestMm: 70, widestFNumber: 2.8, smallestFNumber: 22 });
  const prime = newLens('z', 'prime', { shortestMm: 85, longestMm: 85, widestFNumber: 1.4, smallestFNumber: 16 });
  const set = (focalLengthMm: number, fNumber: number, bias: number, frames = 12) => ({
    focalLengthMm,
    fNumber,
    learned: focusResult(series(bias, 2, frames), 8, 30)
  });

  it('puts frames together by focal length and stop, wherever files round', () => {
    const frames = [
      [24.3, 2.8],
      [70, 2.8],
      [24, 2.83],
      [70, 5.6],
      [69.5, 2.8]
    ].map(([focalLengthMm = 0, fNumber = 0]) => ({ focalLengthMm, fNumber }));
    expect(focusSets(frames).map((one) => [one.focalLengthMm, one.fNumber, one.frames.length])).toEqual([
      [24.3, 2.8, 2],
      [70, 2.8, 2],
      [70, 5.6, 1]
    ]);
  });

  it('has both ends of a zoom apart, and the planner takes the nearer one', () => {
    const figures = figuresOf([set(24, 2.8, -12), set(70, 2.8, 20)], zoom, key, defaultHabits, 5);
    expect(figures.map(({ focalLengthMm }) => focalLengthMm)).toEqual([24, 70]);
    const habits = withOwnFocus(defaultHabits, figures);
    expect(ownFocus(habits, key, 28)?.biasUm).toBeLessThan(-8);
    expect(ownFocus(habits, key, 60)?.biasUm).toBeGreaterThan(15);
    // One end measured again leaves the other; a figure for the whole lens stands in place of both.
    const again = withOwnFocus(habits, figuresOf([set(70, 2.8, 5)], zoom, key, habits, 6));
    expect(again.own.map(({ focalLengthMm }) => focalLengthMm)).toEqual([24, 70]);
    expect(ownFocus(again, key, 70)?.biasUm).toBeLessThan(9);
    const whole = withOwnFocus(again, figuresOf([set(85, 1.4, 1)], prime, key, again, 7));
    expect(whole.own.map(({ focalLengthMm }) => focalLengthMm)).toEqual([null]);
  });

  it('keeps what stopping down moves by stop, against wide open, until that stop is measured again', () => {
    const first = withOwnFocus(
      defaultHabits,
      figuresOf([set(85, 1.4, 4), set(85, 2.8, 14)], prime, key, defaultHabits, 5)
    );
    const [own] = first.own;
    expect(own?.stopShift.map(({ fNumber }) => fNumber)).toEqual([2.8]);
    expect(Math.abs((own?.stopShift[0]?.um ?? 0) - 10)).toBeLessThan(3);
    // The lens was adjusted since; the shift is a difference and stays. Another stop comes beside it.
    const adjusted = withOwnFocus(first, figuresOf([set(85, 1.4, 0)], prime, key, first, 6));
    expect(adjusted.own[0]?.stopShift).toEqual(own?.stopShift);
    const more = withOwnFocus(adjusted, figuresOf([set(85, 5.6, 16)], prime, key, adjusted, 7));
    expect(more.own[0]?.stopShift.map(({ fNumber }) => fNumber)).toEqual([2.8, 5.6]);
    expect(more.own[0]?.biasUm).toBe(adjusted.own[0]?.biasUm);
    expect(figuresOf([set(85, 2.8, 14)], prime, key, defaultHabits, 5)).toEqual([]);
    // As the planner reads it: nothing wide open, in proportion to the stops between, and no more beyond.
    const shift = [{ fNumber: 2.8, um: 10 }];
    expect([1.4, 2, 2.8, 8].map((N) => stopShiftAt(shift, 1.4, N))).toEqual([0, expect.closeTo(5, 0), 10, 10]);
  });
});
