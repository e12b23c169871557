import { describe, expect, it } from 'vitest';
import { planSetup } from '../call/planSetup';
import { defaultHabits } from '../habits/habits';
import { builtInKit } from '../kit/builtInKit';
import { bodyOf } from '../kit/find';
import { demoSetup } from '../testing/demo';
import { seededNormal } from '../testing/random';
import { runs } from '../testing/runs';
import { distanceWords } from '../words/frame';
import { distanceFromEyes } from './distance';
import { expectedFaces } from './expected';
import type { Frame } from './schema';

const family = demoSetup('Family on the steps');
const plan = planSetup({ setup: family, kit: builtInKit, stopStep: 'third', habits: defaultHabits });
const body = bodyOf(builtInKit, family.camera);
if (plan.kind !== 'plan' || !body) throw new Error('no plan');
const expected = expectedFaces(family, plan, body);
const planned = plan;
const f = family.camera.focalLengthMm;
const widthPx = 6000;

/** Everybody where they stand, the camera so far from the subject line; their eyes as far apart as drawn. */
function shot(distanceMm: number, ipd: () => number, yawDeg = 0): Frame {
  const faces = expected.map(({ personId, depthMm }) => {
    const depth = depthMm - planned.distanceMm + distanceMm;
    const px = ((ipd() * f) / (depth - f)) * (widthPx / 36) * Math.cos((yawDeg * Math.PI) / 180);
    return { personId, yawDeg, left: { x: 1000 + px, y: 500 }, right: { x: 1000, y: 500 } };
  });
  return { widthPx, focalLengthMm: f, faces } as unknown as Frame;
}
const found = (frame: Frame) => distanceFromEyes(frame, family, body, expected, planned);

describe('the distance by how far apart eyes are', () => {
  it('is that of similar triangles: 63 mm between an adult’s eyes, whatever the turn of the head', () => {
    const adults = expected.filter(
      ({ personId }) => family.people.find(({ id }) => id === personId)?.being === 'adult'
    );
    expect(adults.length).toBeGreaterThan(3);
    const only = (frame: Frame) => ({
      ...frame,
      faces: frame.faces.filter(({ personId }) => adults.some((one) => one.personId === personId))
    });
    for (const yaw of [0, 25, 40]) expect(found(only(shot(4200, () => 63, yaw)))?.mm).toBeCloseTo(4200, 3);
    expect(found(only(shot(4200, () => 63, 60)))).toBeNull();
    expect(found({ ...shot(4200, () => 63), focalLengthMm: null })).toBeNull();
  });

  it('holds the truth nine times in ten, people’s eyes being as different as Dodgson (2004) found', () => {
    const normal = seededNormal(19);
    const one = expected.find(({ personId }) => family.people.find(({ id }) => id === personId)?.being === 'adult');
    const times = runs(400);
    let held = 0;
    for (let run = 0; run < times; run++) {
      const all = shot(5000, () => 63 + 3.7 * normal());
      const { low, high } = found({
        ...all,
        faces: all.faces.filter(({ personId }) => personId === one?.personId)
      }) ?? {
        low: 0,
        high: 0
      };
      if (low <= 5000 && 5000 <= high) held++;
    }
    expect(held / times).toBeGreaterThan(0.85);
    expect(held / times).toBeLessThan(0.97);
  });

  it('is said beside what was planned', () => {
    const said = { mm: 4400, low: 4200, high: 4600, faces: 6 };
    expect(distanceWords(said, 4500, 'metric')).toBe('You stood 4.4 m away (4.2–4.6 m, from 6 faces), as planned.');
    expect(distanceWords({ ...said, faces: 1 }, 5000, 'metric')).toBe(
      'You stood 4.4 m away (4.2–4.6 m, from one face); 5 m was planned.'
    );
  });
});
