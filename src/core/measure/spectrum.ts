/** The power of a patch by frequency and direction. */
import { median } from 'd3-array';
import FFT from 'fft.js';

/** Directions of the waves, in sectors of 45°: across, down to the right, down, down to the left. */
export const sectors = 4;

/** Frequencies the bins lie between, cycles per pixel, evenly in their logarithm. */
export const band = { from: 0.025, to: 0.44, bins: 16 } as const;

/** From one bin to the next, as a logarithm of frequency. */
export const step = Math.log(band.to / band.from) / band.bins;
/** The middle of each bin, cycles per pixel. */
export const frequencies: readonly number[] = Array.from(
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

/** Darker than this on average, a patch is taken to be so bright: light from 0 to 1. */
const leastLight = 1e-4;

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

const transforms = new Map<number, FFT>();
const transformOf = (side: number): FFT => {
  const known = transforms.get(side) ?? new FFT(side);
  transforms.set(side, known);
  return known;
};

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
export const wavesIn = (side: number): Float64Array => wavesOf(side).count;

/** @param light side × side, row by row. @param side a power of two, 32 at least */
export function spectrumOf(light: Float32Array, side: number): Spectrum {
  const windowed = hann(light, side);
  const fft = transformOf(side);
  const rows = new Float64Array(side * side * 2);
  const line = new Array<number>(side * 2).fill(0);
  const out = fft.createComplexArray();
  for (let y = 0; y < side; y++) {
    for (let x = 0; x < side; x++) {
      line[2 * x] = windowed[y * side + x] ?? 0;
      line[2 * x + 1] = 0;
    }
    fft.transform(out, line);
    for (let k = 0; k < side * 2; k++) rows[y * side * 2 + k] = out[k] ?? 0;
  }
  const power = new Float64Array(sectors * band.bins);
  const { places, count } = wavesOf(side);
  for (let kx = 0; kx <= side / 2; kx++) {
    for (let y = 0; y < side; y++) {
      line[2 * y] = rows[y * side * 2 + 2 * kx] ?? 0;
      line[2 * y + 1] = rows[y * side * 2 + 2 * kx + 1] ?? 0;
    }
    fft.transform(out, line);
    for (let ky = 0; ky < side; ky++) {
      const at = places[kx * side + ky] ?? -1;
      if (at < 0) continue;
      const [re, im] = [out[2 * ky] ?? 0, out[2 * ky + 1] ?? 0];
      power[at] = (power[at] ?? 0) + (re * re + im * im) / (side * side);
    }
  }
  for (let at = 0; at < power.length; at++) if (count[at]) power[at] = (power[at] ?? 0) / (count[at] ?? 1);
  return { power, count, noise: noiseOf(light, side) };
}

/** About its mean, fading to the edges (Hann), so that they are no edges of the picture. */
function hann(light: Float32Array, side: number): Float64Array {
  const fade = Float64Array.from({ length: side }, (_, at) => 0.5 - 0.5 * Math.cos((2 * Math.PI * (at + 0.5)) / side));
  let [sum, weights] = [0, 0];
  for (let y = 0; y < side; y++)
    for (let x = 0; x < side; x++) {
      const weight = (fade[x] ?? 0) * (fade[y] ?? 0);
      sum += weight * (light[y * side + x] ?? 0);
      weights += weight;
    }
  const mean = sum / weights;
  const windowed = new Float64Array(side * side);
  for (let y = 0; y < side; y++)
    for (let x = 0; x < side; x++)
      windowed[y * side + x] =
        (fade[x] ?? 0) * (fade[y] ?? 0) * ((light[y * side + x] ?? 0) / Math.max(mean, leastLight) - 1);
  return windowed;
}
