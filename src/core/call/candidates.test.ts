import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { bestFocusBetween } from '../optics/blur';
import { builtInKit } from '../kit/builtInKit';
import { newPerson, newSetup, newThing } from '../setup/defaults';
import { sceneSubjects, viewpoint } from '../setup/scene';
import { asFocusTarget } from './focusTarget';
import type { Body } from '../kit/schema';
import type { Setup } from '../setup/schema';
import { atDistance, candidates, decisiveSubjects, shortlist } from './candidates';

const body = builtInKit.bodies[0] as Body;
const ada = newPerson('ada', 'Ada', { headYawDeg: 30 });
const bo = newPerson('bo', 'Bo', { depthMm: 600, lateralMm: 500, importance: 'should' });
const cleo = newPerson('cleo', 'Cleo', { depthMm: 900, lateralMm: -500, importance: 'maySoft' });
const bowl = newThing('bowl', 'bowl', { depthMm: -200 });

function all(setup: Setup) {
  const subjects = sceneSubjects(setup, viewpoint(setup, body));
  const decisive = decisiveSubjects(subjects);
  const depths = {
    nearest: Math.min(...decisive.map((item) => item.nearest)),
    furthest: Math.max(...decisive.map((item) => item.furthest))
  };
  return { subjects, decisive, found: candidates(setup, subjects, decisive, depths), depths };
}
const setup = newSetup('s', 'S', { people: [ada, bo, cleo] });
const aiming = (target: Setup['intent']['target'], changes: Partial<Setup['intent']> = {}): Setup => ({
  ...setup,
  intent: { ...setup.intent, target, ...changes }
});

describe('where the focus may be put', () => {
  it('is on those who must be sharp; without any on those who should; without any on everybody', () => {
    const who = (people: Setup['people']) =>
      decisiveSubjects(all({ ...setup, people }).subjects).map((item) => item.id);
    expect(who([ada, bo, cleo])).toEqual(['ada']);
    expect(who([bo, cleo])).toEqual(['bo']);
    expect(who([cleo])).toEqual(['cleo']);
  });

  it('is on every eye that is seen, at the depth the scene gives it', () => {
    const { found, subjects } = all(setup);
    expect(found.map((item) => item.feature).sort()).toEqual(['leftEye', 'rightEye']);
    for (const candidate of found) {
      const point = subjects[0]?.points.find((item) => item.feature === candidate.feature);
      expect(candidate.focusDistanceMm).toBe(point?.depth);
    }
  });

  it('is the eye, thing or distance somebody chose, and the best eye when that one is gone', () => {
    const chosen = (target: Setup['intent']['target']) => all(aiming(target)).found;
    expect(chosen({ kind: 'eye', personId: 'bo', eye: 'leftEye' })).toMatchObject([
      { subjectId: 'bo', feature: 'leftEye' }
    ]);
    expect(chosen({ kind: 'distance', distanceMm: 2222 })).toEqual([atDistance(2222)]);
    expect(chosen({ kind: 'eye', personId: 'gone', eye: 'leftEye' }).map((item) => item.subjectId)).toEqual([
      'ada',
      'ada'
    ]);
    const held = all({ ...aiming({ kind: 'thing', thingId: 'bowl' }), things: [bowl] });
    expect(held.found.every((item) => item.subjectId === 'bowl')).toBe(true);
    expect(held.found.length).toBeGreaterThan(0);
  });

  it('by hand, and only by hand, can also be between the faces', () => {
    const by = (focusMethod: Setup['camera']['focusMethod']) =>
      all({ ...setup, camera: { ...setup.camera, focusMethod } });
    for (const method of ['magnifier', 'byEye'] as const) {
      const { found, depths } = by(method);
      expect(found[found.length - 1]).toEqual(atDistance(bestFocusBetween(depths.nearest, depths.furthest)));
    }
    for (const method of ['crossPoint', 'ordinaryPoint'] as const) {
      expect(by(method).found.every((item) => item.subjectId !== null)).toBe(true);
    }
  });

  it('with two frames is the eye chosen only in the frame that holds it', () => {
    const chosen = aiming({ kind: 'eye', personId: 'bo', eye: 'leftEye' }, { frames: 'two' });
    // Bo does not decide, so no frame holds him: those who do keep their own best eye.
    expect(all(chosen).found.map((item) => item.subjectId)).toEqual(['ada', 'ada']);
    const bothDecide = { ...chosen, people: [ada, { ...bo, importance: 'must' as const }] };
    expect(all(bothDecide).found).toMatchObject([{ subjectId: 'bo', feature: 'leftEye' }]);
  });

  it('comes in order of importance, then of nearness; a plain distance after every eye', () => {
    const people = [{ ...bo, importance: 'must' as const }, ada, { ...cleo, importance: 'should' as const }];
    const { subjects } = all({ ...setup, people });
    const everyone = all({ ...setup, people }).found.concat(
      candidates({ ...setup, people }, subjects, subjects.slice(2), { nearest: 1, furthest: 2 })
    );
    const depths = everyone.map((item) => item.focusDistanceMm);
    const [nearest, furthest] = [Math.min(...depths), Math.max(...depths)];
    const listed = shortlist([atDistance(bestFocusBetween(nearest, furthest)), ...everyone], nearest, furthest, 40);
    const keys = listed.map((item) => item.importance * 1e6 + item.focusDistanceMm);
    expect(keys).toEqual([...keys].sort((a, b) => a - b));
    expect(listed[listed.length - 1]?.importance).toBe(3);
  });

  it('is looked at where a systematic shift would bring the plane to the middle, too', () => {
    const list = [2000, 2100, 2200, 2300, 2400, 2500, 2600].map((mm) => atDistance(mm));
    const middle = bestFocusBetween(2000, 2600);
    const around = (mm: number) => (item: { focusDistanceMm: number }) => Math.abs(item.focusDistanceMm - mm) < 160;
    const plain = shortlist(list, 2000, 2600, 0);
    expect(plain).toHaveLength(3);
    expect(plain.every(around(middle))).toBe(true);
    // Landing 200 mm behind the target, one 200 mm nearer brings it to the middle.
    const shifted = shortlist(list, 2000, 2600, 200);
    expect(shifted.filter(around(middle - 200)).length).toBeGreaterThanOrEqual(3);
    expect(shifted.filter(around(middle)).length).toBeGreaterThanOrEqual(3);
  });

  it('is shortlisted to those that share the blur most evenly, whatever the order they come in', () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 1000, max: 9000 }), { minLength: 4, maxLength: 20 }),
        fc.integer({ min: 0, max: 120 }),
        (distances, bias) => {
          const [nearest, furthest] = [Math.min(...distances), Math.max(...distances)];
          const list = distances.map((mm) => atDistance(mm));
          const best = 1 / bestFocusBetween(nearest, furthest);
          const off = (mm: number) => Math.abs(1 / mm - best);
          const short = shortlist(list, nearest, furthest, bias);
          expect(short.length).toBeLessThanOrEqual(6);
          const least = Math.min(...distances.map(off));
          expect(Math.min(...short.map((item) => off(item.focusDistanceMm)))).toBeCloseTo(least, 12);
          // Two that are as good as each other may stand in for each other.
          const offs = (items: readonly { focusDistanceMm: number }[]) =>
            items.map((item) => off(item.focusDistanceMm).toPrecision(9)).sort();
          const plain = shortlist(list, nearest, furthest, 0);
          expect(offs(shortlist([...list].reverse(), nearest, furthest, 0))).toEqual(offs(plain));
        }
      ),
      { numRuns: 60 }
    );
  });
});

describe('a found target as a wish', () => {
  it('asks for the eye, the thing, or else the distance', () => {
    const target = (changes: object) => ({
      subjectId: 'ada',
      feature: 'leftEye',
      role: null,
      focusDistanceMm: 1234.4,
      ...changes
    });
    const withBowl = { ...setup, things: [bowl] };
    expect(asFocusTarget(target({}), setup)).toEqual({ kind: 'eye', personId: 'ada', eye: 'leftEye' });
    expect(asFocusTarget(target({ subjectId: 'bowl', feature: 'near' }), withBowl)).toEqual({
      kind: 'thing',
      thingId: 'bowl'
    });
    for (const other of [target({ subjectId: null, feature: null }), target({ feature: 'leftEar' })]) {
      expect(asFocusTarget(other, setup)).toEqual({ kind: 'distance', distanceMm: 1234 });
    }
  });

  it('found again from that wish, is the same place', () => {
    for (const candidate of all(setup).found) {
      const again = all(aiming(asFocusTarget(candidate, setup))).found;
      expect(again).toMatchObject([{ subjectId: candidate.subjectId, feature: candidate.feature }]);
      expect(again[0]?.focusDistanceMm).toBe(candidate.focusDistanceMm);
    }
  });
});
