import { describe, expect, it } from 'vitest';
import { seededNormal } from '../../testing/random';
import { runs } from '../../testing/runs';
import { leanOf, leastTimes } from './lean';

describe('how far somebody leans', () => {
  it('holds lean and spread in their intervals nine times in ten (300 seeded runs)', () => {
    const normal = seededNormal(4);
    const times = runs(300);
    let [lean, spread] = [0, 0];
    for (let run = 0; run < times; run++) {
      const [truth, sd] = [30 * normal(), 8 * Math.exp(0.5 * normal())];
      const told = leanOf(Array.from({ length: 8 }, () => truth + sd * normal()));
      if (told && told.lean.low <= truth && truth <= told.lean.high) lean++;
      if (told && told.spread.low <= sd && sd <= told.spread.high) spread++;
    }
    for (const held of [lean, spread])
      expect(Math.abs(held / times - 0.9)).toBeLessThanOrEqual(0.03 * Math.sqrt(1000 / times));
  });

  it('says nothing of too few', () => {
    expect(leanOf([10, 20, 30])).toBeNull();
    expect(leastTimes).toBe(4);
    // Two normal samples by hand: mean 25, sample deviation 12.91.
    const told = leanOf([10, 20, 30, 40]);
    expect(told?.lean.value).toBe(25);
    expect(told?.spread.value).toBeCloseTo(12.91, 2);
  });
});
