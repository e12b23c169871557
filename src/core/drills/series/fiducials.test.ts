import { describe, expect, it } from 'vitest';
import { blurDiscDiameter } from '../../optics/blur';
import { seededRandom } from '../../testing/random';
import { discsOf, expectedIn, lookAtMarks, layoutOf, nearestTo, type MarkedFrame, type MarkSeen } from './fiducials';
import { marksShot, type StandingMark } from './simulate';

const lens = { focalLengthMm: 50, pixelMm: 0.024, width: 640, height: 300 };
/** Three on a diagonal, from 1.2 m on. */
const marks: readonly StandingMark[] = [
  { index: 0, x: -115, y: 0, z: 1200 },
  { index: 1, x: 0, y: 0, z: 1350 },
  { index: 2, x: 125, y: 0, z: 1500 }
];
const taken = (planeMm: number, fNumber: number, seed: number) =>
  marksShot({ lens, fNumber, planeMm, marks }, seededRandom(seed));

describe('marks in line', () => {
  it('are found, and each is as blurred against its sharpest frame as optics say', () => {
    const planes = [1200, 1350, 1500, 1280];
    const pictures = planes.map((plane, index) => taken(plane, 1.8, index));
    const first = pictures.map((picture) => lookAtMarks(picture) as MarkedFrame);
    const all = layoutOf(first);
    expect(all.marks.map(({ index }) => index)).toEqual([0, 1, 2]);
    expect(all.shiftsPx).toBeLessThan(1);
    const frames = pictures.map(
      (picture, at) => lookAtMarks(picture, expectedIn(all, first[at] as MarkedFrame)) as MarkedFrame
    );
    const { frames: discs, sharpest } = discsOf(frames);
    expect([0, 1, 2].map((index) => sharpest.get(index))).toEqual([0, 1, 2]);
    for (const [at, plane] of planes.entries())
      for (const { index, z } of marks) {
        const expected = blurDiscDiameter(50, 1.8, plane, z) / lens.pixelMm;
        const found = discs[at]?.find((disc) => disc.index === index)?.discPx ?? NaN;
        expect(Math.abs(found - expected), `${at} ${index} ${found} ${expected}`).toBeLessThan(
          Math.max(0.5, 0.15 * expected)
        );
      }
    expect(discs.slice(0, 3).map(nearestTo)).toEqual([0, 1, 2]);
  });

  it('are laid out from frames that were moved, though no two marks are read in all of them', () => {
    const seen = (index: number, x: number, y: number, read = true): MarkSeen => {
      return { index, x, y, sidePx: 50, read, spectra: [] };
    };
    // Three in a row 100 px apart; the camera was moved, and each frame could read two of them at most.
    const frames: MarkedFrame[] = [
      { marks: [seen(0, 100, 200), seen(1, 200, 200)] },
      { marks: [seen(1, 500, 350), seen(2, 600, 350)] },
      { marks: [seen(2, 340, 80)] },
      { marks: [] }
    ];
    const layout = layoutOf(frames);
    const [a, b, c] = layout.marks;
    expect((b?.x ?? 0) - (a?.x ?? 0)).toBeCloseTo(100, 1);
    expect((c?.x ?? 0) - (b?.x ?? 0)).toBeCloseTo(100, 1);
    const third = expectedIn(layout, frames[2] as MarkedFrame);
    expect(third.map(({ x, y }) => [Math.round(x), Math.round(y)])).toEqual([
      [140, 80],
      [240, 80],
      [340, 80]
    ]);
    // Nothing was read in the last: where it was pointed nobody knows. On a tripod one does.
    expect(expectedIn(layout, frames[3] as MarkedFrame)).toEqual([]);
    const still = layoutOf([
      { marks: [seen(0, 100, 200), seen(1, 200, 200)] },
      { marks: [seen(0, 101, 200)] },
      { marks: [] }
    ]);
    expect(expectedIn(still, { marks: [] })).toHaveLength(2);
  });
});
