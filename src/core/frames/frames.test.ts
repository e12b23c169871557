import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { planSetup } from '../call/planSetup';
import { defaultHabits } from '../habits/habits';
import { builtInKit } from '../kit/builtInKit';
import { bodyOf } from '../kit/find';
import { blurDiscDiameter } from '../optics/blur';
import { demoSetup, inPrint } from '../testing/demo';
import { testFace, testFrame } from '../testing/frames';
import { seededNormal, seededRandom } from '../testing/random';
import { runs } from '../testing/runs';
import { assignFaces } from './assign';
import { contradicts, distanceFromEyes } from './distance';
import { orientationOf } from './orientation';
import { findCauses } from './causes';
import { expectedFaces } from './expected';
import { allowedPx, judgeFrame, reasonFor, usualEyes } from './eyes';
import { beforeInBurst, bursts, matchSetup, type SetupWindow } from './match';
import { chanceHeld, findPlane, type PlaneAsked } from './plane';
import { readFrame } from './reading';
import { frameSchema, type EyeFigure, type Frame, type FrameFace } from './schema';
import {
  causeWords,
  contradictionWords,
  nextTime,
  planeInterval,
  planeTitle,
  shakeTitle,
  steadier
} from '../words/frame';
import { listOfNames } from '../words/call';
import { directionWords, frameRemark, framesTitle, settingsLine } from '../words/frames';

// As open as a print allows, where a plane in front shows.
const steps = inPrint(demoSetup('Family on the steps'));
const family: typeof steps = { ...steps, intent: { ...steps.intent, style: 'openAsFacesAllow' } };
const input = { setup: family, kit: builtInKit, stopStep: 'third' as const, habits: defaultHabits };
const plan = planSetup(input);
const body = bodyOf(builtInKit, family.camera);
if (plan.kind !== 'plan' || !body) throw new Error('no plan');
const expected = expectedFaces(family, plan, body);

describe('who is who', () => {
  it('is told by where the plan expects everybody, though the frame is shifted, larger and everybody sways', () => {
    const random = seededRandom(3);
    let wrong = 0;
    let all = 0;
    for (let trial = 0; trial < runs(60); trial++) {
      const scale = 0.8 + 0.5 * random();
      const [dx, dy] = [0.2 * random() - 0.1, 0.1 * random() - 0.05];
      const seen = expected.map((face) => ({
        personId: face.personId,
        x: face.x * scale + dx + face.eyes * (random() - 0.5),
        y: face.y * scale + dy + face.eyes * (random() - 0.5),
        eyes: face.eyes * scale * (0.9 + 0.2 * random())
      }));
      // In no order, and one of them not found.
      const shuffled = seen.sort(() => random() - 0.5).slice(1);
      const found = assignFaces(shuffled, expected);
      all += shuffled.length;
      wrong += shuffled.filter((face, index) => found[index] !== face.personId).length;
    }
    expect(wrong / all).toBeLessThan(0.02);
  });

  it('leaves a stranger without a name, and nobody twice', () => {
    const [first] = expected;
    if (!first) throw new Error('nobody');
    const stranger = { x: first.x, y: first.y + 14 * first.eyes, eyes: first.eyes };
    const found = assignFaces([...expected, stranger], expected);
    expect(found.slice(0, -1)).toEqual(expected.map(({ personId }) => personId));
    expect(found[found.length - 1]).toBeNull();
    expect(assignFaces([], expected)).toEqual([]);
    expect(assignFaces([stranger], [])).toEqual([null]);
  });
});

describe('which setup', () => {
  const window = (setupId: string, hour: number, focalLengthMm: number, faces: number): SetupWindow => ({
    setupId,
    fromMs: hour * 3_600_000,
    toMs: hour * 3_600_000 + 600_000,
    focalLengthMm,
    faces
  });
  const day = [window('couple', 13, 85, 2), window('family', 14, 50, 14), window('speech', 18, 135, 1)];

  it('is told by the time, the lens and how many faces there are', () => {
    const at = (hour: number, focalLengthMm: number | null, faces: number) =>
      matchSetup({ clockMs: hour * 3_600_000, focalLengthMm, faces }, day);
    expect(at(14.1, 50, 13)).toBe('family');
    expect(at(14.5, 50, 12)).toBe('family');
    // Early, but the lens and the one face say it.
    expect(at(17.5, 135, 1)).toBe('speech');
    expect(at(3, 24, 40)).toBeNull();
    expect(matchSetup({ clockMs: null, focalLengthMm: 50, faces: 14 }, day)).toBe('family');
    expect(matchSetup({ clockMs: null, focalLengthMm: null, faces: 1 }, [])).toBeNull();
  });

  it('and what is one burst: little time between, one body', () => {
    const frame = (clockMs: number | null, body: string) => ({ clockMs, body, serial: null });
    const found = bursts([
      frame(2000, 'a'),
      frame(0, 'a'),
      frame(900, 'a'),
      frame(950, 'b'),
      frame(9000, 'a'),
      frame(null, 'a'),
      frame(null, 'a')
    ]);
    expect(found.map((run) => run.map(({ clockMs }) => clockMs))).toContainEqual([0, 900, 2000]);
    const all = [
      { ...frame(2000, 'a'), id: '3' },
      { ...frame(0, 'a'), id: '1' },
      { ...frame(900, 'a'), id: '2' },
      { ...frame(950, 'b'), id: 'b' },
      { ...frame(null, 'a'), id: 'n' }
    ];
    const before = (id: string) => {
      const own = all.find((one) => one.id === id);
      return own ? beforeInBurst(own, all)?.id : 'none';
    };
    expect(['1', '2', '3', 'b', 'n'].map(before)).toEqual([undefined, '1', '2', undefined, undefined]);
    expect(found).toHaveLength(5);
  });
});

/** Six in two rows, as the plane is asked for. */
const asked = (discs: readonly number[], depths: readonly number[], sdPx = 0.7): PlaneAsked => ({
  features: depths.map((depthMm, index) => ({
    depthMm,
    depthSdMm: 30,
    discPx: discs[index] ?? 0,
    sdPx
  })),
  focalLengthMm: 85,
  fNumber: 1.8,
  pupilMagnification: 1,
  pxPerMm: 6000 / 36,
  meantMm: 2000,
  spreadMm: 25,
  elsewhereMm: [1700, 2300]
});
const discAt = (depth: number, plane: number) => blurDiscDiameter(85, 1.8, plane, depth, 1) * (6000 / 36);

describe('where the plane fell', () => {
  it('is found from noisy discs: the right side wherever one is named, and close', () => {
    const [random, normal] = [seededRandom(11), seededNormal(12)];
    const trials = 500;
    let [wrongSide, named, beyond, beyondRight, near] = [0, 0, 0, 0, 0];
    for (let trial = 0; trial < trials; trial++) {
      const offset = 600 * random() - 300;
      const depths = [1920, 1960, 2000, 2000, 2060, 2120];
      const discs = depths.map((depth) =>
        Math.max(0, 1.05 * Math.hypot(discAt(depth + 30 * normal(), 2000 + offset), 0.8) + 0.8 * normal())
      );
      const found = findPlane(asked(discs, depths));
      if (!found) throw new Error('nothing found');
      if (found.side !== 'either') {
        named++;
        if ((found.side === 'behind') !== offset > 0) wrongSide++;
      }
      // Where the miss is larger than everybody's depth and what can be told.
      if (Math.abs(offset) > 140) {
        beyond++;
        if (found.side === (offset > 0 ? 'behind' : 'front')) beyondRight++;
        if (Math.abs(found.mm - 2000 - offset) <= Math.max(10, 0.2 * Math.abs(offset))) near++;
      }
    }
    expect(named).toBeGreaterThan(trials / 2);
    expect(wrongSide / trials).toBeLessThanOrEqual(0.02);
    expect(beyondRight / beyond).toBeGreaterThanOrEqual(0.95);
    expect(near / beyond).toBeGreaterThanOrEqual(0.5);
  });

  it('lies within its interval nine times in ten, though the plan is tighter than what happens: the picture has the last word', () => {
    const [random, normal] = [seededRandom(31), seededNormal(32)];
    for (const tight of [1, 3, 10]) {
      const held = Array.from({ length: 200 }, () => {
        const plane = 2000 + 25 * tight * normal();
        const depths = [2000, 2000 + 60 * (random() - 0.5)];
        const discs = depths.map((depth) => Math.max(0, Math.hypot(discAt(depth, plane), 0.8) + 0.8 * normal()));
        const found = findPlane({ ...asked(discs, depths), spreadMm: 25 });
        return found !== null && found.low <= plane && plane <= found.high;
      });
      expect(held.filter(Boolean).length / held.length).toBeGreaterThan(0.84);
    }
    // One face, soft by 5.7 pixels, where the plan expects two millimetres: the plane missed by some centimetres, to one side or the other.
    const alone = asked([5.7], [2000]);
    const features = alone.features.map((feature) => ({ ...feature, depthSdMm: 4 }));
    const soft = findPlane({ ...alone, features, spreadMm: 2, elsewhereMm: [] });
    if (!soft) throw new Error('nothing found');
    expect(soft.side).toBe('either');
    expect(chanceHeld(soft, { ...alone, features }, 2)).toBeLessThan(0.5);
  });

  it('names no side where one face alone is soft, and finds nothing where nobody was measured', () => {
    const found = findPlane({ ...asked([9], [2000]), elsewhereMm: [] });
    expect(found?.side).toBe('either');
    expect(findPlane(asked([], []))).toBeNull();
  });

  it('has for its cause what lies there: somebody the focus took, else the focus itself; nothing beyond three of its own', () => {
    const depths = [1700, 1700, 2000, 2000, 2300, 2300];
    const found = findPlane(
      asked(
        depths.map((depth) => discAt(depth, 1705)),
        depths
      )
    );
    if (!found) throw new Error('nothing found');
    const causes = findCauses(found, [
      { cause: { kind: 'focusError' }, mm: 2000, sdMm: 25, often: 1 },
      { cause: { kind: 'landedOn', ids: ['wren'] }, mm: 1700, sdMm: 40, often: 0.3 },
      { cause: { kind: 'landedOn', ids: ['corvin'] }, mm: 2300, sdMm: 40, often: 0.3 }
    ]);
    expect(causes.map(({ cause }) => cause)).toEqual([{ kind: 'landedOn', ids: ['wren'] }]);
    expect(causes[0]?.likely).toBeCloseTo(1, 6);
    expect(chanceHeld(found, asked([], []), 3)).toBeCloseTo(1, 9);
    const wide = asked(
      depths.map(() => 0),
      depths
    );
    expect(chanceHeld(found, wide, 400)).toBeCloseTo(1, 6);
    expect(chanceHeld(found, wide, 5)).toBeLessThan(0.01);
    const small = findPlane(
      asked(
        depths.map((depth) => discAt(depth, 2040)),
        depths
      )
    );
    if (!small) throw new Error('nothing found');
    expect(findCauses(small, [{ cause: { kind: 'focusError' }, mm: 2000, sdMm: 25, often: 1 }])[0]?.cause.kind).toBe(
      'focusError'
    );
  });
});

const eye = (discPx: number, smear: { px: number; angle: number; gain: number } | null = null): EyeFigure => ({
  ok: true,
  discPx,
  low: Math.max(0, discPx - 1),
  high: discPx + 1,
  smear
});
const face = (personId: string | null, left: EyeFigure, open = 1): FrameFace =>
  testFace(
    { left, right: left },
    {
      id: `face-${personId ?? 'x'}`,
      personId,
      left: { x: 160, y: 100 },
      right: { x: 70, y: 100 },
      lids: { left: 0.4 * open, right: 0.4 * open },
      contrast: { left: 2.4 * open, right: 2.4 * open }
    }
  );
const frame = (number: number, faces: FrameFace[]): Frame =>
  testFrame({
    id: `frame-${number}`,
    file: { name: `FOC_${number}.JPG`, bytes: 10, hash: '0'.repeat(64), modifiedAt: null },
    widthPx: 3000,
    heightPx: 2000,
    body: 'Focalis Stand-in',
    shutterS: 0.004,
    iso: 640,
    clockMs: 0,
    faces
  });
const must = new Set(['ines', 'corvin']);
const allowed = allowedPx({ widthPx: 3000 }, 0.03, 36);
const nameOf = (id: string) => ({ ines: 'Ines', corvin: 'Corvin' })[id] ?? id;

describe('a frame, judged', () => {
  const sharp = frame(3, [face('ines', eye(0.5)), face('corvin', eye(1)), face(null, eye(20))]);
  const soft = frame(4, [face('ines', eye(1)), face('corvin', eye(9))]);
  const shaken = frame(5, [
    face('ines', eye(2, { px: 11, angle: 1.1, gain: 8 })),
    face('corvin', eye(2, { px: 13, angle: 1.0, gain: 6 }))
  ]);
  const moved = frame(6, [face('ines', eye(0.4)), face('corvin', eye(1, { px: 9, angle: 0.1, gain: 7 }))]);
  const blink = frame(7, [face('ines', eye(0.5, { px: 14, angle: 0, gain: 9 }), 0.6), face('corvin', eye(1))]);
  const all = [sharp, soft, shaken, moved, blink];
  const usual = usualEyes(all);
  const judged = all.map((one) => judgeFrame(one, allowed, must, usual));

  it('is valid as it is stored', () => {
    for (const one of all) expect(frameSchema.safeParse(one).success).toBe(true);
    expect(frameSchema.safeParse({ ...sharp, file: { ...sharp.file, hash: 'x' } }).success).toBe(false);
  });

  it('holds who is sharp with open eyes, and says what it lacks, and why it would be rejected', () => {
    const said = judged.map((one) => frameRemark(one, nameOf));
    expect(said).toEqual([
      'everyone sharp',
      'Corvin soft',
      'camera shook: 12 px down to the right',
      'Corvin moved: 9 px across',
      'Ines blinks'
    ]);
    expect(judged.map(reasonFor)).toEqual([null, 'softEye', 'moved', 'moved', 'blink']);
    expect(judged[0]?.held).toBe(2);
  });

  it('cannot be told where nothing was measured, and says whose', () => {
    const small: EyeFigure = { ok: false, reason: 'small' };
    const one = judgeFrame(frame(8, [face('ines', eye(0.5)), face('corvin', small)]), allowed, must);
    expect(frameRemark(one, nameOf)).toBe('can’t tell Corvin; everyone else sharp');
    const two = judgeFrame(frame(9, [face('ines', small), face('corvin', small)]), allowed, must);
    expect(frameRemark(two, nameOf)).toBe('can’t tell');
    const alone = judgeFrame(frame(10, [face('ines', eye(0.5))]), allowed, must);
    expect(frameRemark(alone, nameOf)).toBe('Corvin not found');
    expect(frameRemark(judgeFrame(frame(9, []), allowed, must), nameOf)).toBe('no face found');
  });

  it('ranks: the title names the one that holds everybody', () => {
    const ranked = [...judged].sort((a, b) => a.rank - b.rank);
    expect(framesTitle(ranked, nameOf)).toMatch(/^Everyone is sharp in frame 3\. In \d: /);
    expect(framesTitle([], nameOf)).toBe('No frames yet.');
    const none = ranked.slice(1);
    expect(framesTitle(none, nameOf)).toMatch(/^No frame has everyone\. \d comes closest: /);
  });

  it('with little to see but open lids is not one with closed eyes, and of few frames none is', () => {
    const blurred = face('ines', eye(9));
    const low = { ...blurred, contrast: { left: 1, right: 1 } };
    expect(judgeFrame(frame(1, [low]), allowed, must, usual).faces[0]?.closed).toBe(false);
    expect(judgeFrame(blink, allowed, must, usualEyes(all.slice(3))).faces[0]?.closed).toBe(false);
  });

  it('never calls a larger disc sharper', () => {
    fc.assert(
      fc.property(fc.double({ min: 0, max: 40, noNaN: true }), fc.double({ min: 0, max: 40, noNaN: true }), (a, b) => {
        const ratio = (disc: number) =>
          judgeFrame(frame(1, [face('ines', eye(disc))]), allowed, must).faces[0]?.ratio ?? NaN;
        return a <= b ? ratio(a) <= ratio(b) : ratio(a) >= ratio(b);
      })
    );
  });

  it('speaks of people and directions plainly', () => {
    expect(listOfNames(['Ines', 'Wren', 'Corvin', 'Marguerite'])).toBe('Ines, Wren and 2 more');
    expect(settingsLine({ fNumber: 4, shutterS: 1 / 401, iso: 640 })).toBe('f/4 · 1/400 · ISO 640');
    expect(settingsLine({ fNumber: null, shutterS: 2, iso: null })).toBe('2 s');
    expect([0, Math.PI / 2, -Math.PI / 2, Math.PI].map(directionWords)).toEqual([
      'across',
      'up and down',
      'up and down',
      'across'
    ]);
  });
});

describe('a frame, read against its plan', () => {
  const target = plan.stops[plan.selected]?.target.subjectId ?? null;
  const [width, f] = [3600, family.camera.focalLengthMm];
  const meant = plan.stops[plan.selected]?.planeMm ?? NaN;
  const N = plan.stops[plan.selected]?.stop.fNumber ?? NaN;
  /** Everybody found, each with the disc a plane there gives. */
  const at = (
    planeMm: number,
    smear: { px: number; angle: number; gain: number } | null = null,
    larger = 1
  ): Frame => ({
    ...frame(
      9,
      expected.map(({ personId, depthMm }) => ({
        ...face(personId, eye((blurDiscDiameter(f, N, planeMm, depthMm, plan.pupilMagnification) * width) / 36, smear)),
        // As far apart as eyes are from there.
        left: { x: 70 + (larger * f * 63 * width) / 36 / depthMm, y: 100 }
      }))
    ),
    widthPx: width,
    fNumber: N,
    focalLengthMm: f
  });
  const everybody = new Set(expected.map(({ personId }) => personId));
  const allowedThere = allowedPx({ widthPx: width }, plan.circleOfConfusionMm, 36);
  const read = (one: Frame) =>
    readFrame(judgeFrame(one, allowedThere, everybody), family, plan, body, expected, allowedThere);
  const nameOfSubject = (id: string) => plan.subjects.find((subject) => subject.id === id)?.name ?? id;
  const said = {
    unit: 'metric',
    target: target === null ? null : nameOfSubject(target),
    nameOf: nameOfSubject
  } as const;

  it('says where its plane fell, between which distances, who took the focus, and one thing to do', () => {
    const front = plan.subjects.reduce((a, b) => (b.nearest < a.nearest ? b : a));
    const found = read(at(front.nearest));
    if (!found) throw new Error('nothing read');
    expect(planeTitle(found, said)).toMatch(/^Focus landed [\d.]+ c?m in front of /);
    expect(planeInterval(found, said)).toMatch(/^[\d.]+( c?m)?–[\d.]+ c?m in front \(90% range\), from \d+ eyes\.$/);
    const [first] = found.causes;
    if (first?.cause.kind !== 'landedOn') throw new Error('another cause');
    expect(first.cause.ids).toContain(front.id);
    expect(causeWords(first, said).title).toContain(front.name);
    expect(nextTime(found, said)).toMatch(/^Next time: a small single point /);
    expect(Math.abs(found.plane.mm - front.nearest)).toBeLessThan(0.35 * (meant - front.nearest) + 60);
  });

  it('has nothing to explain where everybody is held, and nothing to go by where everybody is smeared', () => {
    const found = read(at(meant));
    expect(found?.within).toBe(true);
    expect(found?.causes).toEqual([]);
    if (found) expect(planeTitle(found, said)).toBe('Focus landed where everyone is sharp.');
    expect(read(at(meant, { px: 15, angle: 0, gain: 9 }))).toBeNull();
    // Another lens, another plan.
    expect(read({ ...at(meant), focalLengthMm: f * 2 })).toBeNull();
  });

  it('tells no plane where faces are half as large again as planned: a crop, another focal length, or another place', () => {
    expect(read(at(meant, null, 1.5))).toBeNull();
    expect(read(at(meant, null, 0.6))).toBeNull();
    const stood = distanceFromEyes(at(meant, null, 1.5), family, body, expected, plan);
    if (!stood) throw new Error('no distance');
    expect(contradicts(stood, plan.distanceMm)).toBe(true);
    expect(contradictionWords(stood, plan.distanceMm, { focalLengthMm: f }, 'metric')).toMatch(
      /^The faces are as large as from [\d.]+ m away at \d+ mm; [\d.]+ m was planned\. Either you stood elsewhere/
    );
  });

  it('shaken, says how much shorter the shutter should have been', () => {
    expect(shakeTitle({ px: 20.2, angle: Math.PI / 3 })).toBe('The camera shook: 20 px down to the right.');
    // 20 px to 2: a tenth of the time, which is three stops and a third.
    expect(steadier({ shutterS: 1 / 60 }, { px: 20, angle: 0 })).toBe(
      'Next time: a shutter 4 stops faster, 1/1000, or brace yourself.'
    );
    expect(steadier({ shutterS: null }, { px: 3, angle: 0 })).toBe(
      'Next time: a shutter a stop faster, or brace yourself.'
    );
  });

  it('with one face that moved does not say that the camera did', () => {
    const one = judgeFrame(frame(5, [face('ines', eye(2, { px: 11, angle: 1, gain: 8 }))]), allowed, new Set(['ines']));
    expect(one.shake).toBeNull();
    expect(frameRemark(one, nameOf)).toBe('Ines moved: 11 px down to the right');
  });
});

describe('a picture that lies otherwise than it was taken', () => {
  const seen = expected.map(({ x, y, eyes }) => ({ x, y, eyes }));
  const upright = seen.map(() => ({ rollDeg: 3 }));

  it('is told mirrored by where everybody stands; not where two have changed places, or all are a little off', () => {
    const mirrored = seen.map((head) => ({ ...head, x: 1 - head.x }));
    expect(orientationOf(upright, mirrored, expected)).toBe('mirrored');
    const random = seededRandom(8);
    for (let trial = 0; trial < 20; trial++) {
      const off = seen.map((head) => ({
        ...head,
        x: head.x + head.eyes * (random() - 0.5),
        y: head.y + head.eyes * (random() - 0.5)
      }));
      expect(orientationOf(upright, off, expected)).toBeNull();
    }
    const [first, second, ...rest] = seen;
    if (!first || !second) throw new Error('nobody');
    expect(
      orientationOf(
        upright,
        [{ ...second, x: first.x, y: first.y }, { ...first, x: second.x, y: second.y }, ...rest],
        expected
      )
    ).toBeNull();
    expect(orientationOf(upright, mirrored.slice(0, 2), expected)).toBeNull();
  });

  it('is told to stand on its side by how heads are tilted', () => {
    expect(orientationOf([{ rollDeg: 88 }, { rollDeg: 93 }], seen.slice(0, 2), expected)).toBe('sideways');
    expect(orientationOf([], [], expected)).toBeNull();
    const turned = { ...frame(1, [face(null, eye(1))]), orientation: 'sideways' } as const;
    expect(frameRemark(judgeFrame(turned, allowed, new Set()), nameOf)).toMatch(/^on its side: rotate the file/);
  });
});
