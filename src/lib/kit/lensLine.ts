/** Lenses on one line to scale, from wide to long: where each stands, and in which row, so that no two names meet. */
import { scaleLog } from 'd3-scale';
import type { Lens } from '$core/kit/schema';

/** Focal lengths marked on the line, mm. */
const marks = [8, 14, 20, 24, 28, 35, 50, 70, 85, 105, 135, 200, 300, 400, 600, 800, 1200] as const;

/** Entrance pupil to height drawn, px per mm: a wide opening is a tall shape. */
const pxPerPupilMm = 0.28;
const leastPx = 4;
const mostPx = 26;

/** Width of a letter of a name, px, and the gap after it. */
const letterPx = 6.4;
const gapPx = 14;

export interface PlacedLens {
  readonly lens: Lens;
  readonly row: number;
  readonly x1: number;
  readonly x2: number;
  /** Height at the short and the long end, px, as the pupil there. */
  readonly short: number;
  readonly long: number;
  /** Where its name begins and what is written. */
  readonly labelX: number;
  readonly label: string;
}

export interface Line {
  readonly placed: readonly PlacedLens[];
  readonly rows: number;
  readonly marks: readonly { readonly mm: number; readonly x: number }[];
}

/** "85 mm f/1.8": the name where it says as much, with the widest opening where it does not. */
export function lensLabel(lens: Lens): string {
  const stop = `f/${lens.widestFNumber}`;
  return lens.name.includes(String(lens.widestFNumber)) ? lens.name : `${lens.name}, ${stop}`;
}

const heightOf = (pupilMm: number) => Math.min(mostPx, Math.max(leastPx, pupilMm * pxPerPupilMm));

export function lensLine(lenses: readonly Lens[], width: number): Line {
  const from = Math.min(20, ...lenses.map((lens) => lens.shortestMm)) * 0.9;
  const to = Math.max(240, ...lenses.map((lens) => lens.longestMm)) * 1.15;
  const x = scaleLog([from, to], [6, width - 6]);
  const ends: number[] = [];
  const placed = [...lenses]
    .sort((a, b) => a.shortestMm - b.shortestMm || a.longestMm - b.longestMm)
    .map((lens): PlacedLens => {
      const [x1, x2] = [x(lens.shortestMm), x(lens.longestMm)];
      const label = lensLabel(lens);
      const wide = label.length * letterPx;
      const labelX = Math.max(0, Math.min(x1, width - wide));
      const free = ends.findIndex((end) => end + gapPx <= Math.min(x1 - mostPx / 2, labelX));
      const row = free < 0 ? ends.length : free;
      ends[row] = Math.max(x2 + mostPx / 2, labelX + wide);
      const short = heightOf(lens.shortestMm / lens.widestFNumber);
      const long = heightOf(lens.longestMm / (lens.widestAtLong ?? lens.widestFNumber));
      return { lens, row, x1, x2, short, long, labelX, label };
    });
  let last = -Infinity;
  const shown = marks.flatMap((mm) => {
    const at = x(mm);
    if (mm < from || mm > to || at - last < 26) return [];
    last = at;
    return [{ mm, x: at }];
  });
  return { placed, rows: ends.length, marks: shown };
}
