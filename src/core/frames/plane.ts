/**
 * Where the plane fell: the discs measured of everybody, held against the discs a plane at each depth would give them, with heavy tails
 * (Student, four degrees of freedom), times what was to be expected before. Half-blind by nature: one disc alone never tells its side.
 */
import { group } from 'd3-array';
import { blurDiscDiameter } from '../optics/blur';

export interface PlaneFeature {
  /** Whose it is: of the eyes of one face the sharper is enough. Features of nobody stand alone. */
  readonly of?: string;
  /** It lies behind or before everybody: a background. */
  readonly far?: boolean;
  /** mm from the lens, as planned. */
  readonly depthMm: number;
  /** How sure that is, relative to the others, mm. */
  readonly depthSdMm: number;
  /** The disc is as large as any that is told, or larger. */
  readonly atLeast?: boolean;
  /** Diameter measured, pixels, and its standard deviation. */
  readonly discPx: number;
  readonly sdPx: number;
}

export interface PlaneAsked {
  readonly features: readonly PlaneFeature[];
  readonly focalLengthMm: number;
  readonly fNumber: number;
  readonly pupilMagnification: number;
  /** Pixels per mm on the sensor. */
  readonly pxPerMm: number;
  /** Where it was meant to lie, mm, and how far the plan expects it to miss. */
  readonly meantMm: number;
  readonly spreadMm: number;
  /** This kit is known to put it so far behind, mm. */
  readonly biasMm?: number;
  /** Other depths autofocus may have taken, mm: people and things. */
  readonly elsewhereMm: readonly number[];
  /** The same of backgrounds and foregrounds, which lie further off. */
  readonly beyondMm?: readonly number[];
}

export interface PlaneFound {
  /** Depths tried and the chance of each. */
  readonly depths: readonly number[];
  readonly chances: readonly number[];
  /** The likelihood alone, without what was expected before; largest 1. */
  readonly likelihood: readonly number[];
  /** The likeliest, mm from the lens. */
  readonly mm: number;
  /** Nine of ten lie between these. */
  readonly low: number;
  readonly high: number;
  /** Named only when the evidence decides it. */
  readonly side: 'front' | 'behind' | 'either';
}

/** A side is named above this. */
const sure = 0.95;
/** … and only where the measurement alone gives it this. */
const evident = 0.9;
/** Depths tried. */
const steps = 801;
/** … and so many more towards what lies further off on either side. */
const beyondSteps = 48;
/** Planes are tried past what lies further off by this share of its depth. */
const margin = 0.15;
/** No plan knows its spread to be less than this share of the distance (chosen). */
const leastSpread = 0.002;
/** Planes tried reach as far before and behind everybody as this share of the depth they stand in, and of the distance. */
const reach = { ofDepth: 1, ofDistance: 0.4 } as const;
/** How likely, beforehand, the plane landed as planned; on somebody or something else; anywhere (from memory). */
const usually = { meant: 0.65, elsewhere: 0.25, anywhere: 0.1 } as const;
/** What sharp eyes are read to be, pixels: about the median error of drawn ones (docs/model.md, section 12). */
export const ownBlurPx = 0.8;
/** The disc's own scale is uncertain by this share: what is left of how high it reads (section 12). */
const scaleSd = 0.07;
/** Degrees of freedom of Student's t: heavy tails, since a face may be wrongly named. */
const freedom = 4;
/** People stand about so far from where they are planned, along the axis, mm (from memory). */
export const standingSdMm = 60;

/** Student's t with two degrees of freedom (closed form). */
const studentDensity = (t: number): number => (2 + t * t) ** -1.5;

/** @returns null where nobody was measured */
export function findPlane(asked: PlaneAsked): PlaneFound | null {
  const { features, meantMm } = asked;
  if (features.length === 0) return null;
  const near = features.flatMap(({ depthMm, far }) => (far ? [] : [depthMm]));
  const all = [...near, meantMm, ...asked.elsewhereMm];
  const [nearest, furthest] = [Math.min(...all), Math.max(...all)];
  const room = reach.ofDepth * (furthest - nearest) + reach.ofDistance * meantMm;
  const [from, to] = [Math.max(nearest - room, asked.focalLengthMm * 2, nearest * 0.4), furthest + room];
  const beyond = asked.beyondMm ?? [];
  const [before, after] = [Math.min(...beyond) * (1 - margin), Math.max(...beyond) * (1 + margin)];
  const depths = [
    ...(before < from ? evenly(Math.max(before, asked.focalLengthMm * 2), from, beyondSteps).slice(0, -1) : []),
    ...evenly(from, to, steps),
    ...(after > to ? evenly(to, after, beyondSteps).slice(1) : [])
  ];
  const logs = depths.map((plane) => features.reduce((sum, feature) => sum + logChance(feature, plane, asked), 0));
  const most = Math.max(...logs);
  const likelihood = logs.map((log) => Math.exp(log - most));
  const widths = stepsOf(depths);
  const prior = priorOf(depths, widths, asked);
  const weights = likelihood.map((chance, index) => chance * (prior[index] ?? 0));
  const total = weights.reduce((sum, weight) => sum + weight, 0);
  if (!(total > 0)) return null;
  const chances = weights.map((weight) => weight / total);
  const densest = chances.reduce(
    (best, chance, index) =>
      chance / (widths[index] ?? 1) > (chances[best] ?? 0) / (widths[best] ?? 1) ? index : best,
    0
  );
  const shareBehind = (of: readonly number[]): number => {
    const all = of.reduce((sum, weight) => sum + weight, 0);
    const back = of.reduce((sum, weight, index) => sum + ((depths[index] ?? 0) > meantMm ? weight : 0), 0);
    return all > 0 ? back / all : 0.5;
  };
  const behind = shareBehind(chances);
  // The measurement alone, every plane as likely as any other, evenly in vergence: what was expected before decides no side.
  const measured = shareBehind(
    likelihood.map((chance, index) => (chance * (widths[index] ?? 0)) / (depths[index] ?? 1) ** 2)
  );
  const at = (share: number) => {
    let sum = 0;
    for (const [index, chance] of chances.entries()) if ((sum += chance) >= share) return depths[index] ?? to;
    return to;
  };
  return {
    depths,
    chances,
    likelihood,
    mm: depths[densest] ?? meantMm,
    low: at(0.05),
    high: at(0.95),
    side:
      behind > sure && measured > evident ? 'behind' : behind < 1 - sure && measured < 1 - evident ? 'front' : 'either'
  };
}

/** Depths evenly in vergence, as errors of focusing are. */
const evenly = (from: number, to: number, count: number): number[] =>
  Array.from({ length: count }, (_, index) => 1 / (1 / from + ((1 / to - 1 / from) * index) / (count - 1)));

/** How much of the depth each of a grid's places stands for, mm. */
export const stepsOf = (depths: readonly number[]): number[] =>
  depths.map((depth, index) => Math.abs((depths[index + 1] ?? depth) - (depths[index - 1] ?? depth)) / 2);

/** Disc of defocus of a depth, pixels. */
export function discAt(
  depthMm: number,
  plane: number,
  { focalLengthMm, fNumber, pupilMagnification, pxPerMm }: PlaneAsked
): number {
  return blurDiscDiameter(focalLengthMm, fNumber, plane, Math.max(depthMm, 1), pupilMagnification) * pxPerMm;
}

/** The chance that the plane lies where everybody has an eye whose disc is no larger than `allowedPx`. */
export function chanceHeld({ depths, chances }: PlaneFound, asked: PlaneAsked, allowedPx: number): number {
  const faces = [...group(asked.features, (feature) => feature.of ?? feature).values()];
  return depths.reduce((sum, plane, index) => {
    const held = faces.every((eyes) => eyes.some(({ depthMm }) => discAt(depthMm, plane, asked) <= allowedPx));
    return sum + (held ? (chances[index] ?? 0) : 0);
  }, 0);
}

function logChance(feature: PlaneFeature, plane: number, asked: PlaneAsked): number {
  const { depthMm, depthSdMm, discPx, sdPx } = feature;
  const disc = discAt(depthMm, plane, asked);
  // Beyond what is tried, a disc may be any larger one.
  if (feature.atLeast && disc > discPx) return -Math.log(Math.hypot(sdPx, scaleSd * discPx));
  const perMm = Math.abs(discAt(depthMm + 1, plane, asked) - disc);
  const sd = Math.hypot(sdPx, perMm * depthSdMm, scaleSd * disc);
  const off = (discPx - Math.hypot(disc, ownBlurPx)) / sd;
  return -((freedom + 1) / 2) * Math.log(1 + (off * off) / freedom) - Math.log(sd);
}

function priorOf(
  depths: readonly number[],
  widths: readonly number[],
  { meantMm, biasMm = 0, spreadMm, elsewhereMm, beyondMm = [] }: PlaneAsked
): number[] {
  const spread = Math.max(spreadMm, meantMm * leastSpread);
  // As wide, in vergence, wherever it lies; with heavy tails, since what a plan expects of focusing and holding is a guess.
  const bump = (depth: number, middle: number, own: number) => {
    const wide = own * Math.max(1, (middle / meantMm) ** 2);
    return studentDensity((depth - middle) / wide) / wide;
  };
  const besides = Math.hypot(spread, standingSdMm);
  const range = widths.reduce((sum, width) => sum + width, 0);
  return depths.map((depth, index) => {
    const all = [...elsewhereMm, ...beyondMm];
    const others =
      all.length === 0 ? 0 : all.reduce((sum, middle) => sum + bump(depth, middle, besides), 0) / all.length;
    return (
      (widths[index] ?? 0) *
      (usually.meant * bump(depth, meantMm + biasMm, spread) + usually.elsewhere * others + usually.anywhere / range)
    );
  });
}
