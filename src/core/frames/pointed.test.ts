import { describe, expect, it } from 'vitest';
import { planSetup } from '../call/planSetup';
import { defaultHabits } from '../habits/habits';
import { builtInKit } from '../kit/builtInKit';
import { bodyOf } from '../kit/find';
import { packSpectrum } from '../measure/packed';
import { spectrumOf } from '../measure/spectrum';
import { demoSetup } from '../testing/demo';
import { degrade, photographedEyes } from '../testing/eyePatches';
import { testFace, testFrame } from '../testing/frames';
import { seededNormal } from '../testing/random';
import { expectedFaces } from './expected';
import { eyeOf, judgeFace, usualEyes } from './eyes';
import { measureOwnEyes, withRemeasuredEyes } from './ownEyes';
import { pointable, pointedFace, withPointed } from './pointed';
import { readFrame } from './reading';
import { frameSchema, type EyeFigure, type Frame, type FrameFace } from './schema';
import { judgeFrame } from './eyes';
import { expectedOf } from '../measure/eye';
import { fitDisc } from '../measure/fit';

const bare = testFrame({ id: 'f1', setupId: 'gran', focalLengthMm: null, fNumber: null });
const told = (discPx: number, more: Partial<Extract<EyeFigure, { ok: true }>> = {}): EyeFigure => ({
  ok: true,
  discPx,
  low: Math.max(0, discPx - 1),
  high: discPx + 1,
  smear: null,
  ...more
});
const face = (id: string, personId: string | null, x: number, figure: EyeFigure): FrameFace =>
  testFace(
    { left: figure, right: figure },
    {
      id,
      personId,
      box: { x, y: 1000, width: 160, height: 160 },
      left: { x: x + 70, y: 1000 },
      right: { x, y: 1000 }
    }
  );

describe('what is pointed at', () => {
  const setup = demoSetup('Gran Marguerite and Pilot');
  const plan = planSetup({ setup, kit: builtInKit, stopStep: 'third', habits: defaultHabits });
  const body = bodyOf(builtInKit, setup.camera);
  if (plan.kind !== 'plan' || !body) throw new Error('no plan');
  const expected = expectedFaces(setup, plan, body);
  const pilot = setup.people.find(({ being }) => being === 'pet');
  const gran = setup.people.find(({ being }) => being !== 'pet');
  if (!pilot || !gran) throw new Error('nobody');

  it('is whoever was not found, pets too, as large as the others came out', () => {
    const eyes = (expected.find(({ personId }) => personId === gran.id)?.eyes ?? NaN) * bare.widthPx;
    const all = pointable(bare, setup, plan, body, expected);
    expect(all.map(({ id, kind }) => [id, kind])).toEqual(setup.people.map(({ id }) => [id, 'eye']));
    const found = { ...face('1', gran.id, 3000, told(0)), left: { x: 3000 + eyes * 1.5, y: 1000 } };
    const rest = pointable({ ...bare, faces: [found] }, setup, plan, body, expected);
    expect(rest.map(({ id }) => id)).toEqual([pilot.id]);
    const before = all.find(({ id }) => id === pilot.id)?.sizePx ?? NaN;
    expect((rest[0]?.sizePx ?? NaN) / before).toBeCloseTo(1.5, 6);
    const rings = demoSetup('Rings');
    const ringsPlan = planSetup({ setup: rings, kit: builtInKit, stopStep: 'third', habits: defaultHabits });
    const ringsBody = bodyOf(builtInKit, rings.camera);
    if (ringsPlan.kind !== 'plan' || !ringsBody) throw new Error('no plan');
    const things = pointable(bare, rings, ringsPlan, ringsBody, []).filter(({ kind }) => kind === 'thing');
    expect(things.map(({ id }) => id)).toEqual(rings.things.map(({ id }) => id));
  });

  it('is judged by the one eye, counts for the plane, and takes the place of what was pointed at before', () => {
    const at = { x: 2000, y: 1500 };
    const common = { personId: pilot.id, at, side: 'left', kind: 'eye', sizePx: 80 } as const;
    const first = pointedFace({ ...common, id: 'p1', figure: told(9) });
    const again = pointedFace({ ...common, id: 'p2', figure: told(1) });
    const frame = withPointed(withPointed({ ...bare, faces: [face('g', gran.id, 3000, told(0.5))] }, first), again);
    expect(frame.faces.map(({ id }) => id)).toEqual(['g', 'p2']);
    expect(frameSchema.safeParse(frame).success).toBe(true);
    expect(judgeFace(again, 3)).toMatchObject({ judged: 'sharp', closed: false });
    expect(judgeFace({ ...first, eyes: { ...first.eyes, left: { ok: false, reason: 'noEdge' } } }, 3)).toMatchObject({
      judged: 'unknown',
      why: 'noEdge'
    });
    // Nobody has lids from a point: it never says what is usual.
    expect(usualEyes(Array.from({ length: 5 }, () => ({ faces: [again] }))).size).toBe(0);
    const judged = judgeFrame(frame, 3, new Set([gran.id]));
    const reading = readFrame(judged, setup, plan, body, expected, 3);
    expect(reading?.features.map(({ of }) => of).sort()).toEqual(['g', 'g', 'p2']);
  });

  it('is one face where the detector saw it before under no name, and nobody else keeps the name', () => {
    const stranger = face('s', null, 2000, told(0));
    const wrong = face('w', gran.id, 4000, told(0));
    const found = { ...face('n', gran.id, 2005, told(0)), byHand: true };
    const frame = withPointed({ ...bare, faces: [stranger, wrong] }, found);
    expect(frame.faces.map(({ id, personId }) => [id, personId])).toEqual([
      ['w', null],
      ['n', gran.id]
    ]);
  });

  it('of a thing is told only where its interval lies on one side', () => {
    const thing = (low: number, high: number) =>
      judgeFace(
        pointedFace({
          id: 't',
          personId: 'rings',
          at: { x: 9, y: 9 },
          side: 'left',
          kind: 'thing',
          sizePx: 75,
          figure: told((low + high) / 2, { low, high })
        }),
        3
      ).judged;
    expect(thing(0, 9)).toBe('unknown');
    expect(thing(0, 2)).toBe('sharp');
    expect(thing(8, 14)).toBe('soft');
  });
});

describe('every eye against itself in its sharpest frame', () => {
  const normal = seededNormal(8);
  const [eye] = photographedEyes();
  if (!eye) throw new Error('no eye');
  const seen = (disc: number): EyeFigure => {
    const spectrum = spectrumOf(degrade(eye, { disc, noise: 0.006, normal, quality: 92 }), eye.side);
    const fit = fitDisc(spectrum, expectedOf(eye));
    if (!fit) throw new Error('no fit');
    return told(fit.discPx, { low: fit.low, high: fit.high, spectrum: packSpectrum(spectrum, eye.side) });
  };
  const frameOf = (id: string, disc: number): Frame => {
    const one = face(`${id}-face`, 'aunt', 3000, seen(disc));
    const left = { x: 3000 + eye.eyesPx, y: 1000 };
    return { ...bare, id, faces: [{ ...one, left, rollDeg: eye.rollDeg }] };
  };
  const frames = [frameOf('a', 4), frameOf('b', 0), frameOf('c', 6)];

  it('is measured once, then known; the sharpest has none of its own', () => {
    const again = measureOwnEyes(frames);
    expect(new Set(again.map(({ frameId }) => frameId))).toEqual(new Set(['a', 'c']));
    expect(again.every(({ own }) => own?.frame === 'b' && own.of === 'aunt')).toBe(true);
    const after = frames.map((frame) =>
      withRemeasuredEyes(
        frame,
        again.filter(({ frameId }) => frameId === frame.id)
      )
    );
    expect(after.every((frame) => frameSchema.safeParse(frame).success)).toBe(true);
    expect(measureOwnEyes(after)).toEqual([]);
    const [a, b, c] = after.flatMap(({ faces }) => faces.map((one) => eyeOf(one, 'left')));
    if (!a?.ok || !b?.ok || !c?.ok) throw new Error('not told');
    // The frames differ by four and by six pixels, whatever the sharpest one has itself.
    expect(Math.abs(a.discPx - 4)).toBeLessThan(0.8);
    expect(Math.abs(c.discPx - 6)).toBeLessThan(0.8);
    // Under another name nothing of it holds.
    const [other] = after[0]?.faces ?? [];
    if (!other) throw new Error('no face');
    expect(eyeOf({ ...other, personId: 'uncle' }, 'left')).toEqual(other.eyes.left);
  });

  it('is measured anew when a sharper frame comes, and no more where the two cannot be compared', () => {
    const after = frames.map((frame) =>
      withRemeasuredEyes(
        frame,
        measureOwnEyes(frames).filter((one) => one.frameId === frame.id)
      )
    );
    const [a, b, c] = after;
    if (!a || !b || !c) throw new Error('no frames');
    const blurred = frameOf('b', 5);
    // Without the sharp one, the next takes its place: what it was held against is gone.
    const without = measureOwnEyes([a, blurred, c]);
    expect(without.find(({ frameId }) => frameId === 'a')?.own).toBeNull();
    expect(without.find(({ frameId }) => frameId === 'c')?.own?.frame).toBe('a');
    const turned = { ...c, faces: c.faces.map((one) => ({ ...one, yawDeg: 60 })) };
    expect(measureOwnEyes([a, b, turned]).find(({ frameId }) => frameId === 'c')?.own ?? null).toBeNull();
  });
});
