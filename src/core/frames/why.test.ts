import { describe, expect, it } from 'vitest';
import { planSetup } from '../call/planSetup';
import { defaultHabits } from '../habits/habits';
import { builtInKit } from '../kit/builtInKit';
import { bodyOf } from '../kit/find';
import { sharpestCells } from '../measure/sharpest';
import { blurDiscDiameter } from '../optics/blur';
import { pictureSize } from '../setup/framing';
import type { Setup } from '../setup/schema';
import { demoSetup } from '../testing/demo';
import { testFace, testFrame } from '../testing/frames';
import { seededNormal } from '../testing/random';
import { degrade, photographedEyes } from '../testing/eyePatches';
import { causeWords, nextTime, planeTitle, sharpestWords, tooDeepWords } from '../words/frame';
import { headChanges } from './changed';
import { expectedFaces } from './expected';
import { allowedPx, judgeFrame } from './eyes';
import { readFrame } from './reading';
import type { Frame } from './schema';
import { lyingAt } from './sharpest';

const widthPx = 6000;
/** Frames of a setup as a plane at some depth would give them. */
function scene(setup: Setup) {
  const plan = planSetup({ setup, kit: builtInKit, stopStep: 'third', habits: defaultHabits });
  const body = bodyOf(builtInKit, setup.camera);
  if (plan.kind !== 'plan' || !body) throw new Error('no plan');
  const expected = expectedFaces(setup, plan, body);
  const entry = plan.stops[plan.selected];
  if (!entry) throw new Error('no stop');
  const size = pictureSize(body, setup.camera);
  const pxPerMm = widthPx / size.width;
  const heightPx = Math.round(pxPerMm * size.height);
  const frame = (planeMm: number, more: Partial<Frame> = {}, larger = 1, fNumber = entry.stop.fNumber): Frame =>
    testFrame({
      setupId: setup.id,
      widthPx,
      heightPx,
      focalLengthMm: setup.camera.focalLengthMm,
      fNumber,
      faces: expected.map(({ personId, x, y, eyes, depthMm }) => {
        const points = plan.subjects.find(({ id }) => id === personId)?.points ?? [];
        const eyeAt = (feature: 'leftEye' | 'rightEye') => {
          const depth = points.find((point) => point.feature === feature)?.depth ?? depthMm;
          const drawn =
            blurDiscDiameter(plan.focalLengthMm, fNumber, planeMm, depth, plan.pupilMagnification) * pxPerMm;
          // Larger ones are not told apart.
          const disc = Math.min(19, drawn);
          return { ok: true, discPx: disc, low: Math.max(0, disc - 0.7), high: disc + 0.7, smear: null } as const;
        };
        const half = (eyes * widthPx * larger) / 2;
        return testFace(
          { left: eyeAt('leftEye'), right: eyeAt('rightEye') },
          {
            id: `face ${personId}`,
            personId,
            left: { x: x * widthPx + half, y: y * widthPx },
            right: { x: x * widthPx - half, y: y * widthPx }
          }
        );
      }),
      ...more
    });
  const allowed = allowedPx({ widthPx }, plan.circleOfConfusionMm, size.width);
  const must = new Set(expected.map(({ personId }) => personId));
  const read = (one: Frame, before: Frame | null = null) => {
    const found = readFrame(judgeFrame(one, allowed, must), setup, plan, body, expected, allowed, before);
    if (!found) throw new Error('nothing read');
    return found;
  };
  const names = new Map([...plan.subjects, ...plan.backgrounds].map(({ id, name }) => [id, name]));
  const target = names.get(entry.target.subjectId ?? '') ?? null;
  const said = { unit: 'metric', target, nameOf: (id: string) => names.get(id) ?? id } as const;
  return { setup, plan, body, expected, entry, pxPerMm, heightPx, frame, read, said };
}

const portrait = scene(demoSetup('West door'));
const { planeMm } = portrait.entry;
const [wall] = portrait.plan.backgrounds;
if (!wall) throw new Error('no background');
const onWall = { x: 0.06, y: 0.1 };

describe('what is sharpest in a frame', () => {
  it('is found where neighbouring pixels differ most', () => {
    const [eye] = photographedEyes();
    if (!eye) throw new Error('no eye');
    const side = eye.side;
    const [sharp, soft] = [degrade(eye, { disc: 0 }), degrade(eye, { disc: 6 })];
    // Four patches in a square, the sharp one at the lower left.
    const light = new Float32Array(4 * side * side);
    for (let y = 0; y < 2 * side; y++)
      for (let x = 0; x < 2 * side; x++) {
        const own = x < side && y >= side ? sharp : soft;
        light[y * 2 * side + x] = own[(y % side) * side + (x % side)] ?? 0;
      }
    const [first] = sharpestCells(light, 2 * side, 2 * side, 16, 4);
    expect(first?.x).toBeLessThan(0.5);
    expect(first?.y).toBeGreaterThan(0.5);
    // Photon noise grows with the light: in the dark half it does not pass for edges.
    const random = seededNormal(3);
    const grain = light.map((_, index) => {
      const mean = index % (2 * side) < side ? 0.05 : 0.5;
      return mean + 0.02 * Math.sqrt(mean) * random();
    });
    const cells = sharpestCells(grain, 2 * side, 2 * side, 16, 64);
    const dark = cells.slice(0, 16).filter(({ x }) => x < 0.5).length;
    expect(dark).toBeGreaterThan(3);
    expect(dark).toBeLessThan(13);
  });

  it('lies on somebody, on a thing, or on what is behind', () => {
    const { setup, plan, body, heightPx, frame } = portrait;
    const [ines] = frame(planeMm).faces;
    if (!ines) throw new Error('nobody');
    const lying = (x: number, y: number) => lyingAt(frame(planeMm), { x, y }, setup, plan, body);
    const head = { x: (ines.left.x - 40) / widthPx, y: ines.left.y / heightPx };
    expect(lying(head.x, head.y)).toMatchObject([{ kind: 'person', id: ines.personId }]);
    expect(lying(head.x, 0.98)).toMatchObject([{ kind: 'person', id: ines.personId }]);
    expect(lying(onWall.x, onWall.y).map(({ id }) => id)).toEqual(plan.backgrounds.map(({ id }) => id));
    const rings = scene(demoSetup('Rings'));
    const [thing] = rings.setup.things;
    const all = Array.from({ length: 40 }, (_, index) => index / 40).flatMap((x) =>
      Array.from({ length: 40 }, (__, down) =>
        lyingAt(rings.frame(500), { x, y: down / 40 }, rings.setup, rings.plan, rings.body)
      )
    );
    expect(all.some(([first]) => first?.kind === 'thing' && first.id === thing?.id)).toBe(true);
  });

  it('decides the side that one face leaves open: the wall is sharp, so the plane fell behind', () => {
    const { frame, read, said } = portrait;
    const far = wall.depthMm;
    const alone = read(frame(far));
    const sharpest = { ...onWall, discPx: 0.5, low: 0, high: 2 };
    const found = read(frame(far, { sharpest }));
    expect(found.sharpest).toMatchObject({ kind: 'background' });
    expect(found.plane.side).toBe('behind');
    expect(found.causes[0]?.cause).toMatchObject({ kind: 'background' });
    expect(causeWords(found.causes[0] ?? { cause: { kind: 'nose' }, likely: 0 }, said).title).toMatch(
      /^The camera focused on the /
    );
    expect(nextTime(found, said)).toContain('the strongest contrast wins');
    expect(sharpestWords(found, said)).toMatch(/^Sharpest spot in the frame: the .*, [\d.]+ m behind Ines\.$/);
    // Without it her face is soft, and no side is named, however few things may have taken the focus.
    expect(alone.plane.side).toBe('either');
    expect(alone.sharpest).toBeNull();
    expect(sharpestWords(alone, said)).toBe('');
    // With the plane on her it cannot be the wall that is sharp there.
    const leaf = read(frame(planeMm, { sharpest }));
    expect(leaf.sharpest).toBe('unplanned');
    expect(sharpestWords(leaf, said)).toContain('something not in your plan');
    // On her, it says nothing that her eyes do not say better.
    const [ines] = frame(planeMm).faces;
    const onHer = {
      x: (ines?.left.x ?? 0) / widthPx,
      y: (ines?.left.y ?? 0) / portrait.heightPx,
      discPx: 0.5,
      low: 0,
      high: 2
    };
    expect(read(frame(far, { sharpest: onHer })).sharpest).toBeNull();
  });
});

describe('why', () => {
  const kinds = (found: ReturnType<typeof portrait.read>) => found.causes.map(({ cause }) => cause.kind);

  it('may be the nose, which lies 3 cm before the eyes; not where one focuses by hand', () => {
    const { frame, read, said, setup } = portrait;
    const found = read(frame(planeMm - 30));
    expect(kinds(found)).toContain('nose');
    const nose = found.causes.find(({ cause }) => cause.kind === 'nose');
    if (!nose) throw new Error('no nose');
    expect(causeWords(nose, said)).toEqual({
      title: 'The camera focused on Ines’s nose',
      detail: 'It is 3 cm in front of the eyes.'
    });
    const byHand = scene({ ...setup, camera: { ...setup.camera, focusMethod: 'magnifier' } });
    expect(kinds(byHand.read(byHand.frame(byHand.entry.planeMm - 30)))).not.toContain('nose');
  });

  it('may be that one focused in the middle and turned: only for somebody away from it, by the cosine', () => {
    const { frame, read, said, entry, setup, pxPerMm, heightPx } = portrait;
    const turned = (deg: number): Frame => {
      const off = Math.tan((deg * Math.PI) / 180) * setup.camera.focalLengthMm * pxPerMm;
      const one = frame(entry.planeMm / Math.cos((deg * Math.PI) / 180));
      const faces = one.faces.map((face) => {
        const [middle, half] = [widthPx / 2 - off, Math.abs(face.left.x - face.right.x) / 2];
        return { ...face, left: { x: middle + half, y: heightPx / 2 }, right: { x: middle - half, y: heightPx / 2 } };
      });
      return { ...one, faces };
    };
    // So far that her far eye, which is turned away, is left behind too.
    const found = read(turned(18));
    expect(entry.target.recomposed).toBeNull();
    expect(found.within).toBe(false);
    const own = found.causes.find(({ cause }) => cause.kind === 'recomposed');
    if (!own) throw new Error('not offered');
    expect(causeWords(own, said).detail).toMatch(/^18° off-centre/);
    expect(kinds(read(turned(2)))).not.toContain('recomposed');
  });

  it('may be that heads are larger than in the frame before: she came nearer, or everybody did', () => {
    const { frame, read, said } = portrait;
    const before = frame(planeMm);
    // Nearer by a tenth: her eyes are larger, and the plane, which stayed, lies behind them.
    const nearer = planeMm * 0.1;
    const now = frame(planeMm + nearer, {}, 1 / 0.9);
    expect(headChanges(now, before, () => planeMm)[0]?.mm).toBeCloseTo(-nearer, 6);
    const found = read(now, before);
    expect(found.causes[0]?.cause).toMatchObject({ kind: 'theyMoved', everybody: false });
    expect(causeWords(found.causes[0] ?? { cause: { kind: 'nose' }, likely: 0 }, said).title).toMatch(
      /^Ines came [\d.]+ c?m nearer$/
    );
    expect(nextTime(found, said)).toContain('continuous AF on the eye');
    expect(kinds(read(now, null))).not.toContain('theyMoved');
    expect(kinds(read(frame(planeMm + nearer), before))).not.toContain('theyMoved');
    expect(headChanges({ ...now, focalLengthMm: 24 }, before, () => planeMm)).toEqual([]);
    const family = scene(demoSetup('Family on the steps'));
    const [was, is] = [family.frame(family.entry.planeMm), family.frame(family.entry.planeMm * 1.2, {}, 1.25)];
    const together = family.read(is, was).causes.find(({ cause }) => cause.kind === 'theyMoved');
    expect(together?.cause).toMatchObject({ everybody: true });
    if (together) expect(causeWords(together, family.said).title).toMatch(/^You came [\d.]+ c?m nearer$/);
  });

  it('may be that nobody could have held it: the rows stand deeper than what is sharp', () => {
    const family = scene(demoSetup('Family on the steps'));
    const wide = family.frame(family.entry.planeMm, {}, 1, 1.4);
    const found = family.read(wide);
    expect(found.tooDeep).toBe(true);
    expect(tooDeepWords(wide)).toBe(
      'At f/1.4, no focus point keeps them all sharp: the group is deeper than the depth of field.'
    );
    expect(family.read(family.frame(family.entry.planeMm)).tooDeep).toBe(false);
    expect(planeTitle(found, family.said)).toMatch(/^Focus /);
  });
});
