/**
 * Files that were enlarged: more pixels than a camera gave, and nothing in those it did not give. What is fine falls away as the
 * interpolation lets it, noise too, so that a soft eye of such a file looks like a sharp one with little noise unless that is known.
 */
import { band, sectors, spectrumFrequencies } from './spectrum';

export interface Enlargement {
  /** How many times wider and higher the file was made. */
  readonly times: number;
  /** Logarithm of the power that is left of each wave, by sector and bin; of noise and of what is seen alike. */
  readonly log: Float64Array;
  /** What is measured of noise between neighbouring pixels, as a share of what there is in coarser waves. */
  readonly noiseShare: number;
}

/** Weight of a pixel so far from where one interpolates, in pixels (Keys 1981, a = −1/2; the same as Catmull and Rom 1974). */
export function cubicWeight(off: number): number {
  const t = Math.abs(off);
  if (t >= 2) return 0;
  return t < 1 ? 1.5 * t ** 3 - 2.5 * t * t + 1 : -0.5 * t ** 3 + 2.5 * t * t - 4 * t + 2;
}

/** Transfer of cubic interpolation by frequency of the file before, cycles per its pixel. */
function cubicTransfer(frequency: number): number {
  // Twice the integral of the kernel against a cosine, by the midpoint rule.
  const parts = 200;
  let sum = 0;
  for (let part = 0; part < parts; part++) {
    const t = (2 * (part + 0.5)) / parts;
    sum += cubicWeight(t) * Math.cos(2 * Math.PI * frequency * t);
  }
  return (sum * 2 * 2) / parts;
}

/** What compressing the enlarged file adds everywhere, as a share of power (chosen: JPEG 80 to 95). */
const added = Math.exp(-4.5);
/** Directions a sector's mean is taken over. */
const steps = 9;

function enlargement(times: number): Enlargement {
  const left = (fx: number, fy: number) => (cubicTransfer(fx * times) * cubicTransfer(fy * times)) ** 2 + added;
  const log = Float64Array.from({ length: sectors * band.bins }, (_, at) => {
    const [sector, nu] = [Math.floor(at / band.bins), spectrumFrequencies[at % band.bins] ?? 0.1];
    let power = 0;
    for (let step = 0; step < steps; step++) {
      const direction = (Math.PI / sectors) * (sector + (step + 0.5) / steps - 0.5);
      power += left(nu * Math.cos(direction), nu * Math.sin(direction)) / steps;
    }
    return Math.log(power);
  });
  // By frequencies of a quarter, 24 each way: Immerkær's filter (spectrum.ts) passes (2 − 2 cos)² of a frequency across and down.
  let [passed, all] = [0, 0];
  for (let y = 0; y < 24; y++)
    for (let x = 0; x < 24; x++) {
      const [fx, fy] = [(x + 0.5) / 48, (y + 0.5) / 48];
      const filter = ((2 - 2 * Math.cos(2 * Math.PI * fx)) * (2 - 2 * Math.cos(2 * Math.PI * fy))) ** 2;
      passed += filter * left(fx, fy);
      all += filter;
    }
  return { times, log, noiseShare: passed / all };
}

/** Those that are tried; what lies between is near enough to one. */
export const enlargements: readonly Enlargement[] = [1.4, 2, 2.8].map(enlargement);
