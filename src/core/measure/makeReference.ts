/** The spectrum of a sharp eye, averaged over people: made from patches by `scripts/calibrate.ts`, kept in `reference.json`. */
import { band, spectrumFrequencies, sectors, spectrumOf, uprightSector, type Spectrum } from './spectrum';

export interface Reference {
  /** Waves per distance between the eyes, evenly in their logarithm. */
  readonly perEyes: readonly number[];
  /** By sector of the upright head: mean logarithm of power. */
  readonly log: readonly (readonly number[])[];
}

export interface SharpEye {
  readonly light: Float32Array;
  readonly side: number;
  readonly eyesPx: number;
  readonly rollDeg: number;
  /** How much it counts; 1 when left out. */
  readonly weight?: number;
}

const entries = 22;
/** Waves per distance between the eyes that the table holds. */
const range = { from: 1.2, to: 64 } as const;
/** Amplitudes are compared here, waves per distance between the eyes. */
const level = { from: 3, to: 9 } as const;
const stepLog = Math.log(range.to / range.from) / (entries - 1);

/** Power without what is as large in the highest waves of all directions: that is the file's noise, not the eye. */
function withoutNoise({ power }: Spectrum): Float64Array {
  const last = Array.from({ length: sectors }, (_, sector) => power[sector * band.bins + band.bins - 1] ?? 0);
  const floor = 0.8 * Math.min(...last);
  return power.map((value) => Math.max(value - floor, value * 0.05));
}

interface Sum {
  weight: number;
  sum: number;
}

export function makeReference(eyes: readonly SharpEye[]): Reference {
  const sums = Array.from({ length: sectors * entries }, (): Sum => ({ weight: 0, sum: 0 }));
  for (const eye of eyes) addEye(sums, eye);
  const perEyes = Array.from({ length: entries }, (_, entry) => range.from * Math.exp(entry * stepLog));
  const log = Array.from({ length: sectors }, (_, sector) =>
    filled(
      perEyes.map((_, entry) => {
        const { weight, sum } = sums[sector * entries + entry] ?? { weight: 0, sum: 0 };
        return weight > 1.5 ? sum / weight : NaN;
      })
    )
  );
  return { perEyes, log };
}

function addEye(sums: readonly Sum[], eye: SharpEye): void {
  const spectrum = spectrumOf(eye.light, eye.side);
  const { count } = spectrum;
  const power = withoutNoise(spectrum);
  const base = levelOf(power, eye.eyesPx);
  if (base === null) return;
  for (let sector = 0; sector < sectors; sector++)
    for (let bin = 0; bin < band.bins; bin++) {
      const own = power[sector * band.bins + bin] ?? 0;
      if (!(own > 0) || !(count[sector * band.bins + bin] ?? 0)) continue;
      const value = Math.log(own) - base;
      const place = Math.log(((spectrumFrequencies[bin] ?? 0) * eye.eyesPx) / range.from) / stepLog;
      const { low, high, share: towards } = uprightSector(sector, eye.rollDeg);
      for (const [entry, near] of [
        [Math.floor(place), 1 - (place - Math.floor(place))],
        [Math.floor(place) + 1, place - Math.floor(place)]
      ] as const)
        for (const [to, share] of [
          [low, 1 - towards],
          [high, towards]
        ] as const) {
          const sum = entry >= 0 && entry < entries ? sums[to * entries + entry] : undefined;
          if (!sum) continue;
          const weight = near * share * (eye.weight ?? 1);
          sum.weight += weight;
          sum.sum += weight * value;
        }
    }
}

/** Mean logarithm of the power where amplitudes are compared; null where there is none. */
function levelOf(power: Float64Array, eyesPx: number): number | null {
  let [base, bases] = [0, 0];
  for (let bin = 0; bin < band.bins; bin++) {
    const waves = (spectrumFrequencies[bin] ?? 0) * eyesPx;
    if (waves < level.from || waves > level.to) continue;
    for (let sector = 0; sector < sectors; sector++) {
      const own = power[sector * band.bins + bin] ?? 0;
      if (!(own > 0)) continue;
      base += Math.log(own);
      bases++;
    }
  }
  return bases === 0 ? null : base / bases;
}

/** Entries nobody filled go on as the nearest ones do. */
function filled(values: readonly number[]): number[] {
  const known = values.flatMap((value, at) => (Number.isNaN(value) ? [] : [at]));
  const [first = 0] = known;
  const last = known[known.length - 1] ?? 0;
  const slope = ((values[last] ?? 0) - (values[last - 4] ?? 0)) / 4;
  return values.map((value, at) =>
    !Number.isNaN(value)
      ? value
      : at < first
        ? (values[first] ?? 0)
        : at > last
          ? (values[last] ?? 0) + Math.min(0, slope) * (at - last)
          : (values[at - 1] ?? 0)
  );
}
