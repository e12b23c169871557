/**
 * How the surface of sharp focus bends, from frames of a flat wall of edges at many focusings: how soft each edge is in each frame tells how far
 * it lay from the surface, and where over all frames it would be sharpest. One fit over all edges of all frames.
 */
import { ascending, group, least, max, mean, min, quantile, range } from 'd3-array';
import jstat from 'jstat';
import { levenbergMarquardt } from 'ml-levenberg-marquardt';
import { axialDepth } from '../optics/focusSurface';
import { discMtf50 } from '../optics/sharpness';
import { imageDistance } from '../optics/thinLens';
import type { EdgeFrame } from './edgeFrame';

/** One frame at the stop of the test, in the order they were taken. */
export type FieldFrame = Pick<EdgeFrame, 'distanceMm' | 'vPx'> & {
  readonly edges: readonly Pick<EdgeFrame['edges'][number], 'page' | 'height' | 'lpPerMm'>[];
};

export interface FieldAsked {
  readonly focalLengthMm: number;
  readonly fNumber: number;
  /** Half the picture's diagonal, pixels. */
  readonly halfDiagonalPx: number;
}

export interface FieldCurve {
  /** Vergence added by the squared tangent off the axis, 1/m, with nine tenths; positive towards the lens at the edges. */
  readonly perM: { readonly value: number; readonly low: number; readonly high: number };
  /** What lay between the frames: the camera moved, or the ring was turned from near to far. */
  readonly by: 'moving' | 'turning';
  /** The wall, mm from the pupil: where the camera moved, at the middle of it. */
  readonly distanceMm: number;
  /** Each page by itself: how far before the plane through the axis it is sharpest, mm; negative behind. */
  readonly places: readonly { readonly page: number; readonly tangent: number; readonly nearerMm: number }[];
  readonly frames: number;
}

export type FieldProblem =
  /** Fewer frames than a curve needs. */
  | 'few'
  /** Pages at so alike heights that nothing bends between them. */
  | 'narrow'
  /** Nothing was moved and nothing turned. */
  | 'still'
  /** Somewhere it is sharpest before the first frame or after the last. */
  | 'shortNear'
  | 'shortFar';

export const leastFieldFrames = 5;
/** Wall distances that differ by more than this share were moved between (chosen). */
const movedShare = 0.02;
/** The outermost page is so far off the axis, over half the diagonal, and the innermost at most so far (chosen). */
const heights = { inner: 0.35, outer: 0.6 } as const;
/** The deviation of an edge's disc from the model, as a share (chosen on simulated walls), and of the disc from optics. */
const sds = { disc: 0.08, slope: 0.1 } as const;
/** Squared tangent under this share of the outermost's: on the axis. */
const onAxis = 0.05;
/** Softest over sharpest frame of a page, of discs: less says that nothing was moved. */
const leastSwing = 1.25;

interface Seen {
  readonly frame: number;
  readonly page: number;
  /** Tangent off the axis, squared. */
  readonly t2: number;
  /** ln of its disc, mm. */
  readonly ln: number;
}

/** The fit's figures: bend (1/mm), ln of the lens's own disc on the axis (mm), what it grows by to the outermost page (mm²), optics over measured, then what is out of focus on the axis by frame. */
interface Fitted {
  readonly bend: number;
  readonly lnOwn: number;
  readonly grows: number;
  readonly lnSlope: number;
  /** Vergence of the focus over that of the wall, by frame, 1/mm. */
  readonly off: readonly number[];
}

/** @param frames in the order they were taken: where the ring was turned, from near to far */
export function fieldCurve(frames: readonly FieldFrame[], asked: FieldAsked): FieldCurve | FieldProblem {
  if (frames.length < leastFieldFrames) return 'few';
  const all = frames.flatMap(({ edges }) => edges);
  if (
    (max(all, ({ height }) => height) ?? 0) < heights.outer ||
    (min(all, ({ height }) => height) ?? 1) > heights.inner
  )
    return 'narrow';
  const distances = frames.map(({ distanceMm }) => distanceMm);
  const wallMm = mean(distances) ?? NaN;
  const moved = ((max(distances) ?? 0) - (min(distances) ?? 0)) / wallMm > movedShare;
  const seen = frames.flatMap(({ edges, vPx }, frame) =>
    edges.map(({ page, height, lpPerMm }): Seen => {
      return { frame, page, t2: ((height * asked.halfDiagonalPx) / vPx) ** 2, ln: Math.log(discMtf50 / lpPerMm) };
    })
  );
  const swing = max([...group(seen, ({ page }) => page).values()], (own) =>
    Math.exp((max(own, ({ ln }) => ln) ?? 0) - (min(own, ({ ln }) => ln) ?? 0))
  );
  if ((swing ?? 0) < leastSwing) return 'still';
  const model = modelOf(asked, distances, moved);
  const fitted = fit(model, seen);
  // Each page must be passed through, on the axis as well as outermost.
  const outermost = max(seen, ({ t2 }) => t2) ?? 0;
  for (const t2 of [0, outermost]) {
    const there = fitted.off.map((off) => off + fitted.bend * t2);
    if (Math.max(...there) < 0) return 'shortNear';
    if (Math.min(...there) > 0) return 'shortFar';
  }
  const pages = [...group(seen, ({ page }) => page)].sort(([a], [b]) => ascending(a, b));
  // Each page left out in turn: what one page has of its own is told apart from what all have (jackknife).
  const left = pages.map(
    ([page]) =>
      fit(
        model,
        seen.filter((one) => one.page !== page),
        fitted
      ).bend
  );
  const middle = mean(left) ?? fitted.bend;
  const n = left.length;
  const sd = Math.sqrt(((n - 1) / n) * left.reduce((sum, value) => sum + (value - middle) ** 2, 0));
  const half = 1000 * sd * jstat.studentt.inv(0.95, n - 1);
  const perM = 1000 * fitted.bend;
  return {
    perM: { value: perM, low: perM - half, high: perM + half },
    by: moved ? 'moving' : 'turning',
    distanceMm: wallMm,
    places: pages.flatMap(([page, own]) => {
      const t2 = mean(own, (one) => one.t2) ?? 0;
      // On the axis nothing bends: what lies there is what all else is held against.
      if (t2 < onAxis * outermost) return [];
      const bendMm = bendOfPage(model, own, fitted) * t2;
      return [{ page, tangent: Math.sqrt(t2), nearerMm: wallMm - 1 / (1 / wallMm + bendMm) }];
    }),
    frames: frames.length
  };
}

/** How much nearer the surface lies at a tangent off the axis than on it, where it is so deep on it, mm. */
export const nearerAt = (perM: number, tangent: number, depthMm: number): number =>
  depthMm - axialDepth({ bendPerMm: perM / 1000 }, tangent, depthMm);

/** How far to move or turn between two frames, mm at the wall: half the depth of field, so that each place has several about its sharpest (chosen). */
export const fieldStepMm = (depthOfFieldMm: number): number => depthOfFieldMm / 2;

/** What the fit knows before it begins. */
interface Model {
  readonly distances: readonly number[];
  /** The camera moved before the wall; else the ring was turned. */
  readonly moved: boolean;
  readonly wallMm: number;
  /** Diameter of the disc a unit of vergence out of focus makes, mm. */
  readonly perVergence: number;
  /** All figures are brought to about one: vergences by the depth of field they make. */
  readonly unit: number;
}

function modelOf({ focalLengthMm: f, fNumber }: FieldAsked, distances: readonly number[], moved: boolean): Model {
  const wallMm = mean(distances) ?? NaN;
  const perVergence = (f / fNumber) * imageDistance(f, wallMm);
  return { distances, moved, wallMm, perVergence, unit: 1 / perVergence / 50 };
}

/** ln of the disc there, mm. @param most the largest of the squared tangents */
function lnDiscAt(
  model: Model,
  { bend, lnOwn, grows, lnSlope, off }: Fitted,
  { frame, t2 }: Seen,
  most: number
): number {
  const defocus = Math.exp(lnSlope) * model.perVergence * ((off[frame] ?? 0) + bend * t2);
  return 0.5 * Math.log(Math.exp(2 * lnOwn) + Math.max(0, grows) * (t2 / most) + defocus * defocus);
}

const growsUnit = 1e-4;

function fittedOf({ distances, moved, wallMm, unit }: Model, numbers: readonly number[]): Fitted {
  const [bend = 0, lnOwn = 0, grows = 0, lnSlope = 0, ...rest] = numbers;
  return {
    bend: bend * unit,
    lnOwn,
    grows: grows * growsUnit,
    lnSlope,
    // Moved, one focus stands before walls at known distances; turned, each frame has a focus of its own.
    off: moved ? distances.map((mm) => 1 / wallMm + (rest[0] ?? 0) * unit - 1 / mm) : rest.map((one) => one * unit)
  };
}

const numbersOf = (
  { distances, moved, wallMm, unit }: Model,
  { bend, lnOwn, grows, lnSlope, off }: Fitted
): number[] => [
  ...[bend / unit, lnOwn, grows / growsUnit, lnSlope],
  ...(moved ? [((off[0] ?? 0) - 1 / wallMm + 1 / (distances[0] ?? wallMm)) / unit] : off.map((one) => one / unit))
];

const outermostOf = (seen: readonly Seen[]): number => max(seen, ({ t2 }) => t2) ?? 1;

function costOf(model: Model, seen: readonly Seen[], at: Fitted): number {
  const most = outermostOf(seen);
  return seen.reduce(
    (sum, one) => sum + ((one.ln - lnDiscAt(model, at, one, most)) / sds.disc) ** 2,
    (at.lnSlope / sds.slope) ** 2
  );
}

const cheapest = (model: Model, seen: readonly Seen[], tried: readonly Fitted[]): Fitted | undefined =>
  least(
    tried.map((at) => ({ at, cost: costOf(model, seen, at) })),
    ({ cost }) => cost
  )?.at;

/** By least squares (Levenberg and Marquardt). @param from where it begins; sought where nothing is known */
function fit(model: Model, seen: readonly Seen[], from?: Fitted): Fitted {
  const most = outermostOf(seen);
  const values = numbersOf(model, from ?? startOf(model, seen, most));
  const y = [...seen.map(({ ln }) => ln / sds.disc), 0];
  const { parameterValues } = levenbergMarquardt(
    { x: y.map((_, index) => index), y },
    (parameters) => {
      const at = fittedOf(model, parameters);
      const now = [...seen.map((one) => lnDiscAt(model, at, one, most) / sds.disc), at.lnSlope / sds.slope];
      return (index) => now[index] ?? 0;
    },
    {
      initialValues: values,
      gradientDifference: values.map((value) => Math.max(1e-4, Math.abs(value) * 1e-4)),
      // What begins where the whole ended has little left to go.
      damping: 0.1,
      maxIterations: from ? 12 : 40,
      errorTolerance: 0,
      minValues: values.map((_, index) => (index === 2 ? 0 : -1e6)),
      maxValues: values.map(() => 1e6)
    }
  );
  return fittedOf(model, parameterValues);
}

/** The best of many begins: how it bends, and where the focus stood. */
function startOf(model: Model, seen: readonly Seen[], most: number): Fitted {
  const { distances, moved, perVergence } = model;
  const lns = seen.map(({ ln }) => ln);
  const bare = { lnOwn: quantile(lns, 0.1) ?? -4, grows: 0, lnSlope: 0 };
  const widest = Math.exp(max(lns) ?? -3) / perVergence / most;
  const bends = range(-12, 13).map((step) => (step / 12) * widest);
  const [nearest, furthest] = [Math.min(...distances), Math.max(...distances)];
  const offs = moved
    ? range(0, 41).map((step) => {
        const focus = 1 / nearest + (step / 40) * (1 / furthest - 1 / nearest);
        return distances.map((mm) => focus - 1 / mm);
      })
    : [turnedOff(model, seen)];
  const tried = offs.flatMap((off) => bends.map((bend): Fitted => ({ ...bare, bend, off })));
  return cheapest(model, seen, tried) ?? { ...bare, bend: 0, off: distances.map(() => 0) };
}

/** Where the ring was turned from near to far: how soft the innermost page is, before its sharpest frame on one side and after it on the other. */
function turnedOff({ distances, perVergence }: Model, seen: readonly Seen[]): number[] {
  const inner = min(seen, ({ t2 }) => t2) ?? 0;
  const soft = distances.map((_, frame) => {
    const own = seen.filter((one) => one.frame === frame);
    const page = own.filter(({ t2 }) => t2 < inner * 1.5 + 1e-4);
    return mean(page.length > 0 ? page : own, ({ ln }) => Math.exp(ln)) ?? Infinity;
  });
  const sharpest = Math.min(...soft);
  const at = soft.indexOf(sharpest);
  return soft.map(
    (disc, frame) => (Math.sign(at - frame) * Math.sqrt(Math.max(0, disc * disc - sharpest * sharpest))) / perVergence
  );
}

/** The bend that one page alone asks for, all else as fitted, 1/mm. */
function bendOfPage(model: Model, seen: readonly Seen[], fitted: Fitted): number {
  const most = outermostOf(seen);
  if (most < 1e-6) return fitted.bend;
  const reach = (2 * (Math.max(...fitted.off) - Math.min(...fitted.off))) / most;
  const tried = range(-200, 201).map((step) => ({ ...fitted, bend: fitted.bend + (step / 200) * reach }));
  return cheapest(model, seen, tried)?.bend ?? fitted.bend;
}
