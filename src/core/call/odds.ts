/**
 * Keeper odds: the chance that one frame has every required feature within the blur disc allowed.
 *
 * An error of focusing is normal behind the lens, so in vergence: the plane lands at 1/w, w ~ N(1/(s + bias), σ²), with
 * σ = spread/(s + bias)² for a spread in mm at the plane; in the scene it is skewed to the far side. Each person sways by
 * their own δ ~ N(0, sway²), all features together. P = ∫ φ(w) Π P_i(w) dw, with P_i the chance that person i's nearest
 * and furthest features lie within the limits for focus at 1/w. Symbols: optics/thinLens.ts.
 */
import { gaussLegendre8, normalCdf, normalDensity } from '../maths/normal';

/** Somebody or something whose required features must all be sharp. Depths and sway in mm. */
export interface OddsMember {
  readonly nearest: number;
  readonly furthest: number;
  /** Standard deviation of their movement along the axis between focusing and release, mm; 0 for a thing. */
  readonly sway: number;
  /** Its own blur disc left for defocus, mm, when it differs from the rest's: it moves while the shutter is open. */
  readonly allowance?: number;
}

export interface OddsInput {
  readonly f: number;
  readonly N: number;
  /** Pupil magnification. */
  readonly P: number;
  /** Blur disc left for defocus, mm. */
  readonly allowance: number;
  /** Focus distance aimed at, mm. */
  readonly s: number;
  /** Systematic shift of the plane, mm; positive behind the target. */
  readonly bias: number;
  /** Standard deviation of where the plane lands, mm, in proportion at the plane. */
  readonly sd: number;
  readonly members: readonly OddsMember[];
}

/** Beyond so many standard deviations nothing is counted: less than 1e−6 of the odds. */
const tailSigmas = 5;

/** Widths of the narrowest normal one quadrature panel may span; 8 nodes each then err below 1e−5. */
const scalesPerPanel = 6;
const maxPanels = 48;

/** A node that contributes less than this, against a sum near 1 or 0.01, is not worth finishing. */
const negligible = 1e-9;

/** What one integral works with, in vergence. */
interface Landing {
  readonly input: OddsInput;
  /** Where the plane lands, 1/mm: its mean and its standard deviation. */
  readonly mean: number;
  readonly sigma: number;
}

// k = C/A, see optics/depthOfField.ts.
const kOf = ({ input: { f, N, allowance } }: Landing, member: OddsMember): number =>
  ((member.allowance ?? allowance) * N) / f;

/** How far a member may come by swaying, mm. */
const reachOf = ({ sway }: OddsMember): number => tailSigmas * sway;

/** Limits of what is sharp with the plane at 1/w, mm. */
function farLimit({ input: { f, P } }: Landing, k: number, w: number): number {
  const vergence = (1 + k / P) * w - k / f;
  return vergence <= 0 ? Infinity : 1 / vergence;
}
function nearLimit({ input: { f, P } }: Landing, k: number, w: number): number {
  const vergence = (1 - k / P) * w + k / f;
  return vergence <= 0 ? Infinity : 1 / vergence;
}

/** Probability, 0 to 1. */
export function keeperOdds(input: OddsInput): number {
  const { members } = input;
  const plane = input.s + input.bias;
  if (input.allowance <= 0 || plane <= 0) return 0;
  const mean = 1 / plane;
  const landing = { input, mean, sigma: input.sd * mean * mean };
  const possible = possibleVergences(landing);
  if (!possible) return 0;
  const [low, high] = possible;
  if (landing.sigma === 0) {
    if (mean < low || mean > high) return 0;
    return members.reduce((product, member) => {
      const k = kOf(landing, member);
      if (member.sway === 0) return product;
      return product * insideBoth(member, nearLimit(landing, k, mean), farLimit(landing, k, mean));
    }, 1);
  }
  if (low >= high) return 0;
  // The limits only come nearer as w grows: whoever is inside them with room to spare at both ends is certain throughout.
  const swaying = members.filter((member) => {
    const reach = reachOf(member);
    if (reach === 0) return false;
    const k = kOf(landing, member);
    return farLimit(landing, k, high) - member.furthest < reach || member.nearest - nearLimit(landing, k, low) < reach;
  });
  if (swaying.length === 0) return chanceBetween(landing, low, high);
  // Most share one k; sorted, their limits are computed once for each node.
  swaying.sort((a, b) => kOf(landing, a) - kOf(landing, b));
  const steps = stepsOf(landing, swaying, low, high);
  const allIn = steps.reduce((most, step) => Math.max(most, step.allIn), low);
  const firstOut = steps.reduce((least, step) => Math.min(least, step.firstOut), high);
  if (allIn >= firstOut) return clamped(share(landing, swaying, steps, low, high));
  return clamped(
    share(landing, swaying, steps, low, allIn) +
      chanceBetween(landing, allIn, firstOut) +
      share(landing, swaying, steps, firstOut, high)
  );
}

const chanceBetween = ({ mean, sigma }: Landing, low: number, high: number): number =>
  normalCdf((high - mean) / sigma) - normalCdf((low - mean) / sigma);

/** Vergences outside these cannot succeed: the limits of optics/depthOfField.ts solved for 1/s. Null where none can. */
function possibleVergences(landing: Landing): readonly [low: number, high: number] | null {
  const { mean, sigma, input } = landing;
  const { f, P, members } = input;
  let low = mean - tailSigmas * sigma;
  let high = mean + tailSigmas * sigma;
  for (const member of members) {
    const k = kOf(landing, member);
    if (k <= 0) return null;
    const reach = reachOf(member);
    const far = member.furthest - reach;
    if (far > 0) high = Math.min(high, (1 / far + k / f) / (1 + k / P));
    if (k < P) low = Math.max(low, (1 / (member.nearest + reach) - k / f) / (1 - k / P));
  }
  // Nothing images from within the focal length.
  return [low, Math.min(high, (P / f) * (1 - 1e-9))];
}

/** Where those who sway about alike come in at one end and begin to go out at the other, in vergence. */
interface Step {
  /** The least of their sways, mm. */
  sway: number;
  /** From here on all of them are surely in; from there on one may be out. */
  allIn: number;
  firstOut: number;
}

/** The steps of those who sway, put together by octaves of their sway: each is as narrow as they are steady. */
function stepsOf(landing: Landing, swaying: readonly OddsMember[], low: number, high: number): readonly Step[] {
  const { f, P } = landing.input;
  const steps = new Map<number, Step>();
  for (const member of swaying) {
    const k = kOf(landing, member);
    const reach = reachOf(member);
    const near = member.nearest - reach;
    const allIn = k < P && near > 0 ? (1 / near - k / f) / (1 - k / P) : high;
    const firstOut = (1 / (member.furthest + reach) + k / f) / (1 + k / P);
    const octave = Math.round(Math.log2(member.sway));
    const step = steps.get(octave);
    if (!step)
      steps.set(octave, { sway: member.sway, allIn: Math.max(low, allIn), firstOut: Math.min(high, firstOut) });
    else {
      step.sway = Math.min(step.sway, member.sway);
      step.allIn = Math.max(step.allIn, allIn);
      step.firstOut = Math.min(step.firstOut, firstOut);
    }
  }
  return [...steps.values()];
}

/** The integral between two vergences, cut where those of one steadiness come in or go out. */
function share(
  landing: Landing,
  swaying: readonly OddsMember[],
  steps: readonly Step[],
  from: number,
  to: number
): number {
  if (from >= to) return 0;
  const inside = steps.flatMap(({ allIn, firstOut }) => [allIn, firstOut]).filter((cut) => cut > from && cut < to);
  const cuts = [from, ...inside.sort((a, b) => a - b), to];
  const ks = swaying.map((member) => kOf(landing, member));
  let sum = 0;
  for (let i = 1; i < cuts.length; i++) {
    const [a, b] = [cuts[i - 1] ?? from, cuts[i] ?? to];
    const finest = steps.reduce(
      (least, { sway, allIn, firstOut }) => (allIn > a || firstOut < b ? Math.min(least, sway) : least),
      Infinity
    );
    sum += panels(landing, swaying, ks, a, b, finest);
  }
  return sum;
}

/** The integral between two vergences by panels as narrow as a sway, mm. */
function panels(
  landing: Landing,
  swaying: readonly OddsMember[],
  ks: readonly number[],
  from: number,
  to: number,
  finest: number
): number {
  const { mean, sigma } = landing;
  const scale = Math.min(sigma, finest * mean * mean);
  const count = Math.min(maxPanels, Math.max(1, Math.ceil((to - from) / (scalesPerPanel * scale))));
  const half = (to - from) / (2 * count);
  let sum = 0;
  for (let panel = 0; panel < count; panel++) {
    const middle = from + half * (2 * panel + 1);
    for (const [node, weight] of gaussLegendre8) {
      const w = middle + half * node;
      sum += allInside(landing, swaying, ks, w, weight * normalDensity((w - mean) / sigma));
    }
  }
  return (sum * half) / sigma;
}

/** Chance that all who sway are within their limits with the plane at 1/w, times what that counts. The innermost loop of every plan. */
function allInside(
  landing: Landing,
  swaying: readonly OddsMember[],
  ks: readonly number[],
  w: number,
  counts: number
): number {
  let product = counts;
  let k = NaN;
  let near = 0;
  let far = 0;
  for (let index = 0; index < swaying.length; index++) {
    const own = ks[index] ?? 0;
    const member = swaying[index];
    if (!member) continue;
    if (own !== k) {
      k = own;
      near = nearLimit(landing, k, w);
      far = farLimit(landing, k, w);
    }
    product *= insideBoth(member, near, far);
    if (product < negligible) break;
  }
  return product;
}

const clamped = (odds: number): number => Math.min(1, Math.max(0, odds));

/** Chance that a swaying member lies between two limits. */
function insideBoth({ nearest, furthest, sway }: OddsMember, near: number, far: number): number {
  const toFar = (far - furthest) / sway;
  const toNear = (nearest - near) / sway;
  // Nine in ten calls end here: somebody far from one limit, and nobody beyond the other.
  if (toFar > tailSigmas) return toNear > tailSigmas ? 1 : normalCdf(toNear);
  if (toFar < -tailSigmas) return 0;
  const upper = normalCdf(toFar);
  return toNear > tailSigmas ? upper : Math.max(0, upper - 1 + normalCdf(toNear));
}
