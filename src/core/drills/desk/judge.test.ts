import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { blurDiscDiameter } from '../../optics/blur';
import { judgeAsked, judgeKinds, judgePictures, offsetFor, planeFor, shownLevel } from './judge';
import { judgeModes, type JudgeMode } from './judgeModes';

describe('a pair to judge', () => {
  it('has its plane where the eye is blurred by the disc that was asked for', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 24, max: 200, noNaN: true }),
        fc.double({ min: 1.2, max: 8, noNaN: true }),
        fc.double({ min: 800, max: 6000, noNaN: true }),
        fc.double({ min: 0.001, max: 0.1, noNaN: true }),
        fc.constantFrom('front' as const, 'behind' as const),
        (focalLengthMm, fNumber, depthMm, disc, side) => {
          const plane = planeFor({ focalLengthMm, fNumber, depthMm }, disc, side);
          if (plane === Infinity) return;
          expect(Math.sign(plane - depthMm)).toBe(side === 'front' ? -1 : 1);
          expect(blurDiscDiameter(focalLengthMm, fNumber, plane, depthMm) / disc).toBeCloseTo(1, 6);
        }
      )
    );
  });

  it('is a distance one can think of, and no level beyond what can be shown', () => {
    // By hand: 85 mm f/1.4 at 2 m, 30 µm: c N s (s − f)/f² about 22 mm.
    expect(offsetFor({ focalLengthMm: 85, fNumber: 1.4, depthMm: 2000 }, 0.03)).toBeCloseTo(22, 0);
    expect(shownLevel(3)).toBeCloseTo(Math.log10(8), 12);
    expect(shownLevel(-5)).toBeCloseTo(Math.log10(0.02), 12);
    expect(shownLevel(0.1)).toBe(0.1);
    expect(shownLevel(3, 'stop')).toBeCloseTo(Math.log10(5), 12);
    // Guessing one of four, one is right in a quarter: four pictures, or four kinds of one.
    const answers = (mode: JudgeMode) =>
      mode === 'kind' ? judgeKinds.length : mode === 'side' ? 2 : judgePictures[mode];
    for (const mode of judgeModes) expect(judgeAsked[mode].guess).toBe(1 / answers(mode));
  });
});
