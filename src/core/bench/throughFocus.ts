/**
 * Where the plane of focus lies among windows of texture at many depths: what each lets through is that of a disc that grows with its distance
 * from the plane, of the lens's own blur, and noise. One fit over all of them, both sides together.
 */
import { cross, least, quantile, range } from 'd3-array';
import { levenbergMarquardt } from 'ml-levenberg-marquardt';
import { Matrix, inverse } from 'ml-matrix';
import { discTransfer } from '../optics/discTransfer';
import { textureFrequencies, type Window } from './texture';

export interface ThroughFocus {
  /** Where the plane lies, mm from the pupil, and its standard deviation. */
  readonly planeMm: number;
  readonly sdMm: number;
  /** The lens's own blur in the plane, as a standard deviation, pixels. */
  readonly ownPx: number;
  /** Pixels of disc a mm of depth, as measured over as computed: 1 where optics and distances agree. */
  readonly slope: number;
}

/** Five, in this order; the plane as so many times `planeStep` from where the search began, so that all are of the size of one. */
type Parameters = readonly [plane: number, slope: number, own: number, amplitude: number, noise: number];

/** mm. */
const planeStep = 10;
/** What is known beforehand: the disc from optics to within a tenth (f-numbers and focal lengths are rounded), as an observation. */
const slopeSd = 0.1;
/** How far what is let through may lie from the model, as a share of itself and of the most there is (chosen on simulated sheets). */
const unlike = { ofItself: 0.12, ofMost: 0.03 } as const;
/** Windows overlap and bins of one window err together: so many of them say what one would (chosen on simulated sheets). */
const oversampled = 4;
/** With fewer windows there is no curve. */
const leastWindows = 12;
/** Starts: places evenly over all depths, and blurs of the lens, pixels. */
const starts = { planes: 41, own: [0.4, 0.9] } as const;
/** Three places stand for a window's depths, in standard deviations: they have the same variance. */
const places = [-Math.sqrt(1.5), 0, Math.sqrt(1.5)] as const;
const bounds = { slope: [0.3, 3], own: [0.05, 3], amplitude: [1e-6, 1e6], noise: [0, 1e6] } as const;
const differences = [2e-3, 1e-3, 1e-3, 1e-4, 1e-5] as const;

/** What is fitted: every window at every frequency, each by its own deviation; the slope's own comes last. */
interface Fitting {
  readonly windows: readonly Window[];
  readonly perVergence: number;
  readonly seen: readonly number[];
  readonly sds: readonly number[];
  /** The least and the most that is let through. */
  readonly floor: number;
  readonly most: number;
  /** mm. */
  readonly nearest: number;
  readonly furthest: number;
}

function fittingOf(windows: readonly Window[], perVergence: number): Fitting {
  const depths = windows.map(({ depthMm }) => depthMm);
  const values = windows.flatMap(({ through }) => through);
  const [most, floor] = [quantile(values, 0.98) ?? 1, quantile(values, 0.02) ?? 0];
  const sds = values.map((value) => unlike.ofItself * value + unlike.ofMost * most);
  const seen = [...values.map((value, index) => value / (sds[index] ?? 1)), 1 / slopeSd];
  return { windows, perVergence, seen, sds, floor, most, nearest: Math.min(...depths), furthest: Math.max(...depths) };
}

const planeOf = ({ nearest, furthest }: Fitting, times: number): number => (nearest + furthest) / 2 + planeStep * times;
const timesOf = ({ nearest, furthest }: Fitting, mm: number): number => (mm - (nearest + furthest) / 2) / planeStep;

function modelled(fitting: Fitting, [times, slope, own, amplitude, noise]: Parameters): number[] {
  const { windows, perVergence, sds } = fitting;
  const plane = planeOf(fitting, times);
  const all = windows.flatMap(({ depthMm, depthSdMm }) => {
    const discs = places.map((place) => slope * perVergence * Math.abs(1 / plane - 1 / (depthMm + place * depthSdMm)));
    return textureFrequencies.map((nu) => {
      const power = discs.reduce((sum, b) => sum + discTransfer(b, nu) ** 2, 0) / discs.length;
      return amplitude * Math.exp(-((2 * Math.PI * own * nu) ** 2)) * power + noise;
    });
  });
  return [...all.map((value, index) => value / (sds[index] ?? 1)), slope / slopeSd];
}

const squares = (fitting: Fitting, parameters: Parameters): number =>
  modelled(fitting, parameters).reduce((sum, value, index) => sum + (value - (fitting.seen[index] ?? 0)) ** 2, 0);

/** The best of many begins. */
function startOf(fitting: Fitting): Parameters | undefined {
  const { nearest, furthest, floor, most } = fitting;
  const tried = cross(range(starts.planes), starts.own, (step, own): Parameters => {
    const plane = nearest + ((furthest - nearest) * step) / (starts.planes - 1);
    return [timesOf(fitting, plane), 1, own, most, Math.max(floor, 1e-6) / 2];
  });
  return least(
    tried.map((parameters) => ({ parameters, cost: squares(fitting, parameters) })),
    ({ cost }) => cost
  )?.parameters;
}

/** @param perVergence pixels of disc for a unit of difference in vergence, 1/mm; @returns null where too little is to be seen */
export function fitThroughFocus(windows: readonly Window[], perVergence: number): ThroughFocus | null {
  const told = windows.filter(({ through }) => through.every(Number.isFinite));
  if (told.length < leastWindows) return null;
  const fitting = fittingOf(told, perVergence);
  const { seen, nearest, furthest } = fitting;
  const start = startOf(fitting);
  if (!start) return null;
  const others = [bounds.slope, bounds.own, bounds.amplitude, bounds.noise];
  const { parameterValues } = levenbergMarquardt(
    { x: seen.map((_, index) => index), y: [...seen] },
    (parameters) => {
      const all = modelled(fitting, asParameters(parameters));
      return (index) => all[index] ?? 0;
    },
    {
      initialValues: [...start],
      minValues: [timesOf(fitting, nearest), ...others.map(([low]) => low)],
      maxValues: [timesOf(fitting, furthest), ...others.map(([, high]) => high)],
      gradientDifference: [...differences],
      damping: 0.01,
      maxIterations: 20,
      errorTolerance: 0
    }
  );
  const found = asParameters(parameterValues);
  const variance = varianceOfFirst(fitting, found);
  if (variance === null) return null;
  const scale = squares(fitting, found) / Math.max(1, seen.length - found.length);
  return {
    planeMm: planeOf(fitting, found[0]),
    sdMm: planeStep * Math.sqrt(variance * scale * oversampled),
    slope: found[1],
    ownPx: found[2]
  };
}

const asParameters = ([plane = 0, slope = 1, own = 0.5, amplitude = 1, noise = 0]: readonly number[]): Parameters => [
  plane,
  slope,
  own,
  amplitude,
  noise
];

/** Of the first parameter, for deviations of one: from how the model changes with each of them. */
function varianceOfFirst(fitting: Fitting, at: Parameters): number | null {
  const now = modelled(fitting, at);
  const columns = differences.map((step, index) => {
    const there = modelled(fitting, asParameters(at.map((value, other) => (other === index ? value + step : value))));
    return there.map((value, row) => (value - (now[row] ?? 0)) / step);
  });
  const jacobian = new Matrix(columns).transpose();
  try {
    const variance = inverse(jacobian.transpose().mmul(jacobian)).get(0, 0);
    return variance >= 0 ? variance : null;
  } catch {
    return null;
  }
}
