/** The tone curve of a camera, from steps of grey whose light is known but for how brightly each page is lit. */
import { extent } from 'd3-array';
import { Matrix, solve } from 'ml-matrix';

/** One step: what is printed, and what was read, both as light. */
export interface GreyStep {
  readonly printed: number;
  readonly read: number;
}

export interface ToneCurve {
  /** From what was read to light, up to a factor. */
  readonly undo: (read: number) => number;
  /** The exponent between what is printed and what was read, over all of it: 1 where nothing bends. */
  readonly exponent: number;
}

/** Read between these, a step is neither noise nor cut off (chosen). */
const readable = { from: 0.008, to: 0.95 } as const;
/** Steps in all, and how far apart they lie at least, as a ratio of light (chosen). */
const least = { steps: 6, ratio: 6 } as const;
/** Steps further off any smooth curve are none that were printed so, as a standard deviation of the logarithm (chosen). */
const maxResidualSd = 0.12;
/** Curves as bent as this were not made by a camera (chosen). */
const slopes = { least: 0.3, most: 3 } as const;

/**
 * One curve for all pages, each lit as it likes: log printed = a x + b x² + c x³ + a page's own, with x the logarithm of what was read, by least
 * squares. Beyond the steps it goes on straight.
 * @returns null where too few steps can be read, or no smooth curve goes through them
 */
export function toneCurve(pages: readonly (readonly GreyStep[])[]): ToneCurve | null {
  const own = pages
    .map((steps) => steps.filter(({ read }) => read > readable.from && read < readable.to))
    .filter(({ length }) => length >= 2);
  const all = own.flatMap((steps, page) =>
    steps.map(({ printed, read }) => ({ page, x: Math.log(read), y: Math.log(printed) }))
  );
  const [from = 0, to = 0] = extent(all, ({ x }) => x);
  if (all.length < least.steps || to - from < Math.log(least.ratio)) return null;
  const middle = (from + to) / 2;
  const half = (to - from) / 2;
  const powers = (x: number): [number, number, number] => {
    const at = (x - middle) / half;
    return [at, at * at, at ** 3];
  };
  const fitted = (degree: 1 | 3) => {
    const rows = new Matrix(
      all.map(({ page, x }) => [...powers(x).slice(0, degree), ...own.map((_, at) => (at === page ? 1 : 0))])
    );
    const seen = Matrix.columnVector(all.map(({ y }) => y));
    const solved = solve(rows, seen, true);
    return { solved: solved.to1DArray(), rms: Matrix.sub(seen, rows.mmul(solved)).norm() / Math.sqrt(all.length) };
  };
  const { solved, rms } = fitted(3);
  const [a = 1, b = 0, c = 0] = solved;
  const slope = (at: number) => (a + 2 * b * at + 3 * c * at * at) / half;
  const bends = Array.from({ length: 21 }, (_, index) => slope(index / 10 - 1));
  if (!(rms < maxResidualSd) || bends.some((one) => !(one > slopes.least && one < slopes.most))) return null;
  const log = (x: number): number => {
    const at = (x - middle) / half;
    const inside = Math.max(-1, Math.min(1, at));
    return a * inside + b * inside ** 2 + c * inside ** 3 + slope(inside) * half * (at - inside);
  };
  // As bright as before where it is brightest: what is cut off stays known by its light.
  const offset = to - log(to);
  const darkest = Math.exp(from - half);
  const [overall = 1] = fitted(1).solved;
  return {
    undo: (read) =>
      read > darkest ? Math.exp(log(Math.log(read)) + offset) : (read / darkest) * Math.exp(log(from - half) + offset),
    exponent: half / overall
  };
}
