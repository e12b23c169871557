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

/** The one tone of a part of a paper; NaN where there are several, or its edge. */
function toneWithin(
  { width, height, squares: { across, tones } }: Prepared,
  u0: number,
  v0: number,
  u1: number,
  v1: number
): number {
  if (u0 < 0 || v0 < 0 || u1 >= width || v1 >= height) return NaN;
  const [left, right, top, bottom] = [u0 >> bits, u1 >> bits, v0 >> bits, v1 >> bits];
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

/** A scene as each pixel needs it. */
interface Camera {
  readonly scene: SheetScene;
  /** The picture behind the pupil, pixels. */
  readonly vPx: number;
  /** Radius of the pupil, mm. */
  readonly pupil: number;
  /** Light around the papers, and white paper's. */
  readonly background: number;
  readonly exposure: number;
  readonly blur: { readonly centre: number; readonly corner: number };
  /** The middle of the picture, and half its diagonal squared, pixels. */
  readonly cx: number;
  readonly cy: number;
  readonly corner2: number;
  /** Which rays a pixel takes. */
  readonly seed: number;
}

function cameraOf(scene: SheetScene, random: Random): Camera {
  const { width, height, fNumber, focalLengthMm, pixelMm, planeMm, background = 0.2, exposure = 0.8 } = scene;
  const [cx, cy] = [(width - 1) / 2, (height - 1) / 2];
  return {
    scene,
    background,
    exposure,
    cx,
    cy,
    corner2: cx * cx + cy * cy,
    vPx: imageDistance(focalLengthMm, planeMm) / pixelMm,
    pupil: focalLengthMm / fNumber / 2,
    blur: scene.blurPx ?? { centre: 0.35, corner: 0.35 },
    seed: Math.floor(random() * 2 ** 32)
  };
}

/** What holds of a pixel whatever is met there. */
interface Place {
  /** From the middle of the picture, pixels. */
  readonly x: number;
  readonly y: number;
  /** The lens's own blur as a standard deviation, pixels. */
  readonly sigma: number;
  /** The tangent of a pixel. */
  readonly straight: number;
  /** Where the plane of focus lies, mm. */
  readonly sharpAt: number;
  /** The light that is left there. */
  readonly falls: number;
}

const here: { -readonly [Key in keyof Place]: Place[Key] } = {
  x: 0,
  y: 0,
  sigma: 0,
  straight: 0,
  sharpAt: 0,
  falls: 0
};

/** Filled again and again, as `met` is. */
function placeAt({ scene, vPx, blur, cx, cy, corner2 }: Camera, x: number, y: number): Place {
  const { planeMm, width, uneven = 0, distortion = 0, curvedMm = 0, vignetting = 0 } = scene;
  here.x = x - cx;
  here.y = y - cy;
  const h2 = (here.x * here.x + here.y * here.y) / corner2;
  here.sigma = blur.centre + (blur.corner - blur.centre) * h2;
  here.straight = (1 - distortion * h2) / vPx;
  here.sharpAt = planeMm - curvedMm * h2;
  // The brighter side has the exposure, whichever it is.
  here.falls = (1 - vignetting * h2) * (1 + uneven * (here.x / width - Math.sign(uneven) / 2));
  return here;
}

/** Which rays of the table a pixel begins with (a hash of whole numbers, multipliers as commonly used, from memory; its noise is white over blocks of 8): by chance, and the same whatever was passed over before it. */
function firstRay(seed: number, x: number, y: number): number {
  let t = Math.imul(x + 1, 0x9e3779b1) ^ Math.imul(y + 1, 0x85ebca6b) ^ seed;
  t = Math.imul(t ^ (t >>> 15), 0x2c1b3c6d);
  t = Math.imul(t ^ (t >>> 12), 0x297a2d39);
  return (t ^ (t >>> 15)) & (tableSize - 1);
}

/** Pixels are drawn in squares of so many (chosen): most show one tone of one paper, or none. */
const tile = 8;

/** @param random decides which rays each pixel takes */
export function photograph(scene: SheetScene, random: Random): Gray {
  const camera = cameraOf(scene, random);
  const papers = scene.papers.map((paper) => prepared(paper, camera));
  const picture = gray(scene.width, scene.height);
  for (let top = 0; top < scene.height; top += tile) {
    const bottom = Math.min(scene.height, top + tile);
    const inRows = papers.filter(({ box }) => bottom > box[1] && top < box[3]);
    for (let left = 0; left < scene.width; left += tile) {
      const right = Math.min(scene.width, left + tile);
      const inTile = inRows.filter(({ box }) => right > box[0] && left < box[2]);
      drawTile(picture, camera, inTile, { left, top, right, bottom });
    }
  }
  return picture;
}

interface Tile {
  readonly left: number;
  readonly top: number;
  readonly right: number;
  readonly bottom: number;
}

function drawTile(picture: Gray, camera: Camera, papers: readonly Prepared[], area: Tile): void {
  const { left, top, right, bottom } = area;
  const [only] = papers;
  const tone = only && papers.length === 1 ? toneOfTile(camera, only, area) : NaN;
  const even = !only ? camera.background : camera.exposure * tone;
  for (let y = top; y < bottom; y++)
    for (let x = left; x < right; x++) {
      const place = placeAt(camera, x, y);
      picture.light[y * picture.width + x] =
        place.falls * (Number.isNaN(even) ? lightAtPlace(camera, papers, place, firstRay(camera.seed, x, y)) : even);
    }
}

/** The one tone of a paper as far as all rays of a tile may come; NaN where there are several. */
function toneOfTile(camera: Camera, paper: Prepared, { left, top, right, bottom }: Tile): number {
  const alone = [paper];
  let [u0, u1, v0, v1, most] = [Infinity, -Infinity, Infinity, -Infinity, 0];
  for (const y of [top, bottom - 1])
    for (const x of [left, right - 1]) {
      const place = placeAt(camera, x, y);
      if (!meets(alone, 0, 0, place.x * place.straight, place.y * place.straight, place.sharpAt, met)) return NaN;
      most = Math.max(most, spreadOn(camera, paper, place));
      [u0, u1, v0, v1] = [Math.min(u0, met.u), Math.max(u1, met.u), Math.min(v0, met.v), Math.max(v1, met.v)];
    }
  return toneWithin(paper, u0 - most, v0 - most, u1 + most, v1 + most);
}

/** Diameter of the disc about a place where `met` was met, pixels. */
const defocusAt = ({ pupil, vPx }: Camera, sharpAt: number): number =>
  (2 * pupil * vPx * Math.abs(met.z - sharpAt)) / (sharpAt * met.z);

/** How far from where the middle ray met a paper the others may, on its raster. */
function spreadOn(camera: Camera, { perMm }: Prepared, { sigma, sharpAt }: Place): number {
  const spreadPx = furthest * sigma + 1 + defocusAt(camera, sharpAt) / 2;
  return (slack * spreadPx * met.z * perMm) / (camera.vPx * met.steep) + 1;
}

/** Light of one pixel that some paper may be met in, before what the lens loses there. */
function lightAtPlace(camera: Camera, papers: readonly Prepared[], place: Place, start: number): number {
  const { exposure, background, pupil } = camera;
  const { x, y, sigma, straight, sharpAt } = place;
  const isMet = meets(papers, 0, 0, x * straight, y * straight, sharpAt, met);
  const times = !isMet || defocusAt(camera, sharpAt) > sharpPx ? rays.many : rays.few;
  const [only] = papers;
  if (only && papers.length === 1) {
    if (isMet) {
      const reach = spreadOn(camera, only, place);
      const tone = toneWithin(only, met.u - reach, met.v - reach, met.u + reach, met.v + reach);
      if (!Number.isNaN(tone)) return exposure * tone;
    }
    return exposure * lightOf(only, { x, y, sigma, straight, sharpAt, pupil, start, times }, background / exposure);
  }
  let sum = 0;
  for (let ray = 0; ray < times; ray++) {
    const at = ((start + ray) & (tableSize - 1)) * 6;
    const px = x + sigma * (table[at] ?? 0) + (table[at + 1] ?? 0);
    const py = y + sigma * (table[at + 2] ?? 0) + (table[at + 3] ?? 0);
    const ax = pupil * (table[at + 4] ?? 0);
    const ay = pupil * (table[at + 5] ?? 0);
    sum += meets(papers, ax, ay, px * straight, py * straight, sharpAt, met) ? met.light : background / exposure;
  }
  return (exposure * sum) / times;
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

/** The light of one pixel where a single paper can be met. @param around light of what lies beside it */
const lightOf = (paper: Prepared, rayed: Rayed, around: number): number =>
  // Facing the lens, all of it lies at one depth.
  paper.n.x === 0 && paper.n.y === 0 && paper.d / paper.n.z > 0
    ? lightOfFacing(paper, rayed, around)
    : lightOfLeaning(paper, rayed, around);

/** Where a ray meets it goes evenly with each of the ray's four numbers. The innermost loop. */
function lightOfFacing(
  { a, b, t, n, d, perMm, margin, width, height, squares: { across, light } }: Prepared,
  { x, y, sigma, straight, sharpAt, pupil, start, times }: Rayed,
  around: number
): number {
  const z = d / n.z;
  const box = straight * z * perMm;
  const blur = sigma * box;
  const open = pupil * (1 - z / sharpAt) * perMm;
  const q = { x: x * straight * z - t.x, y: y * straight * z - t.y, z: z - t.z };
  const u0 = (a.x * q.x + a.y * q.y + a.z * q.z + margin) * perMm;
  const v0 = (b.x * q.x + b.y * q.y + b.z * q.z + margin) * perMm;
  let sum = 0;
  for (let ray = 0; ray < times; ray++) {
    const at = ((start + ray) & (tableSize - 1)) * 6;
    const dx = blur * (table[at] ?? 0) + box * (table[at + 1] ?? 0) + open * (table[at + 4] ?? 0);
    const dy = blur * (table[at + 2] ?? 0) + box * (table[at + 3] ?? 0) + open * (table[at + 5] ?? 0);
    const u = u0 + a.x * dx + a.y * dy;
    const v = v0 + b.x * dx + b.y * dy;
    const isMet = u >= 0 && v >= 0 && u < width && v < height;
    sum += isMet ? (light[indexIn(across, u, v)] ?? 1) : around;
  }
  return sum / times;
}

/** All of `meets` stands in it by itself: the innermost loop. */
function lightOfLeaning(
  { a, b, t, n, d, perMm, margin, width, height, squares: { across, light } }: Prepared,
  { x, y, sigma, straight, sharpAt, pupil, start, times }: Rayed,
  around: number
): number {
  const inverse = 1 / sharpAt;
  let sum = 0;
  for (let ray = 0; ray < times; ray++) {
    const at = ((start + ray) & (tableSize - 1)) * 6;
    const ax = pupil * (table[at + 4] ?? 0);
    const ay = pupil * (table[at + 5] ?? 0);
    const vx = (x + sigma * (table[at] ?? 0) + (table[at + 1] ?? 0)) * straight - ax * inverse;
    const vy = (y + sigma * (table[at + 2] ?? 0) + (table[at + 3] ?? 0)) * straight - ay * inverse;
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

function prepared({ pose: { r, t }, raster, perMm, margin }: PlacedPaper, camera: Camera): Prepared {
  const { cx, cy, vPx, pupil, blur, scene } = camera;
  const at = (row: number, column: number) => r[row * 3 + column] ?? 0;
  const column = (index: number): Vector => ({ x: at(0, index), y: at(1, index), z: at(2, index) });
  const [a, b, n] = [column(0), column(1), column(2)];
  const d = n.x * t[0] + n.y * t[1] + n.z * t[2];
  const [w, h] = [raster.width / perMm - margin, raster.height / perMm - margin];
  const planes = [scene.planeMm, scene.planeMm - (scene.curvedMm ?? 0)];
  /** A lens that distorts moves what lies at the corner of the picture by so much. */
  const bent = Math.abs(scene.distortion ?? 0) * Math.hypot(cx, cy);
  const boxes = [
    [-margin, -margin],
    [w, -margin],
    [w, h],
    [-margin, h]
  ].map(([u = 0, v = 0]) => {
    const z = at(2, 0) * u + at(2, 1) * v + t[2];
    const disc = Math.max(...planes.map((plane) => Math.abs((pupil * vPx * (z - plane)) / (plane * z))));
    const reach = slack * disc + furthest * Math.max(blur.centre, blur.corner) + bent + 2;
    const x = cx + (vPx * (at(0, 0) * u + at(0, 1) * v + t[0])) / z;
    const y = cy + (vPx * (at(1, 0) * u + at(1, 1) * v + t[1])) / z;
    return [x - reach, y - reach, x + reach, y + reach] as const;
  });
  const least = (index: 0 | 1) => Math.min(...boxes.map((box) => box[index]));
  const most = (index: 2 | 3) => Math.max(...boxes.map((box) => box[index]));
  return {
    squares: squares(raster),
    width: raster.width,
    height: raster.height,
    perMm,
    margin,
    a,
    b,
    n,
    d,
    t: { x: t[0], y: t[1], z: t[2] },
    box: [least(0), least(1), most(2), most(3)]
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

/** What was met last: filled again and again, since it would cost more to make than to find. */
const met: Met = { light: 0, z: 0, u: 0, v: 0, steep: 1 };

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
