import { describe, expect, it } from 'vitest';
import { defaultHabits } from '../habits/habits';
import { bestFocusBetween } from '../optics/blur';
import { builtInKit } from '../kit/builtInKit';
import { newBody } from '../kit/defaults';
import { newPerson, newSetup, newThing } from '../setup/defaults';
import type { FocusPoint } from '../setup/focusPoint';
import type { ScenePoint, Subject } from '../setup/scene';
import {
  intermediateCandidates,
  isIn,
  subjectCandidates,
  rowPreferenceOf,
  type Aim,
  type Candidate,
  type FocusScene
} from './candidates';
import { asFocusTarget } from './focusTarget';
import { prepare } from './planSetup';
import type { Kit } from '../kit/schema';
import type { Camera, Person, Setup } from '../setup/schema';

const ada = newPerson('ada', 'Ada', { headYawDeg: 30 });
const bo = newPerson('bo', 'Bo', { depthMm: 600, lateralMm: 500, importance: 'should' });
const cleo = newPerson('cleo', 'Cleo', { depthMm: 900, lateralMm: -500, importance: 'maySoft' });
const bowl = newThing('bowl', 'bowl', { depthMm: -200, heightMm: 1500, lateralMm: 250 });

function situationOf(setup: Setup, kit: Kit = builtInKit) {
  const prepared = prepare({ setup, kit, stopStep: 'third', habits: defaultHabits });
  if (prepared.kind === 'noPlan') throw new Error(prepared.reason.code);
  return prepared;
}
function all(setup: Setup, kit: Kit = builtInKit) {
  const situation = situationOf(setup, kit);
  const decisive = situation.decisive.flatMap((index) => situation.subjects[index] ?? []);
  const depths = {
    nearest: Math.min(...decisive.map((item) => item.nearest)),
    furthest: Math.max(...decisive.map((item) => item.furthest))
  };
  return {
    subjects: situation.subjects,
    decisive,
    found: [...(situation.groups[0]?.eyes ?? []), ...(situation.groups[0]?.beside ?? [])],
    depths,
    situation
  };
}
const wide = { placement: { kind: 'distance', distanceMm: 4000 }, lensId: 'lens-50', focalLengthMm: 50 } as const;
const base = newSetup('s', 'S', { people: [ada, bo, cleo], backgrounds: [] });
const setup: Setup = { ...base, camera: { ...base.camera, ...wide } };
const seenBy = (people: readonly Person[], camera: Partial<Camera> = {}): Setup => ({
  ...setup,
  people: [...people],
  camera: { ...setup.camera, ...camera }
});
const aiming = (target: Setup['intent']['target'], changes: Partial<Setup['intent']> = {}): Setup => ({
  ...setup,
  intent: { ...setup.intent, target, ...changes }
});

describe('where the focus may be put', () => {
  it('is on those who must be sharp; without any on those who should; without any on everybody', () => {
    const who = (people: Setup['people']) => all({ ...setup, people }).decisive.map((item) => item.id);
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
    expect(chosen({ kind: 'distance', distanceMm: 2222 })).toMatchObject([
      { subjectId: null, role: null, focusDistanceMm: 2222 }
    ]);
    expect(chosen({ kind: 'eye', personId: 'gone', eye: 'leftEye' }).map((item) => item.subjectId)).toEqual([
      'ada',
      'ada'
    ]);
    const held = all({ ...aiming({ kind: 'thing', thingId: 'bowl' }), things: [bowl] });
    expect(held.found.every((item) => item.subjectId === 'bowl')).toBe(true);
    expect(held.found.length).toBeGreaterThan(0);
  });

  it('by hand, with more than one to be sharp, can also be beside the eyes and between the faces, after every eye', () => {
    const two = [ada, { ...bo, importance: 'must' as const, depthMm: 170 }];
    // Autofocus wants an eye: only by hand can it be put elsewhere.
    expect(new Set(all(seenBy(two)).found.map((item) => item.role))).toEqual(new Set(['nearEye', 'farEye']));
    const { found, depths } = all(seenBy(two, { focusMethod: 'magnifier' }));
    const standings = found.map((item) => item.standing);
    expect([...standings].sort((a, b) => order(a) - order(b))).toEqual(standings);
    const roles = found.filter((item) => item.standing === 'beside').map((item) => item.role);
    expect(new Set(roles)).toEqual(
      new Set(['temple', 'ear', 'collar', null].filter((role) => roles.includes(role as null)))
    );
    expect(roles).toContain('temple');
    expect(found[found.length - 1]).toMatchObject({
      subjectId: null,
      focusDistanceMm: bestFocusBetween(depths.nearest, depths.furthest)
    });
    // Between the depths that matter, never outside them.
    for (const item of found.filter(({ standing }) => standing === 'beside')) {
      expect(item.focusDistanceMm).toBeGreaterThan(depths.nearest);
      expect(item.focusDistanceMm).toBeLessThan(depths.furthest);
    }
    expect(all(seenBy([ada])).found.map((item) => item.role)).toEqual(['nearEye', 'farEye']);
    // By hand, somewhere between two eyes of one face too.
    expect(all(seenBy([ada], { focusMethod: 'magnifier' })).found.map((item) => item.role)).toEqual([
      'nearEye',
      'farEye',
      null
    ]);
  });

  it('with two frames is the eye chosen only in the frame that holds it', () => {
    const chosen = aiming({ kind: 'eye', personId: 'bo', eye: 'leftEye' }, { frames: 'two' });
    // Bo does not decide, so no frame holds him: those who do keep their own best eye.
    expect(all(chosen).found.map((item) => item.subjectId)).toEqual(['ada', 'ada']);
    const bothDecide = { ...chosen, people: [ada, { ...bo, importance: 'must' as const }] };
    expect(situationOf(bothDecide).groups[1]?.eyes).toMatchObject([{ subjectId: 'bo', feature: 'leftEye' }]);
  });

  it('is none that is hidden behind somebody, while others are seen', () => {
    const before = newPerson('before', 'Before', { depthMm: -600, importance: 'maySoft' });
    const beside = newPerson('beside', 'Beside', { lateralMm: 700 });
    expect(
      all(seenBy([newPerson('behind', 'Behind'), before, beside])).found.some((item) => item.subjectId === 'behind')
    ).toBe(false);
    const { found, situation } = all(seenBy([newPerson('behind', 'Behind'), before]));
    // Nobody aims through a guest: with autofocus the guest's own eye is what can be had.
    expect(found.every((item) => item.subjectId === 'before')).toBe(true);
    expect(situation.hidden()).toEqual(['behind']);
  });

  it('is the point that lies there, as fine as that point is; else the camera is turned, and that is counted', () => {
    const kit: Kit = {
      ...builtInKit,
      bodies: [
        newBody('few', 'few points', {
          focusGrid: { ...setupGrid, sensitive: 'centre' },
          focusSpreadUm: 8
        })
      ]
    };
    const at = (lateralMm: number) =>
      all(seenBy([newPerson('p', 'P', { lateralMm })], { bodyId: 'few' }), kit).found[0];
    expect(at(-31)).toMatchObject({
      recomposed: null,
      biasMm: 0,
      behindMm: 0.008,
      point: { right: 0, sensitive: true }
    });
    expect(at(400)).toMatchObject({ recomposed: null, biasMm: 0, behindMm: 0.016, point: { sensitive: false } });
    const out = at(1250);
    expect(out?.recomposed).toMatchObject({ asked: false, leanMm: 0 });
    expect(out?.biasMm ?? 0).toBeGreaterThan(50);
    expect(out).toMatchObject({ behindMm: 0.008, point: { right: 0, up: 0 } });
    // With the magnifier any place is reached.
    const byHand = all(
      seenBy([newPerson('p', 'P', { lateralMm: 1250 })], { bodyId: 'few', focusMethod: 'magnifier' }),
      kit
    );
    expect(byHand.found[0]).toMatchObject({ recomposed: null, biasMm: 0 });
  });

  it('comes in the order one would rather focus there', () => {
    const firsts = (people: readonly Person[], camera: Partial<Camera> = {}) =>
      all(seenBy(people, camera)).found[0]?.subjectId;
    const [a, b] = [newPerson('a', 'A', { lateralMm: -300 }), newPerson('b', 'B', { lateralMm: 300 })];
    // Nearer the middle of the picture.
    expect(firsts([a, { ...b, lateralMm: 900 }])).toBe('a');
    expect(firsts([{ ...a, lateralMm: -900 }, b])).toBe('b');
    // Of two rows, equally near the middle, the front one.
    expect(firsts([{ ...a, depthMm: 700 }, b])).toBe('b');
    // Whoever keeps still.
    expect(firsts([{ ...a, mood: 'lively' }, b])).toBe('b');
    expect(firsts([{ ...a, acrossMmPerS: 100 }, b])).toBe('b');
    // Not a pet among people, not at the edge.
    expect(firsts([newPerson('dog', 'Dog', { being: 'pet', statureMm: 1500, lateralMm: 0 }), b])).toBe('b');
    const edge = all(seenBy([{ ...a, lateralMm: -1350 }])).found;
    expect(edge.every((item) => item.standing === 'reluctant')).toBe(true);
  });
});

const order = (standing: string) => ['ordinary', 'reluctant', 'beside'].indexOf(standing);
const setupGrid = { columns: 5, rows: 5, widthShare: 0.5, heightShare: 0.5, fine: null, sizes: [], anywhere: false };

describe('a found target as a wish', () => {
  it('asks for the eye, the thing, or else the distance', () => {
    const target = (changes: object) => ({
      subjectId: 'ada',
      feature: 'leftEye',
      role: null,
      focusDistanceMm: 1234.4,
      position: null,
      point: null,
      recomposed: null,
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
    for (const candidate of all(setup).found.filter((item) => item.standing !== 'beside')) {
      const again = all(aiming(asFocusTarget(candidate, setup))).found;
      expect(again).toMatchObject([{ subjectId: candidate.subjectId, feature: candidate.feature }]);
      expect(again[0]?.focusDistanceMm).toBe(candidate.focusDistanceMm);
    }
  });
});

describe('places of a scene laid out by hand', () => {
  const eye = (depth: number, x = 0.5, changes: Partial<ScenePoint> = {}): ScenePoint => ({
    feature: 'leftEye',
    role: 'nearEye',
    position: { x, y: 0.5, z: depth },
    depth,
    required: true,
    target: true,
    ...changes
  });
  const somebody = (id: string, points: readonly ScenePoint[], changes: Partial<Subject> = {}): Subject => {
    const depths = points.map(({ depth }) => depth);
    return {
      kind: 'person',
      id,
      name: id,
      importance: 'must',
      points,
      nearest: Math.min(...depths),
      furthest: Math.max(...depths),
      ...changes
    };
  };
  /** In this scene x and y are where it lies in the picture. */
  function laidOut(
    subjects: readonly Subject[],
    changes: Partial<FocusScene> = {},
    aim: Partial<Aim> = {}
  ): FocusScene {
    return {
      setup,
      view: situationOf(setup).view,
      aim: {
        at: ({ x, y }) => ({ x, y }),
        sees: () => true,
        focusing: () => ({ point: null, recomposed: null, biasMm: 0, biasUm: 0, stopShift: [], leanMm: 0, behindMm: 0.01 }), // prettier-ignore
        ...aim
      },
      subjects,
      decisive: subjects,
      personOf: new Map(),
      hasPeople: true,
      closest: 500,
      rowPreference: () => 0,
      ...changes
    };
  }
  const ids = (found: readonly Candidate[]) => found.map(({ subjectId }) => subjectId);
  const wishing = (target: Setup['intent']['target'], frames: 'one' | 'two' = 'one') => ({
    setup: aiming(target, { frames })
  });

  it('are in the picture up to its very edge', () => {
    for (const at of [0, 1]) {
      expect(isIn({ x: at, y: 0.5 })).toBe(true);
      expect(isIn({ x: 0.5, y: at })).toBe(true);
    }
    expect([isIn({ x: -0.01, y: 0.5 }), isIn({ x: 1.01, y: 0.5 })]).toEqual([false, false]);
    expect([isIn({ x: 0.5, y: -0.01 }), isIn({ x: 0.5, y: 1.01 }), isIn(undefined)]).toEqual([false, false, false]);
  });

  it('are reluctant within 8% of any edge, and not on that line or behind the lens', () => {
    const standing = (x: number, y: number, aim: Partial<Aim> = {}) =>
      subjectCandidates(laidOut([somebody('a', [eye(2000, x, { position: { x, y, z: 2000 } })])], {}, aim))[0]
        ?.standing;
    for (const at of [0.05, 0.93]) {
      expect(standing(at, 0.5)).toBe('reluctant');
      expect(standing(0.5, at)).toBe('reluctant');
    }
    expect([standing(0.08, 0.5), standing(0.5, 0.9), standing(0.9, 0.5)]).toEqual(['ordinary', 'ordinary', 'ordinary']);
    expect(standing(0.5, 0.5, { at: () => undefined })).toBe('ordinary');
  });

  it('are those seen and in reach, down to the closest distance itself; all of them where none is', () => {
    const two = [somebody('near', [eye(499)]), somebody('at', [eye(500)])];
    expect(ids(subjectCandidates(laidOut(two)))).toEqual(['at']);
    expect(ids(subjectCandidates(laidOut(two.slice(0, 1))))).toEqual(['near']);
    expect(ids(subjectCandidates(laidOut(two, {}, { sees: (id) => id === 'near' })))).toEqual(['near']);
    // What is no target is no place.
    expect(subjectCandidates(laidOut([somebody('a', [eye(900, 0.5, { target: false })])]))).toEqual([]);
  });

  it('with somebody chosen are theirs alone, the most preferred first; by default the best, whoever has the same id elsewhere', () => {
    const both = somebody('a', [eye(900, 0.7, { feature: 'thingNear' }), eye(950, 0.5, { feature: 'thingFar' })]);
    const other = somebody('b', [eye(800)]);
    const chosen = wishing({ kind: 'thing', thingId: 'a' });
    expect(subjectCandidates(laidOut([other, both], chosen)).map(({ feature }) => feature)).toEqual([
      'thingFar',
      'thingNear'
    ]);
    expect(ids(subjectCandidates(laidOut([other, both], wishing({ kind: 'best' })))).slice(0, 1)).toEqual(['b']);
    const eyeOfB = wishing({ kind: 'eye', personId: 'b', eye: 'leftEye' }, 'two');
    // One of those this frame holds, though not all are; and in the frame that does not hold them, those it does.
    expect(ids(subjectCandidates(laidOut([both, other], eyeOfB)))).toEqual(['b']);
    const without = laidOut([both, other], { ...eyeOfB, decisive: [both] });
    expect(ids(subjectCandidates(without))).toEqual(['a', 'a']);
  });

  it('come by what each costs: turning the camera, a lesser point, the way from the middle, the row', () => {
    const order = (focusing: Partial<Candidate>, changes: Partial<FocusScene> = {}, x = 0.5) => {
      const scene = laidOut([somebody('a', [eye(900, x)]), somebody('b', [eye(950)])], changes, {
        focusing: (position) => ({
          point: null,
          recomposed: null,
          biasMm: 0,
          biasUm: 0,
          stopShift: [],
          leanMm: 0,
          behindMm: 0.01,
          ...(position?.z === 900 ? focusing : {})
        })
      });
      return ids(subjectCandidates(scene)).join('');
    };
    expect(order({})).toBe('ab');
    const turned = { turnMm: 10, leanMm: 0 };
    expect(order({ recomposed: { ...turned, asked: false } })).toBe('ba');
    expect(order({ recomposed: { ...turned, asked: true } })).toBe('ab');
    const point = { x: 0.5, y: 0.5, right: 0, up: 0 };
    expect(order({ point: { ...point, sensitive: false } as FocusPoint })).toBe('ba');
    expect(order({ point: { ...point, sensitive: true } as FocusPoint })).toBe('ab');
    // 15% of the half diagonal are a step; less than half of one is none.
    expect(order({}, {}, 0.54)).toBe('ab');
    expect(order({}, {}, 0.6)).toBe('ba');
    expect(order({}, { rowPreference: (depth) => (depth === 900 ? 1 : 0) })).toBe('ba');
  });

  it('of two rows are in the front one, of three in the middle one', () => {
    const row = (depth: number) => somebody(String(depth), [eye(depth)]);
    const two = rowPreferenceOf([row(3000), row(3800)]);
    expect([two(3000), two(3140), two(3800)]).toEqual([10, 10, 13]);
    const three = rowPreferenceOf([row(3000), row(3800), row(4600)]);
    const middle = bestFocusBetween(3000, 4600);
    expect([three(3000), three(middle), three(4600)]).toEqual([
      Math.round((middle - 3000) / 300),
      0,
      Math.round((4600 - middle) / 300)
    ]);
  });

  it('between them are none with a target chosen or nobody to stand between, and strictly between', () => {
    const two = [somebody('a', [eye(2000)]), somebody('b', [eye(2400)])];
    const all = (scene: FocusScene, nearest = 2000, furthest = 2400) =>
      intermediateCandidates(scene, { nearest, furthest }).map(({ subjectId, focusDistanceMm }) => [
        subjectId,
        focusDistanceMm
      ]);
    const even = [null, bestFocusBetween(2000, 2400)];
    // Autofocus wants an eye, whoever stands where.
    expect(all(laidOut(two))).toEqual([]);
    const byRing = { setup: seenBy([ada, bo], { focusMethod: 'byEye' }) };
    expect(all(laidOut(two, byRing))).toContainEqual(even);
    expect(all(laidOut(two, wishing({ kind: 'distance', distanceMm: 2200 })))).toEqual([]);
    // One face, its two eyes apart: only by hand is there a plane between.
    expect(all(laidOut(two.slice(0, 1)))).toEqual([]);
    const byHand = { setup: seenBy([ada], { focusMethod: 'byEye' }) };
    expect(all(laidOut(two.slice(0, 1), byHand))).toEqual([even]);
    expect(all(laidOut(two.slice(0, 1), byHand), 2000, 2000)).toEqual([]);
    const real = all(laidOut(two, { ...byRing, personOf: new Map([['a', ada]]) }), 0, 1e9);
    expect(real.length).toBe(4);
    const [, depth = 0] = real[0] ?? [];
    const beside = { ...byRing, personOf: new Map([['a', ada]]) };
    expect(all(laidOut(two, beside), Number(depth), 1e9).map((item) => item[1])).not.toContain(depth);
    expect(all(laidOut(two, beside), 0, Number(depth)).map((item) => item[1])).not.toContain(depth);
    expect(all(laidOut(two, beside, { sees: () => false }), 0, 1e9).map((item) => item[0])).toEqual([null]);
  });
});
