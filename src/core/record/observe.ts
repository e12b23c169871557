/** What one frame says of the error on the sensor: the likelihood of its plane as one normal, or as two where the side is open. */
import { imageShift } from '../optics/thinLens';
import { stepsOf, type PlaneFound } from '../frames/plane';
import type { ErrorComponent } from './learn';

interface Optics {
  readonly focalLengthMm: number;
  readonly pupilMagnification: number;
  /** Where the plane was put, mm from the lens. */
  readonly meantMm: number;
}

/** Less likely planes than this share of the likeliest are left out: nine tenths of a normal lie well within. */
const leastLikely = 0.02;
/** The likelihood must fall to this share of the lower of two peaks for them to be two. */
const valley = 0.6;
/** A side less likely than this is none. */
const leastShare = 0.005;

/** The error of a plane at z on the sensor, µm; positive behind. */
export const errorUm = ({ focalLengthMm, pupilMagnification, meantMm }: Optics, z: number): number =>
  1000 * imageShift(focalLengthMm, meantMm, z, pupilMagnification);

/** From the likelihood alone: what is expected of the kit beforehand is for the learning to say. */
export function partsOf(
  { depths, likelihood }: Pick<PlaneFound, 'depths' | 'likelihood'>,
  optics: Optics
): ErrorComponent[] {
  const qs = depths.map((depth) => errorUm(optics, depth));
  const widths = stepsOf(qs);
  const [front, behind] = [peakAmong(qs, likelihood, -1), peakAmong(qs, likelihood, 1)];
  const low = likelihood.reduce(
    (least, value, index) => (index > front && index < behind && value < (likelihood[least] ?? 0) ? index : least),
    Math.max(0, front)
  );
  const lower = Math.min(likelihood[front] ?? 0, likelihood[behind] ?? 0);
  const split = front >= 0 && behind >= 0 && (likelihood[low] ?? 0) < valley * lower;
  const sides = split ? [(index: number) => index < low, (index: number) => index >= low] : [() => true];
  const parts = sides.flatMap((isIn) => {
    let [sum, mean] = [0, 0];
    const weights = likelihood.map((value, index) =>
      isIn(index) && value >= leastLikely ? value * (widths[index] ?? 0) : 0
    );
    weights.forEach((weight, index) => {
      sum += weight;
      mean += weight * (qs[index] ?? 0);
    });
    if (!(sum > 0)) return [];
    mean /= sum;
    const variance = weights.reduce((total, weight, index) => total + weight * ((qs[index] ?? 0) - mean) ** 2, 0) / sum;
    return [{ q: mean, tau: Math.sqrt(variance), share: sum }];
  });
  const all = parts.reduce((sum, { share }) => sum + share, 0);
  const kept = parts.filter(({ share }) => share / all >= leastShare);
  const rest = kept.reduce((sum, { share }) => sum + share, 0);
  return kept.map((part) => ({ ...part, share: part.share / rest }));
}

/** Where the likelihood is highest on one side; −1 where that side has none. */
function peakAmong(qs: readonly number[], likelihood: readonly number[], side: -1 | 1): number {
  return likelihood.reduce(
    (best, value, index) =>
      Math.sign(qs[index] ?? 0) === side && value > (best < 0 ? 0 : (likelihood[best] ?? 0)) ? index : best,
    -1
  );
}
