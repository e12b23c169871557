/**
 * How large the disc of defocus is that a spectrum shows. The spectrum of a sharp eye, `R`, is known but for its amplitude `A` and a
 * tilt `α` (people differ, cameras sharpen); the disc multiplies it by its transfer, noise adds a floor `N`:
 *
 *   S(ν) = A · R(ν) · T(ν; b)² · (ν/ν₀)^α + N
 *
 * `T(ν; b)² = (2 J₁(πbν) / (πbν))²` averaged over ±20% of the diameter, since no pupil is an even disc and no eye flat. For each `b`
 * of a grid the other three are fitted in logarithms with heavy tails; what remains weighs that `b`.
 */
import { sum } from 'd3-array';
import { discTransfer } from '../optics/discTransfer';
import { discs, calibrationBias } from './discs';
import { enlargements, type Enlargement } from './enlarged';
import { band, spectrumFrequencies, sectors, type Spectrum } from './spectrum';

/** The spectrum an eye would have sharp, by sector and bin: logarithm of power. */
export interface Expected {
  readonly log: Float64Array;
  /** The mean of many people's eyes, the very eye in another frame, or nothing but what surfaces look like. */
  readonly of: 'eyes' | 'own' | 'surface';
}

export interface DiscFit {
  /** Diameter, pixels, and the interval that holds nine of ten. */
  readonly discPx: number;
  readonly low: number;
  readonly high: number;
  /** Signal over noise where a sharp eye has most of what tells it, as a ratio of powers. */
  readonly signal: number;
  /** How well the best of all fits, mean squared residual in its own standard deviations. */
  readonly misfit: number;
  /** For the file having been enlarged, as a logarithm of chances. */
  readonly enlarged: number;
}

const spreadOfDiameter = 0.2;

/** Transfer of the power by a disc of about `b` pixels. */
export function discPower(b: number, nu: number): number {
  if (b === 0) return 1;
  const parts = 9;
  let sum = 0;
  for (let part = 0; part < parts; part++) {
    sum += discTransfer(b * (1 + (spreadOfDiameter * (2 * (part + 0.5))) / parts - spreadOfDiameter), nu) ** 2;
  }
  return sum / parts;
}

/** How far people and sharpening tilt a spectrum, as an exponent of frequency (chosen among 0.08 to 0.5 on photographed eyes). */
const tiltSds = { eyes: 0.15, own: 0.05, surface: 0.4 } as const;
/** Beyond so many standard deviations (Huber 1964) a bin is taken to say something else. */
const outlier = 2;
/**
 * Bins beside each other are wrong together: the evidence of all is worth this share of it. Measured with each person left out: at 0.22 the
 * interval holds 93 of 100 drawn and 89 of 100 photographed eyes; at 0.35 85 and 83, at 0.13 98 and 95.
 */
export const evidenceShare = 0.22;
/** Noise is hardly more than what neighbouring pixels show: beyond it, one standard deviation of its logarithm (chosen). */
const noiseSd = 2;
/** ν₀, where the tilt changes nothing, cycles per pixel. */
const logMiddle = Math.log(0.1);

/**
 * How far, as a variance of the logarithm, what is seen lies from what is expected at a frequency (chosen on photographs): one person's eye
 * from the mean of all; an eye from itself in another frame, which has its own chance too; a surface from the mean of surfaces.
 */
const unlike = {
  eyes: (nu: number): number => 0.3 + 1 / (1 + (nu / 0.06) ** 4),
  own: (_nu: number, count: number): number => 0.06 + 1.5 / count,
  surface: (nu: number): number => 0.4 + 1 / (1 + (nu / 0.05) ** 4)
} as const;

/** Large discs are rare: minus the logarithm of their chance, up to a constant (a prior with heavy tails, chosen). */
const rarity = (b: number): number => 1.5 * Math.log(1 + (b / 6) ** 2);

interface Bin {
  readonly log: number;
  /** What is left of noise, as a logarithm: 0 but in enlarged files. */
  readonly noise: number;
  readonly expected: number;
  readonly weight: number;
  /** Its root. */
  readonly root: number;
  readonly tilt: number;
  readonly bin: number;
  /** Sector and bin. */
  readonly at: number;
}

/** Logarithm of the power that each disc of the grid leaves, by bin. */
export const transferTable = discs.map((b) =>
  spectrumFrequencies.map((nu) => Math.log(Math.max(discPower(b, nu), 1e-7)))
);

/** A spectrum against what is expected of it. */
export interface FitProblem {
  readonly bins: readonly Bin[];
  /** The same by sector. */
  readonly bySector: readonly (readonly Bin[])[];
  readonly tiltSd: number;
  readonly start: At;
  readonly mostNoise: number;
}

/** @returns null where there are too few waves, or no light */
export function problemOf(
  spectrum: Spectrum,
  expected: Expected,
  enlarged: Enlargement | null = null
): FitProblem | null {
  const bins: Bin[] = [];
  for (let at = 0; at < sectors * band.bins; at++) {
    const [power, count] = [spectrum.power[at] ?? 0, spectrum.count[at] ?? 0];
    const bin = at % band.bins;
    if (count < 2 || power <= 0 || !Number.isFinite(expected.log[at] ?? NaN)) continue;
    // The mean of n exponentials: its logarithm scatters by about 1/√n. Neighbouring waves are not independent under a window.
    // Beyond that people differ, in what is coarse most of all: make-up, hair, light.
    const weight = 1 / (1.5 / count + unlike[expected.of](spectrumFrequencies[bin] ?? 0.1, count));
    bins.push({
      log: Math.log(power) + 1 / (2 * Math.max(1, count / 2)),
      expected: (expected.log[at] ?? 0) + (enlarged?.log[at] ?? 0),
      noise: enlarged?.log[at] ?? 0,
      weight,
      root: Math.sqrt(weight),
      tilt: Math.log(spectrumFrequencies[bin] ?? 0.1) - logMiddle,
      bin,
      at
    });
  }
  if (bins.length < 12) return null;
  const mostNoise = Math.log(Math.max(spectrum.noise, 1e-9) / (enlarged?.noiseShare ?? 1));
  const a = bins.reduce((sum, { log, expected: sharp }) => sum + log - sharp, 0) / bins.length;
  return {
    bins,
    bySector: Array.from({ length: sectors }, (_, sector) =>
      bins.filter(({ at }) => Math.floor(at / band.bins) === sector)
    ),
    tiltSd: tiltSds[expected.of],
    start: { a, tilt: 0, n: Math.min(mostNoise, ...bins.map(({ log, noise }) => log - noise)) },
    mostNoise
  };
}

/** The best fit at each disc of the grid, or at every so many of them. */
function fits(problem: FitProblem, every = 1): { at: At; cost: number }[] {
  let { start } = problem;
  return discs.flatMap((_, index) => {
    if (index % every > 0) return [];
    const found = fitAt(problem, transferTable[index] ?? [], start);
    start = found.at;
    return [found];
  });
}

/** Of files that may have been enlarged fewer discs are tried. */
const every = 4;
/** A file is taken to have been enlarged where that explains it better by this, as a logarithm of chances (chosen; table in docs/model.md). */
const unlikelyEnlarged = 3;

/** Less enlarged than this looks like soft lenses and noise reduction: it is not said. */
const leastSaid = 2;

/** What each disc costs in a file that was enlarged so, over the whole grid: straight between those tried. */
function costsEnlarged(spectrum: Spectrum, expected: Expected, enlarged: Enlargement): Float64Array {
  const problem = problemOf(spectrum, expected, enlarged);
  const tried = problem ? fits(problem, every) : [];
  const cost = (index: number) => tried[index]?.cost ?? 0;
  return Float64Array.from(discs, (_, index) => {
    const [low, share] = [Math.floor(index / every), (index % every) / every];
    return cost(low) * (1 - share) + (share > 0 ? cost(low + 1) * share : 0) + rare(index);
  });
}

/**
 * @param own the same eye as another frame shows it, where there is one: each says its part
 * @returns null where there is nothing to fit: no light, or no waves
 */
export function fitDisc(spectrum: Spectrum, expected: Expected, own: Expected | null = null): DiscFit | null {
  const problem = problemOf(spectrum, expected);
  if (!problem) return null;
  const { bins } = problem;
  const itself = own && problemOf(spectrum, own);
  const besides = itself ? fits(itself) : [];
  const plain = fits(problem);
  const costs = Float64Array.from(plain, ({ cost }, index) => cost + (besides[index]?.cost ?? 0) + rare(index));
  // Held against itself it is known to be as a camera gave it (frames/ownEyes.ts).
  const { chances, best, enlarged } = weighed(
    costs,
    own
      ? []
      : enlargements.map((one) => ({
          times: one.times,
          costs: costsEnlarged(spectrum, expected, one)
        }))
  );
  const found = plain[best];
  const middle = bins.filter(
    ({ bin }) => (spectrumFrequencies[bin] ?? 0) > 0.05 && (spectrumFrequencies[bin] ?? 0) < 0.12
  );
  const level = middle.reduce((sum, { log }) => sum + log, 0) / Math.max(1, middle.length);
  return {
    discPx: (discs[best] ?? 0) / calibrationBias,
    low: Math.min(quantile(chances, 0.05), discs[best] ?? 0) / calibrationBias,
    high: Math.max(quantile(chances, 0.95), discs[best] ?? 0) / calibrationBias,
    signal: Math.exp(level - (found?.at.n ?? 0)),
    misfit: (found?.cost ?? 0) / bins.length,
    enlarged
  };
}

/** The chance of each disc, whether or not the file was enlarged; which is likeliest; and what speaks for its having been. */
function weighed(
  costs: Float64Array,
  others: readonly { readonly times: number; readonly costs: Float64Array }[]
): { chances: Float64Array; best: number; enlarged: number } {
  const least = Math.min(...costs);
  const chances = costs.map((cost) => Math.exp(-0.5 * evidenceShare * (cost - least)));
  const plain = sum(chances);
  let [best, enlarged] = [costs.indexOf(least), -Infinity];
  for (const other of others) {
    if (other.times >= leastSaid)
      enlarged = Math.max(enlarged, 0.5 * evidenceShare * (least - Math.min(...other.costs)));
    for (let at = 0; at < chances.length; at++)
      chances[at] =
        (chances[at] ?? 0) + Math.exp(-0.5 * evidenceShare * ((other.costs[at] ?? 0) - least) - unlikelyEnlarged);
  }
  const all = sum(chances);
  // As likely enlarged as not: the likeliest of all that may be.
  if (all > 2 * plain) best = chances.indexOf(Math.max(...chances));
  return { chances: chances.map((chance) => chance / all), best, enlarged };
}

/** What a large disc costs for being rare. */
export const rare = (disc: number): number => (2 * rarity(discs[disc] ?? 0)) / evidenceShare;

/** Unknowns of a fit: amplitude, tilt, noise, and how far each sector lies from what is expected, as logarithms of power. */
interface At {
  readonly a: number;
  readonly tilt: number;
  readonly n: number;
  readonly offsets?: Float64Array;
}

/**
 * The unknowns at one blur, by Gauss and Newton.
 *
 * @param transfer logarithm of the power that is left: by bin where it is the same in all directions, else by sector and bin
 * @param sectorSd how far the sectors lie from what is expected of them, as a standard deviation of the logarithm; 0: not at all
 */
export function fitAt(
  problem: FitProblem,
  transfer: ArrayLike<number>,
  start: At,
  sectorSd = 0
): { at: At; cost: number } {
  const { bySector } = problem;
  let { a, tilt, n } = start;
  const offsets = new Float64Array(sectors);
  if (sectorSd > 0 && start.offsets) offsets.set(start.offsets);
  // Bins count for more than they are worth (evidenceShare), and the prior beside them for as much more.
  const hold = sectorSd > 0 ? 1 / (sectorSd * sectorSd * evidenceShare) : Infinity;
  const own = new Float64Array(10);
  const system = new Float64Array(10);
  const moves = new Float64Array(sectors * 4);
  let cost = Infinity;
  for (let round = 0; round < 12; round++) {
    begin(system, problem, tilt, n);
    for (let sector = 0; sector < sectors; sector++) {
      const offset = offsets[sector] ?? 0;
      addUp(own, bySector[sector] ?? [], transfer, a + offset, tilt, n);
      takeIn(system, own, sectorSd > 0 ? offset : 0, hold, moves, sector * 4);
    }
    const sum = system[9] ?? 0;
    const settled = Math.abs(cost - sum) < 1e-3;
    cost = sum;
    if (settled) break;
    const step = solve3(system);
    const [da, dt, dn] = [limited(step[0], 2), limited(step[1], 0.5), limited(step[2], 2)];
    a += da;
    tilt += dt;
    n += dn;
    if (sectorSd > 0)
      for (let sector = 0, at = 0; sector < sectors; sector++, at += 4) {
        const back = (moves[at + 1] ?? 0) * da + (moves[at + 2] ?? 0) * dt + (moves[at + 3] ?? 0) * dn;
        offsets[sector] = (offsets[sector] ?? 0) + limited((moves[at] ?? 0) - back, 2);
      }
  }
  return { at: { a, tilt, n, offsets }, cost };
}

/** Normal equations of amplitude, tilt and noise before anything is seen: [aa, at, an, tt, tn, nn, va, vt, vn, cost]. */
function begin(into: Float64Array, { mostNoise, tiltSd }: FitProblem, at: number, noise: number): void {
  into.fill(0);
  const over = Math.max(0, noise - mostNoise) / (noiseSd * noiseSd);
  into[0] = 1e-6;
  into[3] = 1 / (tiltSd * tiltSd);
  into[5] = 1e-3 + (over > 0 ? 1 / (noiseSd * noiseSd) : 0);
  into[7] = -at / (tiltSd * tiltSd);
  into[8] = -over;
  into[9] = (at / tiltSd) ** 2 + (over * noiseSd) ** 2;
}

/**
 * A sector's own offset acts as the amplitude does: it is solved for, and taken out of the rest (Schur).
 *
 * @param moves where the offset goes by itself, and what it gives back of each step of the others, from `at` on
 */
function takeIn(
  system: Float64Array,
  own: Float64Array,
  offset: number,
  hold: number,
  moves: Float64Array,
  at: number
): void {
  const level = own[0] ?? 0;
  const slope = own[1] ?? 0;
  const floor = own[2] ?? 0;
  const pivot = level + hold;
  const held = offset === 0 ? 0 : hold * offset;
  const towards = ((own[6] ?? 0) - held) / pivot;
  const add = (to: number, value: number) => (system[to] = (system[to] ?? 0) + value);
  add(0, level - (level * level) / pivot);
  add(1, slope - (level * slope) / pivot);
  add(2, floor - (level * floor) / pivot);
  add(3, (own[3] ?? 0) - (slope * slope) / pivot);
  add(4, (own[4] ?? 0) - (slope * floor) / pivot);
  add(5, (own[5] ?? 0) - (floor * floor) / pivot);
  add(6, (own[6] ?? 0) - level * towards);
  add(7, (own[7] ?? 0) - slope * towards);
  add(8, (own[8] ?? 0) - floor * towards);
  add(9, (own[9] ?? 0) + held * offset);
  moves[at] = towards;
  moves[at + 1] = level / pivot;
  moves[at + 2] = slope / pivot;
  moves[at + 3] = floor / pivot;
}

const limited = (value: number, most: number): number => Math.max(-most, Math.min(most, value));

/** What the bins of a sector add to the normal equations, and to the cost; numbers apart, since this is the innermost of all. */
function addUp(
  into: Float64Array,
  bins: readonly Bin[],
  transfer: ArrayLike<number>,
  a: number,
  tilt: number,
  n: number
): void {
  const byDirection = transfer.length > band.bins;
  let [aa, at, an, tt, tn, nn, va, vt, vn, sum] = [0, 0, 0, 0, 0, 0, 0, 0, 0, 0];
  for (const bin of bins) {
    const { weight, root, tilt: slope } = bin;
    const signal = a + bin.expected + (transfer[byDirection ? bin.at : bin.bin] ?? 0) + tilt * slope;
    // The logarithm of signal and noise together, and the signal's share of it.
    const floor = n + bin.noise;
    const above = signal - floor;
    const less = Math.exp(above > 0 ? -above : above);
    const residual = bin.log - (above > 0 ? signal : floor) - Math.log1p(less);
    const share = above > 0 ? 1 / (1 + less) : less / (1 + less);
    const scaled = Math.abs(residual) * root;
    const far = scaled > outlier;
    sum += far ? outlier * (2 * scaled - outlier) : scaled * scaled;
    const w = far ? (weight * outlier) / scaled : weight;
    const wa = w * share;
    const wt = wa * slope;
    const rest = 1 - share;
    aa += wa * share;
    at += wt * share;
    an += wa * rest;
    tt += wt * share * slope;
    tn += wt * rest;
    nn += w * rest * rest;
    va += wa * residual;
    vt += wt * residual;
    vn += w * rest * residual;
  }
  into[0] = aa;
  into[1] = at;
  into[2] = an;
  into[3] = tt;
  into[4] = tn;
  into[5] = nn;
  into[6] = va;
  into[7] = vt;
  into[8] = vn;
  into[9] = sum;
}

/** Symmetric, three by three: [aa, ab, ac, bb, bc, cc], then what it is to give. In closed form: it is solved some two thousand times for an eye. */
function solve3(m: Float64Array): [number, number, number] {
  const A = m[0] ?? 0;
  const B = m[1] ?? 0;
  const C = m[2] ?? 0;
  const D = m[3] ?? 0;
  const E = m[4] ?? 0;
  const F = m[5] ?? 0;
  const x = m[6] ?? 0;
  const y = m[7] ?? 0;
  const z = m[8] ?? 0;
  const determinant = A * (D * F - E * E) - B * (B * F - C * E) + C * (B * E - C * D);
  if (Math.abs(determinant) < 1e-12) return [0, 0, 0];
  return [
    ((D * F - E * E) * x + (C * E - B * F) * y + (B * E - C * D) * z) / determinant,
    ((C * E - B * F) * x + (A * F - C * C) * y + (B * C - A * E) * z) / determinant,
    ((B * E - C * D) * x + (B * C - A * E) * y + (A * D - B * B) * z) / determinant
  ];
}

/** A quantile of chances over the grid, pixels. */
function quantile(chances: ArrayLike<number>, share: number): number {
  let before = 0;
  for (let index = 0; index < chances.length; index++) {
    const chance = chances[index] ?? 0;
    if (before + chance >= share) {
      const within = chance > 0 ? (share - before) / chance - 0.5 : 0;
      return Math.max(0, ((discs[1] ?? 0) - (discs[0] ?? 0)) * (index + within));
    }
    before += chance;
  }
  return discs[discs.length - 1] ?? 0;
}
