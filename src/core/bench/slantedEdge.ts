/**
 * What a lens and its sensor let through, from one straight edge that is a little askew, after ISO 12233:2017 (e-SFR): the edge is found row by
 * row by the centroid of its derivative, a curve is fitted through, all rows are laid along it in bins of a quarter pixel, and the derivative
 * of that, windowed, is transformed. Divided by what the bins and the difference themselves take away.
 */
import { mean } from 'd3-array';
import FFT from 'fft.js';
import { Matrix, solve } from 'ml-matrix';
import { degrees } from '../maths/vector';
import { gray, type Gray } from './gray';

export interface EdgeFigure {
  /** Contrast let through at each frequency. */
  readonly mtf: readonly { readonly perPixel: number; readonly contrast: number }[];
  /** Where half the contrast is left, cycles a pixel. */
  readonly mtf50: number;
  /** From a tenth to nine tenths of the step, pixels across the edge. */
  readonly rise: number;
  /** The brighter side over its plateau, as a share of the step: a sharpened picture has some. */
  readonly overshoot: number;
  /** From the columns of the picture, degrees. */
  readonly angleDeg: number;
}

export type EdgeProblem = 'small' | 'flat' | 'blown' | 'straight' | 'askew' | 'bent' | 'noEdge';

const over = 4;
/** Askew by less, the rows meet the pixels alike; by more, the bins smear (ISO 12233 asks for about five), degrees. */
const angles = { least: 2, most: 14 } as const;
const leastRows = 24;
const leastColumns = 16;
/** Brighter than this, light is cut off. */
const blownFrom = 0.985;
/** Step between the plateaus, as light (chosen). */
const leastStep = 0.04;
/** Rows of an edge that bends further from a parabola than so much are none of one edge, pixels. */
const mostBentPx = 0.8;
/** Rows no further off the curve than this stay, pixels (chosen). */
const leastOffPx = 0.3;
/** Half the width of the window about an edge that is known, pixels. */
const windowPx = 14;
/** Samples of the transform. */
const transform = 1024;
const fft = new FFT(transform);

/** @param picture light about an edge that stands, dark on one side; @returns why not, where it cannot be told */
export function slantedEdge(picture: Gray): EdgeFigure | EdgeProblem {
  const { width, height, light } = picture;
  if (height < leastRows || width < leastColumns) return 'small';
  const at = (x: number, y: number) => light[y * width + x] ?? 0;
  const [left, right] = plateausOf(picture);
  if (Math.max(left, right) > blownFrom) return 'blown';
  if (Math.abs(right - left) < leastStep) return 'flat';
  const sign = right > left ? 1 : -1;
  // Twice: first over the whole row, then about where the edge was found.
  let curve = fitCurve(rowsOf(at, width, height, sign, null));
  if (!curve) return 'noEdge';
  curve = fitCurve(rowsOf(at, width, height, sign, curve)) ?? curve;
  if (curve.rms > mostBentPx) return 'bent';
  const slope = curve.b + curve.c * (height - 1);
  const angleDeg = degrees(Math.atan(slope));
  if (Math.abs(angleDeg) < angles.least) return 'straight';
  if (Math.abs(angleDeg) > angles.most) return 'askew';
  const edge = binned(at, width, height, curve, Math.cos(Math.atan(slope)));
  if (!edge) return 'small';
  return figureOf(
    edge.map((value) => value * sign),
    angleDeg
  );
}

/** Light of the two sides of an edge, well away from it: an eighth of the width each. */
function plateausOf({ width, height, light }: Gray): readonly [number, number] {
  const plateau = (from: number, to: number): number => {
    let sum = 0;
    for (let y = 0; y < height; y++) for (let x = from; x < to; x++) sum += light[y * width + x] ?? 0;
    return sum / (height * (to - from));
  };
  const side = Math.max(3, Math.floor(width / 8));
  return [plateau(0, side), plateau(width - side, width)];
}

/** Whether light is cut off on a side of it. */
export const isBlown = (picture: Gray): boolean => Math.max(...plateausOf(picture)) > blownFrom;

/** The same with rows and columns changed: a near-horizontal edge becomes a near-vertical one. */
export function transposed({ width, height, light }: Gray): Gray {
  const other = gray(height, width);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) other.light[x * height + y] = light[y * width + x] ?? 0;
  return other;
}

interface Curve {
  /** x = a + b y + c y². */
  readonly a: number;
  readonly b: number;
  readonly c: number;
  readonly rms: number;
}

function rowsOf(
  at: (x: number, y: number) => number,
  width: number,
  height: number,
  sign: number,
  curve: Curve | null
): { readonly y: number; readonly x: number }[] {
  const reach = Math.min(width / 2, windowPx);
  return Array.from({ length: height }, (_, y) => y).flatMap((y) => {
    const middle = curve ? curve.a + curve.b * y + curve.c * y * y : (width - 1) / 2;
    const wide = curve ? reach : width / 2;
    let [sum, weighted] = [0, 0];
    for (let x = 0; x < width - 1; x++) {
      const off = (x + 0.5 - middle) / wide;
      if (Math.abs(off) >= 1) continue;
      const window = 0.54 + 0.46 * Math.cos(Math.PI * off);
      const difference = sign * (at(x + 1, y) - at(x, y)) * window;
      sum += difference;
      weighted += difference * (x + 0.5);
    }
    const x = weighted / sum;
    return sum > 0 && x > 0 && x < width - 1 ? [{ y, x }] : [];
  });
}

function fitCurve(rows: readonly { readonly y: number; readonly x: number }[]): Curve | null {
  let kept = rows;
  let curve: Curve | null = null;
  for (let round = 0; round < 3; round++) {
    if (kept.length < leastRows) return null;
    const scale = kept.length;
    const [a = 0, b = 0, c = 0] = solve(
      new Matrix(kept.map(({ y }) => [1, y / scale, (y / scale) ** 2])),
      Matrix.columnVector(kept.map(({ x }) => x)),
      true
    ).to1DArray();
    const now = { a, b: b / scale, c: c / (scale * scale) };
    const off = ({ x, y }: { readonly y: number; readonly x: number }) => x - now.a - now.b * y - now.c * y * y;
    const rms = Math.sqrt(kept.reduce((sum, row) => sum + off(row) ** 2, 0) / kept.length);
    curve = { ...now, rms };
    const near = rows.filter((row) => Math.abs(off(row)) <= Math.max(3 * rms, leastOffPx));
    if (near.length === kept.length) break;
    kept = near;
  }
  return curve;
}

/** Light by distance across the edge, in quarters of a pixel; null where too many bins are empty. */
function binned(
  at: (x: number, y: number) => number,
  width: number,
  height: number,
  { a, b, c }: Curve,
  across: number
): number[] | null {
  // Whole turns of the phase: as many rows as make the edge move by whole pixels.
  const slope = Math.abs(b + c * (height - 1));
  const whole = Math.floor(height * slope) / slope;
  const rows = whole >= leastRows ? Math.round(whole) : height;
  const reach = Math.floor((width / 2 - 1) * across * over);
  const [sums, counts] = [new Float64Array(2 * reach + 1), new Float64Array(2 * reach + 1)];
  for (let y = 0; y < rows; y++) {
    const edge = a + b * y + c * y * y;
    for (let x = 0; x < width; x++) {
      const bin = Math.round((x - edge) * across * over) + reach;
      if (bin < 0 || bin > 2 * reach) continue;
      sums[bin] = (sums[bin] ?? 0) + at(x, y);
      counts[bin] = (counts[bin] ?? 0) + 1;
    }
  }
  const first = counts.findIndex((count) => count > 0);
  const last = counts.length - 1 - [...counts].reverse().findIndex((count) => count > 0);
  if (last - first < 8 * over) return null;
  let empty = 0;
  const edge: number[] = [];
  for (let bin = first; bin <= last; bin++) {
    if ((counts[bin] ?? 0) > 0) edge.push((sums[bin] ?? 0) / (counts[bin] ?? 1));
    else {
      empty++;
      edge.push(edge[edge.length - 1] ?? 0);
    }
  }
  return empty > (last - first) / 10 ? null : edge;
}

function figureOf(edge: readonly number[], angleDeg: number): EdgeFigure | EdgeProblem {
  const spread = Array.from({ length: edge.length }, (_, index) => {
    const [before, after] = [edge[index - 1], edge[index + 1]];
    return before === undefined || after === undefined ? 0 : (after - before) / 2;
  });
  const peak = centroid(spread);
  const half = Math.min(peak, spread.length - 1 - peak);
  if (half < 3 * over) return 'noEdge';
  const data = Array.from({ length: 2 * transform }, () => 0);
  spread.forEach((value, index) => {
    const off = (index - peak) / half;
    // Of Tukey's kind: flat where the edge is, falling towards the ends, where there is only noise.
    const window =
      Math.abs(off) >= 1 ? 0 : Math.abs(off) < 0.5 ? 1 : 0.5 + 0.5 * Math.cos(2 * Math.PI * (Math.abs(off) - 0.5));
    if (index < transform) data[2 * index] = value * window;
  });
  const out = fft.createComplexArray();
  fft.transform(out, data);
  const zero = Math.hypot(out[0] ?? 0, out[1] ?? 0);
  if (!(zero > 0)) return 'noEdge';
  const mtf = Array.from({ length: Math.floor(transform / over) + 1 }, (_, k) => {
    const perPixel = (k * over) / transform;
    const raw = Math.hypot(out[2 * k] ?? 0, out[2 * k + 1] ?? 0) / zero;
    // The difference over two bins, and the bin itself.
    const lost = sinc((2 * perPixel) / over) * sinc(perPixel / over);
    return { perPixel, contrast: raw / Math.max(0.1, lost) };
  });
  const after = mtf.findIndex(({ contrast }) => contrast < 0.5);
  const [one, other] = [mtf[after - 1], mtf[after]];
  if (!one || !other) return 'noEdge';
  const mtf50 =
    one.perPixel + ((one.contrast - 0.5) / (one.contrast - other.contrast)) * (other.perPixel - one.perPixel);
  const ends = Math.max(2, Math.floor(edge.length / 10));
  const [low, high] = [average(edge.slice(0, ends)), average(edge.slice(-ends))];
  const levels = edge.map((value) => (value - low) / (high - low));
  const crossing = (level: number) => {
    const at = levels.findIndex((value) => value >= level);
    const [from = 0, to = 1] = [levels[at - 1], levels[at]];
    return (at - 1 + (level - from) / (to - from)) / over;
  };
  const overshoot = Math.max(0, Math.max(...smoothed(levels)) - 1);
  return { mtf, mtf50, rise: crossing(0.9) - crossing(0.1), overshoot, angleDeg };
}

const sinc = (x: number): number => (Math.abs(x) < 1e-9 ? 1 : Math.sin(Math.PI * x) / (Math.PI * x));
const average = (values: readonly number[]): number => mean(values) ?? NaN;
const smoothed = (values: readonly number[]): number[] =>
  values.map((_, index) => average(values.slice(Math.max(0, index - 1), index + 2)));

/** Where the step lies: the centre of what is steepest. */
function centroid(spread: readonly number[]): number {
  const wide = smoothed(smoothed(spread));
  const top = wide.indexOf(Math.max(...wide));
  let [sum, weighted] = [0, 0];
  for (let index = Math.max(0, top - 4 * over); index <= Math.min(spread.length - 1, top + 4 * over); index++) {
    const value = Math.max(0, spread[index] ?? 0);
    sum += value;
    weighted += value * index;
  }
  return Math.round(weighted / sum);
}
