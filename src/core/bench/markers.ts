/** Markers found in a picture, their corners to a tenth of a pixel. */
import { mean, median, quantile } from 'd3-array';
import aruco from 'js-aruco2';
import { lightAt, smaller, type Gray, type ImagePoint } from './gray';
import { dictionaryName } from './sheets';

export interface FoundMarker {
  readonly id: number;
  /** Clockwise from the upper left of the marker as printed, pixels. */
  readonly corners: readonly [ImagePoint, ImagePoint, ImagePoint, ImagePoint];
  /** How well they are known, as one standard deviation, pixels. */
  readonly sdPx: number;
}

/** Longer sides of the pictures that are looked through, pixels: large markers and small ones, sharp and blurred. */
const [largestLook, smallestLook] = [2600, 500] as const;
/** The dictionary's markers differ by twelve at least: so few wrong bits never make one of another. */
const mostWrongBits = 2;

/** Of corners whose code could be read, and of those too blurred for it (measured on simulated sheets). */
const sdPx = { sharp: 0.1, blurred: 1 } as const;

export interface Found {
  /** Every marker once. */
  readonly markers: readonly FoundMarker[];
  /** Those that are there more than once: nobody knows which sheet is meant. */
  readonly twice: readonly number[];
}

/** @param enough whether those found are all that are wanted: the largest look costs the most */
export function findMarkers(picture: Gray, enough: (ids: readonly number[]) => boolean = () => false): Found {
  const detector = new aruco.AR.Detector({ dictionaryName, maxHammingDistance: mostWrongBits + 1 });
  const found = new Map<number, FoundMarker>();
  const twice = new Set<number>();
  // By halves from the largest; looked through from the smallest.
  const first = Math.max(1, Math.round(Math.max(picture.width, picture.height) / largestLook));
  const pyramid: { readonly times: number; readonly small: Gray }[] = [];
  for (let times = first, small = smaller(picture, first); ; times *= 2, small = smaller(small, 2)) {
    pyramid.push({ times, small });
    if (Math.max(small.width, small.height) < 2 * smallestLook) break;
  }
  for (const { times, small } of pyramid.reverse()) {
    if (enough([...found.keys()])) break;
    for (const { id, corners } of detector.detectImage(small.width, small.height, bytesOf(small))) {
      const at = corners.map(({ x, y }) => ({ x: (x + 0.5) * times - 0.5, y: (y + 0.5) * times - 0.5 }));
      const known = found.get(id);
      const [a, b] = at;
      if (known && a && b) {
        if (distance(known.corners[0], a) > distance(a, b) / 2) twice.add(id);
        continue;
      }
      const refined = refine(picture, at, times);
      if (refined) found.set(id, { id, corners: refined, sdPx: sdPx.sharp });
    }
  }
  return { markers: [...found.values()].filter(({ id }) => !twice.has(id)), twice: [...twice] };
}

const distance = (a: ImagePoint, b: ImagePoint): number => Math.hypot(a.x - b.x, a.y - b.y);

function bytesOf({ width, height, light }: Gray): Uint8ClampedArray {
  const pixels = new Uint32Array(width * height);
  const white = brightOf(light);
  for (let pixel = 0; pixel < pixels.length; pixel++) {
    // Close to how it is seen: the threshold works on differences.
    const value = Math.round(255 * Math.sqrt(Math.min(1, Math.max(0, (light[pixel] ?? 0) / white))));
    pixels[pixel] = value * 0x010101 + 0xff000000;
  }
  return new Uint8ClampedArray(pixels.buffer);
}

/** A line as a x + b y = c, its normal of length one. */
type Line = readonly [a: number, b: number, c: number];

/** A marker that is known to be about there, though its code is too blurred to be read; null where no black square is. */
export function markerAt(picture: Gray, id: number, corners: readonly ImagePoint[]): FoundMarker | null {
  const [a, b] = corners;
  if (!a || !b) return null;
  const side = distance(a, b);
  const refined = refine(picture, corners, side / 30);
  // Elsewhere, it is something else.
  const moved = Math.max(...(refined ?? []).map((point, index) => distance(point, corners[index] ?? point)));
  return refined && moved < side / 5 ? { id, corners: refined, sdPx: sdPx.blurred } : null;
}

/** About the brightest there is: a dark picture has a sheet too. */
function brightOf(light: Float32Array): number {
  const some = light.filter((_, index) => index % 97 === 0);
  return Math.max(1e-3, quantile(some, 0.98) ?? 1);
}

/** Each side is a straight edge of black on white: where its light is halfway, in many places along it, a line; corners are where they cross. */
function refine(picture: Gray, corners: readonly ImagePoint[], times: number): FoundMarker['corners'] | null {
  let at = corners;
  for (let round = 0; round < 2; round++) {
    const reach = round === 0 ? 3 + 2 * times : 4;
    const lengths = at.map((from, index) => distance(from, at[(index + 1) % 4] ?? from));
    const sides = at.map((from, index) => {
      const beside = ((lengths[(index + 1) % 4] ?? 0) + (lengths[(index + 3) % 4] ?? 0)) / 2;
      return sideLine(picture, from, at[(index + 1) % 4] ?? from, reach, beside);
    });
    const next = sides.map((line, index) => crossing(sides[(index + 3) % 4] ?? null, line));
    if (next.some((point) => point === null)) return null;
    at = next.flatMap((point) => point ?? []);
  }
  const [a, b, c, d] = at;
  return a && b && c && d ? [a, b, c, d] : null;
}

/** Along each side, between these shares of it: the corners are another side's. */
const profiles = { count: 24, from: 0.12, to: 0.88 } as const;
/** Steps along a profile, pixels. */
const stepPx = 0.25;
/** Black on white is at least this step of the white (chosen). */
const leastStep = 0.25;
/** Places no further off their line than this stay, pixels (chosen). */
const leastOffPx = 0.15;
/** Sides that cross at a smaller angle than this sine make no corner. */
const leastSine = 0.2;

/** @param beside how long the sides are that meet this one, pixels: seen at a slant the border is thinner than this one tells */
function sideLine(picture: Gray, from: ImagePoint, to: ImagePoint, reach: number, beside: number): Line | null {
  const length = distance(from, to);
  const [dx, dy] = [(to.x - from.x) / length, (to.y - from.y) / length];
  // Outwards, for corners that go clockwise in a picture whose y goes down.
  const [nx, ny] = [dy, -dx];
  // As far as the black border is wide: within it lies the code.
  const wide = Math.min(Math.max(reach, length / 12), Math.min(length, beside) / 8);
  const crossings: ImagePoint[] = [];
  for (let index = 0; index < profiles.count; index++) {
    const share = profiles.from + ((profiles.to - profiles.from) * index) / (profiles.count - 1);
    const [x, y] = [from.x + share * length * dx, from.y + share * length * dy];
    const off = halfway(picture, x, y, nx, ny, wide);
    if (off !== null) crossings.push({ x: x + off * nx, y: y + off * ny });
  }
  return crossings.length < profiles.count / 2 ? null : lineThrough(crossings);
}

/** How far outwards the light is halfway between that inside and that outside. */
function halfway(picture: Gray, x: number, y: number, nx: number, ny: number, wide: number): number | null {
  const count = Math.ceil(wide / stepPx);
  const values = Array.from({ length: 2 * count + 1 }, (_, index) => {
    const off = (index - count) * stepPx;
    return lightAt(picture, x + off * nx, y + off * ny);
  });
  const ends = Math.max(2, Math.floor(count / 3));
  const [inside = 0, outside = 0] = [mean(values.slice(0, ends)), mean(values.slice(-ends))];
  if (outside - inside < leastStep * outside) return null;
  const middle = (inside + outside) / 2;
  // The crossing nearest to where it is looked for.
  let best: number | null = null;
  for (let index = 1; index < values.length; index++) {
    const [a = 0, b = 0] = [values[index - 1], values[index]];
    if (a > middle || b <= middle) continue;
    const off = (index - 1 - count + (middle - a) / (b - a)) * stepPx;
    if (best === null || Math.abs(off) < Math.abs(best)) best = off;
  }
  return best;
}

/** Through points; those far off are left out once. */
function lineThrough(points: readonly ImagePoint[]): Line | null {
  const [a, b, c] = throughAll(points);
  const off = ({ x, y }: ImagePoint) => Math.abs(a * x + b * y - c);
  const usual = median(points, off) ?? 0;
  const near = points.filter((point) => off(point) <= Math.max(leastOffPx, 3 * usual));
  return near.length < points.length / 2 ? null : throughAll(near);
}

/** By their moments: across and down count alike. */
function throughAll(points: readonly ImagePoint[]): Line {
  const [mx = 0, my = 0] = [mean(points, ({ x }) => x), mean(points, ({ y }) => y)];
  let [xx, xy, yy] = [0, 0, 0];
  for (const { x, y } of points) {
    xx += (x - mx) ** 2;
    xy += (x - mx) * (y - my);
    yy += (y - my) ** 2;
  }
  const angle = 0.5 * Math.atan2(2 * xy, xx - yy);
  const [a, b] = [-Math.sin(angle), Math.cos(angle)];
  return [a, b, a * mx + b * my];
}

function crossing(one: Line | null, other: Line | null): ImagePoint | null {
  if (!one || !other) return null;
  const det = one[0] * other[1] - one[1] * other[0];
  if (Math.abs(det) < leastSine) return null;
  return { x: (one[2] * other[1] - one[1] * other[2]) / det, y: (one[0] * other[2] - one[2] * other[0]) / det };
}

/** As in a mirror: markers are not their own mirror image. */
export function mirrorImage({ width, height, light }: Gray): Gray {
  const other = new Float32Array(light.length);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) other[y * width + x] = light[y * width + width - 1 - x] ?? 0;
  return { width, height, light: other };
}
