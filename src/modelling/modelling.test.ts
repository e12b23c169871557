import { describe, expect, it } from 'vitest';
import { adultFeatures, adultHead } from '../core/people/anatomy';
import { faceSolids } from '../core/people/face';
import { meetsEllipsoid } from '../core/setup/occlusion';
import { decodeMesh, encodeMesh, materials, type Mesh } from '../render/scene/meshFile';
import { body, neckBaseMm } from './body';
import { faceDetails } from './details';
import { head, headField, outermostZ } from './head';
import { polygonise } from './polygonise';
import { blend, capsule, sphere } from './sdf';

describe('polygonising', () => {
  const ball = polygonise(
    { field: sphere([0, 0, 0], 50), from: [-60, -60, -60], to: [60, 60, 60], material: () => materials.skin },
    6
  );

  it('puts every vertex on the surface, with its normal', () => {
    for (let n = 0; n < ball.materials.length; n++) {
      const [x = 0, y = 0, z = 0] = ball.positions.slice(3 * n, 3 * n + 3);
      expect(Math.abs(Math.hypot(x, y, z) - 50)).toBeLessThan(0.6);
      const [nx = 0, ny = 0, nz = 0] = ball.normals.slice(3 * n, 3 * n + 3);
      expect((nx * x + ny * y + nz * z) / 50).toBeGreaterThan(0.98);
    }
  });

  it('closes it: every edge belongs to two triangles, and the volume is the ball’s', () => {
    const edges = new Map<string, number>();
    let volume = 0;
    for (let t = 0; t < ball.indices.length; t += 3) {
      const [a = 0, b = 0, c = 0] = ball.indices.slice(t, t + 3);
      for (const [p, q] of [
        [a, b],
        [b, c],
        [c, a]
      ] as const) {
        const key = p < q ? `${p}-${q}` : `${q}-${p}`;
        edges.set(key, (edges.get(key) ?? 0) + 1);
      }
      const v = (index: number) => ball.positions.slice(3 * index, 3 * index + 3);
      const [p, q, r] = [v(a), v(b), v(c)];
      const [px = 0, py = 0, pz = 0] = p;
      const [qx = 0, qy = 0, qz = 0] = q;
      const [rx = 0, ry = 0, rz = 0] = r;
      volume += (px * (qy * rz - qz * ry) - py * (qx * rz - qz * rx) + pz * (qx * ry - qy * rx)) / 6;
    }
    expect([...edges.values()].every((count) => count === 2)).toBe(true);
    expect(volume / ((4 / 3) * Math.PI * 50 ** 3)).toBeCloseTo(1, 1);
  });

  it('misses nothing by looking at blocks first', () => {
    const thin = { field: capsule([-50, 0, 0], [50, 3, 2], 1.6), from: [-60, -20, -20], to: [60, 20, 20] } as const;
    const mesh = polygonise({ ...thin, material: () => materials.hair }, 1);
    const xs = Array.from({ length: mesh.materials.length }, (_, n) => mesh.positions[3 * n] ?? 0);
    expect(Math.min(...xs)).toBeLessThan(-50.5);
    expect(Math.max(...xs)).toBeGreaterThan(50.5);
  });

  it('blends without a gap and never outside both by more than the rounding', () => {
    const joint = blend(10, sphere([-20, 0, 0], 25), sphere([20, 0, 0], 25));
    expect(joint(0, 0, 0)).toBeLessThan(0);
    expect(joint(0, 30, 0)).toBeGreaterThan(0);
  });
});

describe('the mesh file', () => {
  const mesh: Mesh = {
    positions: new Float32Array([0, 0, 0, 10, -3.5, 2, 4, 99.9, -50]),
    normals: new Float32Array([0, 0, 1, 0, 1, 0, -1, 0, 0]),
    openness: new Float32Array([1, 0.5, 0]),
    materials: new Uint8Array([0, 2, 8]),
    indices: new Uint32Array([0, 1, 2, 2, 1, 0])
  };

  it('is read as it was written, to its precision', () => {
    const back = decodeMesh(encodeMesh(mesh, 0.05));
    mesh.positions.forEach((value, n) => expect(Math.abs((back.positions[n] ?? 0) - value)).toBeLessThan(0.026));
    mesh.normals.forEach((value, n) => expect(Math.abs((back.normals[n] ?? 0) - value)).toBeLessThan(0.02));
    mesh.openness.forEach((value, n) => expect(Math.abs((back.openness[n] ?? 0) - value)).toBeLessThan(0.03));
    expect([...back.materials]).toEqual([0, 2, 8]);
    expect([...back.indices]).toEqual([0, 1, 2, 2, 1, 0]);
  });

  it('is refused when it is foreign or cut off', () => {
    const bytes = encodeMesh(mesh, 0.05);
    expect(() => decodeMesh(bytes.slice(0, bytes.length - 3))).toThrow('cut off');
    expect(() => decodeMesh(new Uint8Array(80))).toThrow('not a mesh');
  });
});

describe('the modelled head', () => {
  const field = headField();
  const { leftEye, noseTip, chin, leftEar } = adultFeatures;

  it('has its nose tip, chin, ear and crown where the core has them', () => {
    expect(Math.abs(outermostZ(field, noseTip.x, noseTip.y) - noseTip.z)).toBeLessThan(1.5);
    expect(Math.abs(field(chin.x, chin.y, chin.z))).toBeLessThan(8);
    expect(field(leftEar.x, leftEar.y, leftEar.z)).toBeLessThan(6);
    expect(Math.abs(field(0, adultHead.crownY, -86))).toBeLessThan(3);
  });

  it('is open before the eyes, and closed beside them', () => {
    // The cornea, and a millimetre before it, lie free of the face.
    expect(field(leftEye.x, leftEye.y, leftEye.z + 0.5)).toBeGreaterThan(0);
    expect(outermostZ(field, leftEye.x, 9)).toBeGreaterThan(-6);
    expect(head().material(0, 0, 0)).toBe(materials.skin);
  });

  it('has lashes at the lids and brows above the eyes', () => {
    const { positions, materials: made } = faceDetails(0);
    const heights = (material: number) =>
      Array.from(made).flatMap((value, n) => (value === material ? [positions[3 * n + 1] ?? 0] : []));
    expect(Math.min(...heights(materials.hair))).toBeGreaterThan(10);
    expect(Math.max(...heights(materials.dark))).toBeLessThan(13);
  });
});

it('a body stands on the floor and reaches up to the neck', () => {
  for (const pose of ['standing', 'seated'] as const) {
    const { field } = body('suit', pose);
    expect(field(0, neckBaseMm[pose] + 40, -8)).toBeLessThan(0);
    const [x, z]: readonly [number, number] = pose === 'standing' ? [96, 40] : [100, 480];
    expect(field(x, 10, z)).toBeLessThan(0);
    expect(field(x, -6, z)).toBeGreaterThan(0);
  }
});

describe('the face as the core knows it', () => {
  it('lies where the drawn one does, within a centimetre in front, from chin to forehead', () => {
    const field = headField();
    const differences: number[] = [];
    for (let x = -44; x <= 44; x += 4) {
      for (let y = -100; y <= 50; y += 5) {
        const drawn = outermostZ(field, x, y);
        const ts = faceSolids('none', 0).flatMap(
          (solid) => meetsEllipsoid(solid, { x, y, z: 200 }, { x, y, z: -200 }) ?? []
        );
        // The eyeballs and lids are drawn apart from the head.
        const onEye = Math.abs(y) <= 10 && Math.abs(x) > 14;
        if (ts.length === 0 || onEye) continue;
        differences.push(200 - 400 * Math.min(...ts) - drawn);
      }
    }
    expect(differences.length).toBeGreaterThan(500);
    const mean = differences.reduce((sum, item) => sum + item, 0) / differences.length;
    expect(Math.abs(mean)).toBeLessThan(3);
    const far = differences.filter((item) => Math.abs(item) > 10).length / differences.length;
    expect(far).toBeLessThan(0.1);
  });
});
