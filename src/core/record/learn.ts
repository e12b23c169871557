/**
 * What measured frames say of a body, a lens and a way of focusing: where the plane falls on average, and how it scatters. Errors
 * are on the sensor, in µm, so that one figure holds at every distance.
 *
 * q_i ~ N(μ, σ² + h_i² + τ_i²), h_i the sway and τ_i the uncertainty of the measurement; a frame whose side nobody can tell has two parts,
 * each with its share. μ ~ N(0, s₀²); σ² scaled inverse chi-squared with as many degrees of freedom as the prior is worth frames
 * (Gelman et al., Bayesian Data Analysis, 3rd ed., sections 3.3 and 5.4, from memory). Both are a grid: coarse, then fine where the chance is.
 */
import { normalDensity } from '../maths/normal';

/** Where an error may lie: it is a mixture of normals. */
export interface ErrorComponent {
  /** On the sensor, µm; positive behind what was meant. */
  readonly q: number;
  /** Standard deviation of its measurement, µm. */
  readonly tau: number;
  /** Its share; those of one observation sum to one. */
  readonly share: number;
}

export interface Observation {
  readonly parts: readonly ErrorComponent[];
  /** How far the photographer's sway alone scatters it, µm. */
  readonly swayUm: number;
  /** How much it counts, 0 to 1: old frames may count less. */
  readonly weight?: number;
}

export interface Prior {
  /** Standard deviation of the bias one expects, µm. */
  readonly biasUm: number;
  /** The spread one expects, µm. */
  readonly spreadUm: number;
  /** How many frames that is worth. */
  readonly frames: number;
}

/** A figure with the interval that holds it nine times in ten. */
export interface Estimate {
  readonly value: number;
  readonly low: number;
  readonly high: number;
}

export interface LearnedFocus {
  readonly bias: Estimate;
  readonly sd: Estimate;
  /** Frames it rests on, by their weight. */
  readonly frames: number;
}

const tail = 0.05;
/** σ is looked for from this share of the expected spread to this many times it, evenly in its logarithm. */
const sigmaReach = 30;
const coarse = { mu: 51, sigma: 31 } as const;
const fine = { mu: 241, sigma: 61 } as const;
/** So far in standard deviations of the prior, and of each observation, μ is looked for. */
const muReach = 5;
/** Less of the chance than this beyond the fine grid's ends. */
const beyond = 1e-7;

interface Grid {
  readonly mus: readonly number[];
  readonly sigmas: readonly number[];
  /** Chance of each σ and μ, by σ first; sums to one. */
  readonly shares: readonly (readonly number[])[];
  /** Logarithm of the observations' density, up to a constant that is the same for one grid. */
  readonly logEvidence: number;
}

/** @throws RangeError when a figure is not finite, a spread not positive or an uncertainty negative */
export function learn(observations: readonly Observation[], prior: Prior, swayFactor = 1): LearnedFocus {
  const rough = roughGrid(observations, prior, swayFactor);
  const grid = gridOf(
    observations,
    prior,
    swayFactor,
    even(...middleOf(rough.mus, overSigma(rough)), fine.mu),
    evenly(...middleOf(rough.sigmas, overMu(rough)), fine.sigma)
  );
  return {
    bias: estimate(grid.mus, overSigma(grid)),
    sd: ofLogs(grid.sigmas.map(Math.log), overMu(grid)),
    frames: observations.reduce((sum, { weight = 1 }) => sum + weight, 0)
  };
}

/** How much wider or narrower than assumed sway is expected to be: a normal of its logarithm (from memory). */
const swayPriorSd = 0.5;
const swayFactors = even(-1.6, 1.6, 25).map(Math.exp);

/** Frames of one kit, focused in one way. */
export interface ObservationGroup {
  readonly observations: readonly Observation[];
  readonly prior: Prior;
}

/**
 * By how much sway is to be multiplied, from all frames of one stance: near frames tell it from the focus, since a millimetre counts
 * for more there. Each group's bias and spread are integrated out.
 */
export function learnSway(groups: readonly ObservationGroup[]): Estimate {
  const logs = swayFactors.map((factor) => {
    const seen = groups.reduce((sum, { observations, prior }) => {
      return sum + roughGrid(observations, prior, factor).logEvidence;
    }, 0);
    return seen - 0.5 * (Math.log(factor) / swayPriorSd) ** 2;
  });
  return ofLogs(swayFactors.map(Math.log), normalised(logs));
}

/** Of a positive figure whose logarithm has these chances, evenly apart: its mean, and where nine tenths lie. */
export function ofLogs(at: readonly number[], shares: readonly number[]): Estimate {
  const value = at.reduce((sum, log, index) => sum + Math.exp(log) * (shares[index] ?? 0), 0);
  return { value, low: Math.exp(quantile(at, shares, tail)), high: Math.exp(quantile(at, shares, 1 - tail)) };
}

function roughGrid(observations: readonly Observation[], prior: Prior, swayFactor: number): Grid {
  const sound =
    prior.biasUm > 0 &&
    prior.spreadUm > 0 &&
    prior.frames > 0 &&
    observations.every(
      ({ parts, swayUm, weight = 1 }) =>
        parts.length > 0 &&
        weight >= 0 &&
        swayUm >= 0 &&
        Number.isFinite(swayUm) &&
        parts.every(({ q, tau, share }) => Number.isFinite(q) && tau >= 0 && Number.isFinite(tau) && share >= 0)
    );
  if (!sound) throw new RangeError('An observation or the prior is not a sound figure.');
  const { spreadUm, biasUm } = prior;
  const seen = observations.flatMap(({ parts, swayUm }) =>
    parts.map(({ q, tau }) => ({ q, reach: muReach * Math.hypot(tau, swayUm, spreadUm) }))
  );
  // What the frames and the prior together leave possible.
  const ends = [-muReach * biasUm, muReach * biasUm];
  const low = Math.max(ends[0] ?? 0, Math.min(...seen.map(({ q, reach }) => q - reach), 0));
  const high = Math.min(ends[1] ?? 0, Math.max(...seen.map(({ q, reach }) => q + reach), 0));
  const mus = seen.length === 0 ? even(ends[0] ?? 0, ends[1] ?? 0, coarse.mu) : even(low, high, coarse.mu);
  return gridOf(
    observations,
    prior,
    swayFactor,
    mus,
    evenly(spreadUm / sigmaReach, spreadUm * sigmaReach, coarse.sigma)
  );
}

const hasSides = ({ parts }: Observation): boolean => parts.length > 1;

function gridOf(
  observations: readonly Observation[],
  { biasUm, spreadUm, frames }: Prior,
  swayFactor: number,
  mus: readonly number[],
  sigmas: readonly number[]
): Grid {
  const [whole, sided] = [observations.filter(({ parts }) => parts.length === 1), observations.filter(hasSides)];
  const logs = sigmas.flatMap((sigma) => {
    // Scaled inverse chi-squared of σ², over a grid even in log σ.
    let constant = -frames * Math.log(sigma) - (frames * spreadUm * spreadUm) / (2 * sigma * sigma);
    // Of one part each: a square in μ, whatever their number.
    let [precision, linear] = [1 / (biasUm * biasUm), 0];
    for (const { parts, swayUm, weight = 1 } of whole) {
      const { q, tau } = parts[0] ?? { q: 0, tau: 0 };
      const variance = sigma * sigma + tau * tau + (swayFactor * swayUm) ** 2;
      precision += weight / variance;
      linear += (weight * q) / variance;
      constant -= 0.5 * weight * (Math.log(variance) + (q * q) / variance);
    }
    const mixed = sided.map(({ parts, swayUm, weight = 1 }) => ({
      weight,
      parts: parts.map(({ q, tau, share }) => {
        const variance = sigma * sigma + tau * tau + (swayFactor * swayUm) ** 2;
        return { q, half: -0.5 / variance, share: share / Math.sqrt(variance) };
      })
    }));
    return mus.map((mu) => {
      let log = constant + mu * (linear - 0.5 * mu * precision);
      for (const { weight, parts } of mixed) {
        let density = 0;
        for (const part of parts) density += part.share * Math.exp(part.half * (part.q - mu) ** 2);
        log += weight * Math.log(Math.max(density, 1e-300));
      }
      return log;
    });
  });
  const most = Math.max(...logs);
  const shares = normalised(logs);
  const step = Math.log((sigmas[1] ?? 1) / (sigmas[0] ?? 1)) * ((mus[1] ?? 0) - (mus[0] ?? 0));
  const sum = logs.reduce((total, log) => total + Math.exp(log - most), 0);
  return {
    mus,
    sigmas,
    shares: sigmas.map((_, row) => shares.slice(row * mus.length, (row + 1) * mus.length)),
    logEvidence: most + Math.log(sum * step)
  };
}

/** Chances, from logarithms of what is in proportion to them. */
export function normalised(logs: readonly number[]): number[] {
  const most = Math.max(...logs);
  const weights = logs.map((log) => Math.exp(log - most));
  const all = weights.reduce((sum, weight) => sum + weight, 0);
  return weights.map((weight) => weight / all);
}

/** Evenly from one to the other, both included. */
export function even(from: number, to: number, count: number): number[] {
  return Array.from({ length: count }, (_, index) => from + ((to - from) * index) / (count - 1));
}
const evenly = (from: number, to: number, count: number): number[] =>
  even(Math.log(from), Math.log(to), count).map(Math.exp);

const overSigma = ({ mus, shares }: Grid): number[] =>
  mus.map((_, column) => shares.reduce((sum, row) => sum + (row[column] ?? 0), 0));
const overMu = ({ shares }: Grid): number[] => shares.map((row) => row.reduce((sum, share) => sum + share, 0));

/** Where all the chance lies, and a step more on either side. */
function middleOf(at: readonly number[], shares: readonly number[]): [number, number] {
  const first = shares.findIndex((share) => share > beyond);
  const last = shares.reduce((found, share, index) => (share > beyond ? index : found), 0);
  return [at[Math.max(0, first - 1)] ?? 0, at[Math.min(at.length - 1, last + 1)] ?? 0];
}

function estimate(at: readonly number[], shares: readonly number[]): Estimate {
  return {
    value: at.reduce((sum, x, index) => sum + x * (shares[index] ?? 0), 0),
    low: quantile(at, shares, tail),
    high: quantile(at, shares, 1 - tail)
  };
}

/** Where so much of the chance lies below, the density running straight from one place of an even grid to the next. */
function quantile(at: readonly number[], shares: readonly number[], wanted: number): number {
  const areas = shares.slice(1).map((share, index) => (share + (shares[index] ?? 0)) / 2);
  const all = areas.reduce((sum, area) => sum + area, 0);
  let before = 0;
  for (const [index, area] of areas.entries()) {
    const rest = wanted * all - before;
    if (rest > area) {
      before += area;
      continue;
    }
    const [a, b] = [shares[index] ?? 0, shares[index + 1] ?? 0];
    const [from, to] = [at[index] ?? 0, at[index + 1] ?? 0];
    // a t + (b − a) t²/2 = rest.
    const root = Math.sqrt(Math.max(0, a * a + 2 * (b - a) * rest));
    const t = a + root > 0 ? (2 * rest) / (a + root) : 0;
    return from + (to - from) * Math.min(1, t);
  }
  return at[at.length - 1] ?? 0;
}

/** Parts so unlikely are left out of what several frames say together. */
const leastShare = 1e-3;

/** Frames of one focusing share one error: what all of them say of it. @throws RangeError when there is none */
export function ofOneFocusing(frames: readonly Observation[]): Observation {
  const [first, ...others] = frames;
  if (!first) throw new RangeError('A burst without frames.');
  const parts = others.reduce<readonly ErrorComponent[]>(
    (known, { parts: more }) => together(known, more),
    first.parts
  );
  const weight = Math.max(...frames.map((frame) => frame.weight ?? 1));
  // Each was taken at a moment of its own: the sways average.
  const swayUm = Math.hypot(...frames.map((frame) => frame.swayUm)) / frames.length;
  return { parts, swayUm, weight };
}

/** Two measurements of one error: each pair of normals is a normal again, as likely as they agree. */
function together(a: readonly ErrorComponent[], b: readonly ErrorComponent[]): ErrorComponent[] {
  const pairs = a.flatMap((one) =>
    b.map((other): ErrorComponent => {
      const [ta, tb] = [Math.max(one.tau, 1e-3) ** 2, Math.max(other.tau, 1e-3) ** 2];
      const sd = Math.sqrt(ta + tb);
      return {
        q: (one.q * tb + other.q * ta) / (ta + tb),
        tau: Math.sqrt((ta * tb) / (ta + tb)),
        share: (one.share * other.share * normalDensity((one.q - other.q) / sd)) / sd
      };
    })
  );
  const all = pairs.reduce((sum, { share }) => sum + share, 0);
  if (!(all > 0)) return [...a];
  const kept = pairs.filter(({ share }) => share / all >= leastShare);
  const rest = kept.reduce((sum, { share }) => sum + share, 0);
  return kept.map((part) => ({ ...part, share: part.share / rest }));
}
