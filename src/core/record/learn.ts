/**
 * What measured frames say of a body, a lens and a way of focusing: where the plane falls on average, and how it scatters. Errors
 * are on the sensor, in µm, so that one figure holds at every distance.
 *
 * q_i ~ N(μ, σ² + τ_i²), τ_i the uncertainty of the measurement; μ ~ N(0, s₀²); σ² scaled inverse chi-squared with as many degrees
 * of freedom as the prior is worth frames. Given σ, μ is normal in closed form; σ is a grid of one dimension (Gelman et al., Bayesian
 * Data Analysis, 3rd ed., sections 3.3 and 5.4, from memory). A frame whose side nobody can tell counts on either as much as the others
 * make likely, found by expectation and maximisation: the interval does not hold the doubt about its side.
 */
import { normalCdf, normalDensity } from '../statistics/normal';

export interface Observation {
  /** Error of the plane on the sensor, µm; positive behind what was meant. Without its side, its size. */
  readonly q: number;
  /** Standard deviation of its measurement, µm. */
  readonly tau: number;
  /** Whether the side is known. */
  readonly decided: boolean;
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

export interface Learned {
  readonly bias: Estimate;
  readonly spread: Estimate;
  /** Frames it rests on, by their weight. */
  readonly frames: number;
}

const tail = 0.05;
/** Grid of σ, evenly in its logarithm, from this share of the expected spread to this many times it. */
const sigmas = { from: 1 / 30, to: 30, count: 241 } as const;
/** Rounds of weighing the sides of undecided frames against what the others say. */
const rounds = 60;

interface Piece {
  readonly mean: number;
  readonly sd: number;
  /** Logarithm of its weight, up to a constant. */
  readonly logWeight: number;
}

/** @throws RangeError when a figure is not finite, a spread not positive or an uncertainty negative */
export function learn(observations: readonly Observation[], prior: Prior): Learned {
  const sound =
    prior.biasUm > 0 &&
    prior.spreadUm > 0 &&
    prior.frames > 0 &&
    observations.every(
      ({ q, tau, weight = 1 }) => Number.isFinite(q) && tau >= 0 && Number.isFinite(tau) && weight >= 0
    );
  if (!sound) throw new RangeError('An observation or the prior is not a sound figure.');
  const grid = Array.from(
    { length: sigmas.count },
    (_, i) => prior.spreadUm * sigmas.from * (sigmas.to / sigmas.from) ** (i / (sigmas.count - 1))
  );
  const pieces = grid.map((sigma) => pieceAt(sigma, observations, prior));
  const most = Math.max(...pieces.map((piece) => piece.logWeight));
  const weights = pieces.map((piece) => Math.exp(piece.logWeight - most));
  const all = weights.reduce((sum, weight) => sum + weight, 0);
  const shares = weights.map((weight) => weight / all);
  return {
    bias: biasOf(pieces, shares),
    spread: spreadOf(grid, shares),
    frames: observations.reduce((sum, { weight = 1 }) => sum + weight, 0)
  };
}

/** The posterior of μ at one σ, and how likely that σ is. */
function pieceAt(sigma: number, observations: readonly Observation[], { biasUm, spreadUm, frames }: Prior): Piece {
  const variance = sigma * sigma;
  // Scaled inverse chi-squared of σ², over a grid even in log σ.
  let logWeight = -frames * Math.log(sigma) - (frames * spreadUm * spreadUm) / (2 * variance);
  let mean = 0;
  let precision = 1 / (biasUm * biasUm);
  for (let round = 0; round < rounds; round++) {
    let sum = 0;
    let squares = 0;
    let logs = 0;
    precision = 1 / (biasUm * biasUm);
    for (const { q, tau, decided, weight = 1 } of observations) {
      const own = variance + tau * tau;
      const w = weight / own;
      // With the side unknown, as much of either as what the others say makes of it.
      const behind = decided ? 1 : sideShare(q, mean, own);
      const seen = q * (2 * behind - 1);
      sum += w * seen;
      squares += w * q * q;
      logs += weight * Math.log(own);
      precision += w;
    }
    const next = sum / precision;
    const settled = Math.abs(next - mean) < 1e-9 * (1 + Math.abs(next));
    mean = next;
    if (settled || round === rounds - 1) {
      logWeight +=
        -0.5 * logs - 0.5 * squares + 0.5 * mean * mean * precision - 0.5 * Math.log(precision * biasUm * biasUm);
      break;
    }
  }
  return { mean, sd: 1 / Math.sqrt(precision), logWeight };
}

/** The chance that an error of this size lay behind, the average being `mean`. */
const sideShare = (q: number, mean: number, variance: number): number => 1 / (1 + Math.exp((-2 * q * mean) / variance));

function biasOf(pieces: readonly Piece[], shares: readonly number[]): Estimate {
  const mixed = (of: (piece: Piece) => number) =>
    pieces.reduce((sum, piece, index) => sum + (shares[index] ?? 0) * of(piece), 0);
  const value = mixed(({ mean }) => mean);
  const reach = 12 * Math.sqrt(mixed(({ mean, sd }) => sd * sd + (mean - value) ** 2));
  const quantile = (share: number) => {
    let [low, high] = [value - reach, value + reach];
    for (let i = 0; i < 80; i++) {
      const middle = (low + high) / 2;
      if (mixed(({ mean, sd }) => normalCdf((middle - mean) / sd)) < share) low = middle;
      else high = middle;
    }
    return (low + high) / 2;
  };
  return { value, low: quantile(tail), high: quantile(1 - tail) };
}

function spreadOf(grid: readonly number[], shares: readonly number[]): Estimate {
  const value = grid.reduce((sum, sigma, index) => sum + sigma * (shares[index] ?? 0), 0);
  const quantile = (wanted: number) => {
    let before = 0;
    for (const [index, share] of shares.entries()) {
      if (before + share >= wanted) {
        // Within a step, evenly in the logarithm.
        const step = Math.log((grid[1] ?? 1) / (grid[0] ?? 1));
        return (grid[index] ?? 0) * Math.exp(((wanted - before) / share - 0.5) * step);
      }
      before += share;
    }
    return grid[grid.length - 1] ?? 0;
  };
  return { value, low: quantile(tail), high: quantile(1 - tail) };
}

/** Frames of one focusing share one error: their mean, as sure as all of them together. */
export function ofOneFocusing(frames: readonly Observation[]): Observation {
  const [first] = frames;
  if (!first) throw new RangeError('A burst without frames.');
  const weights = frames.map(({ tau }) => 1 / Math.max(tau, 1e-6) ** 2);
  const sum = weights.reduce((total, weight) => total + weight, 0);
  const q = frames.reduce((total, frame, index) => total + frame.q * (weights[index] ?? 0), 0) / sum;
  const weight = Math.max(...frames.map((frame) => frame.weight ?? 1));
  return { q, tau: 1 / Math.sqrt(sum), decided: frames.every((frame) => frame.decided), weight };
}

/** How likely an error is under what has been learned, per µm; for telling what does not fit. */
export function densityOf({ bias, spread }: Learned, { q, tau }: Observation): number {
  const sd = Math.hypot(spread.value, tau);
  return normalDensity((q - bias.value) / sd) / sd;
}
