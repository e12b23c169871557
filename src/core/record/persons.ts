/**
 * How each person sways and moves, from all their frames.
 *
 * Sway: x_if = a_i + u_f + e_if, where x is how far somebody seems to stand from the plan (beside.ts), a where they really stood in that
 * setup, u what the frame's plane has in common for all, e ~ N(0, (s_i c)² + τ²), s their sway after one second and c what mood and time
 * make of it. ln s ~ N(ln usual, 0.5²), a ~ N(0, 60 mm), u free and integrated out where s is drawn, on
 * a grid; where the side is open, it is drawn too: Gibbs sampling (Geman and Geman, 1984, from memory), the chance of s averaged over the sweeps.
 *
 * Movement: the speed across is half-normal of scale V; a frame without a smear says it was less than would have shown.
 * ln V ~ N(ln 40 mm/s, 1).
 */
import { group } from 'd3-array';
import { standingSdMm } from '../frames/plane';
import { normalCdf } from '../maths/normal';
import { normalFrom, seededRandom, type Random } from '../maths/random';
import type { PersonOffset } from './personOffsets';
import { even, normalised, ofLogs, type Estimate } from './learn';

/** Somebody's place in one frame, or in several of one focusing. */
export interface PersonPlacement extends PersonOffset {
  readonly person: string;
  /** Those of one setup share where they stood. */
  readonly setup: string;
  /** Those of one focusing share the plane. */
  readonly focusing: string;
  /** What mood and time make of a sway after one second. */
  readonly scale: number;
  /** Their sway after one second as the habits have it, mm. */
  readonly usualMm: number;
  /** How much it counts, 0 to 1. */
  readonly weight: number;
}

export interface PersonSway {
  readonly person: string;
  /** Focusings it rests on, with somebody else in them. */
  readonly frames: number;
  /** After one second, mm. */
  readonly swayMm: Estimate;
  /** What the habits have, mm. */
  readonly usualMm: number;
}

/** How much more or less than usual somebody sways: a normal of the logarithm (from memory). */
const swayPriorSd = 0.5;
/** Tried: logarithms of the sway over the usual one. */
const factors = even(-1.8, 1.8, 25);
/** Of all sweeps the first only settle. */
const [sweeps, settling] = [180, 30] as const;
const seed = 20_261_126;
/** mm². */
const leastVariance = 1e-4;

/** One observation, its variance and what that costs for each sway that is tried. */
interface Seen {
  readonly person: number;
  readonly place: number;
  /** The one taken at present. */
  mm: number;
  readonly sides: readonly [number, number] | null;
  readonly precisions: Float64Array;
  readonly logs: Float64Array;
}

/** @throws RangeError when a figure is not finite, an uncertainty negative or a scale not positive */
export function learnSways(placed: readonly PersonPlacement[]): PersonSway[] {
  const sound = placed.every(
    ({ mm, sdMm, scale, usualMm, weight }) =>
      Number.isFinite(mm) && sdMm >= 0 && Number.isFinite(sdMm) && scale > 0 && usualMm > 0 && weight >= 0
  );
  if (!sound) throw new RangeError('A person’s place is not a sound number.');
  const company = inCompany(placed.filter(({ weight }) => weight > 0));
  const persons = [...group(company, ({ person }) => person)].map(([person, own]) => {
    return { person, frames: own.length, usualMm: usualOf(own) };
  });
  const places = [...new Set(company.map(placeOf))];
  const frames = [...group(company, ({ focusing }) => focusing).values()].map((own) => ({
    weight: own[0]?.weight ?? 0,
    seen: own.map((one) => seenOf(one, persons, places))
  }));
  const sampler: Sampler = {
    frames,
    random: seededRandom(seed),
    sway: persons.map(() => (factors.length - 1) / 2),
    stood: places.map(() => 0)
  };
  const sums = persons.map(() => factors.map(() => 0));
  for (let sweep = 0; sweep < sweeps; sweep++) {
    for (const [index, sum] of sums.entries()) {
      const chances = swayChances(sampler, index);
      sampler.sway[index] = drawnFrom(chances, sampler.random());
      if (sweep >= settling) chances.forEach((chance, at) => (sum[at] = (sum[at] ?? 0) + chance));
    }
    drawPlaces(sampler);
  }
  return persons.map(({ person, frames, usualMm }, index) => {
    const logs = factors.map((log) => log + Math.log(usualMm));
    const sum = sums[index] ?? [];
    return { person, frames, swayMm: ofLogs(logs, normalised(sum.map(Math.log))), usualMm };
  });
}

/** Gibbs: each person's sway and each place drawn in turn from what all others say at present. */
interface Sampler {
  readonly frames: readonly { readonly weight: number; readonly seen: readonly Seen[] }[];
  readonly random: Random;
  /** Index of each person's sway among those tried. */
  readonly sway: number[];
  /** Where each stood against the plan, mm. */
  readonly stood: number[];
}

const precisionOf = ({ sway }: Sampler, { person, precisions }: Seen): number => precisions[sway[person] ?? 0] ?? 0;

/** Chances of each sway that is tried. The plane of each frame is integrated out: it would hang on whoever sways least. */
function swayChances(sampler: Sampler, index: number): number[] {
  const { frames, stood } = sampler;
  const logs = factors.map((log) => -0.5 * (log / swayPriorSd) ** 2);
  for (const { seen, weight } of frames) {
    const own = seen.find(({ person }) => person === index);
    if (!own) continue;
    let [precision, linear, square] = [0, 0, 0];
    for (const one of seen) {
      if (one === own) continue;
      const share = precisionOf(sampler, one);
      const rest = one.mm - (stood[one.place] ?? 0);
      precision += share;
      linear += share * rest;
      square += share * rest * rest;
    }
    const rest = own.mm - (stood[own.place] ?? 0);
    for (let at = 0; at < factors.length; at++) {
      const share = own.precisions[at] ?? 0;
      const [p, l] = [precision + share, linear + share * rest];
      const off = square + share * rest * rest - (l * l) / p;
      logs[at] = (logs[at] ?? 0) - 0.5 * weight * ((own.logs[at] ?? 0) + Math.log(p) + off);
    }
  }
  return normalised(logs);
}

/** Each frame's plane, which side of it those lie on who may lie on either, and where everybody stands. */
function drawPlaces(sampler: Sampler): void {
  const { frames, stood, random } = sampler;
  const normal = normalFrom(random);
  const precisions = stood.map(() => 1 / (standingSdMm * standingSdMm));
  const linears = stood.map(() => 0);
  for (const { seen, weight } of frames) {
    let [precision, linear] = [0, 0];
    for (const one of seen) {
      precision += precisionOf(sampler, one);
      linear += precisionOf(sampler, one) * (one.mm - (stood[one.place] ?? 0));
    }
    const plane = linear / precision + normal() / Math.sqrt(precision);
    for (const one of seen) {
      const own = precisionOf(sampler, one);
      if (one.sides) one.mm = sideOf(one.sides, plane + (stood[one.place] ?? 0), own, random());
      precisions[one.place] = (precisions[one.place] ?? 0) + weight * own;
      linears[one.place] = (linears[one.place] ?? 0) + weight * own * (one.mm - plane);
    }
  }
  precisions.forEach((precision, index) => {
    stood[index] = (linears[index] ?? 0) / precision + normal() / Math.sqrt(precision);
  });
}

function seenOf(
  placed: PersonPlacement,
  persons: readonly { readonly person: string; readonly usualMm: number }[],
  places: readonly string[]
): Seen {
  const { person, mm, otherMm, scale, sdMm } = placed;
  const index = persons.findIndex((other) => other.person === person);
  const usualMm = persons[index]?.usualMm ?? 1;
  const variances = factors.map((log) => Math.max(leastVariance, (usualMm * Math.exp(log) * scale) ** 2 + sdMm * sdMm));
  return {
    person: index,
    mm,
    place: places.indexOf(placeOf(placed)),
    sides: otherMm === null ? null : [mm, otherMm],
    precisions: Float64Array.from(variances, (variance) => 1 / variance),
    logs: Float64Array.from(variances, Math.log)
  };
}

/** One of two places, by how well each agrees with where they are expected. */
function sideOf([mm, otherMm]: readonly [number, number], expected: number, precision: number, draw: number): number {
  const lead = 0.5 * precision * ((otherMm - expected) ** 2 - (mm - expected) ** 2);
  return draw < 1 / (1 + Math.exp(-lead)) ? mm : otherMm;
}

/** The place of chances that sum to one which so much of a draw falls to. */
function drawnFrom(chances: readonly number[], draw: number): number {
  let rest = draw;
  const at = chances.findIndex((chance) => (rest -= chance) <= 0);
  return at < 0 ? chances.length - 1 : at;
}

const placeOf = ({ person, setup }: PersonPlacement): string => JSON.stringify([person, setup]);

/** One observation a person and focusing, and only where there is somebody to be held against. */
function inCompany(placed: readonly PersonPlacement[]): PersonPlacement[] {
  return [...group(placed, ({ focusing }) => focusing).values()].flatMap((frame) => {
    const each = [...group(frame, ({ person }) => person).values()].map(average);
    return each.length > 1 ? each : [];
  });
}

/** They hardly move within a burst: what is measured of them averages, their sway does not. */
function average(same: readonly PersonPlacement[]): PersonPlacement {
  const [first] = same;
  if (!first) throw new RangeError('No one was placed.');
  return {
    ...first,
    mm: same.reduce((sum, { mm }) => sum + mm, 0) / same.length,
    otherMm: same.some(({ otherMm }) => otherMm === null)
      ? null
      : same.reduce((sum, { otherMm }) => sum + (otherMm ?? 0), 0) / same.length,
    sdMm: Math.hypot(...same.map(({ sdMm }) => sdMm)) / same.length,
    weight: Math.max(...same.map(({ weight }) => weight))
  };
}

/** A geometric mean: they may have sat in one setup and stood in another. */
const usualOf = (own: readonly PersonPlacement[]): number =>
  Math.exp(own.reduce((sum, { usualMm }) => sum + Math.log(usualMm), 0) / own.length);

/** Whether and how fast somebody moved in one frame. */
export interface Movement {
  /** Across the picture, mm/s; null where no movement was to be seen. */
  readonly mmPerS: number | null;
  /** Slower would not have shown, mm/s. */
  readonly leastMmPerS: number;
  readonly weight: number;
}

/** Speed of people who are to keep still: middle and spread of its logarithm (from memory). */
const speedPrior = { mmPerS: 40, sd: 1 } as const;
/** How well a smear's length is told: it is one of a few (measure/motion.ts), as a standard deviation of the logarithm. */
const lengthSd = 0.15;
const speedLogs = even(-4, 4, 81);

/** @returns scale of the half-normal speed, mm/s @throws RangeError when a speed is not positive */
export function learnMovement(movements: readonly Movement[]): Estimate {
  if (movements.some(({ mmPerS, leastMmPerS }) => !(leastMmPerS > 0) || (mmPerS !== null && !(mmPerS > 0))))
    throw new RangeError('A speed is not a sound figure.');
  const at = speedLogs.map((log) => log * speedPrior.sd + Math.log(speedPrior.mmPerS));
  const chances = normalised(
    at.map((log, index) => {
      const scale = Math.exp(log);
      return movements.reduce(
        (sum, { mmPerS, leastMmPerS, weight }) => {
          if (mmPerS === null) return sum + weight * Math.log(Math.max(1e-300, 2 * normalCdf(leastMmPerS / scale) - 1));
          const about = [-1, 0, 1].map((step) => (mmPerS / scale) * Math.exp(step * lengthSd * Math.sqrt(1.5)));
          // Its length is known to within its step: three places stand for all.
          const density = about.reduce((all, ratio) => all + ratio * Math.exp(-0.5 * ratio * ratio), 0) / 3;
          return sum + weight * Math.log(Math.max(1e-300, density));
        },
        -0.5 * (speedLogs[index] ?? 0) ** 2
      );
    })
  );
  return ofLogs(at, chances);
}
