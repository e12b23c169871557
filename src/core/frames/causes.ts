/** Why a plane fell where it did: each cause the plan knows of says where it would lie; the measured likelihood chooses. */
import { normalDensity } from '../maths/normal';
import { stepsOf, type PlaneFound } from './plane';

export type Cause =
  /** Whoever stands there together. */
  | { readonly kind: 'landedOn'; readonly ids: readonly string[] }
  | { readonly kind: 'focusError' }
  /** This body with this lens does so on average. */
  | { readonly kind: 'lensBias' }
  | { readonly kind: 'youMoved' }
  /** Something behind or before everybody. */
  | { readonly kind: 'background'; readonly id: string }
  /** The nose of whoever was focused on, instead of the eye. */
  | { readonly kind: 'nose' }
  /** Focused in the middle, then turned by so much: the plane turns with the camera. */
  | { readonly kind: 'recomposed'; readonly deg: number }
  /** Whoever was focused on came nearer or went away since the frame before, by so much, positive away; everybody alike: it was you. */
  | { readonly kind: 'theyMoved'; readonly mm: number; readonly everybody: boolean };

export interface CauseAsked {
  readonly cause: Cause;
  /** Where the plane lies if this is so, mm from the lens, and how far that scatters. */
  readonly mm: number;
  readonly sdMm: number;
  /** How often it happens, beforehand. */
  readonly often: number;
}

export interface CauseFound {
  readonly cause: Cause;
  /** 0 to 1; those offered sum to one. */
  readonly likely: number;
}

/** A cause that would need more than this of its own standard deviations is not offered. */
const mostSds = 3;

/** The plane may lie where the measurement is at least so likely, against where it is likeliest (chosen). */
const likelyEnough = 0.3;

/** Less likely ones are not worth a line. */
const leastSaid = 0.02;

/** Likeliest first; none where the plane lies within what all of them explain alike. */
export function findCauses(found: PlaneFound, asked: readonly CauseAsked[]): CauseFound[] {
  // Where the side is open the plane may lie in either of two places.
  const maybe = found.depths.filter((_, index) => (found.likelihood[index] ?? 0) > likelyEnough);
  const offered = asked.filter(({ mm, sdMm }) =>
    [found.mm, ...maybe].some((depth) => Math.abs(depth - mm) <= mostSds * Math.max(sdMm, 1))
  );
  const widths = stepsOf(found.depths);
  const evidence = offered.map(({ mm, sdMm, often }) => {
    const sd = Math.max(sdMm, 1);
    const sum = found.depths.reduce(
      (total, depth, index) =>
        total + ((found.likelihood[index] ?? 0) * normalDensity((depth - mm) / sd) * (widths[index] ?? 0)) / sd,
      0
    );
    return often * sum;
  });
  const all = evidence.reduce((sum, one) => sum + one, 0);
  if (!(all > 0)) return [];
  return offered
    .map(({ cause }, index) => ({ cause, likely: (evidence[index] ?? 0) / all }))
    .filter(({ likely }) => likely > leastSaid)
    .sort((a, b) => b.likely - a.likely);
}
