/** What is compared side by side, and how large. */
import type { LensInLine } from '$core/call/lineUp';
import type { StopStep } from '$core/optics/stops';

/** Pictures side by side at most. */
export const most = 4;

/** Stops a whole stop apart, the one in use the second where there is room. */
export function stopsToCompare(selected: number, count: number, step: StopStep): number[] {
  const perStop = { full: 1, half: 2, third: 3 }[step];
  const first = Math.max(0, Math.min(selected - perStop, count - 1 - perStop * (most - 1)));
  return Array.from({ length: most }, (_, n) => first + n * perStop).filter((index) => index < count);
}

/** The lens in use, and the shortest, a middle and the longest of the others that the room allows. */
export function lensesToCompare(line: readonly LensInLine[]): LensInLine[] {
  const found = line.filter((item) => item.result && item.beyondRoomMm === 0);
  const own = found.filter((item) => item.inUse);
  const rest = found.filter((item) => !item.inUse && item.lensId !== own[0]?.lensId);
  const spread = [0, Math.floor((rest.length - 1) / 2), rest.length - 1].flatMap((index) => rest[index] ?? []);
  return [...own, ...new Set(spread)].sort((a, b) => a.focalLengthMm - b.focalLengthMm);
}

export interface Cells {
  readonly columns: number;
  readonly width: number;
  readonly height: number;
}

const gapPx = 12;
/** Padding round a picture, and the line under it. */
const framePx = 8;
const captionPx = 34;
/** Narrower screens show one under another. */
const narrowPx = 640;

/** The largest cells that show all of them at once. `ratio`: width over height of a picture. */
export function cellsFor(
  count: number,
  ratio: number,
  screen: { readonly width: number; readonly height: number }
): Cells {
  const room = { width: Math.min(1240, screen.width - 44), height: Math.max(360, screen.height - 190) };
  const shown = Math.max(2, count);
  const narrow = screen.width < narrowPx;
  const tried = (narrow ? [1] : [2, 3, 4].filter((columns) => columns <= shown)).map((columns): Cells => {
    const rows = narrow ? 1 : Math.ceil(shown / columns);
    const across = (room.width - gapPx * (columns - 1)) / columns - framePx;
    const down = (room.height - gapPx * (rows - 1)) / rows - framePx - captionPx;
    const height = Math.floor(Math.min(down, across / ratio));
    return { columns, width: Math.round(height * ratio), height };
  });
  return tried.reduce((best, item) => (item.height > best.height ? item : best));
}
