/** How sharp an eye is: the disc that blurs it, in pixels, or that it cannot be told. */
import { fitDisc, fitMotionBlur, type Expected, type MotionBlurFit } from './fit';
import type { Reference } from './makeReference';
import usual from './reference.json' with { type: 'json' };
import { packSpectrum } from './packed';
import { band, spectrumFrequencies, sectors, spectrumOf, uprightSector } from './spectrum';

export type Unmeasurable = 'small' | 'noisy' | 'notFull' | 'noEdge' | 'unlike' | 'unseen';

export type EyeMeasured =
  | {
      readonly ok: true;
      /** Diameter of the disc of blur, pixels of the picture, and the interval that holds nine of ten. */
      readonly discPx: number;
      readonly low: number;
      readonly high: number;
      /** Movement while the shutter was open, where it explains the blur much better than a disc. */
      readonly smear: MotionBlurFit | null;
      /** What other frames of the same eye are held against, packed (own.ts). */
      readonly spectrum: string;
    }
  | { readonly ok: false; readonly reason: Unmeasurable };

/** What a patch shows: an eye, or some surface, which tells less. */
export type PatchOf = 'eye' | 'surface';

export interface EyePatch {
  /** Distance between the eyes, pixels: what an eye's features are counted in. */
  readonly eyesPx: number;
  /** Tilt of the head, degrees, clockwise. */
  readonly rollDeg: number;
}

/** Eyes nearer together show too little, pixels. */
const leastEyesPx = 18;
/** Less signal than this, as a ratio of powers, is lost in noise (chosen: flat patches and grain stay under it). */
const leastSignal = 1.3;
/** Fitted worse than this, in mean squares of its own standard deviations, it is no eye (chosen; eyes stay under 3.2). */
const largestMisfit = { eye: 6, surface: 12 } as const;
/** A movement is said above this: eyes of one kind differ by as much now and then (measured; docs/model.md). */
const leastGain = 3.5;

/** Between the entries of a table over log frequency; below it as it begins, beyond it as it ends, `slope` a step. */
function entry(table: readonly number[], at: number, slope: number): number {
  const last = table.length - 1;
  if (at <= 0) return table[0] ?? 0;
  if (at >= last) return (table[last] ?? 0) + slope * (at - last);
  const low = Math.floor(at);
  return (table[low] ?? 0) * (1 - (at - low)) + (table[low + 1] ?? 0) * (at - low);
}

/**
 * The side of the patch to measure about an eye, pixels: a power of two, which the transform takes, near 0.85 of the distance between the
 * eyes. Larger ones take in hair and brows (tried).
 */
export const eyePatchSide = (eyesPx: number): number =>
  Math.min(256, Math.max(32, 2 ** Math.round(Math.log2(eyesPx * 0.85))));

/** The spectrum of a sharp eye so large, and so tilted. */
export function expectedOf({ eyesPx, rollDeg }: EyePatch, reference: Reference = usual): Expected {
  const { perEyes } = reference;
  const first = Math.log(perEyes[0] ?? 1);
  const step = (Math.log(perEyes[perEyes.length - 1] ?? 1) - first) / (perEyes.length - 1);
  const log = new Float64Array(sectors * band.bins);
  for (let sector = 0; sector < sectors; sector++) {
    const { low, high, share } = uprightSector(sector, rollDeg);
    for (let bin = 0; bin < band.bins; bin++) {
      const place = (Math.log((spectrumFrequencies[bin] ?? 0.1) * eyesPx) - first) / step;
      const of = (table: readonly number[] = []) => {
        const last = table.length - 1;
        return entry(table, place, Math.min(0, ((table[last] ?? 0) - (table[last - 4] ?? 0)) / 4));
      };
      log[sector * band.bins + bin] = of(reference.log[low]) * (1 - share) + of(reference.log[high]) * share;
    }
  }
  return { log, of: 'eyes' };
}

/** Power of what surfaces show falls with this power of frequency (Field 1987: about two; here on photographs at 100 %, which lenses soften). */
const surfaceFalls = 2.2;
/** The spectrum a sharp surface would have: of cloth, fur, leaves, things. */
export const surface: Expected = {
  log: Float64Array.from(
    { length: sectors * band.bins },
    (_, at) => -surfaceFalls * Math.log(spectrumFrequencies[at % band.bins] ?? 0.1)
  ),
  of: 'surface'
};

/**
 * @param light a patch about the eye, side × side, linear light
 * @param side a power of two
 * @param of a surface needs no eyes so large, has no smear told apart, and its interval is several pixels wide
 */
export function measureEye(light: Float32Array, side: number, patch: EyePatch, of: PatchOf = 'eye'): EyeMeasured {
  if (of === 'eye' && patch.eyesPx < leastEyesPx) return { ok: false, reason: 'small' };
  const spectrum = spectrumOf(light, side);
  const expected = of === 'eye' ? expectedOf(patch) : surface;
  const fit = fitDisc(spectrum, expected);
  if (!fit) return { ok: false, reason: 'noEdge' };
  if (fit.signal < leastSignal) return { ok: false, reason: 'noisy' };
  if (fit.misfit > largestMisfit[of]) return { ok: false, reason: 'unlike' };
  const { discPx, low, high } = fit;
  const smear = of === 'eye' ? fitMotionBlur(spectrum, expected) : null;
  return {
    ok: true,
    discPx,
    low,
    high,
    smear: smear && smear.gain > leastGain ? smear : null,
    spectrum: packSpectrum(spectrum, side)
  };
}
