/**
 * The simulated camera before a sheet: each pixel is many rays through the lens, each from a place of the pupil through the place that the
 * plane of focus has for that pixel, to the paper it meets. Defocus, what hides what, and the blur of the lens come of it. Pupils alike.
 */
import { imageDistance } from '../optics/thinLens';
import type { Random } from '../maths/random';
import type { Vector } from '../maths/vector';
import { gray, type Gray } from './gray';
import type { CameraIntrinsics, Pose } from './pose';

export interface PlacedPaper {
  readonly pose: Pose;
  readonly raster: Gray;
  readonly perMm: number;
  /** White paper around what is printed, mm. */
  readonly margin: number;
}

export interface SheetScene extends CameraIntrinsics {
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

/** How far from its middle a ray is spread at most, as deviates. */
const furthest = table.reduce(
  (most, value, at) => (at % 6 === 0 || at % 6 === 2 ? Math.max(most, Math.abs(value)) : most),
  0
);

/** A raster is kept in squares of so many pixels, one after another: rays of one pixel stay in a few of them. Many are of one tone. */
const bits = 4;
const square = 1 << bits;
/** How much further than reckoned a ray may come to lie: a lens that distorts, paper that nears (ours; more costs only time). */
const slack = 1.5;

interface Squares {
  readonly across: number;
  /** The tone of each; NaN where it has several. */
  readonly tones: Float32Array;
  /** Their pixels. */
  readonly light: Float32Array;
}

const squaresOf = new WeakMap<Gray, Squares>();

const indexIn = (across: number, x: number, y: number): number =>
  (((y >> bits) * across + (x >> bits)) << (2 * bits)) | ((y & (square - 1)) << bits) | (x & (square - 1));

function squares(raster: Gray): Squares {
  const known = squaresOf.get(raster);
  if (known) return known;
  const { width, height, light } = raster;
  const [across, down] = [Math.ceil(width / square), Math.ceil(height / square)];
  const tones = new Float32Array(across * down);
  const inSquares = new Float32Array(across * down * square * square);
  for (let y = 0; y < height; y++) {
    const isFirst = (y & (square - 1)) === 0;
    for (let left = 0; left < width; left += square) {
      const own = (y >> bits) * across + (left >> bits);
      const to = (own << (2 * bits)) | ((y & (square - 1)) << bits);
      const from = y * width + left;
      const count = Math.min(square, width - left);
      if (isFirst) tones[own] = light[from] ?? NaN;
      const tone = tones[own] ?? NaN;
      for (let x = 0; x < count; x++) {
        const value = light[from + x] ?? NaN;
        inSquares[to + x] = value;
        if (value !== tone) tones[own] = NaN;
      }
    }
  }
  const made = { across, tones, light: inSquares };
  squaresOf.set(raster, made);
  return made;
}

/** The one tone of a paper as far round a place as its rays may come; NaN where there are several, or its edge. */
function toneAround(
  { width, height, squares: { across, tones } }: Prepared,
  u: number,
  v: number,
  reach: number
): number {
  if (u < reach || v < reach || u + reach >= width || v + reach >= height) return NaN;
  const left = (u - reach) >> bits;
  const right = (u + reach) >> bits;
  const top = (v - reach) >> bits;
  const bottom = (v + reach) >> bits;
  const tone = tones[top * across + left] ?? NaN;
  for (let y = top; y <= bottom; y++)
    for (let x = left; x <= right; x++) if (tones[y * across + x] !== tone) return NaN;
  return tone;
}

/** A paper as each ray needs it. */
interface Prepared {
  readonly squares: Squares;
  readonly width: number;
  readonly height: number;
  readonly perMm: number;
  readonly margin: number;
  /** Its axes across and down, its corner, its normal. */
  readonly a: Vector;
  readonly b: Vector;
  readonly t: Vector;
  readonly n: Vector;
  /** How far its plane lies along that. */
  readonly d: number;
  readonly box: readonly [left: number, top: number, right: number, bottom: number];
}

export function photograph(scene: SheetScene, random: Random): Gray {
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
  const met: Met = { light: 0, z: 0, u: 0, v: 0, steep: 1 };
  const here: Prepared[] = [];
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const h2 = ((x - cx) ** 2 + (y - cy) ** 2) / corner2;
      const straight = (1 - (scene.distortion ?? 0) * h2) / vPx;
      const sharpAt = planeMm - (scene.curvedMm ?? 0) * h2;
      const sigma = blur.centre + (blur.corner - blur.centre) * h2;
      const falls = (1 - (scene.vignetting ?? 0) * h2) * (1 + uneven * ((x - cx) / width - dimmest));
      let value = background * falls;
      // Filled anew without being emptied: that would cost more than what is looked for.
      let count = 0;
      for (const paper of papers) {
        const { box } = paper;
        if (x > box[0] && y > box[1] && x < box[2] && y < box[3]) here[count++] = paper;
      }
      if (here.length > count) here.length = count;
      if (here.length > 0) {
        const hit = meets(here, 0, 0, (x - cx) * straight, (y - cy) * straight, sharpAt, met);
        const defocus = hit ? (2 * pupil * vPx * Math.abs(met.z - sharpAt)) / (sharpAt * met.z) : reachPx;
        const times = defocus > sharpPx ? rays.many : rays.few;
        const start = Math.floor(random() * tableSize);
        const only = here[0];
        if (hit && only && here.length === 1) {
          const spreadPx = furthest * sigma + 1 + defocus / 2;
          const tone = toneAround(only, met.u, met.v, (slack * spreadPx * met.z * only.perMm) / (vPx * met.steep) + 1);
          if (!Number.isNaN(tone)) {
            picture.light[y * width + x] = exposure * falls * tone;
            continue;
          }
        }
        if (only && here.length === 1) {
          const rayed = { x: x - cx, y: y - cy, sigma, straight, sharpAt, pupil, start, times };
          picture.light[y * width + x] = falls * (exposure * lightOf(only, rayed, background / exposure));
          continue;
        }
        let sum = 0;
        for (let ray = 0; ray < times; ray++) {
          const at = ((start + ray) & (tableSize - 1)) * 6;
          const px = x - cx + sigma * (table[at] ?? 0) + (table[at + 1] ?? 0);
          const py = y - cy + sigma * (table[at + 2] ?? 0) + (table[at + 3] ?? 0);
          const ax = pupil * (table[at + 4] ?? 0);
          const ay = pupil * (table[at + 5] ?? 0);
          sum += meets(here, ax, ay, px * straight, py * straight, sharpAt, met) ? met.light : background / exposure;
        }
        value = (exposure * falls * sum) / times;
      }
      picture.light[y * width + x] = value;
    }
  return picture;
}

interface Rayed {
  /** From the middle of the picture, pixels. */
  readonly x: number;
  readonly y: number;
  readonly sigma: number;
  readonly straight: number;
  readonly sharpAt: number;
  readonly pupil: number;
  /** Which rays of the table, and how many. */
  readonly start: number;
  readonly times: number;
}

/** The light of one pixel where a single paper can be met: the innermost loop, so all of `meets` stands in it by itself. */
function lightOf(
  { a, b, t, n, d, perMm, margin, width, height, squares: { across, light } }: Prepared,
  { x, y, sigma, straight, sharpAt, pupil, start, times }: Rayed,
  around: number
): number {
  const [per, inverse] = [straight, 1 / sharpAt];
  const first = start & (tableSize - 1);
  let sum = 0;
  if (n.x === 0 && n.y === 0 && d / n.z > 0) {
    // Facing the lens, all of it lies at one depth: where a ray meets it goes evenly with each of its four numbers.
    const z = d / n.z;
    const [px, pa] = [sigma * per * z * perMm, pupil * (1 - z * inverse) * perMm];
    const box = per * z * perMm;
    const q = { x: x * per * z - t.x, y: y * per * z - t.y, z: z - t.z };
    const u0 = (a.x * q.x + a.y * q.y + a.z * q.z + margin) * perMm;
    const v0 = (b.x * q.x + b.y * q.y + b.z * q.z + margin) * perMm;
    for (let ray = 0, at = first * 6; ray < times; ray++, at = at + 6 === tableSize * 6 ? 0 : at + 6) {
      const dx = px * (table[at] ?? 0) + box * (table[at + 1] ?? 0) + pa * (table[at + 4] ?? 0);
      const dy = px * (table[at + 2] ?? 0) + box * (table[at + 3] ?? 0) + pa * (table[at + 5] ?? 0);
      const u = u0 + a.x * dx + a.y * dy;
      const v = v0 + b.x * dx + b.y * dy;
      const isMet = u >= 0 && v >= 0 && u < width && v < height;
      sum += isMet ? (light[indexIn(across, u, v)] ?? 1) : around;
    }
    return sum / times;
  }
  for (let ray = 0; ray < times; ray++) {
    const at = ((first + ray) & (tableSize - 1)) * 6;
    const ax = pupil * (table[at + 4] ?? 0);
    const ay = pupil * (table[at + 5] ?? 0);
    const vx = (x + sigma * (table[at] ?? 0) + (table[at + 1] ?? 0)) * per - ax * inverse;
    const vy = (y + sigma * (table[at + 2] ?? 0) + (table[at + 3] ?? 0)) * per - ay * inverse;
    const z = (d - n.x * ax - n.y * ay) / (n.x * vx + n.y * vy + n.z);
    const qx = ax + vx * z - t.x;
    const qy = ay + vy * z - t.y;
    const qz = z - t.z;
    const u = (a.x * qx + a.y * qy + a.z * qz + margin) * perMm;
    const v = (b.x * qx + b.y * qy + b.z * qz + margin) * perMm;
    const isMet = z > 0 && u >= 0 && v >= 0 && u < width && v < height;
    sum += isMet ? (light[indexIn(across, u, v)] ?? 1) : around;
  }
  return sum / times;
}

function prepared(
  { pose: { r, t }, raster, perMm, margin }: PlacedPaper,
  cx: number,
  cy: number,
  vPx: number
): Prepared {
  const at = (row: number, column: number) => r[row * 3 + column] ?? 0;
  const column = (index: number): Vector => ({ x: at(0, index), y: at(1, index), z: at(2, index) });
  const [a, b, n] = [column(0), column(1), column(2)];
  const d = n.x * t[0] + n.y * t[1] + n.z * t[2];
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
  return {
    squares: squares(raster),
    width: raster.width,
    height: raster.height,
    perMm,
    margin,
    ...{ a, b, n, d, t: { x: t[0], y: t[1], z: t[2] } },
    box
  };
}

interface Met {
  light: number;
  z: number;
  /** Where on its raster, and how steeply: the share of a straight look that the paper is seen by. */
  u: number;
  v: number;
  steep: number;
}

/** The nearest paper on the way from a place of the pupil through that of the plane of focus. */
function meets(
  papers: readonly Prepared[],
  ax: number,
  ay: number,
  dx: number,
  dy: number,
  sharpAt: number,
  met: Met
): boolean {
  // From (ax, ay, 0) to (dx, dy, 1) sharpAt.
  const vx = dx - ax / sharpAt;
  const vy = dy - ay / sharpAt;
  let found = false;
  for (const paper of papers) {
    const { a, b, t, n, d, perMm, margin, squares } = paper;
    const along = n.x * vx + n.y * vy + n.z;
    const z = (d - n.x * ax - n.y * ay) / along;
    if (!(z > 0) || (found && met.z < z)) continue;
    const qx = ax + vx * z - t.x;
    const qy = ay + vy * z - t.y;
    const qz = z - t.z;
    const u = (a.x * qx + a.y * qy + a.z * qz + margin) * perMm;
    const v = (b.x * qx + b.y * qy + b.z * qz + margin) * perMm;
    if (u < 0 || v < 0 || u >= paper.width || v >= paper.height) continue;
    met.light = squares.light[indexIn(squares.across, u, v)] ?? 1;
    met.z = z;
    met.u = u;
    met.v = v;
    met.steep = Math.abs(along);
    found = true;
  }
  return found;
}
