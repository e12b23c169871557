import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { Color, Raycaster, Vector3 } from 'three';
import { beforeAll, describe, expect, it } from 'vitest';
import { builtInKit } from '../../core/kit/builtInKit';
import type { Body } from '../../core/kit/schema';
import { newPerson, newSetup } from '../../core/setup/defaults';
import { sightFrom } from '../../core/setup/occlusion';
import { featurePosition, viewpoint } from '../../core/setup/scene';
import type { Person, Setup } from '../../core/setup/schema';
import { seededRandom } from '../../core/testing/random';
import { figure, meshNames } from './figure';
import { loadMeshes } from './meshes';

const body = builtInKit.bodies[0] as Body;
const level = 2;
const white = new Color(1, 1, 1);
const lighting = { key: white, sky: white, ground: white, rim: white, towards: new Vector3(0, 1, 0) };

const random = seededRandom(20261125);
const between = (from: number, to: number) => from + (to - from) * random();

/** Two people, one of them before the other and more or less aside. */
function pair(): Setup {
  const standing = (id: string, changes: Partial<Person>) =>
    newPerson(id, id, {
      statureMm: Math.round(between(1550, 1850)),
      headYawDeg: Math.round(between(-50, 50)),
      bodyYawDeg: Math.round(between(-50, 50)),
      ...changes
    });
  const base = newSetup('s', 'S', {
    people: [
      standing('behind', { depthMm: Math.round(between(300, 1500)) }),
      standing('before', { lateralMm: Math.round(between(-260, 260)), floorMm: Math.round(between(-350, 100)) })
    ]
  });
  return { ...base, camera: { ...base.camera, heightMm: 1600, placement: { kind: 'distance', distanceMm: 4000 } } };
}
const setups = Array.from({ length: 60 }, pair);

beforeAll(async () => {
  const folder = join(import.meta.dirname, '../../../static/models');
  if (!existsSync(folder)) throw new Error('The figures are not there: npm run models');
  const names = setups.flatMap((setup) => setup.people.flatMap((person) => meshNames(person, level)));
  await loadMeshes(new Set(names), (name) => {
    const { buffer, byteOffset, byteLength } = readFileSync(join(folder, `${name}.mesh`));
    return Promise.resolve(buffer.slice(byteOffset, byteOffset + byteLength) as ArrayBuffer);
  });
});

/** Whether the drawn figure of who stands before covers an eye of who stands behind. */
function drawnOver(setup: Setup, eye: { x: number; y: number; z: number }): boolean {
  const view = viewpoint(setup, body);
  const before = setup.people[1];
  if (!before) throw new Error('nobody before');
  const drawn = figure(before, level, view, lighting);
  drawn.updateMatrixWorld(true);
  // The renderer's frame looks down −z.
  const lens = new Vector3(view.position.x, view.position.y, -view.position.z);
  const to = new Vector3(eye.x, eye.y, -eye.z).sub(lens);
  const ray = new Raycaster(lens, to.clone().normalize(), 0, to.length());
  return ray.intersectObject(drawn, true).length > 0;
}

describe('who hides whom', () => {
  it('is in the core as it is drawn: in 60 pairs of figures, eleven eyes of twelve alike; the rest lie where the outlines just touch', () => {
    let hidden = 0;
    let otherwise = 0;
    for (const setup of setups) {
      const behind = setup.people[0];
      if (!behind) throw new Error('nobody behind');
      const sees = sightFrom(setup, viewpoint(setup, body).position);
      for (const side of ['leftEye', 'rightEye'] as const) {
        const eye = featurePosition(behind, side);
        const covered = drawnOver(setup, eye);
        if (covered) hidden += 1;
        if (sees('behind', eye) === covered) otherwise += 1;
      }
    }
    // Both must have come up often enough to mean something.
    expect(hidden).toBeGreaterThan(20);
    expect(hidden).toBeLessThan(100);
    expect(otherwise, `${otherwise} of 120 otherwise`).toBeLessThanOrEqual(10);
  });
});
