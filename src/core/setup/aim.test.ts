import { describe, expect, it } from 'vitest';
import { builtInKit } from '../kit/builtInKit';
import type { Body } from '../kit/schema';
import { keepAim } from './aim';
import { newPerson, newSetup } from './defaults';
import { projector } from './projection';
import { eyesMidpoint, viewpoint } from './scene';
import type { Camera, Setup } from './schema';

const body = builtInKit.bodies[0] as Body;
const base = newSetup('s', 'S', {
  people: [newPerson('a', 'A', { lateralMm: 300 }), newPerson('b', 'B', { lateralMm: 900, depthMm: 400 })]
});
const seen = (camera: Partial<Camera>): Setup => ({ ...base, camera: { ...base.camera, ...camera } });
const taken = (setup: Setup) => ({ setup, body, P: 1 });

/** Middle of the faces in the picture. */
function middle(setup: Setup) {
  const view = viewpoint(setup, body);
  const project = projector(view, setup.camera, body, view.distance);
  const at = setup.people.flatMap((person) => project(eyesMidpoint(person)) ?? []);
  const of = (values: number[]) => (Math.min(...values) + Math.max(...values)) / 2;
  return { x: of(at.map((item) => item.x)), y: of(at.map((item) => item.y)) };
}

describe('keeping the aim on the group', () => {
  const before = seen({
    lensId: 'lens-50',
    focalLengthMm: 50,
    placement: { kind: 'distance', distanceMm: 5000 },
    yawDeg: 5,
    pitchDeg: -3
  });

  it.each([
    ['another lens from another place', { focalLengthMm: 85, placement: { kind: 'distance', distanceMm: 8500 } }],
    ['a step back', { placement: { kind: 'distance', distanceMm: 7000 } }],
    ['a ladder', { heightMm: 3200 }],
    ['a step to the side', { lateralMm: -1500 }]
  ] as const)('brings it back to its place after %s', (_, changes) => {
    const moved: Setup = { ...before, camera: { ...before.camera, ...changes } };
    const kept: Setup = { ...moved, camera: { ...moved.camera, ...keepAim(taken(before), taken(moved)) } };
    expect(middle(kept).x).toBeCloseTo(middle(before).x, 1.7);
    expect(middle(kept).y).toBeCloseTo(middle(before).y, 1.7);
    expect(Math.hypot(middle(moved).x - middle(before).x, middle(moved).y - middle(before).y)).toBeGreaterThan(0.01);
  });

  it('leaves an aim alone that still is right, and one at nobody', () => {
    expect(keepAim(taken(before), taken(before))).toEqual({ yawDeg: 5, pitchDeg: -3 });
    const nobody = { ...before, people: [] };
    expect(keepAim(taken(nobody), taken({ ...nobody, camera: { ...nobody.camera, heightMm: 3000 } }))).toEqual({
      yawDeg: 5,
      pitchDeg: -3
    });
  });
});
