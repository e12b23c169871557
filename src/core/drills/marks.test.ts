import { describe, expect, it } from 'vitest';
import { blurDiscDiameter } from '../optics/blur';
import { seededRandom } from '../testing/random';
import { discsOf, expectedIn, lookAtMarks, marksOf, nearestTo, type MarkedFrame } from './marks';
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
    const all = marksOf(first);
    expect(all.map(({ index }) => index)).toEqual([0, 1, 2]);
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
});
