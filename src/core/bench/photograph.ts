/**
 * The simulated camera before a sheet: each pixel is many rays through the lens, each from a place of the pupil through the place that the
 * plane of focus has for that pixel, to the paper it meets. Defocus, what hides what, and the blur of the lens come of it. Pupils alike.
 */
import { imageDistance } from '../optics/thinLens';
import type { Random } from '../statistics/random';
import { gray, type Gray } from './gray';
import type { Lens, Pose } from './pose';

export interface PlacedPaper {
  readonly pose: Pose;
  readonly raster: Gray;
  readonly perMm: number;
  /** White paper around what is printed, mm. */
  readonly margin: number;
}

export interface Scene extends Lens {
  readonly fNumber: number;
  /** Where the plane of focus lies on the axis, mm from the pupil. */
  readonly planeMm: number;
  /** How much nearer it lies at the corner of the picture than on the axis, mm, growing with the square of the height. */
  readonly curvedMm?: number;
  /** Standard deviation of the lens's own blur on the axis and at the corner, pixels. */
  readonly blurPx?: { readonly centre: number; readonly corner: number };
  /** At the corner, as a share of the height: positive pincushion. */
  readonly distortion?: number;
  /** Light lost at the corner, as a share. */
  readonly vignetting?: number;
  /** How much darker the left side is than the right, as a share; negative, the right than the left. */
  readonly uneven?: number;
  /** What lies around the paper, as light. */
  readonly background?: number;
  /** White paper, as light: what is not blown out is below 1. */
  readonly exposure?: number;
  readonly papers: readonly PlacedPaper[];
}

/** Rays a pixel, where nothing is blurred and where all is. */
const rays = { few: 16, many: 40 } as const;
/** Sharper than this is sharp, pixels. */
const sharpPx = 1;
/** A blur reaches so far beyond the outline of the paper, pixels. */
const reachPx = 30;

const tableSize = 4096;
/**
 * For each ray: a normal deviate across and the pixel's own box, the same down, and a place in a round pupil of radius one. One after another
 * they lie evenly in six dimensions (the additive recurrence of Roberts, 2018, from memory).
 */
const table = Float64Array.from({ length: tableSize * 6 });
for (let ray = 0; ray < tableSize; ray++) {
  const [a = 0, b = 0, c = 0, e = 0, g = 0, h = 0] = [
    0.9017215, 0.8131017, 0.7331914, 0.6611346, 0.5961594, 0.53757
  ].map((step) => (0.5 + ray * step) % 1);
  const [spread, radius] = [Math.sqrt(-2 * Math.log(1 - a)), Math.sqrt(c)];
  table.set(
    [
      spread * Math.cos(2 * Math.PI * b),
      g - 0.5,
      spread * Math.sin(2 * Math.PI * b),
      h - 0.5,
      radius * Math.cos(2 * Math.PI * e),
      radius * Math.sin(2 * Math.PI * e)
    ],
    ray * 6
  );
}

/** Rotation by columns, the place of the paper's corner, its normal and how far it lies along that: plain numbers, since each ray needs them. */
interface Prepared {
  readonly light: Float32Array;
  readonly width: number;
  readonly height: number;
  readonly perMm: number;
  readonly margin: number;
  readonly axes: Float64Array;
  readonly box: readonly [left: number, top: number, right: number, bottom: number];
}

export function photograph(scene: Scene, random: Random): Gray {
  const { width, height, fNumber, focalLengthMm, pixelMm, planeMm, background = 0.2, exposure = 0.8 } = scene;
  const vPx = imageDistance(focalLengthMm, planeMm) / pixelMm;
  const pupil = focalLengthMm / fNumber / 2;
  const [cx, cy] = [(width - 1) / 2, (height - 1) / 2];
  const corner2 = cx * cx + cy * cy;
  const papers = scene.papers.map((paper) => prepared(paper, cx, cy, vPx));
  const picture = gray(width, height);
  const blur = scene.blurPx ?? { centre: 0.35, corner: 0.35 };
  const uneven = scene.uneven ?? 0;
  // The brighter side has the exposure, whichever it is.
  const dimmest = Math.sign(uneven) / 2;
  const met = { light: 0, z: 0 };
  const here: Prepared[] = [];
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const h2 = ((x - cx) ** 2 + (y - cy) ** 2) / corner2;
      const straight = (1 - (scene.distortion ?? 0) * h2) / vPx;
      const sharpAt = planeMm - (scene.curvedMm ?? 0) * h2;
      const sigma = blur.centre + (blur.corner - blur.centre) * h2;
      const falls = (1 - (scene.vignetting ?? 0) * h2) * (1 + uneven * ((x - cx) / width - dimmest));
      let value = background * falls;
      here.length = 0;
      for (const paper of papers) {
        const { box } = paper;
        if (x > box[0] && y > box[1] && x < box[2] && y < box[3]) here.push(paper);
      }
      if (here.length > 0) {
        const hit = meets(here, 0, 0, (x - cx) * straight, (y - cy) * straight, sharpAt, met);
        const defocus = hit ? (2 * pupil * vPx * Math.abs(met.z - sharpAt)) / (sharpAt * met.z) : reachPx;
        const count = defocus > sharpPx ? rays.many : rays.few;
        const start = Math.floor(random() * tableSize);
        let sum = 0;
        for (let ray = 0; ray < count; ray++) {
          const at = ((start + ray) & (tableSize - 1)) * 6;
          const px = x - cx + sigma * (table[at] ?? 0) + (table[at + 1] ?? 0);
          const py = y - cy + sigma * (table[at + 2] ?? 0) + (table[at + 3] ?? 0);
          const [ax, ay] = [pupil * (table[at + 4] ?? 0), pupil * (table[at + 5] ?? 0)];
          sum += meets(here, ax, ay, px * straight, py * straight, sharpAt, met) ? met.light : background / exposure;
        }
        value = (exposure * falls * sum) / count;
      }
      picture.light[y * width + x] = value;
    }
  return picture;
}

function prepared(
  { pose: { r, t }, raster, perMm, margin }: PlacedPaper,
  cx: number,
  cy: number,
  vPx: number
): Prepared {
  const at = (row: number, column: number) => r[row * 3 + column] ?? 0;
  const n = [at(0, 2), at(1, 2), at(2, 2)] as const;
  const axes = Float64Array.of(
    ...[at(0, 0), at(1, 0), at(2, 0)],
    ...[at(0, 1), at(1, 1), at(2, 1)],
    ...t,
    ...n,
    n[0] * t[0] + n[1] * t[1] + n[2] * t[2]
  );
  const [w, h] = [raster.width / perMm - margin, raster.height / perMm - margin];
  const corners = [
    [-margin, -margin],
    [w, -margin],
    [w, h],
    [-margin, h]
  ].map(([u = 0, v = 0]) => {
    const z = at(2, 0) * u + at(2, 1) * v + t[2];
    return [
      cx + (vPx * (at(0, 0) * u + at(0, 1) * v + t[0])) / z,
      cy + (vPx * (at(1, 0) * u + at(1, 1) * v + t[1])) / z
    ] as const;
  });
  const [xs, ys] = [corners.map(([x]) => x), corners.map(([, y]) => y)];
  const box = [
    Math.min(...xs) - reachPx,
    Math.min(...ys) - reachPx,
    Math.max(...xs) + reachPx,
    Math.max(...ys) + reachPx
  ] as const;
  return { light: raster.light, width: raster.width, height: raster.height, perMm, margin, axes, box };
}

/** The nearest paper on the way from a place of the pupil through that of the plane of focus. */
function meets(
  papers: readonly Prepared[],
  ax: number,
  ay: number,
  dx: number,
  dy: number,
  sharpAt: number,
  met: { light: number; z: number }
): boolean {
  // From (ax, ay, 0) to (dx, dy, 1) sharpAt.
  const [vx, vy] = [dx - ax / sharpAt, dy - ay / sharpAt];
  let found = false;
  for (const paper of papers) {
    const q = paper.axes;
    const [nx = 0, ny = 0, nz = 1, d = 0] = [q[9], q[10], q[11], q[12]];
    const z = (d - nx * ax - ny * ay) / (nx * vx + ny * vy + nz);
    if (!(z > 0) || (found && met.z < z)) continue;
    const [qx, qy, qz] = [ax + vx * z - (q[6] ?? 0), ay + vy * z - (q[7] ?? 0), z - (q[8] ?? 0)];
    const u = ((q[0] ?? 0) * qx + (q[1] ?? 0) * qy + (q[2] ?? 0) * qz + paper.margin) * paper.perMm;
    const v = ((q[3] ?? 0) * qx + (q[4] ?? 0) * qy + (q[5] ?? 0) * qz + paper.margin) * paper.perMm;
    if (u < 0 || v < 0 || u >= paper.width || v >= paper.height) continue;
    met.light = paper.light[Math.floor(v) * paper.width + Math.floor(u)] ?? 1;
    met.z = z;
    found = true;
  }
  return found;
}
