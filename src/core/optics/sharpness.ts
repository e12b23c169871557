/**
 * Total sharpness. Each cause counts as an equivalent blur disc, the uniform disc with the same MTF50; discs add in
 * quadrature. MTF50 of a uniform disc of diameter c lies at ν = 0.705/c (root of 2 J1(x)/x = 1/2; Hopkins 1955; Goodman,
 * Introduction to Fourier Optics).
 */
import { fullFrameDiagonalMm } from './criterion';
import { alongStops, stopsBetween } from './stops';

/** Wavelength used for diffraction, mm: green, 550 nm. */
export const wavelengthMm = 0.00055;

/** ν·c at which a uniform disc passes half the contrast. */
export const discMtf50 = 0.705;

/** Diffraction's equivalent disc, mm: MTF50 of a circular pupil lies at 0.404/(λ N), so c = 1.745 λ N. */
export function diffractionDisc(effectiveN: number): number {
  return (discMtf50 / 0.404) * wavelengthMm * effectiveN;
}

/** A square pixel's equivalent disc, mm: its MTF50 lies at 0.603/p, so c = 1.17 p. */
export function pixelDisc(pitchMm: number): number {
  return 1.17 * pitchMm;
}

/** Straight motion's equivalent disc, mm, for a track of `length` mm on the sensor: a line has the pixel's MTF. */
export function motionDisc(length: number): number {
  return 1.17 * length;
}

/** The track that blurs like a disc, mm both: motionDisc the other way. */
export const motionTrack = (discMm: number): number => discMm / motionDisc(1);

/** How a lens behaves wide open when nobody has measured it. */
export type LensCharacter = 'crisp' | 'ordinary' | 'weakWideOpen';

/** Aberration disc wide open of a full-frame lens, mm. From memory; a measured table replaces it. */
const wideOpenDisc: Record<LensCharacter, number> = { crisp: 0.01, ordinary: 0.016, weakWideOpen: 0.04 };

/** What no stopping down removes of a full-frame lens, mm. From memory. */
const residualDisc = 0.007;

export interface LensSharpness {
  readonly character: LensCharacter;
  /** Exact widest f-number at the focal length in use. */
  readonly widestFNumber: number;
  /** Diagonal of the format it is made for, mm: a lens for a smaller one draws as much finer (from memory). */
  readonly formatDiagonalMm: number;
  /** Measured MTF50 of the lens alone in the centre, line pairs per mm, by f-number, in ascending order. */
  readonly measured?: SharpnessTable;
  /** Likewise near the corners. */
  readonly measuredCorner?: SharpnessTable;
}

type SharpnessTable = readonly { readonly fNumber: number; readonly lpPerMm: number }[];

/** Where corners are measured, as a share of half the diagonal (chosen: where the sheet's pages hang). */
const cornerHeight = 0.75;

/**
 * What the lens adds to its disc in the centre at a height in the picture, mm in quadrature: none on the axis, all that was measured
 * in the corners there, between them growing with the height, as the first aberrations off the axis do; 0 where no corner was measured.
 *
 * @param height from the axis, as a share of half the diagonal of its format
 */
export function lensBesideAxis(lens: LensSharpness, N: number, height: number): number {
  const table = lens.measuredCorner;
  if (!table || table.length === 0) return 0;
  const more = Math.max(0, measuredDisc(table, N) ** 2 - lensDisc(lens, N) ** 2);
  return Math.sqrt(more) * Math.min(1, height / cornerHeight);
}

/**
 * The lens's own equivalent disc at an f-number, mm: 0.705/MTF50 from its measured table (linear in stops between
 * entries, diffraction taken out), else a default curve in proportion to the format, whose aberrations halve with each
 * stop, which with diffraction makes two to three stops down the best (common practice, no source).
 */
export function lensDisc(lens: LensSharpness, N: number): number {
  const table = lens.measured;
  if (table && table.length > 0) return measuredDisc(table, N);
  const stopsDown = Math.max(0, stopsBetween(lens.widestFNumber, N));
  const scale = lens.formatDiagonalMm / fullFrameDiagonalMm;
  return scale * Math.hypot(residualDisc, wideOpenDisc[lens.character] * 2 ** -stopsDown);
}

function measuredDisc(table: SharpnessTable, N: number): number {
  const discs = table.map(({ fNumber, lpPerMm }) => ({ fNumber, value: discMtf50 / lpPerMm }));
  const disc = alongStops(discs, N);
  // A measured lens contains its own diffraction, which is counted apart.
  return Math.sqrt(Math.max(0, disc * disc - diffractionDisc(N) ** 2));
}

/** Discs in quadrature, mm. */
export function totalDisc(...discs: readonly number[]): number {
  return Math.hypot(...discs);
}

/**
 * What is left of the circle of confusion C for defocus once the other causes have had their share, mm. Zero when they
 * already exceed it: no focus makes the picture sharp then.
 */
export function defocusAllowance(C: number, otherDisc: number): number {
  return Math.sqrt(Math.max(0, C * C - otherDisc * otherDisc));
}

export type SharpnessVerdict = 'sharp' | 'touchSoft' | 'soft';

/** Blur ratio (total disc over C) in words: up to 1 sharp, up to 1.6 a touch soft, beyond that soft. */
export function verdict(blurRatio: number): SharpnessVerdict {
  if (blurRatio <= 1 + 1e-9) return 'sharp';
  return blurRatio <= 1.6 ? 'touchSoft' : 'soft';
}
