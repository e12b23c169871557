/** The power of a patch by frequency and direction. */
import { median } from 'd3-array';
import { eachSpatialFrequency, leastLight } from './spatialFrequencies';

/** Directions of the waves, in sectors of 45°: across, down to the right, down, down to the left. */
export const sectors = 4;

/** Frequencies the bins lie between, cycles per pixel, evenly in their logarithm. */
export const band = { from: 0.025, to: 0.44, bins: 16 } as const;

/** From one bin to the next, as a logarithm of frequency. */
export const step = Math.log(band.to / band.from) / band.bins;
/** The middle of each bin, cycles per pixel. */
export const spectrumFrequencies: readonly number[] = Array.from(
  { length: band.bins },
  (_, bin) => band.from * Math.exp((bin + 0.5) * step)
);

export interface Spectrum {
  /** Mean power by sector and bin (sector × bins + bin); 0 where there is no wave. */
  readonly power: Float64Array;
  /** How many waves are in each. */
  readonly count: Float64Array;
  /** The most that noise can have to do with it, as power: from how neighbouring pixels differ where least is to be seen. */
  readonly noise: number;
}

/** Of Hann's window in two directions: the power of white noise of variance one. */
const windowPower = (3 / 8) ** 2;

/**
 * Power of noise, relative to the mean light: from the Laplacian of Immerkær (Fast noise variance estimation, 1996), whose weights
 * have the norm 6; its median absolute value instead of the mean, so that edges count little.
 */
function noiseOf(light: Float32Array, side: number): number {
  const values: number[] = [];
  let sum = 0;
  const at = (x: number, y: number) => light[y * side + x] ?? 0;
  for (let y = 1; y < side - 1; y++)
    for (let x = 1; x < side - 1; x++) {
      sum += at(x, y);
      values.push(
        Math.abs(
          4 * at(x, y) -
            2 * (at(x - 1, y) + at(x + 1, y) + at(x, y - 1) + at(x, y + 1)) +
            at(x - 1, y - 1) +
            at(x + 1, y - 1) +
            at(x - 1, y + 1) +
            at(x + 1, y + 1)
        )
      );
    }
  const mean = Math.max(sum / values.length, leastLight);
  // The median of a normal deviate's size is 0.6745 of its spread.
  const sigma = (median(values) ?? 0) / 0.6745 / 6 / mean;
  return sigma * sigma * windowPower;
}

/**
 * A sector as an upright head has it, when the head is tilted: between which two it lies, and how far towards the second.
 *
 * @param rollDeg tilt of the head, degrees, clockwise
 */
export function uprightSector(sector: number, rollDeg: number): { low: number; high: number; share: number } {
  const own = (((sector - (rollDeg * sectors) / 180) % sectors) + sectors) % sectors;
  const low = Math.floor(own);
  return { low: low % sectors, high: (low + 1) % sectors, share: own - low };
}

/** Sector and bin of a wave, sector × bins + bin; null outside the band. @param fx, fy cycles per pixel */
function placeOf(fx: number, fy: number): number | null {
  const bin = Math.floor(Math.log(Math.hypot(fx, fy) / band.from) / step);
  if (!(bin >= 0 && bin < band.bins)) return null;
  const sector = ((Math.round((Math.atan2(fy, fx) / Math.PI) * sectors) % sectors) + sectors) % sectors;
  return sector * band.bins + bin;
}

interface Waves {
  /** Where each wave counts, by column and row of the transform; -1 for none. */
  readonly places: Int16Array;
  readonly count: Float64Array;
}
const allWaves = new Map<number, Waves>();

/** Half of the waves of a patch: of real light they say all. */
function wavesOf(side: number): Waves {
  const known = allWaves.get(side);
  if (known) return known;
  const places = new Int16Array((side / 2 + 1) * side).fill(-1);
  const count = new Float64Array(sectors * band.bins);
  for (let kx = 0; kx <= side / 2; kx++)
    for (let ky = 0; ky < side; ky++) {
      const at = placeOf(kx / side, (ky <= side / 2 ? ky : ky - side) / side);
      if (at === null) continue;
      places[kx * side + ky] = at;
      count[at] = (count[at] ?? 0) + 1;
    }
  const waves = { places, count };
  allWaves.set(side, waves);
  return waves;
}

/** How many waves a patch of that side has in each sector and bin. */
export const frequencyCounts = (side: number): Float64Array => wavesOf(side).count;

/** @param light side × side, row by row. @param side a power of two, 32 at least */
export function spectrumOf(light: Float32Array, side: number): Spectrum {
  const power = new Float64Array(sectors * band.bins);
  const { places, count } = wavesOf(side);
  eachSpatialFrequency(light, side, (kx, ky, own) => {
    const at = places[kx * side + ky] ?? -1;
    if (at >= 0) power[at] = (power[at] ?? 0) + own;
  });
  for (let at = 0; at < power.length; at++) if (count[at]) power[at] = (power[at] ?? 0) / (count[at] ?? 1);
  return { power, count, noise: noiseOf(light, side) };
}
