import { describe, expect, it } from 'vitest';
import { seededRandom } from '../../testing/random';
import { arrangedFor } from '../kinds';
import { lookAtMarks, type MarkedFrame } from './fiducials';
import { matchFrames } from './match';
import { readSeries, type DrillFrame } from './series';
import { marksShot, smeared } from './simulate';
import { leastTrackPx, tracksOf } from './tracks';
import { steadyVerdict } from '../kinds/steady';

const lens = { focalLengthMm: 85, pixelMm: 0.03, width: 560, height: 220 };
const marks = [0, 1, 2].map((index) => ({ index, x: (index - 1) * 95, y: 0, z: 2050 }));
const shot = (seed: number) => marksShot({ lens, fNumber: 5.6, planeMm: 2050, marks }, seededRandom(seed));
const [still, other] = [shot(1), shot(2)];
const at = lookAtMarks(still) as MarkedFrame;
const seen = (px: number, angle: number) => lookAtMarks(smeared(other, { px, angle }), at.marks) as MarkedFrame;

describe('the track shake leaves of a mark', () => {
  it('is told in length and direction, on traced marks', () => {
    const cases = [0, 0.4, 0.8, Math.PI / 2].flatMap((angle) => [3, 5, 8, 20].map((px) => [px, angle] as const));
    const tracks = tracksOf([at, ...cases.map(([px, angle]) => seen(px, angle))]).slice(1);
    for (const [index, [px, angle]] of cases.entries()) {
      const track = tracks[index];
      expect(Math.abs(Math.log((track?.px ?? 0) / px))).toBeLessThan(0.2);
      if (px < 4) continue;
      expect(track?.angle).not.toBeNull();
      const off = Math.abs((track?.angle ?? NaN) - angle) % Math.PI;
      expect(Math.min(off, Math.PI - off)).toBeLessThan(0.2);
    }
  });

  it('is none where nothing moved', () => {
    const [own, none, little] = tracksOf([at, seen(0, 0), seen(0.5, 1)]);
    for (const track of [own, none, little]) expect(track).toEqual({ px: 0, angle: null });
    expect(leastTrackPx).toBeGreaterThan(0.5);
  });

  it('goes to its step by the shutter time, whatever the order; what has none is left', () => {
    const steps = arrangedFor('steady', {
      focalLengthMm: 85,
      widestFNumber: 1.4,
      smallestFNumber: 16,
      closestMm: 800,
      discMm: 0.03
    })?.steps;
    const times = [4 / 85, 1 / 340, 2 / 85, 1 / 170, 1 / 85, null];
    const frames = times.map((shutterS, index): DrillFrame => ({
      id: `f${index}`,
      name: `f${index}`,
      takenMs: 1000 * index,
      shutterS,
      fNumber: 4 * Math.SQRT2,
      focalLengthMm: 85,
      lens: '85 mm',
      width: 560,
      height: 220,
      pixelMm: 0.03,
      marked: shutterS === 1 / 340 ? at : seen(120 * (shutterS ?? 0), 0.4)
    }));
    const match = matchFrames(steps ?? [], readSeries(frames));
    const named = match.steps.flatMap(({ frame, step }) => (frame ? [[frame.id, step.shutterS]] : []));
    expect(named).toEqual([['f1', 1 / 340], ['f3', 1 / 170], ['f4', 1 / 85], ['f2', 2 / 85], ['f0', 4 / 85]]); // prettier-ignore
    expect(match.left.map(({ frame, why }) => [frame.id, why])).toEqual([['f5', 'otherTime']]);
    const verdict = steadyVerdict(match, 85, 0.65, 0.03);
    expect([verdict.measured, verdict.missing]).toEqual([5, 10]);
    // Five frames are too few.
    expect(verdict.steady).toBeNull();
    expect(verdict.steps.find(({ frame }) => frame?.id === 'f0')?.track?.mm).toBeGreaterThan(0.1);
  });
});
