/** Where a piece of paper lies before the lens, from the markers on it. */
import { least, sum } from 'd3-array';
import { Matrix, solve } from 'ml-matrix';
import { degrees } from '../maths/vector';
import { imageDistance } from '../optics/thinLens';
import type { Gray, ImagePoint } from './gray';
import { markerAt, type FoundMarker } from './markers';
import type { SheetPiece, PlacedMarker } from './sheets';

export interface CameraIntrinsics {
  readonly focalLengthMm: number;
  readonly pixelMm: number;
  readonly width: number;
  readonly height: number;
  /** How straight lines are bent: at the corner a place lies further out by this share of its height (positive: pincushion). None where absent. */
  readonly distortion?: number;
}

/** From a place on the paper, mm, to one before the lens, mm from the pupil: x to the right, y down, z away. */
export interface Pose {
  /** Rotation, row by row. */
  readonly r: readonly number[];
  readonly t: readonly [number, number, number];
}

export interface Correspondence {
  readonly mm: ImagePoint;
  readonly px: ImagePoint;
  readonly sdPx: number;
}

/** Clockwise from the upper left, mm. */
const cornersOf = ({ x, y, side }: Omit<PlacedMarker, 'id'>): ImagePoint[] => [
  { x, y },
  { x: x + side, y },
  { x: x + side, y: y + side },
  { x, y: y + side }
];

/** A marker nearer to the edge of the picture than this is not looked for, pixels: its corners could not be found to a tenth. */
const edgePx = 2;
const liesIn = (
  { x, y }: ImagePoint,
  { width, height }: Pick<CameraIntrinsics, 'width' | 'height'>,
  edge: number
): boolean => x > edge && y > edge && x < width - 1 - edge && y < height - 1 - edge;

/** The markers of a piece, those too blurred to be read found by those that are. */
export function completed(
  picture: Gray,
  piece: SheetPiece,
  found: readonly FoundMarker[],
  lens: CameraIntrinsics,
  focusedPx?: number
): FoundMarker[] {
  let own = found.filter(({ id }) => piece.markers.some((marker) => marker.id === id));
  for (let round = 0; round < 2; round++) {
    const pose = poseFrom(matchesOf(piece, own), lens, focusedPx);
    if (!pose) return own;
    const vPx = focusedPx ?? projectionPx(lens, pose.t[2]);
    const rest = piece.markers.filter(({ id }) => !own.some((marker) => marker.id === id));
    const more = rest.flatMap(({ id, ...marker }) => {
      const corners = cornersOf(marker).map((mm) => projected(pose, mm, lens, vPx));
      const inside = corners.every((px) => liesIn(px, picture, edgePx));
      return (inside && markerAt(picture, id, corners)) || [];
    });
    if (more.length === 0) return own;
    own = [...own, ...more];
  }
  return own;
}

/** The corners of all markers of a piece that were found. */
export function matchesOf({ markers }: SheetPiece, found: readonly FoundMarker[]): Correspondence[] {
  return markers.flatMap(({ id, ...marker }) => {
    const seen = found.find((one) => one.id === id);
    return seen
      ? cornersOf(marker).flatMap((mm, index) => {
          const px = seen.corners[index];
          return px ? [{ mm, px, sdPx: seen.sdPx }] : [];
        })
      : [];
  });
}

export const placed = ({ r, t }: Pose, { x, y }: ImagePoint): readonly [number, number, number] => [
  (r[0] ?? 0) * x + (r[1] ?? 0) * y + t[0],
  (r[3] ?? 0) * x + (r[4] ?? 0) * y + t[1],
  (r[6] ?? 0) * x + (r[7] ?? 0) * y + t[2]
];

/** The focal length in pixels, as far behind the pupil as the picture lies. */
export const projectionPx = ({ focalLengthMm, pixelMm }: CameraIntrinsics, distanceMm: number): number =>
  imageDistance(focalLengthMm, distanceMm) / pixelMm;

export function projected(
  pose: Pose,
  mm: ImagePoint,
  { width, height, distortion = 0 }: CameraIntrinsics,
  vPx: number
): ImagePoint {
  const [x, y, z] = placed(pose, mm);
  const [cx, cy, right, down] = [(width - 1) / 2, (height - 1) / 2, (vPx * x) / z, (vPx * y) / z];
  const grown = distortion === 0 ? 1 : bentBy((distortion * (right * right + down * down)) / (cx * cx + cy * cy));
  return { x: cx + right * grown, y: cy + down * grown };
}

/** By how much a height grows that a lens bends by a share of itself: the root of g (1 - share g²) = 1 near one, by Newton from its first two terms. */
function bentBy(share: number): number {
  let grown = 1 + share * (1 + 3 * share);
  for (let round = 0; round < 2; round++) {
    const own = share * grown * grown;
    grown -= (grown - own * grown - 1) / (1 - 3 * own);
  }
  return grown;
}

/** Where a place of the picture would lie through a lens that bends nothing. */
export function straightened({ x, y }: ImagePoint, { width, height, distortion = 0 }: CameraIntrinsics): ImagePoint {
  const [cx, cy] = [(width - 1) / 2, (height - 1) / 2];
  const share = 1 - (distortion * ((x - cx) ** 2 + (y - cy) ** 2)) / (cx * cx + cy * cy);
  return { x: cx + (x - cx) * share, y: cy + (y - cy) * share };
}

/** Lenses bend straight lines by so much, as a standard deviation (from memory: up to 3%, seldom more); no more is looked for. */
const usualDistortion = 0.03;
const mostDistortion = 0.06;
/**
 * A parabola is laid through three shares so far apart, again and again, each time about where the last was least, which it does not leave by more
 * than `most`, until it stays. Where corners then lie off by more than `fair` deviations it was no parabola: far from the right share a pose makes up
 * for it by turning. Then it begins anew from the best of `tried` (all chosen).
 */
const bending = {
  step: 0.005,
  most: 0.015,
  settled: 0.0005,
  rounds: 6,
  fair: 3,
  tried: [-0.04, -0.02, 0.02, 0.04]
} as const;

/**
 * How a lens bends straight lines, from the markers of one picture, each piece of paper lying as it likes: where they fit best, drawn to none
 * by as much as they do not tell. Zero where nothing tells.
 */
export function distortionOf(
  pieces: readonly (readonly Correspondence[])[],
  lens: CameraIntrinsics,
  focusedPx?: number
): number {
  /** What is seen less what is free: a pose for each, and the distortion. */
  const told = sum(pieces, ({ length }) => 2 * length) - 6 * pieces.length - 1;
  if (told < 1) return 0;
  const off = (distortion: number): number =>
    sum(pieces, (matches) => {
      const pose = poseFrom(matches, { ...lens, distortion }, focusedPx);
      return pose ? pose.rms * pose.rms * matches.length : NaN;
    });
  const first = settledAt(off, 0, told);
  const found = first && first.each <= bending.fair ** 2 ? first : settledAt(off, least(bending.tried, off) ?? 0, told);
  return found?.share ?? 0;
}

/** @returns the share, and the square of what corners lie off by then, in their deviations; null where it leads nowhere */
function settledAt(
  off: (share: number) => number,
  start: number,
  told: number
): { share: number; each: number } | null {
  const { step, most, settled, rounds } = bending;
  let best = start;
  for (let round = 1; round <= rounds; round++) {
    const [less, here, more] = [off(best - step), off(best), off(best + step)];
    const bend = (less - 2 * here + more) / (step * step);
    // Where it bends the wrong way the lower side leads on.
    const by = bend > 0 ? (less - more) / (2 * step) / bend : more < less ? most : -most;
    const next = best + Math.max(-most, Math.min(most, by));
    if (!(Math.abs(next) <= mostDistortion)) return null;
    if (bend > 0 && (Math.abs(next - best) < settled || round === rounds)) {
      // What is left over although it fits best is how far corners lie from where they should, and that is how little they tell.
      const each = Math.max(1, (here - (bend * (next - best) ** 2) / 2) / told);
      return { share: next / (1 + (2 * each) / (bend * usualDistortion ** 2)), each };
    }
    best = next;
  }
  return null;
}

/** Whether all markers of a piece lie in the picture: what is cut off was pointed past, or cropped, and then the axis is not in the middle. */
export const isWhole = ({ markers }: SheetPiece, pose: Pose, lens: CameraIntrinsics, vPx: number): boolean =>
  markers.every((marker) => cornersOf(marker).every((mm) => liesIn(projected(pose, mm, lens, vPx), lens, 0)));

/** Square within so much, a sheet or a wall is measured, degrees. */
export const maxTiltDeg = 2;

/** How the piece is turned out of the plane of the sensor, degrees. */
export const tiltOf = ({ r }: Pose): number => degrees(Math.acos(Math.min(1, Math.abs(r[8] ?? 1))));

/**
 * The same apart, degrees: turned aside (positive where its right side is further away), leaning back (positive where its top is further
 * away), and turned in the picture (positive clockwise).
 */
export const turnOf = ({ r }: Pose): { readonly aside: number; readonly back: number; readonly roll: number } => ({
  aside: degrees(Math.asin(Math.max(-1, Math.min(1, r[6] ?? 0)))),
  back: -degrees(Math.asin(Math.max(-1, Math.min(1, r[7] ?? 0)))),
  roll: degrees(Math.atan2(r[3] ?? 0, r[0] ?? 1))
});

/**
 * @param focusedPx the distance of the picture behind the pupil, pixels, where it is known from what was focused on; else as if it were this piece
 * @returns `rms`: how far the corners lie from where they should, in their standard deviations; null where the corners make no plane before the lens
 */
export function poseFrom(
  matches: readonly Correspondence[],
  lens: CameraIntrinsics,
  focusedPx?: number
): (Pose & { readonly rms: number }) | null {
  if (matches.length < 4) return null;
  let vPx = focusedPx ?? lens.focalLengthMm / lens.pixelMm;
  let pose: Pose | null = null;
  for (let round = 0; round < 3; round++) {
    pose = fromHomography(matches, lens, vPx);
    if (!pose || pose.t[2] < 2 * lens.focalLengthMm) return null;
    pose = polished(pose, matches, lens, vPx);
    if (pose.t[2] < 2 * lens.focalLengthMm) return null;
    vPx = focusedPx ?? projectionPx(lens, pose.t[2]);
  }
  if (!pose) return null;
  const last = polished(pose, matches, lens, vPx);
  const errors = residuals(last, matches, lens, vPx);
  const rms = Math.sqrt(errors.reduce((sum, error) => sum + error * error, 0) / matches.length);
  return Number.isFinite(rms) ? { ...last, rms } : null;
}

/** The plane's homography, its eighth number one, by least squares; then the rotation nearest to it (Zhang 2000, section 3.1). */
function fromHomography(matches: readonly Correspondence[], lens: CameraIntrinsics, vPx: number): Pose | null {
  const { width, height } = lens;
  const [cx, cy] = [(width - 1) / 2, (height - 1) / 2];
  const rows: number[][] = [];
  const right: number[] = [];
  const scale = 100;
  for (const { mm, px } of matches) {
    const [X, Y] = [mm.x / scale, mm.y / scale];
    const straight = straightened(px, lens);
    const [u, v] = [(straight.x - cx) / vPx, (straight.y - cy) / vPx];
    rows.push([X, Y, 1, 0, 0, 0, -u * X, -u * Y], [0, 0, 0, X, Y, 1, -v * X, -v * Y]);
    right.push(u, v);
  }
  let h: number[];
  try {
    h = solve(new Matrix(rows), Matrix.columnVector(right), true).to1DArray();
  } catch {
    return null;
  }
  const [a = 0, b = 0, c = 0, d = 0, e = 0, f = 0, g = 0, i = 0] = h;
  const [one, two] = [[a, d, g].map((value) => value / scale), [b, e, i].map((value) => value / scale)];
  const size = (norm(one) + norm(two)) / 2;
  if (!(size > 0)) return null;
  const r1 = one.map((value) => value / norm(one));
  const along = dot(r1, two);
  const rest = two.map((value, index) => value - along * (r1[index] ?? 0));
  const r2 = rest.map((value) => value / norm(rest));
  const [x1 = 0, y1 = 0, z1 = 0] = r1;
  const [x2 = 0, y2 = 0, z2 = 0] = r2;
  const r3 = [y1 * z2 - z1 * y2, z1 * x2 - x1 * z2, x1 * y2 - y1 * x2] as const;
  return { r: [x1, x2, r3[0], y1, y2, r3[1], z1, z2, r3[2]], t: [c / size, f / size, 1 / size] };
}

const dot = (a: readonly number[], b: readonly number[]): number =>
  a.reduce((sum, value, index) => sum + value * (b[index] ?? 0), 0);
const norm = (a: readonly number[]): number => Math.sqrt(dot(a, a));

/** How far corners lie from where they should, across and down, in their deviations: `projected` by itself, since it is the innermost of a pose. */
function residuals(
  { r, t }: Pose,
  matches: readonly Correspondence[],
  { width, height, distortion = 0 }: CameraIntrinsics,
  vPx: number
): Float64Array {
  const [cx, cy] = [(width - 1) / 2, (height - 1) / 2];
  const bend = distortion / (cx * cx + cy * cy);
  const [r0 = 0, r1 = 0, , r3 = 0, r4 = 0, , r6 = 0, r7 = 0] = r;
  const off = new Float64Array(2 * matches.length);
  for (let index = 0; index < matches.length; index++) {
    const match = matches[index];
    if (!match) continue;
    const { mm, px, sdPx } = match;
    const scale = vPx / (r6 * mm.x + r7 * mm.y + t[2]);
    const right = scale * (r0 * mm.x + r1 * mm.y + t[0]);
    const down = scale * (r3 * mm.x + r4 * mm.y + t[1]);
    const grown = bend === 0 ? 1 : bentBy(bend * (right * right + down * down));
    off[2 * index] = (cx + right * grown - px.x) / sdPx;
    off[2 * index + 1] = (cy + down * grown - px.y) / sdPx;
  }
  return off;
}

/** A rotation turned further about an axis, by as many radians as it is long (Rodrigues). */
export function turned(r: readonly number[], [wx, wy, wz]: readonly [number, number, number]): number[] {
  const angle = Math.hypot(wx, wy, wz);
  if (angle < 1e-15) return [...r];
  const [x, y, z] = [wx / angle, wy / angle, wz / angle];
  const [c, s] = [Math.cos(angle), Math.sin(angle)];
  const q = [
    c + x * x * (1 - c),
    x * y * (1 - c) - z * s,
    x * z * (1 - c) + y * s,
    y * x * (1 - c) + z * s,
    c + y * y * (1 - c),
    y * z * (1 - c) - x * s,
    z * x * (1 - c) - y * s,
    z * y * (1 - c) + x * s,
    c + z * z * (1 - c)
  ];
  return Array.from({ length: 9 }, (_, index) => {
    const [row, column] = [Math.floor(index / 3), index % 3];
    return [0, 1, 2].reduce((sum, k) => sum + (q[row * 3 + k] ?? 0) * (r[k * 3 + column] ?? 0), 0);
  });
}

/** A step that moves nothing by a thousandth of a pixel (chosen). */
const settled = { rad: 1e-7, mm: 1e-4 } as const;

/** A step of Gauss and Newton is halved so often at most (chosen). */
const mostHalves = 4;
const square = (errors: Float64Array): number => sum(errors, (error) => error * error);

/** By the normal equations, each column as long as the others. @throws where they are singular */
function gaussNewtonStep(columns: readonly Float64Array[], errors: Float64Array): number[] {
  const lengths = columns.map((column) => Math.sqrt(square(column)));
  const product = (one: Float64Array, other: Float64Array) =>
    one.reduce((all, value, at) => all + value * (other[at] ?? 0), 0);
  const scaled = (value: number, ...by: readonly number[]) =>
    by.reduce((rest, each) => rest / (lengths[each] || 1), value);
  const normal = columns.map((one, i) => columns.map((other, j) => scaled(product(one, other), i, j)));
  const right = columns.map((one, i) => -scaled(product(one, errors), i));
  return solve(new Matrix(normal), Matrix.columnVector(right))
    .to1DArray()
    .map((value, i) => scaled(value, i));
}

/** Least squares of the reprojection, by Gauss and Newton. */
function polished(start: Pose, matches: readonly Correspondence[], lens: CameraIntrinsics, vPx: number): Pose {
  let pose = start;
  let now = residuals(pose, matches, lens, vPx);
  for (let round = 0; round < 6; round++) {
    const steps = [1e-5, 1e-5, 1e-5, 1e-2, 1e-2, 1e-2];
    const moved = (by: readonly number[]): Pose => {
      const [a = 0, b = 0, c = 0, x = 0, y = 0, z = 0] = by;
      const { t } = pose;
      return { r: turned(pose.r, [a, b, c]), t: [t[0] + x, t[1] + y, t[2] + z] };
    };
    const columns = steps.map((step, index) => {
      const there = residuals(moved(steps.map((_, other) => (other === index ? step : 0))), matches, lens, vPx);
      return there.map((value, at) => (value - (now[at] ?? 0)) / step);
    });
    let by: number[];
    try {
      by = gaussNewtonStep(columns, now);
    } catch {
      return pose;
    }
    // A step that leads away is too long.
    let next = moved(by);
    let then = residuals(next, matches, lens, vPx);
    for (let halves = 0; halves < mostHalves && square(then) > square(now); halves++) {
      by = by.map((value) => value / 2);
      next = moved(by);
      then = residuals(next, matches, lens, vPx);
    }
    [pose, now] = [next, then];
    // It halves its digits each round: what is left is far under a pixel.
    if (Math.hypot(...by.slice(0, 3)) < settled.rad && Math.hypot(...by.slice(3)) < settled.mm) return pose;
  }
  return pose;
}
