import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { imageDistance } from '../optics/thinLens';
import { builtInKit } from '../kit/builtInKit';
import { newPerson, newSetup } from './defaults';
import { framedSize } from '../optics/thinLens';
import { cameraDistance, pictureSize } from './framing';
import { aimAtGroup } from './groupFraming';
import { projector } from './projection';
import { eyesMidpoint, viewpoint } from './scene';
import type { Body } from '../kit/schema';
import type { Camera, Framing, Person, Setup } from './schema';

const body = builtInKit.bodies[0] as Body;

function framed(
  people: readonly Person[],
  marginShare: number,
  changes: Partial<Camera> = {},
  framing: Framing = 'fullLength'
): Setup {
  const base = newSetup('s', 'S', { people: [...people] });
  const camera: Camera = { ...base.camera, placement: { kind: 'group', framing, marginShare }, ...changes };
  const distance = cameraDistance({ camera, people: [...people] }, body);
  return { ...base, camera: { ...camera, ...aimAtGroup(people, camera, framing, distance) } };
}

const people = fc
  .array(
    fc.record({
      lateralMm: fc.integer({ min: -3000, max: 3000 }),
      depthMm: fc.integer({ min: -1000, max: 2500 }),
      floorMm: fc.integer({ min: 0, max: 600 }),
      statureMm: fc.integer({ min: 900, max: 2000 })
    }),
    { minLength: 1, maxLength: 12 }
  )
  .map((all) => all.map((changes, index) => newPerson(`p${index}`, `P${index}`, changes)));

describe('framing a group with a margin', () => {
  it('one adult of 1.68 m from the eyes’ height: as tall as the picture less its margins, by similar triangles', () => {
    const person = newPerson('a', 'A', { statureMm: 1680 });
    const setup = framed([person], 0.1, { heightMm: 1572, focalLengthMm: 85 });
    const distance = cameraDistance(setup, body);
    const crown = 1680 * 0.936 + 113;
    expect((crown * imageDistance(85, distance)) / distance).toBeCloseTo(24 * 0.8, 2);
  });

  it('leaves everybody’s eyes inside the margins, whoever stands where', () => {
    fc.assert(
      fc.property(
        people,
        fc.constantFrom(24, 35, 50, 85),
        fc.constantFrom('landscape' as const, 'portrait' as const),
        (all, focalLengthMm, orientation) => {
          const setup = framed(all, 0.06, { focalLengthMm, orientation });
          const view = viewpoint(setup, body);
          const project = projector(view, setup.camera, body, view.distance);
          for (const person of all) {
            const at = project(eyesMidpoint(person));
            expect(at?.x).toBeGreaterThan(0.02);
            expect(at?.x).toBeLessThan(0.98);
            expect(at?.y).toBeGreaterThan(0);
            expect(at?.y).toBeLessThan(1);
          }
        }
      )
    );
  });

  it('stands further back for more people, more margin and more of each person', () => {
    const five = Array.from({ length: 5 }, (_, index) => newPerson(`p${index}`, 'P', { lateralMm: index * 600 }));
    const distance = (all: readonly Person[], margin: number, framing: Framing) =>
      cameraDistance(framed(all, margin, {}, framing), body);
    expect(distance(five, 0.05, 'halfLength')).toBeGreaterThan(distance(five.slice(0, 2), 0.05, 'halfLength'));
    expect(distance(five, 0.2, 'halfLength')).toBeGreaterThan(distance(five, 0.05, 'halfLength'));
    const [one] = five as [Person];
    expect(distance([one], 0.05, 'fullLength')).toBeGreaterThan(distance([one], 0.05, 'halfLength'));
  });

  it('with nobody there frames what one person would take', () => {
    const setup = framed([], 0.1);
    expect(
      framedSize(setup.camera.focalLengthMm, cameraDistance(setup, body), pictureSize(body, setup.camera).height)
    ).toBeCloseTo(2100, 6);
  });
});
