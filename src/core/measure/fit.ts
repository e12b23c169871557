/**
 * How large the disc of defocus is that a spectrum shows. The spectrum of a sharp eye, `R`, is known but for its amplitude `A` and a
 * tilt `α` (people differ, cameras sharpen); the disc multiplies it by its transfer, noise adds a floor `N`:
 *
 *   S(ν) = A · R(ν) · T(ν; b)² · (ν/ν₀)^α + N
 *
 * `T(ν; b)² = (2 J₁(πbν) / (πbν))²` averaged over ±20 % of the diameter, since no pupil is an even disc and no eye flat. For each `b`
 * of a grid the other three are fitted in logarithms with heavy tails; what remains weighs that `b`.
 */
import { discTransfer } from '../optics/discTransfer';
import { discs, calibrationBias } from './discs';
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
const evidenceShare = 0.22;
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
  readonly expected: number;
  readonly weight: number;
  /** Its root. */
  readonly root: number;
  readonly tilt: number;
  readonly bin: number;
  /** Sector and bin. */
  readonly at: number;
}

const transferTable = discs.map((b) => spectrumFrequencies.map((nu) => Math.log(Math.max(discPower(b, nu), 1e-7))));

/** A spectrum against what is expected of it. */
interface Problem {
  readonly bins: readonly Bin[];
  readonly tiltSd: number;
  readonly start: At;
  readonly mostNoise: number;
}

function problemOf(spectrum: Spectrum, expected: Expected): Problem | null {
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
      expected: expected.log[at] ?? 0,
      weight,
      root: Math.sqrt(weight),
      tilt: Math.log(spectrumFrequencies[bin] ?? 0.1) - logMiddle,
      bin,
      at
    });
  }
  if (bins.length < 12) return null;
  const mostNoise = Math.log(Math.max(spectrum.noise, 1e-9));
  const a = bins.reduce((sum, { log, expected: sharp }) => sum + log - sharp, 0) / bins.length;
  return {
    bins,
    tiltSd: tiltSds[expected.of],
    start: { a, tilt: 0, n: Math.min(mostNoise, ...bins.map(({ log }) => log)) },
    mostNoise
  };
}

/** The best fit at each disc of the grid. */
function fits(problem: Problem): { at: At; cost: number }[] {
  let { start } = problem;
  return discs.map((_, index) => {
    const found = fitAt(problem, transferTable[index] ?? [], start);
    start = found.at;
    return found;
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
  const costs = fits(problem).map(({ at, cost }, index) => ({
    at,
    misfit: cost,
    cost: cost + (besides[index]?.cost ?? 0) + rare(index)
  }));
  const best = costs.reduce(
    (lowest, { cost }, index) => (cost < (costs[lowest]?.cost ?? Infinity) ? index : lowest),
    0
  );
  const bestCost = costs[best]?.cost ?? 0;
  const chances = Float64Array.from(costs, ({ cost }) => Math.exp(-0.5 * evidenceShare * (cost - bestCost)));
  const all = chances.reduce((sum, chance) => sum + chance, 0);
  for (let index = 0; index < chances.length; index++) chances[index] = (chances[index] ?? 0) / all;
  const found = costs[best];
  const middle = bins.filter(
    ({ bin }) => (spectrumFrequencies[bin] ?? 0) > 0.05 && (spectrumFrequencies[bin] ?? 0) < 0.12
  );
  const level = (values: readonly number[]) =>
    values.reduce((sum, value) => sum + value, 0) / Math.max(1, values.length);
  return {
    discPx: (discs[best] ?? 0) / calibrationBias,
    low: Math.min(quantile(chances, 0.05), discs[best] ?? 0) / calibrationBias,
    high: Math.max(quantile(chances, 0.95), discs[best] ?? 0) / calibrationBias,
    signal: Math.exp(level(middle.map(({ log }) => log)) - (found?.at.n ?? 0)),
    misfit: (found?.misfit ?? 0) / bins.length
  };
}

/** A movement while the shutter was open. */
export interface MotionBlurFit {
  /** Its length, pixels. */
  readonly px: number;
  /** Its direction, radians, 0 to π: 0 across, growing downwards. */
  readonly angle: number;
  /** How much better it explains the spectrum than a disc alone, as a logarithm of chances. */
  readonly gain: number;
}

const smearLengths = [3.5, 5, 7, 10, 14, 20] as const;
const smearAngles = 8;
/** A smear may come with some defocus: a few discs are enough to tell. */
const smearDiscs = [0, 12, 32] as const;

/** Transfer of the power of a straight smear, averaged over a sector of directions. */
function smearPower(px: number, angle: number, sector: number, nu: number): number {
  const parts = 7;
  let sum = 0;
  for (let part = 0; part < parts; part++) {
    const direction = (Math.PI / sectors) * (sector + (part + 0.5) / parts - 0.5);
    const x = Math.PI * px * nu * Math.cos(direction - angle);
    sum += Math.abs(x) < 1e-6 ? 1 : (Math.sin(x) / x) ** 2;
  }
  return sum / parts;
}

const smearTables = smearLengths.flatMap((px) =>
  Array.from({ length: smearAngles }, (_, index) => {
    const angle = (Math.PI * index) / smearAngles;
    const logs = Float64Array.from({ length: sectors * band.bins }, (__, at) =>
      Math.log(
        Math.max(1e-5, smearPower(px, angle, Math.floor(at / band.bins), spectrumFrequencies[at % band.bins] ?? 0.1))
      )
    );
    return { px, angle, logs };
  })
);

/** So many of the movements that fit best without any defocus are tried with some. */
const mostTried = 4;

/** The movement that explains a spectrum best. A disc blurs in all directions alike, a movement in one. */
export function fitMotionBlur(spectrum: Spectrum, expected: Expected): MotionBlurFit | null {
  const problem = problemOf(spectrum, expected);
  if (!problem) return null;
  let still = Infinity;
  let { start } = problem;
  for (let disc = 0; disc < discs.length; disc += 4) {
    const found = fitAt(problem, transferTable[disc] ?? [], start);
    start = found.at;
    still = Math.min(still, found.cost + rare(disc));
  }
  const [none = 0, ...some] = smearDiscs;
  const moved = smearTables
    .map((table) => {
      const { at, cost } = fitAt(problem, table.logs, problem.start);
      return { table, at, cost: cost + rare(none) };
    })
    .sort((one, other) => one.cost - other.cost);
  let best = moved[0];
  for (const { table, at } of moved.slice(0, mostTried))
    for (const disc of some) {
      const slopes = transferTable[disc] ?? [];
      const both = Float64Array.from(table.logs, (log, index) => log + (slopes[index % band.bins] ?? 0));
      const cost = fitAt(problem, both, at).cost + rare(disc);
      if (best && cost < best.cost) best = { table, at, cost };
    }
  return best ? { px: best.table.px, angle: best.table.angle, gain: 0.5 * evidenceShare * (still - best.cost) } : null;
}

/** What a large disc costs for being rare. */
const rare = (disc: number): number => (2 * rarity(discs[disc] ?? 0)) / evidenceShare;

interface At {
  readonly a: number;
  readonly tilt: number;
  readonly n: number;
}

/** Amplitude, tilt and noise at one disc, by Gauss and Newton. */
function fitAt({ bins, tiltSd, mostNoise }: Problem, transfer: ArrayLike<number>, start: At): { at: At; cost: number } {
  let { a, tilt, n } = start;
  // By bin where it is the same in all directions, else by sector and bin.
  const byDirection = transfer.length > band.bins;
  let cost = Infinity;
  for (let round = 0; round < 12; round++) {
    // Normal equations of three unknowns; numbers apart, since this is the innermost of all (some two thousand times for an eye).
    let [aa, at, an, tt, tn, nn] = [1e-6, 0, 0, 1 / (tiltSd * tiltSd), 0, 1e-3];
    let [va, vt, vn] = [0, -tilt / (tiltSd * tiltSd), 0];
    let sum = (tilt / tiltSd) ** 2;
    if (n > mostNoise) {
      nn += 1 / (noiseSd * noiseSd);
      vn -= (n - mostNoise) / (noiseSd * noiseSd);
      sum += ((n - mostNoise) / noiseSd) ** 2;
    }
    for (const bin of bins) {
      const { weight, root, tilt: slope } = bin;
      const signal = a + bin.expected + (transfer[byDirection ? bin.at : bin.bin] ?? 0) + tilt * slope;
      // The logarithm of signal and noise together, and the signal's share of it.
      const above = signal - n;
      const less = Math.exp(above > 0 ? -above : above);
      const residual = bin.log - (above > 0 ? signal : n) - Math.log1p(less);
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
    if (Math.abs(cost - sum) < 1e-3) {
      cost = sum;
      break;
    }
    cost = sum;
    const step = solve3([aa, at, an, tt, tn, nn], [va, vt, vn]);
    const limit = (value: number, most: number) => Math.max(-most, Math.min(most, value));
    a += limit(step[0], 2);
    tilt += limit(step[1], 0.5);
    n += limit(step[2], 2);
  }
  return { at: { a, tilt, n }, cost };
}

/** Symmetric, three by three: [aa, ab, ac, bb, bc, cc]. In closed form: it is solved some two thousand times for an eye. */
function solve3(m: readonly number[], v: readonly number[]): [number, number, number] {
  const [A = 1, B = 0, C = 0, D = 1, E = 0, F = 1] = m;
  const [x = 0, y = 0, z = 0] = v;
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
