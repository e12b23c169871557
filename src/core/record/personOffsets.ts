/** Where each person of a frame stood against the plan, as their discs have it: what all share falls out when they are compared. */
import { group } from 'd3-array';
import { discAt, ownBlurPx, type PlaneAsked, type PlaneFeature, type PlaneFound } from '../frames/plane';
import { standingSdMm } from '../frames/plane';
import { even } from './learn';

export interface PersonOffset {
  /** Further away than planned by so much, were the plane where it is likeliest; mm. */
  readonly mm: number;
  /** The same were they on the other side of the plane; null where it is known on which they are. */
  readonly otherMm: number | null;
  /** Standard deviation of its measurement, mm. */
  readonly sdMm: number;
}

/** Where a millimetre makes less than this, sway is lost in what the disc is uncertain by, pixels. */
const leastPxPerMm = 0.1;
/** Places that are tried, mm: they stand about by 60. */
const offsets = even(-200, 200, 401);
/** Half a step of those. */
const leastSdMm = 0.5;
/** The chance must fall to this share of the lower of two peaks for them to be two (chosen). */
const valley = 0.5;
/** The side of the plane somebody stands on is taken when it is this likely (chosen). */
const sure = 0.95;
/** The plane is known when so much of its chance lies within so much of the likeliest place, pixels of disc (chosen). */
const known = { share: 0.8, px: 2 } as const;

/**
 * By face: both eyes together. Nothing where a millimetre makes too little or the plane may lie in two places; nobody whose disc is larger
 * than can be told.
 */
export function personOffsetOf(
  features: readonly PlaneFeature[],
  plane: PlaneFound,
  asked: PlaneAsked
): ReadonlyMap<string, PersonOffset> {
  const perMm = discAt(plane.mm + 1, plane.mm, asked);
  const there = plane.depths.reduce(
    (sum, z, index) => sum + (discAt(z, plane.mm, asked) < known.px ? (plane.chances[index] ?? 0) : 0),
    0
  );
  if (perMm < leastPxPerMm || there < known.share) return new Map();
  const ofFaces = group(
    features.filter((feature) => feature.of !== undefined),
    ({ of }) => of ?? ''
  );
  const ofOne = (face: string, eyes: readonly PlaneFeature[]): [string, PersonOffset][] => {
    const own = besideOfFace(eyes, plane, asked);
    return own ? [[face, own]] : [];
  };
  return new Map(
    [...ofFaces].flatMap(([face, eyes]): [string, PersonOffset][] =>
      eyes.some(({ atLeast }) => atLeast) ? [] : ofOne(face, eyes)
    )
  );
}

/** How likely each place is by all their eyes together, taken from the plan: two eyes at two depths mostly tell the side. */
function besideOfFace(eyes: readonly PlaneFeature[], found: PlaneFound, asked: PlaneAsked): PersonOffset | null {
  const logs = offsets.map((mm) =>
    eyes.reduce(
      (sum, { depthMm, discPx, sdPx }) => {
        const disc = Math.hypot(discAt(depthMm + mm, found.mm, asked), ownBlurPx);
        // That both eyes err alike (frames/reading.ts) is the same in all frames of theirs: it counts as where they stand.
        return sum - ((discPx - disc) / sdPx) ** 2;
      },
      -0.5 * (mm / standingSdMm) ** 2
    )
  );
  const most = Math.max(...logs);
  const chances = logs.map((log) => Math.exp(log - most));
  const best = chances.indexOf(1);
  // Beyond the lowest place on the way to them, other peaks are the other side.
  const sides = [1, -1].map((step) => otherPeak(chances, best, step));
  const other = sides.reduce((a, b) => (b.height > a.height ? b : a));
  const split = other.height < valley ? null : other;
  const near = (index: number) => !split || (split.at > best ? index < split.low : index > split.low);
  const [own, rest] = [momentsOf(chances, near), momentsOf(chances, (index) => !near(index))];
  if (own.mass <= 0 || !(own.sd < standingSdMm / 2)) return null;
  const open = split !== null && rest.mass > (1 - sure) * (own.mass + rest.mass);
  return { mm: own.mean, otherMm: open ? rest.mean : null, sdMm: Math.max(own.sd, leastSdMm) };
}

interface Peak {
  readonly at: number;
  readonly low: number;
  readonly height: number;
}

/** The highest place on one side, once the chance has fallen well below it. */
function otherPeak(chances: readonly number[], best: number, step: number): Peak {
  let [low, peak] = [best, { at: best, low: best, height: 0 }];
  for (let at = best + step; at >= 0 && at < chances.length; at += step) {
    const chance = chances[at] ?? 0;
    if (chance < (chances[low] ?? 0)) low = at;
    if (chance > peak.height && (chances[low] ?? 0) < valley * chance) peak = { at, low, height: chance };
  }
  return peak;
}

function momentsOf(chances: readonly number[], isIn: (index: number) => boolean) {
  let [mass, mean, square] = [0, 0, 0];
  chances.forEach((chance, index) => {
    if (!isIn(index)) return;
    const mm = offsets[index] ?? 0;
    mass += chance;
    mean += chance * mm;
    square += chance * mm * mm;
  });
  mean /= mass;
  return { mass, mean, sd: Math.sqrt(Math.max(0, square / mass - mean * mean)) };
}
