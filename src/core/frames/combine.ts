/**
 * How sharp a face is, from both of its eyes: what each was measured as, with its interval, taken together by likelihood. The
 * eyes of one face are blurred alike but for how far one lies behind the other, so a sure eye speaks for an unsure one.
 */
/** What was measured of an eye, pixels: the likeliest disc, and what holds nine of ten. */
export interface MeasuredDisc {
  readonly discPx: number;
  readonly low: number;
  readonly high: number;
}

/** Step of the grid, pixels, and where it ends: larger discs are all alike. */
const step = 0.25;
const mostPx = 40;
const grid = Array.from({ length: mostPx / step + 1 }, (_, index) => index * step);

/** Standard deviations within which a normal has nine of ten, to either side. */
const nineTenths = 1.645;
/** No eye is known better than this, pixels (chosen: a step of the measurement's own grid). */
const leastSd = 0.25;

/** How likely each disc of the grid is for an eye: a normal with a side of its own above and below. */
function likelihood({ discPx, low, high }: MeasuredDisc): Float64Array {
  const below = Math.max(leastSd, (discPx - low) / nineTenths);
  const above = Math.max(leastSd, (high - discPx) / nineTenths);
  return Float64Array.from(grid, (disc) => Math.exp(-0.5 * ((disc - discPx) / (disc < discPx ? below : above)) ** 2));
}

/** How far apart the discs of one face's eyes lie, pixels: as much looking at the lens, more the further the head is turned (chosen). */
const apartPx = (yawDeg: number): number => 1.2 + 5 * Math.abs(Math.sin((yawDeg * Math.PI) / 180));

/** The chance of each disc of the grid for the sharper of the eyes. */
export function sharperEye(eyes: readonly MeasuredDisc[], yawDeg: number): Float64Array {
  const [first, second] = eyes.map(likelihood);
  if (!first) return new Float64Array(grid.length);
  if (!second) return normalised(first);
  const fall = Math.exp(-step / apartPx(yawDeg));
  const [ofFirst, ofSecond] = [notSharper(first, fall), notSharper(second, fall)];
  const chances = first.map((own, at) => own * (ofSecond[at] ?? 0) + (second[at] ?? 0) * ((ofFirst[at] ?? 0) - own));
  return normalised(chances);
}

/** For each disc the likelihood that this eye's is no smaller, the less the further apart the two are: a sum from above. */
function notSharper(likely: Float64Array, fall: number): Float64Array {
  const sums = new Float64Array(likely.length);
  let sum = 0;
  for (let at = likely.length - 1; at >= 0; at--) {
    sum = sum * fall + (likely[at] ?? 0);
    sums[at] = sum;
  }
  return sums;
}

function normalised(chances: Float64Array): Float64Array {
  const all = chances.reduce((sum, chance) => sum + chance, 0);
  return all > 0 ? chances.map((chance) => chance / all) : chances;
}

/** The chance that the sharper eye's disc is no larger than this, 0 to 1. */
export function chanceWithin(chances: Float64Array, px: number): number {
  let sum = 0;
  for (let index = 0; index < grid.length && index * step <= px + step / 2; index++) sum += chances[index] ?? 0;
  return Math.min(1, sum);
}

/** The disc of the sharper eye: as likely more as less, pixels. */
export function medianDisc(chances: Float64Array): number {
  let sum = 0;
  for (let index = 0; index < grid.length; index++) {
    sum += chances[index] ?? 0;
    if (sum >= 0.5) return index * step;
  }
  return mostPx;
}
