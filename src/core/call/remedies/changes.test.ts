/** Each change by itself: how far it may go, what it costs, and exactly what it does. Whether it helps is tested beside it. */
import { describe, expect, it } from 'vitest';
import { degrees } from '../../maths/vector';
import { defaultHabits } from '../../habits/habits';
import { builtInKit } from '../../kit/builtInKit';
import { bodyOf, lensOf } from '../../kit/find';
import { focusFromSensor, framedSize } from '../../optics/thinLens';
import { pictureSize } from '../../setup/framing';
import { newBackground, newPerson, newSetup, newThing } from '../../setup/defaults';
import { turnFromLens, viewpoint } from '../../setup/scene';
import type { Camera, Person, Setup } from '../../setup/schema';
import { variedSetups } from '../../testing/variedSetups';
import type { Plan } from '../plan';
import type { PlanInput } from '../planInput';
import { planSetup } from '../planSetup';
import { choices } from './choices';
import { families } from './families';
import { findRemedies } from './findRemedies';
import { searchFor } from './search';
import { wrapDeg, type Context, type Family, type RemedyKind } from './remedy';

const distanceMm = 3000;
function setupWith(changes: Partial<Setup>, camera: Partial<Camera> = {}): Setup {
  const base = newSetup('s', 'S', { backgrounds: [], ...changes });
  return {
    ...base,
    camera: { ...base.camera, placement: { kind: 'distance', distanceMm }, heightMm: 1570, ...camera }
  };
}
function contextOf(setup: Setup, planned: Partial<Plan> = {}): Context {
  const plan = planSetup({ setup, kit: builtInKit, habits: defaultHabits, stopStep: 'full' });
  const [body, lens] = [bodyOf(builtInKit, setup.camera), lensOf(builtInKit, setup.camera)];
  if (plan.kind !== 'plan' || !body || !lens) throw new Error('no plan');
  return {
    habits: defaultHabits,
    setup,
    plan: { ...plan, ...planned },
    body,
    lens,
    kit: builtInKit,
    distance: plan.distanceMm
  };
}
const familiesOf = (setup: Setup, planned: Partial<Plan> = {}) => families(contextOf(setup, planned));
const kindsOf = (setup: Setup, planned: Partial<Plan> = {}) => familiesOf(setup, planned).map(({ kind }) => kind);
function family(setup: Setup, kind: RemedyKind, planned: Partial<Plan> = {}): Family {
  const found = familiesOf(setup, planned).find((item) => item.kind === kind);
  if (!found) throw new Error(`no ${kind}`);
  return found;
}
const somebody = (setup: Setup, id: string): Person => {
  const found = setup.people.find((person) => person.id === id);
  if (!found) throw new Error(id);
  return found;
};
const bound = (subjectId: string): Partial<Plan> => ({ lower: { kind: 'point', subjectId, role: 'farEye' } });

describe('turning a face', () => {
  const turned = newPerson('a', 'Ada', { headYawDeg: 40, lateralMm: 200 });
  const turnOf = (setup: Setup, person: Person) => {
    const { body, lens } = contextOf(setup);
    return degrees(turnFromLens(viewpoint(setup, body, lens.pupilMagnification), person));
  };

  it('brings whoever keeps the window shut to the lens, as far as they are turned from it and never past it', () => {
    const setup = setupWith({ people: [turned] });
    const turn = turnOf(setup, turned);
    const { most, step, unit, subject, effort, apply, caution } = family(setup, 'turnFace', bound('a'));
    expect(turn).toBeGreaterThan(40);
    expect({ most, step, unit, subject, caution }).toEqual({
      most: turn,
      step: 1,
      unit: 'deg',
      subject: 'Ada',
      caution: undefined
    });
    expect([effort(0), effort(90)]).toEqual([0.3, 1.3]);
    expect(turnOf(setup, somebody(apply(10), 'a'))).toBeCloseTo(turn - 10, 9);
    expect(turnOf(setup, somebody(apply(most), 'a'))).toBeCloseTo(0, 9);
    expect(turnOf(setup, somebody(apply(most + 20), 'a'))).toBeCloseTo(0, 9);
    const left = { ...turned, headYawDeg: -40 };
    const other = setupWith({ people: [left] });
    expect(turnOf(other, somebody(family(other, 'turnFace', bound('a')).apply(10), 'a'))).toBeCloseTo(
      turnOf(other, left) + 10,
      9
    );
  });

  it('is nobody’s who looks at the lens, and only theirs who are in the way', () => {
    const people = [turned, newPerson('b', 'Bo', { headYawDeg: 2 })];
    const setup = setupWith({ people });
    expect(kindsOf(setup, bound('b'))).not.toContain('turnFace');
    expect(kindsOf(setup, { lower: { kind: 'lens' } })).not.toContain('turnFace');
    expect(kindsOf(setup, { lower: { kind: 'odds', subjectId: 'a' } })).toContain('turnFace');
    const applied = family(setup, 'turnFace', bound('a')).apply(10);
    expect(somebody(applied, 'b')).toEqual(people[1]);
  });

  it('of all is for two or more, costs more for more, and leaves who may be soft', () => {
    const free = newPerson('f', 'Free', { headYawDeg: 70, lateralMm: -300, importance: 'maySoft' });
    const people = [turned, newPerson('b', 'Bo', { headYawDeg: -20, lateralMm: -200 }), free];
    const setup = setupWith({ people });
    const { most, effort, apply } = family(setup, 'turnFaces');
    expect(most).toBeCloseTo(turnOf(setup, turned), 9);
    expect(effort(45)).toBeCloseTo(0.4 + 0.2 + 0.5, 9);
    const after = apply(25);
    expect(turnOf(setup, somebody(after, 'a'))).toBeCloseTo(turnOf(setup, turned) - 25, 9);
    expect(turnOf(setup, somebody(after, 'b'))).toBeCloseTo(0, 9);
    expect(somebody(after, 'f')).toEqual(free);
    expect(kindsOf(setupWith({ people: [turned] }))).not.toContain('turnFaces');
    expect(kindsOf(setupWith({ people: [turned, free] }))).not.toContain('turnFaces');
    const straight = [newPerson('a', 'A'), newPerson('b', 'B', { headYawDeg: 2 })];
    expect(kindsOf(setupWith({ people: straight }))).not.toContain('turnFaces');
  });

  it('angles stay within half a turn', () => {
    expect([190, -190, 360, 0, 179, -540].map(wrapDeg)).toEqual([-170, 170, 0, 0, 179, -180]);
  });
});

describe('stepping back and closer', () => {
  const ada = newPerson('a', 'Ada');
  const placed = (setup: Setup, kind: RemedyKind, amount: number) => family(setup, kind).apply(amount).camera.placement;

  it('goes as far as the place has room, three metres where nobody has said', () => {
    const setup = setupWith({ people: [ada] });
    expect(family(setup, 'stepBack')).toMatchObject({ most: 3000, step: 10, unit: 'mm' });
    const room = { ...setup.place, backUpMm: 3800 };
    expect(family({ ...setup, place: room }, 'stepBack').most).toBe(800);
    expect(placed(setup, 'stepBack', 250)).toEqual({ kind: 'distance', distanceMm: 3250 });
    expect(placed(setup, 'stepCloser', 250)).toEqual({ kind: 'distance', distanceMm: 2750 });
    for (const kind of ['stepBack', 'stepCloser'] as const)
      expect([family(setup, kind).effort(0), family(setup, kind).effort(1000)]).toEqual([0.3, 0.5]);
  });

  it('comes no nearer than half a metre before whatever stands first, nor than the lens focuses', () => {
    const most = (changes: Partial<Setup>) => family(setupWith({ people: [ada], ...changes }), 'stepCloser').most;
    const lens = builtInKit.lenses.find(({ id }) => id === 'lens-85');
    if (!lens) throw new Error('no lens');
    const closest = focusFromSensor(85, lens.closestFocusMm, lens.pupilMagnification) * 1.02;
    expect(most({})).toBeCloseTo(3000 - Math.max(500, closest), 9);
    expect(most({ things: [newThing('t', 'T', { depthMm: -600 })] })).toBe(1900);
    expect(most({ backgrounds: [newBackground('f', 'ferns', { depthMm: -1000 })] })).toBe(1500);
    // What the camera stands behind already, or among, is not in the way.
    expect(most({ backgrounds: [newBackground('f', 'ferns', { depthMm: -3100 })] })).toBeCloseTo(3000 - closest, 9);
    expect(most({ backgrounds: [newBackground('f', 'ferns', { depthMm: -3000 })] })).toBeCloseTo(3000 - closest, 9);
  });
});

describe('leaving the background', () => {
  const wall = newBackground('w', 'wall', { depthMm: 1500 });
  const setup = setupWith({
    people: [newPerson('a', 'A'), newPerson('b', 'B', { lateralMm: 300 })],
    backgrounds: [wall]
  });

  it('is for a picture that has one; as far as camera and foreground leave room', () => {
    expect(kindsOf({ ...setup, backgrounds: [] })).not.toContain('moveOffBackground');
    const most = (place: Partial<Setup['place']>, more: Setup['backgrounds'] = []) =>
      family({ ...setup, place: { ...setup.place, ...place }, backgrounds: [wall, ...more] }, 'moveOffBackground').most;
    expect(most({})).toBe(3000);
    expect(most({ backUpMm: 3700 })).toBe(700);
    expect(most({}, [newBackground('f', 'ferns', { depthMm: -900 })])).toBe(400);
    expect(most({ backUpMm: 3700 }, [newBackground('f', 'ferns', { depthMm: -1900 })])).toBe(700);
  });

  it('takes everybody along: all that is fixed falls back, and the room changes sides', () => {
    const { apply, effort, step } = family(
      { ...setup, place: { ...setup.place, backUpMm: 3700, behindMm: 200 } },
      'moveOffBackground'
    );
    const after = apply(300);
    expect(after.backgrounds).toEqual([{ ...wall, depthMm: 1800 }]);
    expect(after.place).toMatchObject({ backUpMm: 3400, behindMm: 500 });
    expect(after.camera.placement).toEqual({ kind: 'distance', distanceMm: 3000 });
    expect(after.people).toEqual(setup.people);
    expect(effort(1250)).toBeCloseTo(0.5 + 0.1 + 0.5, 9);
    expect(step).toBe(10);
    const open = family(setup, 'moveOffBackground').apply(300).place;
    expect([open.backUpMm, open.behindMm]).toEqual([null, null]);
  });
});

describe('things and height', () => {
  it('a thing before the faces is brought to the nearest of them; each by itself', () => {
    const things = [newThing('ring', 'ring', { depthMm: -250 }), newThing('cup', 'cup', { depthMm: -100 })];
    const soft = newThing('veil', 'veil', { depthMm: -400, importance: 'maySoft' });
    const people = [newPerson('a', 'A', { depthMm: 50 }), newPerson('b', 'B', { depthMm: 0, importance: 'maySoft' })];
    const found = familiesOf(setupWith({ people, things: [...things, soft] })).filter(
      ({ kind }) => kind === 'bringThing'
    );
    expect(found.map(({ subject, most, step, unit }) => ({ subject, most, step, unit }))).toEqual([
      { subject: 'ring', most: 300, step: 10, unit: 'mm' },
      { subject: 'cup', most: 150, step: 10, unit: 'mm' }
    ]);
    expect(found[0]?.apply(120).things.map(({ depthMm }) => depthMm)).toEqual([-130, -100, -400]);
    expect(found[0]?.effort(1000)).toBe(0.5);
    const level = newThing('cup', 'cup', { depthMm: 50 });
    expect(kindsOf(setupWith({ people, things: [level] }))).not.toContain('bringThing');
    expect(kindsOf(setupWith({ people: [], things }))).not.toContain('bringThing');
  });

  it('the camera is raised up to three and a half metres, with a word of caution', () => {
    const setup = setupWith({ people: [newPerson('a', 'A')] });
    const { most, step, caution, effort, apply } = family(setup, 'raiseCamera');
    expect({ most, step, caution, effort: effort(500) }).toEqual({
      most: 1930,
      step: 50,
      caution: 'ladder',
      effort: 2
    });
    expect(apply(200).camera.heightMm).toBe(1770);
    expect(family(setupWith({ people: setup.people }, { heightMm: 4000 }), 'raiseCamera').most).toBe(0);
  });
});

describe('rows', () => {
  const row = (depths: readonly number[], spacing = 300) =>
    depths.map((depthMm, i) =>
      newPerson(`p${i}`, `P${i}`, { depthMm, lateralMm: (i - (depths.length - 1) / 2) * spacing })
    );
  const depthsOf = (setup: Setup) => setup.people.map(({ depthMm }) => depthMm);

  it('of two have the further one brought forward, from 40 mm on', () => {
    const setup = setupWith({ people: row([0, 500]) });
    const { most, subject, effort, apply, step } = family(setup, 'bringForward');
    expect({ most, subject, step }).toEqual({ most: 500, subject: 'P1', step: 10 });
    expect(effort(1000)).toBeCloseTo(0.6, 9);
    expect(depthsOf(apply(120))).toEqual([0, 380]);
    expect(kindsOf(setupWith({ people: row([0, 40]) }))).not.toContain('bringForward');
    expect(kindsOf(setupWith({ people: row([0, 200, 500]) }))).not.toContain('bringForward');
    expect(kindsOf(setupWith({ people: row([0]) }))).not.toContain('bringForward');
  });

  it('of more are pulled together in proportion, to half their depth at most; who may be soft stays', () => {
    const free = newPerson('f', 'F', { depthMm: 900, importance: 'maySoft' });
    const setup = setupWith({ people: [...row([100, 300, 600]), free] });
    const { most, effort, apply, step } = family(setup, 'pullTogether');
    expect({ most, step }).toEqual({ most: 250, step: 10 });
    expect(effort(1000)).toBeCloseTo(0.8 + 0.3 + 0.2, 9);
    expect(depthsOf(apply(250))).toEqual([100, 200, 350, 900]);
    expect(kindsOf(setupWith({ people: row([0, 20, 40]) }))).not.toContain('pullTogether');
    expect(kindsOf(setupWith({ people: row([0, 500]) }))).not.toContain('pullTogether');
  });

  it('that stand slanted are turned about their middle, keeping their distances', () => {
    const setup = setupWith({ people: row([0, 100, 200]) });
    const slantDeg = degrees(Math.atan(1 / 3));
    const { most, effort, apply, step, unit } = family(setup, 'turnRow');
    expect(most).toBeCloseTo(slantDeg, 9);
    expect({ step, unit }).toEqual({ step: 1, unit: 'deg' });
    expect(effort(30)).toBeCloseTo(0.8 + 0.3 + 0.5, 9);
    const after = apply(most);
    for (const depth of depthsOf(after)) expect(depth).toBeCloseTo(100, 6);
    const lateral = after.people.map(({ lateralMm }) => lateralMm);
    const apart = Math.hypot(300, 100);
    [-apart, 0, apart].forEach((x, i) => expect(lateral[i]).toBeCloseTo(x, 6));
    // Slanted the other way it turns the other way.
    const other = family(setupWith({ people: row([200, 100, 0]) }), 'turnRow').apply(slantDeg);
    for (const depth of depthsOf(other)) expect(depth).toBeCloseTo(100, 6);
  });

  it('are walked round by the camera on a circle about their middle, the faces following', () => {
    const setup = setupWith({ people: row([0, 100, 200]).map((person) => ({ ...person, headYawDeg: 12 })) });
    const { most, effort, apply } = family(setup, 'squareCamera');
    expect(most).toBeCloseTo(degrees(Math.atan(1 / 3)), 9);
    expect(effort(45)).toBe(1.5);
    const { camera, people } = apply(10);
    const { placement } = camera;
    if (placement.kind !== 'distance') throw new Error('no distance');
    const [x, z] = [camera.lateralMm - 0, placement.distanceMm + 100];
    expect(Math.hypot(x, z)).toBeCloseTo(3100, 6);
    expect(Math.abs(degrees(Math.atan2(x, z)))).toBeCloseTo(10, 6);
    // The far end is on the right: squared to it the camera stands further left and looks to the right, or the other way round.
    expect(Math.sign(camera.yawDeg)).toBe(-Math.sign(x));
    expect(Math.abs(camera.yawDeg)).toBeCloseTo(10, 6);
    for (const { headYawDeg } of people) expect(headYawDeg).toBeCloseTo(12 - camera.yawDeg, 6);
    // From there the row's ends are more alike in depth than they were.
    const along = (person: Person) => {
      const yaw = (camera.yawDeg * Math.PI) / 180;
      return (
        (person.lateralMm - camera.lateralMm) * Math.sin(yaw) + (person.depthMm + placement.distanceMm) * Math.cos(yaw)
      );
    };
    const [left, , right] = people as [Person, Person, Person];
    expect(Math.abs(along(right) - along(left))).toBeLessThan(130);
  });

  it('are neither turned nor walked round where they hardly slant, slant too far, or stand as one', () => {
    const slantedBy = (deg: number, spacing = 300) => {
      const rise = spacing * Math.tan((deg * Math.PI) / 180);
      return kindsOf(setupWith({ people: row([0, rise, 2 * rise], spacing) }));
    };
    for (const kind of ['turnRow', 'squareCamera'] as const) {
      expect(slantedBy(1.9)).not.toContain(kind);
      expect(slantedBy(2.1)).toContain(kind);
      expect(slantedBy(39.9)).toContain(kind);
      expect(slantedBy(40.1)).not.toContain(kind);
      expect(slantedBy(20, 100)).not.toContain(kind);
      expect(slantedBy(20, 101)).toContain(kind);
    }
    // Two people have no row to turn, but can be walked round.
    const two = kindsOf(setupWith({ people: row([0, 100]) }));
    expect([two.includes('turnRow'), two.includes('squareCamera')]).toEqual([false, true]);
  });

  it('are laid along the surface of focus: straight for a flat one, round the lens for a curved one', () => {
    const bent = setupWith({ people: row([0, -90, 0]) });
    const flat = family(bent, 'shapeRow');
    expect(flat).toMatchObject({ subject: 'flat', unit: 'mm', step: 10 });
    expect(flat.most).toBeCloseTo(60, 6);
    expect(flat.effort(1000)).toBeCloseTo(0.8 + 0.3 + 0.2, 9);
    for (const depth of depthsOf(flat.apply(flat.most))) expect(depth).toBeCloseTo(-30, 6);
    [-15, -60, -15].forEach((depth, i) => expect(depthsOf(flat.apply(30))[i]).toBeCloseTo(depth, 6));
    const straight = setupWith({ people: row([0, 0, 0], 500) }, { focusSurface: 'curved' });
    const curved = family(straight, 'shapeRow');
    expect(curved.subject).toBe('in');
    const drop = 3000 - Math.sqrt(3000 ** 2 - 500 ** 2);
    expect(curved.most).toBeCloseTo(drop, 6);
    [-drop, 0, -drop].forEach((depth, i) => expect(depthsOf(curved.apply(curved.most))[i]).toBeCloseTo(depth, 6));
    // Seen from a camera that stands aside, it lies about that.
    const aside = family({ ...straight, camera: { ...straight.camera, lateralMm: 500 } }, 'shapeRow');
    const shaped = depthsOf(aside.apply(aside.most));
    expect(shaped[2]).toBeCloseTo(0, 6);
    expect(shaped[0]).toBeCloseTo(Math.sqrt(3000 ** 2 - 1000 ** 2) - 3000, 6);
    expect(kindsOf(setupWith({ people: row([0, -45, 0]) }))).not.toContain('shapeRow');
    expect(kindsOf(setupWith({ people: row([0, -46, 0]) }))).toContain('shapeRow');
  });
});

describe('rows and a surface as it was measured', () => {
  const people = [-500, 0, 500].map((lateralMm, i) => newPerson(`p${i}`, `P${i}`, { lateralMm }));
  it.each([
    [0.3, 'in'],
    [-0.3, 'out']
  ])('lie along it: bending by %d per metre, %s', (fieldPerM, subject) => {
    const setup = setupWith({ people }, { focusSurface: 'measured' });
    const context = contextOf(setup);
    const bends = { ...context, lens: { ...context.lens, fieldPerM } };
    const found = families(bends).find(({ kind }) => kind === 'shapeRow');
    expect(found?.subject).toBe(subject);
    const depths = found?.apply(found.most).people.map(({ depthMm }) => depthMm) ?? [];
    // By vergence: 1/depth on the axis and the squared tangent off it.
    const aside = 1 / (1 / 3000 + (fieldPerM / 1000) * (500 / 3000) ** 2) - 3000;
    expect(Math.abs(aside)).toBeGreaterThan(30);
    [aside, 0, aside].forEach((depth, i) => expect(depths[i]).toBeCloseTo(depth, 6));
  });

  it('each row by itself', () => {
    const back = people.map((person) => ({ ...person, id: `b${person.id}`, depthMm: 900, floorMm: 300 }));
    const setup = setupWith({ people: [...people, ...back] }, { focusSurface: 'curved' });
    const shaped = family(setup, 'shapeRow');
    const depths = shaped.apply(shaped.most).people.map(({ depthMm }) => depthMm);
    const drop = (radius: number) => Math.sqrt(radius ** 2 - 500 ** 2) - radius;
    [drop(3000), 0, drop(3000), 900 + drop(3900), 900, 900 + drop(3900)].forEach((depth, i) =>
      expect(depths[i]).toBeCloseTo(depth, 6)
    );
  });
});

describe('the place', () => {
  const setup = setupWith(
    {
      people: [newPerson('a', 'Ada'), newPerson('f', 'Free', { depthMm: 300, lateralMm: 400, importance: 'maySoft' })]
    },
    { lateralMm: 300 }
  );
  /** Whether a change is allowed by the place, all else being well. */
  const fits = (place: Partial<Setup['place']>, change: (setup: Setup) => Setup) => {
    const placed = { ...setup, place: { ...setup.place, ...place } };
    const search = searchFor({ setup: placed, kit: builtInKit, habits: defaultHabits, stopStep: 'full' });
    if (!search?.opens(placed)) throw new Error('shut as it is');
    return search.opens(change(placed));
  };
  const back = (by: number) => (from: Setup) => ({
    ...from,
    people: from.people.map((person) => ({ ...person, depthMm: person.depthMm + by }))
  });
  const camera = (changes: Partial<Camera>) => (from: Setup) => ({ ...from, camera: { ...from.camera, ...changes } });

  it('has people go back only as far as there is room behind the furthest of them', () => {
    expect(fits({ behindMm: 200 }, back(200))).toBe(true);
    expect(fits({ behindMm: 200 }, back(201))).toBe(false);
    expect(fits({ behindMm: null }, back(600))).toBe(true);
    // Who stood in front may come as far as the furthest stands.
    const forward = (from: Setup) => ({
      ...from,
      people: from.people.map((person) => (person.id === 'a' ? { ...person, depthMm: 250 } : person))
    });
    expect(fits({ behindMm: 0 }, forward)).toBe(true);
  });

  it('has the camera go aside and back only as far as there is room', () => {
    expect(fits({ sideMm: 150 }, camera({ lateralMm: 150 }))).toBe(true);
    expect(fits({ sideMm: 150 }, camera({ lateralMm: 140 }))).toBe(false);
    const at = (distance: number) => camera({ placement: { kind: 'distance', distanceMm: distance } });
    expect(fits({ backUpMm: 3200 }, at(3200))).toBe(true);
    expect(fits({ backUpMm: 3200 }, at(3201))).toBe(false);
  });
});

describe('one thing or another', () => {
  const ada = newPerson('a', 'Ada');
  const options = (setup: Setup, kind: RemedyKind, planned: Partial<Plan> = {}) =>
    choices(contextOf(setup, planned)).find((choice) => choice.kind === kind)?.options ?? [];
  const said = (...of: Parameters<typeof options>) => options(...of).map(({ subject, effort }) => [subject, effort]);

  it('steadier is whatever holds stiller than now', () => {
    const stances = (stance: Camera['stance']) => said(setupWith({ people: [ada] }, { stance }), 'steadier');
    expect(stances('standing')).toEqual([['braced', 0.2], ['kneeling', 0.3], ['monopod', 1.5], ['tripod', 3]]); // prettier-ignore
    expect(stances('kneeling')).toEqual([['monopod', 1.5], ['tripod', 3]]); // prettier-ignore
    expect(stances('tripod')).toEqual([]);
    const [braced] = options(setupWith({ people: [ada] }), 'steadier');
    expect(braced?.setup.camera.stance).toBe('braced');
  });

  it('another way of focusing is a good point, or the magnifier; from the magnifier none', () => {
    const methods = (focusMethod: Camera['focusMethod']) =>
      said(setupWith({ people: [ada] }, { focusMethod }), 'focusMethod');
    expect(methods('ordinaryPoint')).toEqual([['crossPoint', 0.2], ['magnifier', 0.6]]); // prettier-ignore
    expect(methods('crossPoint')).toEqual([['magnifier', 0.6]]);
    expect(methods('magnifier')).toEqual([]);
    expect(options(setupWith({ people: [ada] }), 'focusMethod')[0]?.setup.camera.focusMethod).toBe('magnifier');
  });

  it('a time set by hand is given back, the point moved instead of the camera turned', () => {
    const setup = setupWith({ people: [ada] }, { recompose: 'waist' });
    expect(said(setup, 'shorterShutter')).toEqual([]);
    const slow = { ...setup, light: { ...setup.light, shutterS: 1 / 15 } };
    expect(said(slow, 'shorterShutter')).toEqual([['', 0.1]]);
    expect(options(slow, 'shorterShutter')[0]?.setup.light.shutterS).toBeNull();
    expect(said(setup, 'movePoint')).toEqual([['', 0.1]]);
    expect(options(setup, 'movePoint')[0]?.setup.camera.recompose).toBe('none');
    expect(said(setupWith({ people: [ada] }), 'movePoint')).toEqual([]);
  });

  it('continuous focusing is for who moves or does not keep still, while the camera does not follow yet', () => {
    const of = (changes: Partial<Person>, camera: Partial<Camera> = {}) =>
      said(setupWith({ people: [newPerson('a', 'A', changes)] }, camera), 'continuousFocus');
    expect(of({})).toEqual([]);
    for (const changes of [
      { towardsMmPerS: 300 },
      { acrossMmPerS: 300 },
      { mood: 'restless' },
      { mood: 'lively' }
    ] as const)
      expect(of(changes)).toEqual([['', 0.1]]);
    expect(of({ towardsMmPerS: 300 }, { focusMode: 'continuous' })).toEqual([]);
    expect(of({ towardsMmPerS: 300, importance: 'maySoft' })).toEqual([]);
  });

  it('the near eye alone is for who is turned by 15° or more, keeps the window shut, and is asked for more', () => {
    const of = (changes: Partial<Person>, planned: Partial<Plan> = bound('a')) =>
      said(
        setupWith({ people: [newPerson('a', 'Ada', changes), newPerson('b', 'Bo', { lateralMm: 300 })] }),
        'nearEyeAlone',
        planned
      );
    expect(of({ headYawDeg: 16 })).toEqual([['Ada', 0.25]]);
    expect(of({ headYawDeg: -16 })).toEqual([['Ada', 0.25]]);
    expect(of({ headYawDeg: 14 })).toEqual([]);
    expect(of({ headYawDeg: 40, sharp: 'nearEye' })).toEqual([]);
    expect(of({ headYawDeg: 40 }, { lower: { kind: 'odds', subjectId: 'a' } })).toEqual([['Ada', 0.25]]);
    expect(of({ headYawDeg: 40 }, { lower: { kind: 'lens' } })).toEqual([]);
    const [option] = options(
      setupWith({ people: [newPerson('a', 'A', { headYawDeg: 40 }), newPerson('b', 'B')] }),
      'nearEyeAlone',
      bound('a')
    );
    expect(option?.setup.people.map(({ sharp }) => sharp)).toEqual(['nearEye', 'bothEyes']);
  });

  it('a flash is for light that lets things blur or leaves them dark, where it is known and there is none yet', () => {
    const lit = (level: Setup['light']['level'], more: Partial<Setup['light']> = {}) => {
      const setup = setupWith({ people: [ada] });
      return { ...setup, light: { ...setup.light, level, ...more } };
    };
    const shaken: Partial<Plan> = {
      conflict: { kind: 'facesUnreachable', because: 'shake', bound: { kind: 'shake' } }
    };
    const moved: Partial<Plan> = {
      conflict: { kind: 'facesUnreachable', because: 'movement', bound: { kind: 'movement', subjectId: 'a' } }
    };
    const deep: Partial<Plan> = { conflict: { kind: 'facesUnreachable', because: 'depth', bound: { kind: 'lens' } } };
    const room = { kind: 'ev', ev100: 6 } as const;
    expect(said(lit(room), 'flash', shaken)).toEqual([['', 1.2]]);
    expect(said(lit(room), 'flash', moved)).toEqual([['', 1.2]]);
    expect(said(lit(room), 'flash', deep)).toEqual([]);
    expect(said(lit({ kind: 'ev', ev100: -6 }), 'flash', deep)).toEqual([['', 1.2]]);
    expect(said(lit({ kind: 'unknown' }), 'flash', shaken)).toEqual([]);
    const [option] = options(lit(room), 'flash', shaken);
    expect(option?.setup.light.flash).toMatchObject({ distanceMm: 3000, use: 'main' });
    const has = option?.setup;
    expect(has && said(has, 'flash', shaken)).toEqual([]);
  });

  it('two frames are for still people who do not touch, and more than one of them', () => {
    const of = (people: readonly Person[], changes: Partial<Setup> = {}) =>
      said(setupWith({ people: [...people], ...changes }), 'twoFrames');
    const bo = newPerson('b', 'Bo', { lateralMm: 300 });
    expect(of([ada, bo])).toEqual([['', 4]]);
    expect(of([ada])).toEqual([]);
    expect(of([ada], { things: [newThing('t', 'T')] })).toEqual([['', 4]]);
    expect(of([ada, { ...bo, mood: 'restless' }])).toEqual([]);
    expect(of([ada, { ...bo, posture: 'embracing' }])).toEqual([]);
    const setup = setupWith({ people: [ada, bo] });
    const [option] = options(setup, 'twoFrames');
    expect(option?.setup.intent.frames).toBe('two');
    expect(said({ ...setup, intent: { ...setup.intent, frames: 'two' } }, 'twoFrames')).toEqual([]);
  });

  it('another lens stands where it frames as this one does, the nearest way first', () => {
    const setup = setupWith({ people: [ada] });
    const { body, lens, plan } = contextOf(setup);
    const found = options(setup, 'changeLens');
    expect(found.length).toBeGreaterThan(4);
    expect(found.map(({ effort }) => effort)).toEqual([...found.map(({ effort }) => effort)].sort((a, b) => a - b));
    for (const { setup: changed, amount = 0, effort, subject } of found) {
      const other = lensOf(builtInKit, changed.camera);
      if (!other) throw new Error(subject);
      expect(changed.camera.lensId).not.toBe(lens.id);
      expect(effort).toBeCloseTo(1 + Math.abs(amount - plan.distanceMm) / 4000, 9);
      expect(changed.camera.placement).toEqual({ kind: 'distance', distanceMm: amount });
      const { height } = pictureSize(body, changed.camera);
      const framed = framedSize(changed.camera.focalLengthMm, amount, height, other.pupilMagnification);
      expect(framed).toBeCloseTo(plan.framedHeightMm, 6);
      expect(subject.includes(' at ')).toBe(other.longestMm > other.shortestMm);
    }
  });

  it('a shorter lens stays where the camera is, the longest first, and shows no more than twice as much', () => {
    const setup = setupWith({ people: [ada] });
    const { lens, plan } = contextOf(setup);
    const found = options(setup, 'widerFromHere');
    expect(found.length).toBeGreaterThan(1);
    const lengths = found.map(({ setup: { camera } }) => camera.focalLengthMm);
    expect(lengths).toEqual([...lengths].sort((a, b) => b - a));
    for (const { setup: changed } of found) {
      const after = contextOf(changed);
      expect(changed.camera.focalLengthMm).toBeLessThan(setup.camera.focalLengthMm);
      expect(after.plan.distanceMm).toBeCloseTo(plan.distanceMm, 6);
      expect(after.plan.framedHeightMm).toBeGreaterThan(plan.framedHeightMm * 1.08);
      expect(after.plan.framedHeightMm).toBeLessThan(plan.framedHeightMm * 2.1);
    }
    expect(found.some(({ setup: { camera } }) => camera.lensId !== lens.id)).toBe(true);
  });

  it('stitched frames of a longer lens cover the view with a third of overlap, twelve at most, of who keeps still', () => {
    const setup = setupWith({ people: [ada] }, { lensId: 'lens-35', focalLengthMm: 35 });
    const found = options(setup, 'stitch');
    expect(found.length).toBeGreaterThan(2);
    for (const { setup: changed, effort, subject } of found) {
      const { stitch, focalLengthMm } = changed.camera;
      if (!stitch) throw new Error('not stitched');
      const { columns, rows, overlap } = stitch;
      expect(overlap).toBe(0.3);
      expect(focalLengthMm).toBeGreaterThan(35 * 1.2);
      expect(columns * rows).toBeLessThanOrEqual(12);
      expect(effort).toBeCloseTo(6 + columns * rows * 0.2, 9);
      expect(subject.startsWith(`${columns} × ${rows} frames with the `)).toBe(true);
      expect(changed.camera.placement).toEqual({ kind: 'distance', distanceMm });
      // As many as cover it, and one column or row fewer would not.
      const covers = (count: number, side: number) =>
        2 * Math.atan(side / (2 * focalLengthMm)) * (1 + (count - 1) * 0.7) >= 2 * Math.atan(side / 70) - 1e-6;
      for (const [count, side] of [
        [columns, 36],
        [rows, 24]
      ] as const) {
        // prettier-ignore
        expect(covers(count, side)).toBe(true);
        if (count > 1) expect(covers(count - 1, side)).toBe(false);
      }
    }
    expect(options(setupWith({ people: [newPerson('a', 'A', { mood: 'lively' })] }, setup.camera), 'stitch')).toEqual(
      []
    );
    const [first] = found;
    expect(first && options(first.setup, 'stitch')).toEqual([]);
  });
});

describe('looking for them', () => {
  const progress = (input: PlanInput) => {
    const shares: number[] = [];
    findRemedies(input, (share) => shares.push(share));
    return shares;
  };
  const calm = variedSetups(40, true).map((item): PlanInput => ({ ...item, stopStep: 'full' }));
  const conflictOf = (input: PlanInput) => {
    const plan = planSetup(input);
    return plan.kind === 'plan' ? (plan.conflict?.kind ?? null) : null;
  };

  it('tells how much of it is done: step by step, a half for each of two searches', () => {
    let twice = 0;
    for (const input of calm.slice(0, 24)) {
      const shares = progress(input);
      const conflict = conflictOf(input);
      if (conflict === null) {
        expect(shares).toEqual([]);
        continue;
      }
      const parts = families(contextOf(input.setup)).length + choices(contextOf(input.setup)).length;
      const searches = conflict === 'facesUnreachable' ? 2 : 1;
      const all = Array.from({ length: parts * searches }, (_, i) => i / parts / searches);
      // Where the first search has found something there is no second.
      expect([parts, parts * searches]).toContain(shares.length);
      shares.forEach((share, i) => expect(share).toBeCloseTo(all[i] ?? NaN, 9));
      if (shares.length > parts) twice += 1;
    }
    expect(twice).toBeGreaterThan(0);
  });

  it('offers in part only what helps most: by better odds first, then by stops, then by effort', () => {
    let partial = 0;
    for (const input of calm) {
      const found = findRemedies(input).filter(({ partial }) => partial !== null);
      if (found.length < 2) continue;
      partial += 1;
      const order = found.map(({ partial, opens, effort }) => [
        Number((partial?.stopsNearer ?? 0) > 0),
        -(partial?.stopsNearer ?? 0),
        -opens.odds,
        effort
      ]);
      const sorted = [...order].sort((a, b) => a.map((value, i) => value - (b[i] ?? 0)).find((by) => by !== 0) ?? 0);
      expect(order).toEqual(sorted);
      expect(found.length).toBeLessThanOrEqual(4);
    }
    expect(partial).toBeGreaterThan(3);
  });
});
