import { describe, expect, it } from 'vitest';
import { seededNormal } from '../testing/random';
import { runs } from '../testing/runs';
import { focusResult, leastShots } from './focusTest';
import type { FocusShot } from './schema';

const shot = (offsetUm: number, changes: Partial<FocusShot> = {}): FocusShot => ({
  ...{
    file: 'a.jpg',
    takenMs: 0,
    from: 'near',
    distanceMm: 2000,
    offsetMm: offsetUm / 2,
    sdMm: 0.5,
    offsetUm,
    sdUm: 1
  },
  ...changes
});
const normal = seededNormal(15);
const series = (bias: number, spread: number, count = 12): FocusShot[] =>
  Array.from({ length: count }, (_, index) =>
    shot(bias + Math.hypot(spread, 1) * normal(), { from: index % 2 ? 'far' : 'near' })
  );

describe('a focus test', () => {
  it('holds the bias in its interval nine times in ten (1,000 seeded runs)', () => {
    const times = runs(1000);
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
