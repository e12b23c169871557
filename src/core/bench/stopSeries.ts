/** Frames of the edge sheet at several stops: which is best in the centre, which to the corners, which to keep faces out of. */
import { deviation, group, mean, median, minIndex } from 'd3-array';
import { stopsBetween } from '../optics/stops';
import { discMtf50, diffractionDisc, pixelDisc } from '../optics/sharpness';
import type { EdgeFrame, MeasuredEdge } from './edgeFrame';
import { zones, type Sharpness, type StopTest, type Zone } from './schema';

export interface StopFrame {
  readonly fNumber: number;
  readonly frame: EdgeFrame;
}

export type StopRow = StopTest['stops'][number];

/** One row a stop, from the widest. */
export function stopRows(frames: readonly StopFrame[]): StopRow[] {
  const stops = [...new Set(frames.map(({ fNumber }) => fNumber))].sort((a, b) => a - b);
  return stops.map((fNumber) => {
    const own = frames.filter((one) => one.fNumber === fNumber).map(({ frame }) => frame);
    const inZone = (zone: Zone): Sharpness | null => {
      const edges = own.flatMap((frame) => frame.edges.filter((edge) => edge.zone === zone));
      const lp = (of: readonly MeasuredEdge[]) => mean(of, ({ lpPerMm }) => lpPerMm) ?? null;
      const lpPerMm = lp(edges);
      if (lpPerMm === null) return null;
      return {
        lpPerMm,
        edges: edges.length,
        sd: deviation(edges, (edge) => edge.lpPerMm) ?? 0,
        standing: lp(edges.filter(({ stands }) => stands)),
        lying: lp(edges.filter(({ stands }) => !stands)),
        risePx: mean(edges, ({ figure }) => figure.rise) ?? 0
      };
    };
    return {
      fNumber,
      frames: own.length,
      centre: inZone('centre'),
      middle: inZone('middle'),
      corner: inZone('corner'),
      overshoot: Math.max(0, ...own.map(({ overshoot }) => overshoot))
    };
  });
}

/** MTF50 of a lens without faults on such pixels, line pairs a mm: diffraction and pixel as discs in quadrature (optics/sharpness.ts). */
export const limitLpPerMm = (fNumber: number, pixelMm: number): number =>
  discMtf50 / Math.hypot(diffractionDisc(fNumber), pixelDisc(pixelMm));

/** MTF50 of diffraction alone, line pairs a mm. */
export const diffractionLpPerMm = (fNumber: number): number => discMtf50 / diffractionDisc(fNumber);

export interface StopVerdict {
  readonly bestCentre: number | null;
  /** Best to the corners; to the middle where no corner was measured. */
  readonly bestCorner: { readonly fNumber: number; readonly zone: Zone } | null;
  /** Stops at which a zone has less than six tenths of its own best, and how much it loses. */
  readonly avoid: readonly { readonly fNumber: number; readonly zone: Zone; readonly loses: number }[];
  /** Centre and corners held less than so: the whole series is soft or shaken, and says nothing of the lens. */
  readonly unsound: boolean;
}

/** A zone is weak at a stop where it has less than this share of its own best (chosen). */
const weak = 0.6;
/** A lens that reaches no more than this share of what its pixels and diffraction allow anywhere was out of focus or shaken (chosen). */
const leastOfLimit = 0.15;

export function stopVerdict(rows: readonly StopRow[], pixelMm: number): StopVerdict {
  const best = (zone: Zone) =>
    rows.reduce<StopRow | null>(
      (found, row) => ((row[zone]?.lpPerMm ?? 0) > (found?.[zone]?.lpPerMm ?? 0) ? row : found),
      null
    );
  const outer = best('corner') ? 'corner' : 'middle';
  const corner = best(outer);
  const avoid = zones.flatMap((zone) => {
    const most = best(zone)?.[zone]?.lpPerMm ?? 0;
    return rows.flatMap((row) => {
      const own = row[zone]?.lpPerMm;
      return own !== undefined && own < weak * most ? [{ fNumber: row.fNumber, zone, loses: 1 - own / most }] : [];
    });
  });
  const share = Math.max(0, ...rows.map((row) => (row.centre?.lpPerMm ?? 0) / limitLpPerMm(row.fNumber, pixelMm)));
  return {
    bestCentre: best('centre')?.fNumber ?? null,
    bestCorner: corner ? { fNumber: corner.fNumber, zone: outer } : null,
    avoid,
    unsound: share < leastOfLimit
  };
}

/** Stops further apart than this leave a gap that the table would bridge by guessing, in stops; nearer to the widest than the second, it was tried (chosen). */
const gaps = { between: 2.1, fromWidest: 0.6 } as const;

/** Why a series may not be written to the lens; null where it may. */
export type NotWritten = 'unsound' | 'sharpened' | 'gap' | 'notWide' | 'noCentre';

/** More than this beyond the brighter side is sharpening, not noise, as a share of the step (chosen). */
export const sharpenedFrom = 0.05;

/** @param widest exact f-number of the lens wide open */
export function notWritten(rows: readonly StopRow[], pixelMm: number, widest: number): NotWritten | null {
  const [first] = rows;
  if (!first || rows.every(({ centre }) => centre === null)) return 'noCentre';
  if (stopVerdict(rows, pixelMm).unsound) return 'unsound';
  if (rows.some(({ overshoot }) => overshoot > sharpenedFrom)) return 'sharpened';
  if (stopsBetween(widest, first.fNumber) > gaps.fromWidest) return 'notWide';
  const gap = rows.some((row, index) => {
    const before = rows[index - 1];
    return before !== undefined && stopsBetween(before.fNumber, row.fNumber) > gaps.between;
  });
  return gap ? 'gap' : null;
}

/** What the lens alone has, by stop: the pixel's own disc taken out of what was measured. Sharper than the pixel allows is as sharp as it. */
export function lensTable(
  rows: readonly StopRow[],
  zone: Zone,
  pixelMm: number
): { fNumber: number; lpPerMm: number }[] {
  return rows.flatMap((row) => {
    const own = row[zone];
    if (!own) return [];
    const disc = discMtf50 / own.lpPerMm;
    const alone = Math.sqrt(Math.max((0.3 * disc) ** 2, disc * disc - pixelDisc(pixelMm) ** 2));
    return [{ fNumber: row.fNumber, lpPerMm: Math.min(500, Math.max(1, Number((discMtf50 / alone).toFixed(1)))) }];
  });
}

/** How the tones of a series lay: the median of its frames; null where no steps could be read. */
export function toneOf(frames: readonly EdgeFrame[]): EdgeFrame['tone'] {
  const [exponent, shift] = [median(frames, ({ tone }) => tone?.exponent), median(frames, ({ tone }) => tone?.shift)];
  return exponent === undefined || shift === undefined ? null : { exponent, shift };
}

/** A corner page this much under the mean of the others tells of decentring, or of a wall that is not square (chosen). */
export const decentredFrom = 0.25;

/** How much the weakest corner page lies under the mean of the others, as a share, and which; null with fewer than four. */
export function decentring(frames: readonly EdgeFrame[]): { readonly page: number; readonly less: number } | null {
  const corners = frames.flatMap(({ edges }) => edges.filter(({ zone }) => zone === 'corner'));
  const means = [...group(corners, ({ page }) => page)].map(([page, own]) => {
    return { page, mean: mean(own, ({ lpPerMm }) => lpPerMm) ?? 0 };
  });
  const weakest = means[minIndex(means, (one) => one.mean)];
  if (means.length < 4 || !weakest) return null;
  const usual =
    mean(
      means.filter((one) => one !== weakest),
      (one) => one.mean
    ) ?? weakest.mean;
  return { page: weakest.page, less: 1 - weakest.mean / usual };
}
