/**
 * Modulation transfer functions, the independent check on the quadrature of equivalent discs. ν in cycles per mm.
 * Sources: Hopkins 1955 for the disc; Goodman, Introduction to Fourier Optics, for the circular pupil; a square pixel and
 * straight motion are sin(πx)/(πx).
 */
import { wavelengthMm } from '../optics/sharpness';

/** Bessel function J1, absolute error below 1e−7 (Abramowitz and Stegun 9.4.4 and 9.4.6). */
export function besselJ1(x: number): number {
  const size = Math.abs(x);
  if (size < 3) {
    const t = (size / 3) ** 2;
    const sum =
      0.5 +
      t * (-0.56249985 + t * (0.21093573 + t * (-0.03954289 + t * (0.00443319 + t * (-0.00031761 + t * 0.00001109)))));
    return sum * x;
  }
  const t = 3 / size;
  const amplitude =
    0.79788456 +
    t * (0.00000156 + t * (0.01659667 + t * (0.00017105 + t * (-0.00249511 + t * (0.00113653 - t * 0.00020033)))));
  const phase =
    size -
    2.35619449 +
    t * (0.12499612 + t * (0.0000565 + t * (-0.00637879 + t * (0.00074348 + t * (0.00079824 - t * 0.00029166)))));
  const value = (amplitude * Math.cos(phase)) / Math.sqrt(size);
  return x < 0 ? -value : value;
}

/** Uniform disc of diameter c mm: |2 J1(πcν)/(πcν)|. */
export function discMtf(c: number, frequency: number): number {
  const x = Math.PI * c * frequency;
  return x === 0 ? 1 : Math.abs((2 * besselJ1(x)) / x);
}

/** Diffraction of a circular pupil at an effective f-number: (2/π)(acos q − q √(1 − q²)), q = λ N ν. */
export function diffractionMtf(effectiveN: number, frequency: number): number {
  const q = wavelengthMm * effectiveN * frequency;
  return q >= 1 ? 0 : (2 / Math.PI) * (Math.acos(q) - q * Math.sqrt(1 - q * q));
}

/** Square pixel of pitch p, or straight motion over p, mm: |sin(πpν)/(πpν)|. */
export function boxMtf(p: number, frequency: number): number {
  const x = Math.PI * p * frequency;
  return x === 0 ? 1 : Math.abs(Math.sin(x) / x);
}

/** The lowest frequency at which a falling MTF passes half the contrast, cycles per mm, by bisection. */
export function mtf50(mtf: (frequency: number) => number): number {
  let high = 1;
  while (mtf(high) > 0.5 && high < 1e6) high *= 1.5;
  let low = 0;
  for (let i = 0; i < 60; i++) {
    const middle = (low + high) / 2;
    if (mtf(middle) > 0.5) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}
