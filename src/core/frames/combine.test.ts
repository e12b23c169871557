import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { runs } from '../testing/runs';
import { testFace } from '../testing/frames';
import { chanceWithin, medianDisc, sharperEye } from './combine';
import { judgeFace } from './eyes';

const eye = (discPx: number, low: number, high: number) => ({ discPx, low, high });

describe('both eyes of a face', () => {
  it('say together what the sums over every pair of discs say', () => {
    const disc = fc.double({ min: 0, max: 14, noNaN: true });
    const measured = fc.tuple(disc, disc, disc).map((values) => {
      const [low = 0, discPx = 0, high = 0] = values.sort((a, b) => a - b);
      return { discPx, low, high };
    });
    fc.assert(
      fc.property(measured, measured, fc.double({ min: -40, max: 40, noNaN: true }), (one, other, yawDeg) => {
        const found = sharperEye([one, other], yawDeg);
        // Straightforwardly: each pair of discs, the eyes as likely as they are, less so the further apart.
        const apart = 1.2 + 5 * Math.abs(Math.sin((yawDeg * Math.PI) / 180));
        const likely = ({ discPx, low, high }: typeof one, d: number) => {
          const sd = Math.max(0.25, (d < discPx ? discPx - low : high - discPx) / 1.645);
          return Math.exp(-0.5 * ((d - discPx) / sd) ** 2);
        };
        let [within, all] = [0, 0];
        for (let a = 0; a <= 40; a += 0.25)
          for (let b = 0; b <= 40; b += 0.25) {
            const chance = likely(one, a) * likely(other, b) * Math.exp(-Math.abs(a - b) / apart);
            all += chance;
            if (Math.min(a, b) <= 5) within += chance;
          }
        expect(chanceWithin(found, 5)).toBeCloseTo(within / all, 6);
        expect(sharperEye([other, one], yawDeg)[20]).toBeCloseTo(found[20] ?? NaN, 9);
      }),
      { numRuns: runs(25) }
    );
  });

  it('are as sure as the surer of them, and one alone says what it was measured as', () => {
    const unsure = eye(1, 0.1, 13);
    expect(chanceWithin(sharperEye([eye(9, 8, 10), unsure], 0), 5)).toBeLessThan(0.2);
    expect(chanceWithin(sharperEye([eye(1, 0.4, 1.8), unsure], 0), 5)).toBeGreaterThan(0.95);
    expect(medianDisc(sharperEye([eye(6, 5, 7)], 0))).toBeCloseTo(6, 0);
    // Of a head turned far aside one eye may well be sharp and the other not.
    const turned = chanceWithin(sharperEye([eye(2, 1, 3), eye(9, 8, 10)], 40), 5);
    expect(turned).toBeGreaterThan(0.9);
  });

  it('leave it open where neither knows: not sharp by the better of two guesses', () => {
    const told = (left: ReturnType<typeof eye>, right: ReturnType<typeof eye>) =>
      judgeFace(testFace({ left: { ok: true, smear: null, ...left }, right: { ok: true, smear: null, ...right } }), 5);
    expect(told(eye(8.3, 1.9, 14), eye(1, 0.1, 13))).toMatchObject({ judged: 'unknown', why: 'open', ratio: null });
    expect(told(eye(0.6, 0, 1.6), eye(1, 0.2, 2)).judged).toBe('sharp');
    expect(told(eye(9, 7, 11), eye(8.5, 6.5, 11)).judged).toBe('soft');
    expect(told(eye(6.5, 5.6, 7.4), eye(7, 6, 8)).judged).toBe('touchSoft');
  });
});
