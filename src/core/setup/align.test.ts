import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { builtInKit } from '../kit/builtInKit';
import { newPerson, newSetup } from './defaults';
import { depthOf, eyesMidpoint, viewpoint } from './scene';
import type { Body } from '../kit/schema';
import type { Camera, Person } from './schema';
import { alignToFocus, evenSpacing, rowSlantDeg, squareToCamera } from './align';

const body = builtInKit.bodies[0] as Body;

function seen(changes: Partial<Camera>) {
  const base = newSetup('s', 'S');
  const camera: Camera = { ...base.camera, placement: { kind: 'distance', distanceMm: 4000 }, ...changes };
  return viewpoint({ camera, people: [] }, body);
}

const row = (...places: readonly (readonly [lateralMm: number, depthMm: number])[]): Person[] =>
  places.map(([lateralMm, depthMm], index) => newPerson(`p${index}`, `P${index}`, { lateralMm, depthMm }));

const anyRow = fc
  .array(fc.tuple(fc.integer({ min: -2000, max: 2000 }), fc.integer({ min: -900, max: 900 })), {
    minLength: 2,
    maxLength: 8
  })
  .map((places) => row(...places));

describe('aligning people to the surface of focus', () => {
  it('puts every pair of eyes at the focus distance, flat or curved, however the camera is turned and tilted', () => {
    fc.assert(
      fc.property(
        anyRow,
        fc.integer({ min: -25, max: 25 }),
        fc.integer({ min: -20, max: 20 }),
        fc.constantFrom('flat' as const, 'curved' as const),
        (people, yawDeg, pitchDeg, focusSurface) => {
          const view = seen({ yawDeg, pitchDeg, focusSurface });
          for (const person of alignToFocus(people, view, 4200)) {
            expect(Math.abs(depthOf(view, eyesMidpoint(person)) - 4200)).toBeLessThan(0.6);
          }
        }
      )
    );
  });

  it('leaves somebody whom the curve does not reach', () => {
    const [aside] = row([5000, 30]);
    expect(alignToFocus([aside as Person], seen({ focusSurface: 'curved' }), 4000)[0]?.depthMm).toBe(30);
  });
});

describe('squaring a row to the camera', () => {
  it('takes the slant out and keeps everybody’s distance from everybody', () => {
    fc.assert(
      fc.property(anyRow, fc.integer({ min: -30, max: 30 }), (people, yawDeg) => {
        const lateral = people.map((person) => person.lateralMm);
        const depths = people.map((person) => person.depthMm);
        // A row: clearly wider than deep.
        fc.pre(Math.max(...lateral) - Math.min(...lateral) > 3 * (Math.max(...depths) - Math.min(...depths)) + 300);
        const before = people.map((person) =>
          Math.hypot(person.lateralMm - (people[0]?.lateralMm ?? 0), person.depthMm - (people[0]?.depthMm ?? 0))
        );
        const view = seen({ yawDeg });
        const squared = squareToCamera(people, view);
        const after = squared.map((person) =>
          Math.hypot(person.lateralMm - (squared[0]?.lateralMm ?? 0), person.depthMm - (squared[0]?.depthMm ?? 0))
        );
        before.forEach((distance, index) => expect(after[index]).toBeCloseTo(distance, -1));
        // Places are whole millimetres.
        expect(Math.abs(rowSlantDeg(squared, view))).toBeLessThan(1);
      })
    );
  });

  it('turns a straight slanted row by its slant', () => {
    const people = row([-1000, -364], [0, 0], [1000, 364]);
    const view = seen({});
    expect(rowSlantDeg(people, view)).toBeCloseTo(20, 0);
    expect(squareToCamera(people, view).map((person) => person.depthMm)).toEqual([0, 0, 0]);
    const turned = squareToCamera(people, seen({ yawDeg: 20 }));
    expect(turned[0]?.depthMm).toBeGreaterThan(turned[2]?.depthMm ?? 0);
  });
});

describe('even spacing', () => {
  it('keeps the ends, the order and the depths', () => {
    const people = row([900, 5], [-600, 10], [-500, 20], [0, 30]);
    const spaced = evenSpacing(people);
    expect(spaced.map((person) => person.lateralMm)).toEqual([900, -600, -100, 400]);
    expect(spaced.map((person) => person.depthMm)).toEqual([5, 10, 20, 30]);
    expect(evenSpacing(people.slice(0, 2))).toEqual(people.slice(0, 2));
  });
});
