/** How to set up before the sheets. */
import { depthOfField } from '../optics/depthOfField';
import { distanceForFraming } from '../optics/thinLens';
import { focusHalves } from './sheets';

/** The leaning half at 45° reaches so far on either side of its middle, mm; a tenth is left for leaning it less (chosen). */
const wingMm = 0.9 * (focusHalves().leaning.height / 2) * Math.SQRT1_2;
/** The sheet fills no more than this share of the picture's longer side (chosen). */
const mostOfPicture = 0.85;
/** Both halves with their margins and a gap between, mm. */
const sheetMm = 2 * focusHalves().leaning.width + 40;
/** So much beyond the closest focus a lens focuses surely (chosen). */
const beyondClosest = 1.05;

export interface FocusGuide {
  /** From the lens, where each wing reaches at least one depth of field. */
  readonly distanceMm: number;
  /** Neither wings nor closeness can be had: what is measured is less sure. */
  readonly short: boolean;
}

/** @param C circle of confusion, @param sensorMm longer side of the sensor, @param closestMm closest focus from the pupil; mm */
export function focusGuide(f: number, N: number, C: number, sensorMm: number, closestMm: number): FocusGuide {
  const fits = distanceForFraming(f, sheetMm / mostOfPicture, sensorMm);
  const nearest = Math.max(closestMm * beyondClosest, fits);
  const reachesAt = (s: number) => {
    const { near, far } = depthOfField(f, N, C, s);
    return far - near <= wingMm;
  };
  // The depth of field grows with the square of the distance: the furthest that still fits into a wing.
  let [low, high] = [f * 2, 200 * f];
  for (let step = 0; step < 60; step++) {
    const middle = (low + high) / 2;
    if (reachesAt(middle)) low = middle;
    else high = middle;
  }
  return { distanceMm: Math.max(low, nearest), short: low < nearest };
}

/** Distances for edges, in focal lengths (common practice, no source). */
export const edgeDistances = { from: 25, to: 50 } as const;
