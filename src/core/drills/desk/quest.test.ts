import { describe, expect, it } from 'vitest';
import { seededNormal, seededRandom } from '../../testing/random';
import { runs } from '../../testing/runs';
import { quest, questAfter, questResult, questStart, rightAt } from './quest';

const asked = { guess: 0.5, expected: 0, sd: 0.4 } as const;

describe('the adaptive method', () => {
  it('is right three times in four at the threshold, half the time far under it, and nearly always far over it', () => {
    for (const slope of [1.5, 3.5, 5]) expect(rightAt(0.3, 0.3, slope, 0.5)).toBeCloseTo(0.75, 12);
    expect(rightAt(-3, 0, 3.5, 0.5)).toBeCloseTo(0.5, 6);
    expect(rightAt(2, 0, 3.5, 0.5)).toBeCloseTo(0.99, 9);
    // By hand, of four: 0.25 + 0.74 (1 − (1 − 0.5/0.74)) = 0.75.
    expect(rightAt(0, 0, 2, 0.25)).toBeCloseTo(0.75, 12);
  });

  it('holds the threshold in its interval nine times in ten, of observers of any slope (300 seeded runs)', () => {
    const [random, normal] = [seededRandom(8), seededNormal(9)];
    const times = runs(300);
    let held = 0;
    const widths: number[] = [];
    for (let run = 0; run < times; run++) {
      const truth = asked.expected + asked.sd * normal();
      const slope = [1.5, 2, 2.5, 3, 3.5, 4, 5][Math.floor(7 * random())] ?? 3;
      let belief = questStart(asked);
      for (let trial = 0; trial < 30; trial++) {
        const at = questResult(belief).next;
        belief = questAfter(belief, { at, right: random() < rightAt(at, truth, slope, 0.5) });
      }
      const told = questResult(belief);
      if (told.low <= truth && truth <= told.high) held++;
      widths.push(told.high - told.low);
    }
    expect(Math.abs(held / times - 0.9)).toBeLessThanOrEqual(0.03 * Math.sqrt(1000 / times));
    // Thirty answers tell the threshold to well within a factor of three.
    expect(widths.sort((a, b) => a - b)[Math.floor(times / 2)]).toBeLessThan(Math.log10(3));
  });

  it('knows no more than before without an answer, and refuses what cannot be told', () => {
    const none = quest([], asked);
    expect(none.threshold).toBeCloseTo(0, 6);
    expect(none.high).toBeCloseTo(1.645 * asked.sd, 2);
    expect(() => quest([], { ...asked, guess: 0.8 })).toThrow(RangeError);
  });
});
