/**
 * Keeper odds: the chance that one frame has every required feature within the blur disc allowed.
 *
 * The plane of focus lands at s + e, e ~ N(bias, spread²). Each person sways by their own δ ~ N(0, sway²), all features
 * together. P = ∫ φ(e) Π P_i(e) de, with P_i the chance that person i's nearest and furthest features lie within the
 * limits for focus at s + e. Symbols: optics/thinLens.ts.
 */
import { gaussLegendre8, normalCdf, normalDensity, tailSigmas } from '../statistics/normal';

/** Somebody or something whose required features must all be sharp. Depths and sway in mm. */
export interface OddsMember {
  readonly nearest: number;
  readonly furthest: number;
  /** Standard deviation of their movement along the axis between focusing and release, mm; 0 for a thing. */
  readonly sway: number;
}

export interface OddsInput {
  readonly f: number;
  readonly N: number;
  /** Blur disc left for defocus, mm. */
  readonly allowance: number;
  /** Focus distance aimed at, mm. */
  readonly s: number;
  /** Systematic shift of the plane, mm; positive behind the target. */
  readonly bias: number;
  /** Standard deviation of where the plane lands, mm. */
  readonly spread: number;
  readonly members: readonly OddsMember[];
}

/** Widths of the narrowest normal one quadrature panel may span; 8 nodes each then err below 1e−5. */
const scalesPerPanel = 4;
const maxPanels = 48;

/** Below this share of the plane's spread a sway is treated as none: the integrand would be a step. */
const rigidShare = 0.02;

/** Probability, 0 to 1. */
export function keeperOdds(input: OddsInput): number {
  const { f, N, allowance, s, bias, spread, members } = input;
  if (allowance <= 0) return 0;
  const k = (allowance * N) / f;
  const rigid = (member: OddsMember) => member.sway <= rigidShare * spread;
  const reach = (member: OddsMember) => (rigid(member) ? 0 : tailSigmas * member.sway);

  // Planes outside [low, high] cannot succeed; limits inverted for s as in optics/depthOfField.ts.
  let low = bias - tailSigmas * spread;
  let high = bias + tailSigmas * spread;
  for (const member of members) {
    const far = member.furthest - reach(member);
    if (far > 0) low = Math.max(low, (1 + k) / (1 / far + k / f) - s);
    const nearVergence = 1 / (member.nearest + reach(member)) - k / f;
    if (nearVergence > 0 && k < 1) high = Math.min(high, (1 - k) / nearVergence - s);
  }
  if (s + low <= f) low = f * (1 + 1e-9) - s;

  const farLimit = (e: number) => {
    const vergence = (1 + k) / (s + e) - k / f;
    return vergence <= 0 ? Infinity : 1 / vergence;
  };
  const nearLimit = (e: number) => 1 / ((1 - k) / (s + e) + k / f);

  if (spread === 0) {
    if (bias < low || bias > high) return 0;
    return members.reduce((product, member) => {
      if (member.sway === 0) return product;
      return product * withinLimits(member, nearLimit(bias), farLimit(bias));
    }, 1);
  }
  if (low >= high) return 0;

  const atLow = farLimit(low);
  const atHigh = nearLimit(high);
  const swaying = members.filter(
    (member) => !rigid(member) && (atLow - member.furthest < reach(member) || member.nearest - atHigh < reach(member))
  );
  if (swaying.length === 0) return normalCdf((high - bias) / spread) - normalCdf((low - bias) / spread);

  const finest = swaying.reduce((least, member) => Math.min(least, member.sway), spread);
  const panels = Math.min(maxPanels, Math.max(2, Math.ceil((high - low) / (scalesPerPanel * finest))));
  const half = (high - low) / (2 * panels);
  let sum = 0;
  for (let panel = 0; panel < panels; panel++) {
    const middle = low + half * (2 * panel + 1);
    for (const [node, weight] of gaussLegendre8) {
      const e = middle + half * node;
      const near = nearLimit(e);
      const far = farLimit(e);
      let product = weight * normalDensity((e - bias) / spread);
      for (const member of swaying) {
        if (product < 1e-12) break;
        product *= withinLimits(member, near, far);
      }
      sum += product;
    }
  }
  return Math.min(1, Math.max(0, (sum * half) / spread));
}

function withinLimits(member: OddsMember, near: number, far: number): number {
  const upper = far === Infinity ? 1 : normalCdf((far - member.furthest) / member.sway);
  return Math.max(0, upper - normalCdf((near - member.nearest) / member.sway));
}

/** Frames to shoot so that one keeper among them is as likely as `wanted`: 1 − (1 − P)^n. Infinity when P is 0. */
export function framesFor(odds: number, wanted: number): number {
  if (odds >= wanted) return 1;
  if (odds <= 0) return Infinity;
  return Math.ceil(Math.log(1 - wanted) / Math.log(1 - odds));
}
