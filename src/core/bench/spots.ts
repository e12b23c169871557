/**
 * Dust on the sensor, from one picture of a plain bright surface out of focus at a small stop: each speck lies a little before the sensor and
 * throws a shadow as wide as itself and the light's cone there. Its whole darkness is the same at every stop; spread over a wider cone it fades.
 */
import { median, quantile, range } from 'd3-array';
import { Matrix, solve } from 'ml-matrix';
import type { Gray } from './gray';

export interface Spot {
  /** Of its middle, as shares of the picture from the left and the top. */
  readonly x: number;
  readonly y: number;
  /** Width of its shadow in this picture, and of the speck itself, mm on the sensor. */
  readonly shadowMm: number;
  readonly speckMm: number;
  /** Light lost in the middle of the shadow, as a share. */
  readonly depth: number;
  /** From this f-number on it shows. */
  readonly showsFrom: number;
}

export interface Spots {
  readonly spots: readonly Spot[];
  /** How far before the sensor the specks lie, mm; as is usual where the picture does not tell. */
  readonly heightMm: number;
}

export type SpotsProblem =
  /** Something is drawn on it, or in focus. */
  | 'notPlain'
  | 'blown'
  | 'dark'
  /** At a wide stop dust fades. */
  | 'wideStop';

export interface SpotsAsked {
  readonly fNumber: number;
  /** Width of the picture on the sensor, mm. */
  readonly widthMm: number;
}

/** The picture is looked at with so many pixels along its longer side, or up to twice that (chosen: a shadow is several of them wide). */
const lookedPx = 3000;
/** Dust is looked for at this stop and smaller; at wider ones most of it has faded (chosen). */
const leastStop = 10;
/** Paper and sky change over more than this share of the picture, shadows over less (chosen). */
const plainShare = 0.035;
/** A spot lacks so much light in its middle, and so many times the noise (chosen). */
const least = { depth: 0.012, noises: 6 } as const;
/** Light lost that one sees in a smooth sky, as a share (chosen; common practice, no source). */
const seenDepth = 0.02;
/** How far before the sensor dust lies, mm: usual, and what may come of a picture (from memory: filters of one to two millimetres). */
const heights = { usual: 1.2, least: 0.2, most: 4 } as const;
/** More spots than this, or more of the picture under them, and it is no plain surface (chosen). */
const mostOfThem = { count: 800, share: 0.08 } as const;
/** Fewer pixels than this are noise, or a fault of the sensor. */
const leastPixels = 4;
/** A shadow is no longer than so many times its width, and fills so much of its box: else it is a hair, or a line that was drawn (chosen). */
const round = { longest: 4, fills: 0.35 } as const;
/** How uneven light may be over the whole picture, as darkest over brightest (chosen). */
const leastEven = 0.2;
/** Light of the surface between which it is neither dark nor cut off; of its brightest tenth (chosen). */
const lights = { dark: 0.04, blown: 0.97, brightest: 0.995 } as const;

/** @returns the most visible first */
export function findSpots(picture: Gray, { fNumber, widthMm }: SpotsAsked): Spots | SpotsProblem {
  if (fNumber < leastStop) return 'wideStop';
  const small = shrunk(picture);
  const { width, height, light } = small;
  const bright = quantileOf(light, 0.9);
  if (quantileOf(light, 0.5) > lights.blown || bright > lights.brightest) return 'blown';
  if (bright < lights.dark) return 'dark';
  const pxMm = widthMm / width;
  const plain = background(small, Math.max(8, Math.round(plainShare * Math.max(width, height))));
  if (quantileOf(plain, 0.01) < leastEven * bright) return 'notPlain';
  const lost = light.map((value, index) => 1 - value / Math.max(1e-6, plain[index] ?? 1));
  const smooth = blurred(blurred(lost, width, height, 1), width, height, 1);
  const found = shadows(smooth, width, height, thresholds(smooth, width, height));
  const under = found.reduce((sum, { pixels }) => sum + pixels.length, 0);
  if (found.length > mostOfThem.count || under > mostOfThem.share * width * height) return 'notPlain';
  const measured = found.flatMap(({ pixels, deepest }) => {
    const [x, y] = [deepest % width, Math.floor(deepest / width)];
    const whole = wholeOf({ lost, smooth }, width, height, pixels);
    if (whole === null) return [];
    // Opaque: the light it takes away is its own area.
    const speckMm = 2 * Math.sqrt(whole.sum / Math.PI) * pxMm;
    const shadowMm = 2 * Math.sqrt(whole.area / Math.PI) * pxMm;
    return [{ x: (x + 0.5) / width, y: (y + 0.5) / height, speckMm, shadowMm, depth: smooth[deepest] ?? 0 }];
  });
  // The shadow of a speck much smaller than the cone is as wide as the cone where it is.
  const cones = measured
    .filter(({ shadowMm, speckMm }) => speckMm < shadowMm / 2)
    .map(({ shadowMm }) => shadowMm * fNumber);
  const told = cones.length >= 3 ? (median(cones) ?? heights.usual) : heights.usual;
  const heightMm = Math.min(heights.most, Math.max(heights.least, told));
  const spots = measured
    .map((spot): Spot => ({ ...spot, showsFrom: showsFrom(spot.speckMm, heightMm) }))
    .sort((a, b) => a.showsFrom - b.showsFrom || b.depth - a.depth);
  return { spots, heightMm };
}

/** A speck of a mm, h mm before the sensor, takes (a N / h)² of the light in the middle of its cone: that much is seen from N on. */
export const showsFrom = (speckMm: number, heightMm: number): number => (heightMm * Math.sqrt(seenDepth)) / speckMm;

function shrunk(picture: Gray): Gray {
  const by = Math.max(1, Math.floor(Math.max(picture.width, picture.height) / lookedPx));
  if (by === 1) return picture;
  const [width, height] = [Math.floor(picture.width / by), Math.floor(picture.height / by)];
  const light = new Float32Array(width * height);
  for (let y = 0; y < height * by; y++)
    for (let x = 0; x < width * by; x++) {
      const at = Math.floor(y / by) * width + Math.floor(x / by);
      light[at] = (light[at] ?? 0) + (picture.light[y * picture.width + x] ?? 0) / (by * by);
    }
  return { width, height, light };
}

/** Mean over a square of 2 r + 1, at the edges over what there is of it. */
function blurred(light: Float32Array, width: number, height: number, r: number): Float32Array {
  const across = new Float32Array(light.length);
  for (let y = 0; y < height; y++) {
    const row = y * width;
    let sum = 0;
    let count = Math.min(r, width);
    for (let x = 0; x < count; x++) sum += light[row + x] ?? 0;
    for (let x = 0; x < width; x++) {
      if (x + r < width) {
        sum += light[row + x + r] ?? 0;
        count++;
      }
      if (x > r) {
        sum -= light[row + x - r - 1] ?? 0;
        count--;
      }
      across[row + x] = sum / count;
    }
  }
  // Down all columns at once, row by row: their sums stand beside each other.
  const down = new Float32Array(light.length);
  const sums = new Float64Array(width);
  const add = (y: number, sign: number) => {
    for (let x = 0; x < width; x++) sums[x] = (sums[x] ?? 0) + sign * (across[y * width + x] ?? 0);
  };
  for (let y = 0; y < Math.min(r, height); y++) add(y, 1);
  for (let y = 0; y < height; y++) {
    if (y + r < height) add(y + r, 1);
    if (y > r) add(y - r - 1, -1);
    const count = Math.min(height - 1, y + r) - Math.max(0, y - r) + 1;
    for (let x = 0; x < width; x++) down[y * width + x] = (sums[x] ?? 0) / count;
  }
  return down;
}

/** Of so many at most, evenly taken: a quantile of millions is that of thousands. */
function quantileOf(values: Float32Array, share: number): number {
  const step = Math.max(1, Math.floor(values.length / 20_011));
  return (
    quantile(
      range(0, values.length, step).map((at) => values[at] ?? 0),
      share
    ) ?? 0
  );
}

/** Blocks along the longer side, and terms up to which power of x and y together (chosen: what a lens and a lamp do is smooth). */
const surface = { blocks: 40, power: 4 } as const;
const terms = range(surface.power + 1).flatMap((i) => range(surface.power + 1 - i).map((j) => [i, j] as const));
const termsAt = (x: number, y: number): number[] => terms.map(([i, j]) => x ** i * y ** j);

/** The surface without its spots: a polynomial through the medians of blocks, then what is still uneven about it, smoothed without what lacks light. */
function background({ width, height, light }: Gray, r: number): Float32Array {
  const side = Math.max(4, Math.floor(Math.max(width, height) / surface.blocks));
  const place = (at: number, length: number) => (2 * at) / length - 1;
  const rows: number[][] = [];
  const values: number[] = [];
  for (let y = 0; y + side <= height; y += side)
    for (let x = 0; x + side <= width; x += side) {
      const step = Math.max(1, Math.floor(side / 8));
      const own = range(0, side, step).flatMap((v) =>
        range(0, side, step).map((u) => light[(y + v) * width + x + u] ?? 0)
      );
      rows.push(termsAt(place(x + side / 2, width), place(y + side / 2, height)));
      values.push(median(own) ?? 0);
    }
  const flat = solve(new Matrix(rows), Matrix.columnVector(values), true).to1DArray();
  const smooth = new Float32Array(light.length);
  for (let y = 0; y < height; y++) {
    // Along a row the terms in y are figures of it.
    const v = place(y + 0.5, height);
    const byPower = range(surface.power + 1).map((i) =>
      terms.reduce((sum, [a, b], at) => (a === i ? sum + (flat[at] ?? 0) * v ** b : sum), 0)
    );
    for (let x = 0; x < width; x++) {
      const u = place(x + 0.5, width);
      smooth[y * width + x] = Math.max(
        1e-6,
        byPower.reduceRight((sum, value) => sum * u + value, 0)
      );
    }
  }
  const whole = light.map((value, at) => value / (smooth[at] ?? 1));
  const kept = whole.slice();
  let rest: Float32Array = kept;
  for (let round = 0; round < 3; round++) {
    rest = blurred(blurred(kept, width, height, r), width, height, r);
    for (let at = 0; at < kept.length; at++) {
      const [value, now] = [whole[at] ?? 0, rest[at] ?? 1];
      kept[at] = value < now * (1 - least.depth / 2) ? now : value;
    }
  }
  return rest.map((value, at) => value * (smooth[at] ?? 1));
}

/** Parts of the picture along its longer side in which noise is looked at apart (chosen). */
const noiseParts = 16;

/**
 * How much light a place must lack, as a share: noise is larger where there is less light, in corners most of all. Of each part
 * the middle half tells, spots being too few to count in it; between the middles of parts it runs straight.
 */
function thresholds(lost: Float32Array, width: number, height: number): Float32Array {
  const side = Math.max(24, Math.ceil(Math.max(width, height) / noiseParts));
  const [across, down] = [Math.ceil(width / side), Math.ceil(height / side)];
  const lacks = range(across * down).map((part) => {
    const [left, top] = [(part % across) * side, Math.floor(part / across) * side];
    const [right, bottom] = [Math.min(width, left + side), Math.min(height, top + side)];
    const every = Math.max(1, Math.floor(side / 40));
    const own = range(top, bottom, every).flatMap((y) =>
      range(left, right, every).map((x) => lost[y * width + x] ?? 0)
    );
    const [low = 0, middle = 0, high = 0] = [0.25, 0.5, 0.75].map((share) => quantile(own, share) ?? 0);
    // What a whole part lacks is no shadow: the surface lies too high there, as it does where there is much noise.
    return Math.max(0, middle) + Math.max(least.depth, (least.noises * (high - low)) / 1.349);
  });
  const columns = range(width).map((x) => between(x / side - 0.5, across));
  const out = new Float32Array(width * height);
  for (let y = 0; y < height; y++) {
    const row = between(y / side - 0.5, down);
    // Of this row, part by part.
    const own = range(across).map(
      (part) =>
        (lacks[row.low * across + part] ?? 0) * (1 - row.share) + (lacks[row.high * across + part] ?? 0) * row.share
    );
    for (let x = 0; x < width; x++) {
      const column = columns[x] ?? row;
      const first = own[column.low] ?? 0;
      out[y * width + x] = first + ((own[column.high] ?? 0) - first) * column.share;
    }
  }
  return out;
}

/** The two parts a place lies between, and how far from the first. */
function between(at: number, parts: number): { readonly low: number; readonly high: number; readonly share: number } {
  const low = Math.max(0, Math.min(parts - 1, Math.floor(at)));
  const high = Math.min(parts - 1, low + 1);
  return { low, high, share: Math.max(0, Math.min(1, at - low)) };
}

interface Shadow {
  readonly pixels: readonly number[];
  readonly deepest: number;
}

/** Left, right, over and under. */
const besides = [
  [-1, 0],
  [1, 0],
  [0, -1],
  [0, 1]
] as const;

/** Places that lack more light than the threshold, each with all that touches it. */
function shadows(lost: Float32Array, width: number, height: number, threshold: Float32Array): Shadow[] {
  const seen = new Uint8Array(lost.length);
  const isDark = (at: number): boolean => (lost[at] ?? 0) >= (threshold[at] ?? 1);
  const found: Shadow[] = [];
  for (let start = 0; start < lost.length; start++) {
    if (seen[start] === 1 || !isDark(start)) continue;
    const pixels = [start];
    seen[start] = 1;
    let deepest = start;
    for (let next = 0; next < pixels.length; next++) {
      const at = pixels[next] ?? 0;
      if ((lost[at] ?? 0) > (lost[deepest] ?? 0)) deepest = at;
      const [x, y] = [at % width, Math.floor(at / width)];
      for (const [dx, dy] of besides) {
        if (x + dx < 0 || y + dy < 0 || x + dx >= width || y + dy >= height) continue;
        const beside = at + dy * width + dx;
        if (seen[beside] === 1 || !isDark(beside)) continue;
        seen[beside] = 1;
        pixels.push(beside);
      }
    }
    if (pixels.length >= leastPixels) found.push({ pixels, deepest });
  }
  return found;
}

/** All the light a shadow takes, in pixels of full light, and how large it is where it has half its depth; null where it is no spot but a line. */
function wholeOf(
  { lost, smooth }: { readonly lost: Float32Array; readonly smooth: Float32Array },
  width: number,
  height: number,
  pixels: readonly number[]
) {
  const xs = pixels.map((at) => at % width);
  const ys = pixels.map((at) => Math.floor(at / width));
  const [left, right, top, bottom] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)];
  const [wide, tall] = [right - left + 1, bottom - top + 1];
  if (Math.max(wide, tall) > round.longest * Math.min(wide, tall) || pixels.length < round.fills * wide * tall)
    return null;
  // Its skirt lies under the threshold: looked for half its width further out.
  const reach = Math.ceil(Math.max(wide, tall) / 2) + 1;
  let sum = 0;
  for (let y = Math.max(0, top - reach); y <= Math.min(height - 1, bottom + reach); y++)
    for (let x = Math.max(0, left - reach); x <= Math.min(width - 1, right + reach); x++)
      sum += lost[y * width + x] ?? 0;
  const deepest = quantile(
    pixels.map((at) => smooth[at] ?? 0),
    0.9
  );
  const half = pixels.filter((at) => (smooth[at] ?? 0) > (deepest ?? 0) / 2).length;
  return sum > 0 ? { sum, area: Math.max(1, half) } : null;
}
