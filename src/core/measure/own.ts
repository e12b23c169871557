/**
 * One eye in two frames: the sharpest frame of somebody says what that very eye looks like, so that others are held against it instead of
 * against the mean of many people's.
 */
import { discPower, fitDisc, type DiscFit, type Expected } from './fit';
import { expectedOf, surface, type EyePatch, type PatchOf } from './eye';
import type { Reference } from './makeReference';
import { band, spectrumFrequencies, sectors, step, uprightSector, type Spectrum } from './spectrum';

/** An eye as it was measured. */
export interface EyeShape extends EyePatch {
  readonly spectrum: Spectrum;
  /** The disc it was read to have, pixels. */
  readonly discPx: number;
}

/** Where a disc has taken more than this of the power, nothing is left to compare with (chosen). */
const leastLeft = 0.03;
/** So much above the noise a bin must lie to say what the eye looks like, as a ratio of powers (chosen). */
const leastSignal = 1.6;

/** What the eye of a frame would look like sharp in another, where it is so large and so tilted. */
export function ownExpected(reference: EyeShape, { eyesPx, rollDeg }: EyePatch): Expected {
  const { power, count } = reference.spectrum;
  const last = Array.from({ length: sectors }, (_, sector) => power[sector * band.bins + band.bins - 1] ?? 0);
  const floor = Math.min(reference.spectrum.noise, 0.9 * Math.min(...last));
  const sharp = Float64Array.from(power, (value, at) => {
    const left = discPower(reference.discPx, spectrumFrequencies[at % band.bins] ?? 0.1);
    if ((count[at] ?? 0) < 2 || value < leastSignal * floor || left < leastLeft) return NaN;
    return Math.log(value - floor) - Math.log(left);
  });
  // Larger eyes show the same at lower frequencies.
  const shift = Math.log(eyesPx / reference.eyesPx) / step;
  const log = new Float64Array(sectors * band.bins).fill(NaN);
  for (let sector = 0; sector < sectors; sector++) {
    const { low, high, share } = uprightSector(sector, rollDeg - reference.rollDeg);
    for (let bin = 0; bin < band.bins; bin++) {
      const place = bin + shift;
      const below = Math.floor(place);
      const of = (from: number, at: number) =>
        at >= 0 && at < band.bins ? (sharp[from * band.bins + at] ?? NaN) : NaN;
      const along = (from: number) => between(of(from, below), of(from, below + 1), place - below);
      log[sector * band.bins + bin] = between(along(low), along(high), share);
    }
  }
  return { log, of: 'own' };
}

/** The first alone where nothing of the second counts, which may be unknown. */
function between(a: number, b: number, share: number): number {
  if (share < 1e-6) return a;
  return a * (1 - share) + b * share;
}

/**
 * Again, held against the same eye, or thing, in a sharper frame.
 *
 * @param usual what strangers' eyes look like
 * @returns null where too little can be compared
 */
export function measureOwn(
  eye: Omit<EyeShape, 'discPx'>,
  reference: EyeShape,
  of: PatchOf = 'eye',
  usual?: Reference
): DiscFit | null {
  return fitDisc(eye.spectrum, of === 'eye' ? expectedOf(eye, usual) : surface, ownExpected(reference, eye));
}
