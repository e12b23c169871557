import { InstancedMesh, Mesh, MeshBasicMaterial, Scene, SphereGeometry } from 'three';
import { describe, expect, it, vi } from 'vitest';
import { newSetup } from '../core/setup/defaults';
import type { Setup } from '../core/setup/schema';
import { KeptScenes } from './keptScenes';
import type { SceneRequest } from './scene/build';

const geometry = new SphereGeometry(1);
const disposed = { materials: 0, geometries: 0, instanced: 0 };
geometry.addEventListener('dispose', () => disposed.geometries++);

// Painting a place needs a canvas, which Node has not: a scene here is a ball and two hundred balls.
vi.mock('./scene/build', async (original) => ({
  ...(await original<typeof import('./scene/build')>()),
  buildScene: () => {
    const material = () => {
      const made = new MeshBasicMaterial();
      made.addEventListener('dispose', () => disposed.materials++);
      return made;
    };
    const many = new InstancedMesh(geometry, material(), 200);
    many.addEventListener('dispose', () => disposed.instanced++);
    return new Scene().add(new Mesh(geometry, material()), many);
  }
}));

const request = (id: string, changes: Partial<Setup> = {}): SceneRequest =>
  ({
    setup: newSetup(id, 'S', changes),
    view: {},
    lens: { focalLengthMm: 85 },
    widthPx: 600,
    eyesOf: undefined
  }) as unknown as SceneRequest;

describe('kept scenes', () => {
  it('are the same while nothing in them changes, and new when something does', () => {
    const scenes = new KeptScenes(3);
    const first = scenes.get(request('a'), true);
    expect(scenes.get(request('a', { notes: 'not drawn' }), true)).toBe(first);
    expect(scenes.get(request('a', { people: [] }), true)).not.toBe(first);
  });

  it('let go of materials and instances, never of the meshes all share, and only once asked', () => {
    const scenes = new KeptScenes(3);
    Object.assign(disposed, { materials: 0, geometries: 0, instanced: 0 });
    for (let n = 0; n < 10; n++) {
      scenes.get(
        request('a', { name: String(n), people: [], backgrounds: n % 2 === 0 ? [] : newSetup('b', 'B').backgrounds }),
        true
      );
      expect(disposed.materials).toBe(2 * Math.max(0, n - 1));
      scenes.release();
      expect(disposed.materials).toBe(2 * n);
    }
    expect(disposed).toEqual({ materials: 18, geometries: 0, instanced: 9 });
  });

  it('never lose the one being looked at, however many others are drawn', () => {
    const scenes = new KeptScenes(3);
    const looked = scenes.get(request('looked'), true);
    for (let n = 0; n < 20; n++) scenes.get(request(`other-${n}`), false);
    expect(scenes.get(request('looked'), true)).toBe(looked);
  });

  it('lose the one longest unused first', () => {
    const scenes = new KeptScenes(3);
    const [a, b] = ['a', 'b'].map((id) => scenes.get(request(id), false));
    scenes.get(request('c'), false);
    expect(scenes.get(request('a'), false)).toBe(a);
    scenes.get(request('d'), false);
    expect(scenes.get(request('a'), false)).toBe(a);
    expect(scenes.get(request('b'), false)).not.toBe(b);
  });
});
