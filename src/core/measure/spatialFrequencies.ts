/** The power of each wave of a square of light, relative to its mean. */
import FFT from 'fft.js';

/** Darker than this on average, a patch is taken to be so bright: light from 0 to 1. */
export const leastLight = 1e-4;

interface Tools {
  readonly fft: FFT;
  /** Hann's window. */
  readonly fade: Float64Array;
}
const known = new Map<number, Tools>();
function toolsOf(side: number): Tools {
  const tools = known.get(side) ?? {
    fft: new FFT(side),
    fade: Float64Array.from({ length: side }, (_, at) => 0.5 - 0.5 * Math.cos((2 * Math.PI * (at + 0.5)) / side))
  };
  known.set(side, tools);
  return tools;
}

/**
 * Half of the waves: of real light they say all. kx from 0 to half the side, ky from 0 to the side, beyond half of it negative.
 *
 * @param light side × side, row by row @param side a power of two @param visit with the wave's power over the number of pixels
 */
export function eachSpatialFrequency(
  light: ArrayLike<number>,
  side: number,
  visit: (kx: number, ky: number, power: number) => void
): void {
  const { fft, fade } = toolsOf(side);
  const windowed = faded(light, side, fade);
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
  for (let kx = 0; kx <= side / 2; kx++) {
    for (let y = 0; y < side; y++) {
      line[2 * y] = rows[y * side * 2 + 2 * kx] ?? 0;
      line[2 * y + 1] = rows[y * side * 2 + 2 * kx + 1] ?? 0;
    }
    fft.transform(out, line);
    for (let ky = 0; ky < side; ky++) {
      const [re, im] = [out[2 * ky] ?? 0, out[2 * ky + 1] ?? 0];
      visit(kx, ky, (re * re + im * im) / (side * side));
    }
  }
}

/** About its mean, fading to the edges, so that they are no edges of the picture. */
function faded(light: ArrayLike<number>, side: number, fade: Float64Array): Float64Array {
  let [sum, weights] = [0, 0];
  for (let y = 0; y < side; y++)
    for (let x = 0; x < side; x++) {
      const weight = (fade[x] ?? 0) * (fade[y] ?? 0);
      sum += weight * (light[y * side + x] ?? 0);
      weights += weight;
    }
  const mean = Math.max(sum / weights, leastLight);
  const windowed = new Float64Array(side * side);
  for (let y = 0; y < side; y++)
    for (let x = 0; x < side; x++)
      windowed[y * side + x] = (fade[x] ?? 0) * (fade[y] ?? 0) * ((light[y * side + x] ?? 0) / mean - 1);
  return windowed;
}
