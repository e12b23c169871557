/** Brows and lashes of a head, hair by hair, rooted on its surface: what sharpness is judged by. */
import { adultInterpupillaryMm } from '../core/people/anatomy';
import { materials, type Mesh } from '../render/scene/meshFile';
import { eyeballRadius, headField, lidCurve, outermostZ } from './head';
import type { DistanceField, Point3 } from './sdf';

const eyeX = adultInterpupillaryMm / 2;

interface Hair {
  readonly root: Point3;
  readonly middle: Point3;
  readonly tip: Point3;
  /** Width at the root, mm. */
  readonly width: number;
}

/** Numbers from 0 to 1 that are always the same (Park and Miller, 1988). */
function sequence(seed: number): () => number {
  let state = seed;
  return () => {
    state = (state * 48271) % 2147483647;
    return state / 2147483647;
  };
}

function brow(field: DistanceField, random: () => number, count: number, width: number): Hair[] {
  return Array.from({ length: count }, (_, n) => {
    const t = n / (count - 1);
    // Along the brow from the nose outwards: it rises, and falls at the end.
    const x = 13 + 37 * t;
    const thick = 4.6 * (1 - 0.72 * t ** 2) * (0.35 + 0.65 * Math.min(1, t * 8));
    const y =
      16.5 +
      7 * Math.sin(Math.min(1, t * 1.25) * Math.PI * 0.55) -
      5 * Math.max(0, t - 0.62) +
      (random() - 0.5) * thick;
    const lean = 0.9 - 1.5 * t + (random() - 0.5) * 0.5;
    const length = 6.5 + random() * 3;
    const dx = Math.cos(lean) * length;
    const dy = Math.sin(lean) * length * 0.7;
    const at = (share: number, lift: number): Point3 => {
      const px = x + dx * share;
      const py = y + dy * share;
      return [px, py, outermostZ(field, px, py) + lift];
    };
    return { root: at(0, -0.3), middle: at(0.5, 0.9), tip: at(1, 0.5), width };
  });
}

function lashes(random: () => number, thin: number): Hair[] {
  const row = (full: number, upper: boolean): Hair[] => {
    const count = Math.round(full / thin);
    return Array.from({ length: count }, (_, n) => {
      const x = -12.5 + (25.5 * n) / (count - 1);
      const curve = lidCurve(x);
      const y = upper ? curve.upper : curve.lower;
      const r = eyeballRadius + 1.4;
      const z = -eyeballRadius + Math.sqrt(Math.max(4, r * r - x * x - y * y));
      const length = (upper ? 7.4 : 3.6) * (0.8 + random() * 0.35) * (1 + x * 0.012);
      const fan = x * 0.045 + (random() - 0.5) * 0.14;
      const sign = upper ? 1 : -1;
      const at = (share: number): Point3 => [
        eyeX + x + fan * length * share,
        y + sign * length * (0.12 * share + 0.46 * share * share),
        z + length * (0.78 * share - 0.1 * share * share)
      ];
      return { root: at(0), middle: at(0.5), tip: at(1), width: (upper ? 0.42 : 0.26) * thin };
    });
  };
  return [...row(64, true), ...row(40, false)];
}

/** Both sides' hairs as thin blades facing the front; the coarse level has few and broad ones. */
export function faceDetails(level: 0 | 1): Mesh {
  const field = headField();
  const random = sequence(7);
  const groups: readonly { readonly hairs: readonly Hair[]; readonly material: number }[] = [
    { hairs: level === 0 ? brow(field, random, 190, 0.62) : brow(field, random, 18, 3.6), material: materials.hair },
    { hairs: lashes(random, level === 0 ? 1 : 6), material: materials.dark }
  ];
  const positions: number[] = [];
  const made: number[] = [];
  const indices: number[] = [];
  for (const { hairs, material } of groups)
    for (const side of [1, -1])
      for (const { root, middle, tip, width } of hairs) {
        const first = positions.length / 3;
        const across = blade(root, tip);
        const put = ([x, y, z]: Point3, half: number) => {
          positions.push(side * (x + across[0] * half), y + across[1] * half, z);
          made.push(material);
        };
        put(root, width / 2);
        put(root, -width / 2);
        put(middle, width * 0.4);
        put(middle, -width * 0.4);
        put(tip, width * 0.12);
        put(tip, -width * 0.12);
        for (const [a, b, c] of [
          [0, 1, 2],
          [1, 3, 2],
          [2, 3, 4],
          [3, 5, 4]
        ] as const)
          indices.push(first + a, first + b, first + c);
      }
  const count = made.length;
  const normals = new Float32Array(count * 3);
  for (let n = 0; n < count; n++) normals[3 * n + 2] = 1;
  return {
    positions: new Float32Array(positions),
    normals,
    openness: new Float32Array(count).fill(1),
    materials: new Uint8Array(made),
    indices: new Uint32Array(indices)
  };
}

/** Across a hair as seen from the front. */
function blade(root: Point3, tip: Point3): readonly [number, number] {
  const dx = tip[0] - root[0];
  const dy = tip[1] - root[1];
  const length = Math.hypot(dx, dy) || 1;
  return [-dy / length, dx / length];
}
