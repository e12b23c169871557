import { describe, expect, it } from 'vitest';
import { blurDiscDiameter } from '../optics/blur';
import { seededRandom } from '../testing/random';
import { arrangedFor } from './kinds';
import { lookAtMarks, type MarkedFrame } from './series/fiducials';
import { matchFrames } from './series/match';
import { byDistance, lookedFor, readByDistance, type DrillFrame } from './series/series';
import { marksShot } from './series/simulate';
import { eyeNoseVerdict } from './kinds/eyeNose';

const kit = { focalLengthMm: 85, widestFNumber: 1.4, smallestFNumber: 16, closestMm: 700, discMm: 0.03 };
const arranged = arrangedFor('eyeNose', kit);
const steps = arranged?.steps ?? [];
const pixelMm = 0.02;
const [width, height] = [760, 260];

/** A frame a step, the plane off by so much. */
const taken = steps.map(({ focusOn, distanceMm }, at) => {
  const from = distanceMm ?? 0;
  const things = arranged?.things ?? [];
  const aimed = from + (things[focusOn]?.depthMm ?? 0);
  return marksShot(
    {
      lens: { focalLengthMm: 85, pixelMm, width, height },
      fNumber: Math.SQRT2,
      planeMm: aimed + 2,
      marks: things.map(({ index, lateralMm, depthMm }) => ({ index, x: lateralMm, y: 0, z: from + depthMm }))
    },
    seededRandom(at)
  );
});
const first = taken.map((picture) => lookAtMarks(picture) as MarkedFrame);
const looked = lookedFor(first, true);
const frames = taken.map((picture, at): DrillFrame => {
  return {
    id: `f${at}`,
    name: `f${at}`,
    takenMs: 1000 * at,
    shutterS: null,
    fNumber: Math.SQRT2,
    focalLengthMm: 85,
    lens: '85 mm',
    width,
    height,
    pixelMm,
    marked: lookAtMarks(picture, looked.get(at) ?? []) as MarkedFrame
  };
});

describe('eye or nose', () => {
  it('is asked from near, as usual, and from far', () => {
    expect(steps.map(({ distanceMm, focusOn }) => [distanceMm, focusOn])).toEqual(
      [1350, 2050, 3400].flatMap((from) => [[from, 0], [from, 1]]) // prettier-ignore
    );
  });

  it('says what it is worth from each, and from where on nothing, on traced marks in mixed order', () => {
    const mixed = [5, 2, 0, 4, 1, 3].flatMap((at) => frames[at] ?? []);
    const match = matchFrames(steps, readByDistance(mixed));
    expect(match.left).toEqual([]);
    for (const [at, { frame, step }] of match.steps.entries()) {
      // From far either may be where the plane lies: it makes no difference there.
      if ((step.distanceMm ?? 0) < 3000) expect(frame?.id).toBe(`f${at}`);
      expect(frame?.marks[0]?.depthMm ?? 0).toBeGreaterThan((step.distanceMm ?? 0) * 0.97);
      expect(frame?.marks[0]?.depthMm ?? 0).toBeLessThan((step.distanceMm ?? 0) * 1.05);
    }
    const verdict = eyeNoseVerdict(match, kit.discMm);
    expect(Math.abs((verdict.deepMm ?? 0) - 25)).toBeLessThan(4);
    // By the closed form: f²/N · 25 / ((s − f) (s − 25)) is 0.03 there.
    const truth = (z: number) => blurDiscDiameter(85, Math.SQRT2, z, z - 25);
    expect(truth(verdict.sameFromMm ?? 0)).toBeGreaterThan(0.03 * 0.85);
    expect(truth(verdict.sameFromMm ?? 0)).toBeLessThan(0.03 * 1.15);
    const [near, , far] = verdict.distances;
    expect(Math.abs((near?.measured ?? 0) / (near?.expected ?? 1) - 1)).toBeLessThan(0.2);
    expect(near?.measured).toBeGreaterThan(1);
    expect(far?.expected).toBeLessThan(1);
    expect([near?.right, near?.frames]).toEqual([2, 2]);
    expect(verdict.missing).toBe(0);
  });

  it('puts frames of one distance together, and looks for a lost mark where those have it', () => {
    expect(byDistance(first).map((own) => own.sort())).toEqual([[0, 1], [2, 3], [4, 5]]); // prettier-ignore
    const lost = first.map((frame, at) => (at === 4 ? { marks: frame.marks.slice(0, 1) } : frame));
    const marks = lookedFor(lost, true).get(4) ?? [];
    expect(marks).toHaveLength(2);
    const there = first[5]?.marks.find(({ index }) => index === marks[1]?.index);
    expect(Math.abs((marks[1]?.x ?? 0) - (there?.x ?? Infinity))).toBeLessThan(2);
    // All thrown together, it would be looked for where nearer frames have it.
    const wrong = lookedFor(lost, false).get(4)?.[1];
    expect(Math.abs((wrong?.x ?? 0) - (there?.x ?? 0))).toBeGreaterThan(5);
  });

  it('leaves what was taken from elsewhere', () => {
    const there = readByDistance(frames.slice(0, 2));
    const moved = there.map((frame) => ({
      ...frame,
      marks: frame.marks.map((m) => ({ ...m, depthMm: m.depthMm * 1.3 }))
    }));
    expect(matchFrames(steps.slice(0, 2), moved).left.map(({ why }) => why)).toEqual(['nothingSharp', 'nothingSharp']);
  });
});
