/** How sharp an eye is: the disc that blurs it, in pixels, or that it cannot be told. */
import { fitDisc, type DiscFit, type Expected } from './fit';
import { movementEvidence, type Evidence } from './motion';
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
      /** For and against movements while the shutter was open; one eye for itself does not decide (motion.ts). */
      readonly movement: Evidence | null;
      /** For the file having been enlarged, as a logarithm of chances. */
      readonly enlarged: number;
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

/** Power of what surfaces show falls with this power of frequency (Field 1987: about two; here on photographs at 100%, which lenses soften). */
const surfaceFalls = 2.2;
/** The spectrum a sharp surface would have: of cloth, fur, leaves, things. */
export const surface: Expected = {
  log: Float64Array.from(
    { length: sectors * band.bins },
    (_, at) => -surfaceFalls * Math.log(spectrumFrequencies[at % band.bins] ?? 0.1)
  ),
  of: 'surface'
};

/** An eye says no more than this against, or for, a file having been enlarged: sharp eyes tell nothing of it (chosen). */
const mostSaid = { against: 1, for: 3 } as const;
/** … and all of a file's together this much, for it to be said, as a logarithm of chances (chosen; table in docs/model.md). */
const saidFrom = 3;

/** Whether a file was enlarged, by all the eyes in it. Of sharp ones only it is never said, and makes no difference. */
export const isEnlarged = (eyes: readonly EyeMeasured[]): boolean =>
  eyes.reduce((sum, eye) => sum + (eye.ok ? Math.max(-mostSaid.against, Math.min(mostSaid.for, eye.enlarged)) : 0), 0) >
  saidFrom;

/** Patches from here on are looked at by halves, too, pixels. */
const leastHalved = 128;

/** The same eye in half as many pixels each way: large discs show there, whatever became of what is fine. */
function coarser(light: Float32Array, side: number, { eyesPx, rollDeg }: EyePatch, of: PatchOf): DiscFit | null {
  if (side < leastHalved || of !== 'eye') return null;
  const half = side / 2;
  const halved = new Float32Array(half * half);
  for (let y = 0; y < half; y++)
    for (let x = 0; x < half; x++) {
      const at = 2 * (y * side + x);
      halved[y * half + x] =
        ((light[at] ?? 0) + (light[at + 1] ?? 0) + (light[at + side] ?? 0) + (light[at + side + 1] ?? 0)) / 4;
    }
  return fitDisc(spectrumOf(halved, half), expectedOf({ eyesPx: eyesPx / 2, rollDeg }));
}

/** A disc that is surely larger by halves than it is in full is the larger one: what is fine has been made up, or polished away. */
function surelyLarger(byHalves: DiscFit | null, full: DiscFit): Pick<DiscFit, 'discPx' | 'low' | 'high'> {
  if (!byHalves || 2 * byHalves.low <= full.high) return full;
  return { discPx: 2 * byHalves.discPx, low: 2 * byHalves.low, high: 2 * byHalves.high };
}

/**
 * @param light a patch about the eye, side × side, linear light
 * @param side a power of two
 * @param of a surface needs no eyes so large, has no movement told apart, and its interval is several pixels wide
 */
export function measureEye(light: Float32Array, side: number, patch: EyePatch, of: PatchOf = 'eye'): EyeMeasured {
  if (of === 'eye' && patch.eyesPx < leastEyesPx) return { ok: false, reason: 'small' };
  const spectrum = spectrumOf(light, side);
  const expected = of === 'eye' ? expectedOf(patch) : surface;
  const fit = fitDisc(spectrum, expected);
  if (!fit) return { ok: false, reason: 'noEdge' };
  if (fit.signal < leastSignal) return { ok: false, reason: 'noisy' };
  if (fit.misfit > largestMisfit[of]) return { ok: false, reason: 'unlike' };
  const { discPx, low, high } = surelyLarger(coarser(light, side, patch, of), fit);
  return {
    ok: true,
    discPx,
    low,
    high,
    enlarged: fit.enlarged,
    movement: of === 'eye' ? movementEvidence(spectrum, expected) : null,
    spectrum: packSpectrum(spectrum, side)
  };
}
