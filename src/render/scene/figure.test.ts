import { Vector3 } from 'three';
import { describe, expect, it } from 'vitest';
import { interpupillaryOf } from '../../core/people/anatomy';
import { newPerson } from '../../core/setup/defaults';
import { demoJobs } from '../../core/job/demo';
import { featurePosition } from '../../core/setup/scene';
import type { Person } from '../../core/setup/schema';
import { headMatrix, levelFor, meshNames } from './figure';

const people: readonly Person[] = [
  ...demoJobs().flatMap((job) => job.setups.flatMap((setup) => setup.people)),
  newPerson('bowed', 'Bowed', { headYawDeg: 55, bodyYawDeg: -20, headPitchDeg: -25, lateralMm: -700, floorMm: 400 })
];
const gap = (person: Person, x: number, y: number, z: number, feature: Parameters<typeof featurePosition>[1]) => {
  const drawn = new Vector3(x, y, z).applyMatrix4(headMatrix(person));
  const core = featurePosition(person, feature);
  // The renderer's frame looks down −z.
  return Math.hypot(drawn.x - core.x, drawn.y - core.y, -drawn.z - core.z);
};

describe('a figure', () => {
  it('has its eyes where the core has them, to a tenth of a millimetre, however it stands and turns', () => {
    for (const person of people.filter((item) => item.being !== 'pet')) {
      expect(gap(person, 31.5, 0, 0, 'leftEye'), person.name).toBeLessThan(0.1);
      expect(gap(person, -31.5, 0, 0, 'rightEye'), person.name).toBeLessThan(0.1);
    }
  });

  it('is drawn at the size of its kind: the eyes of a child are closer together', () => {
    for (const being of ['adult', 'child', 'baby'] as const) {
      const matrix = headMatrix(
        newPerson('p', 'P', { being, statureMm: being === 'adult' ? 1700 : being === 'child' ? 1200 : 700 })
      );
      const apart = new Vector3(31.5, 0, 0)
        .applyMatrix4(matrix)
        .distanceTo(new Vector3(-31.5, 0, 0).applyMatrix4(matrix));
      expect(apart).toBeCloseTo(interpupillaryOf[being], 1);
    }
  });

  it('is not mirrored, and is not stretched one way', () => {
    for (const person of people) {
      const matrix = headMatrix(person);
      expect(matrix.determinant()).toBeGreaterThan(0);
      const size = [new Vector3(), new Vector3(), new Vector3()];
      matrix.extractBasis(size[0] as Vector3, size[1] as Vector3, size[2] as Vector3);
      const lengths = size.map((axis) => axis.length());
      expect(Math.max(...lengths) / Math.min(...lengths)).toBeCloseTo(1, 6);
    }
  });

  it('is drawn finely when near, coarsely when far, and names only meshes that are modelled', () => {
    const modelled =
      /^(head|eyes|details|hair-(short|long|bun|curls)|body-(suit|dress|shirt|coat)-(standing|seated|walking|embracing)|dog)(-[012])?$/;
    const view = { position: { x: 0, y: 1600, z: -3000 }, yaw: 0, pitch: 0, distance: 3000, surface: 'flat' } as const;
    const at = (pxPerMm: number) => levelFor(people[0] as Person, view, () => pxPerMm);
    expect([at(4), at(0.02)]).toEqual([0, 2]);
    for (const person of people) {
      for (const level of [0, 1, 2] as const) {
        for (const name of meshNames(person, level)) expect(name).toMatch(modelled);
      }
    }
  });
});
