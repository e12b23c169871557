/** The spectrum of a patch, in few bytes: kept with each eye. */
import { band, sectors, frequencyCounts, type Spectrum } from './spectrum';

/** Sides of a patch, pixels. */
const [smallest, largest] = [32, 256];

/** Logarithms of power are kept in so many steps, from here. */
const kept = { from: -22, steps: 8 } as const;
const toByte = (power: number): number =>
  power > 0 ? Math.min(255, Math.max(1, Math.round((Math.log(power) - kept.from) * kept.steps))) : 0;
const fromByte = (byte: number): number => (byte === 0 ? 0 : Math.exp(byte / kept.steps + kept.from));

/** In 66 bytes, base 64: power by sector and bin, noise, side. */
export function packSpectrum({ power, noise }: Spectrum, side: number): string {
  const bytes = [...Array.from(power, toByte), toByte(noise), Math.round(Math.log2(side))];
  return btoa(String.fromCharCode(...bytes));
}

/** @returns null for what is none */
export function unpackSpectrum(packed: string): Spectrum | null {
  let text: string;
  try {
    text = atob(packed);
  } catch {
    return null;
  }
  const bytes = Array.from(text, (character) => character.charCodeAt(0));
  if (bytes.length !== sectors * band.bins + 2) return null;
  const side = 2 ** (bytes[bytes.length - 1] ?? 0);
  if (side < smallest || side > largest) return null;
  const power = Float64Array.from(bytes.slice(0, sectors * band.bins), fromByte);
  return { power, count: frequencyCounts(side), noise: fromByte(bytes[sectors * band.bins] ?? 0) };
}
