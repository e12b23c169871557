import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { builtInKit } from '../kit/builtInKit';
import { defaultCamera, newPerson, newSetup, newThing } from './defaults';
import { framedSize } from '../optics/thinLens';
import { cameraDistance, framedHeightMm, pictureSize } from './framing';
import { featurePosition, sceneSubjects, toCamera, toScene, turnFromLens, viewpoint } from './scene';
import type { Body } from '../kit/schema';
import type { Camera, Person } from './schema';

const body = builtInKit.bodies[0] as Body;
const at2m: Camera = { ...defaultCamera, placement: { kind: 'distance', distanceMm: 2000 } };

function pointsOf(person: Person, camera: Camera = at2m) {
  const setup = newSetup('s', 's', { people: [person], camera });
  const subject = sceneSubjects(setup, viewpoint({ camera, people: [] }, body))[0];
  return new Map(subject?.points.map((point) => [point.role, point]));
}

describe('head in the scene', () => {
  it('has its eyes at the typed distance and 63 mm apart (Dodgson 2004) when it faces the lens', () => {
    const points = pointsOf(newPerson('a', 'A'));
    expect(points.get('nearEye')?.depth).toBeCloseTo(2000, 6);
    expect(points.get('farEye')?.depth).toBeCloseTo(2000, 6);
    const [left, right] = (['leftEye', 'rightEye'] as const).map((eye) => featurePosition(newPerson('a', 'A'), eye));
    expect((left?.x ?? 0) - (right?.x ?? 0)).toBeCloseTo(63, 9);
  });

  it('puts the far eye 4 to 5 cm behind the near one at 45° (common practice, no source)', () => {
    const points = pointsOf(newPerson('a', 'A', { headYawDeg: 45 }));
    const gap = (points.get('farEye')?.depth ?? 0) - (points.get('nearEye')?.depth ?? 0);
    expect(gap).toBeCloseTo(63 * Math.SQRT1_2, 6);
    expect(gap).toBeGreaterThan(40);
    expect(gap).toBeLessThan(50);
  });

  it('turns the nose to the picture’s right and shows the person’s right eye as the near one', () => {
    const person = newPerson('a', 'A', { headYawDeg: 40 });
    expect(featurePosition(person, 'noseTip').x).toBeGreaterThan(0);
    expect(pointsOf(person).get('nearEye')?.feature).toBe('rightEye');
    expect(pointsOf(newPerson('a', 'A', { headYawDeg: -40 })).get('nearEye')?.feature).toBe('leftEye');
  });

  it('has the nose 30 mm before and the ears 95 mm behind the eyes, scaled for a child', () => {
    const adult = pointsOf(newPerson('a', 'A', { sharp: 'wholeHead' }));
    expect(adult.get('nose')?.depth).toBeCloseTo(1970, 6);
    expect(adult.get('ear')?.depth).toBeCloseTo(2095, 6);
    const child = pointsOf(newPerson('a', 'A', { sharp: 'wholeHead', being: 'child' }));
    expect(child.get('nose')?.depth).toBeCloseTo(2000 - (30 * 53) / 63, 6);
  });

  it('raises the eyes’ depth order when the chin goes up: the hairline falls back', () => {
    const level = pointsOf(newPerson('a', 'A', { sharp: 'wholeHead' }));
    const up = pointsOf(newPerson('a', 'A', { sharp: 'wholeHead', headPitchDeg: 30 }));
    expect(up.get('hairline')?.depth ?? 0).toBeGreaterThan(level.get('hairline')?.depth ?? 0);
    expect(up.get('chin')?.depth ?? 0).toBeLessThan(level.get('chin')?.depth ?? 0);
  });

  it('loses the far eye in profile and both from behind', () => {
    expect([...pointsOf(newPerson('a', 'A', { headYawDeg: 85 })).keys()]).toEqual(['nearEye']);
    expect([...pointsOf(newPerson('a', 'A', { headYawDeg: 180 })).keys()]).toEqual(['head']);
  });

  it('measures the turn from the line to the lens, not from the camera’s axis', () => {
    const beside = newPerson('a', 'A', { lateralMm: 2000, headYawDeg: -45 });
    expect(turnFromLens(viewpoint({ camera: at2m, people: [] }, body), { ...beside, statureMm: 1650 })).toBeCloseTo(
      0,
      6
    );
  });

  it('requires what the set says', () => {
    const required = (sharp: Person['sharp']) =>
      [...pointsOf(newPerson('a', 'A', { sharp, headYawDeg: 20 })).values()]
        .filter((point) => point.required)
        .map((point) => point.role);
    expect(required('nearEye')).toEqual(['nearEye']);
    expect(required('bothEyes')).toEqual(['nearEye', 'farEye']);
    expect(required('eyesToNose')).toEqual(['nearEye', 'farEye', 'nose']);
    expect(required('wholeHead')).toEqual(['nearEye', 'farEye', 'nose', 'hairline', 'chin', 'ear']);
  });
});

describe('camera', () => {
  it('stands where the framing says, whatever the lens', () => {
    for (const focalLengthMm of [35, 50, 85, 135]) {
      const camera: Camera = { ...defaultCamera, focalLengthMm, placement: { kind: 'framing', framing: 'halfLength' } };
      const distance = cameraDistance({ camera, people: [] }, body);
      expect(framedSize(camera.focalLengthMm, distance, pictureSize(body, camera).height)).toBeCloseTo(
        framedHeightMm.halfLength,
        6
      );
    }
  });

  it('turns scene points into its own frame and back', () => {
    const angle = fc.double({ min: -60, max: 60, noNaN: true });
    const place = fc.double({ min: -5000, max: 5000, noNaN: true });
    fc.assert(
      fc.property(angle, angle, place, place, place, (yawDeg, pitchDeg, x, y, z) => {
        const view = viewpoint({ camera: { ...at2m, yawDeg, pitchDeg }, people: [] }, body);
        const there = toCamera(view, { x, y, z });
        const back = toScene(view, there);
        expect(Math.hypot(back.x - x, back.y - y, back.z - z)).toBeLessThan(1e-6);
      })
    );
  });

  it('sees further points at the edge with a curved surface of focus, the same in the middle', () => {
    const side = newPerson('a', 'A', { lateralMm: 1500, headYawDeg: -20 });
    const curved: Camera = { ...at2m, focusSurface: 'curved' };
    const eye = (camera: Camera) => pointsOf(side, camera).get('nearEye')?.depth ?? 0;
    expect(eye(curved)).toBeGreaterThan(eye(at2m) + 400);
  });

  it('takes a thing by its near and far side', () => {
    const setup = newSetup('s', 's', {
      people: [],
      things: [newThing('t', 'Tuba', { depthMm: 100, deepMm: 400 })],
      camera: at2m
    });
    const subject = sceneSubjects(setup, viewpoint({ camera: at2m, people: [] }, body))[0];
    expect([subject?.nearest, subject?.furthest]).toEqual([1900, 2300]);
  });
});
