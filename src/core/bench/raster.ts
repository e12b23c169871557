/** A piece of paper as pixels. */
import { ascending, group } from 'd3-array';
import { gray, type Gray } from './gray';
import type { SheetPiece, Polygon } from './sheets';

/** White paper around what is printed, mm. */
export const marginMm = 8;

/** A polygon in fine pixels, with the first and the last row it has pixels in. */
interface Outline {
  readonly points: readonly (readonly [x: number, y: number])[];
  readonly tone: number;
  /** When it is painted. */
  readonly order: number;
  readonly top: number;
  readonly bottom: number;
  /** Its pixels of each row, where all its sides lie across or down and its rows are alike; else null. */
  readonly columns: readonly [from: number, to: number] | null;
}

function outlineOf({ points, tone }: Polygon, order: number, scale: number, margin: number): Outline {
  const at = points.map(([x, y]) => [(x + margin) * scale - 0.5, (y + margin) * scale - 0.5] as const);
  const ys = at.map(([, y]) => y);
  const isUpright =
    at.length === 4 &&
    at.every(([x, y], index) => {
      const [nextX, nextY] = at[(index + 1) % at.length] ?? [x, y];
      return x === nextX || y === nextY;
    });
  const xs = at.map(([x]) => x);
  return {
    points: at,
    tone,
    order,
    columns: isUpright ? [Math.max(0, Math.ceil(Math.min(...xs))), Math.floor(Math.max(...xs))] : null,
    top: Math.max(0, Math.ceil(Math.min(...ys))),
    bottom: Math.floor(Math.max(...ys))
  };
}

/** Pixels of one row whose middle lies in a polygon: between pairs of its crossings. */
function fillRow(line: Float32Array, { points, tone, columns }: Outline, y: number): void {
  if (columns) {
    // Beside the paper there is nothing: an end before the first pixel would be counted from the other side.
    if (columns[1] >= columns[0]) line.fill(tone, columns[0], columns[1] + 1);
    return;
  }
  const crossings: number[] = [];
  for (let index = 0; index < points.length; index++) {
    const [a, b] = [points[index], points[(index + 1) % points.length]];
    if (!a || !b || a[1] > y === b[1] > y) continue;
    crossings.push(a[0] + ((y - a[1]) / (b[1] - a[1])) * (b[0] - a[0]));
  }
  crossings.sort(ascending);
  for (let index = 0; index + 1 < crossings.length; index += 2) {
    const from = Math.max(0, Math.ceil(crossings[index] ?? 0));
    const to = Math.min(line.length - 1, Math.floor(crossings[index + 1] ?? 0));
    if (to >= from) line.fill(tone, from, to + 1);
  }
}

/**
 * Row by row, so that only one row is ever held as fine as it is drawn.
 *
 * @param perMm pixels a mm @param fine so many times finer while drawing, so that edges are grey where they should be
 * @param margin white paper around the piece, mm
 */
export function rasterOf(piece: SheetPiece, perMm: number, fine = 2, margin = 0): Gray {
  const scale = perMm * fine;
  const across = Math.round((piece.width + 2 * margin) * scale);
  const down = Math.round((piece.height + 2 * margin) * scale);
  const picture = gray(Math.floor(across / fine), Math.floor(down / fine));
  const starting = group(
    piece.polygons.map((polygon, order) => outlineOf(polygon, order, scale, margin)),
    ({ top }) => Math.floor(top / fine)
  );
  const line = new Float32Array(across);
  let here: Outline[] = [];
  let before: readonly Outline[] = [];
  for (let row = 0; row < picture.height; row++) {
    const [first, last] = [row * fine, row * fine + fine - 1];
    const started = starting.get(row) ?? [];
    // In the order they are painted in.
    if (started.length > 0) here = [...here, ...started].sort((one, other) => one.order - other.order);
    if (here.some(({ bottom }) => bottom < first)) here = here.filter(({ bottom }) => bottom >= first);
    const own = picture.light.subarray(row * picture.width, (row + 1) * picture.width);
    const isAlike = here.every(({ columns, top, bottom }) => columns && top <= first && bottom >= last);
    if (isAlike && before === here && row > 0)
      own.set(picture.light.subarray((row - 1) * picture.width, row * picture.width));
    else drawRow(own, line, here, first, fine);
    before = isAlike ? here : [];
  }
  return picture;
}

function drawRow(own: Float32Array, line: Float32Array, here: readonly Outline[], first: number, fine: number): void {
  for (let y = first; y < first + fine; y++) {
    line.fill(1);
    for (const outline of here) if (outline.top <= y && y <= outline.bottom) fillRow(line, outline, y);
    for (let x = 0, at = 0; x < own.length; x++) {
      let sum = 0;
      for (let k = 0; k < fine; k++) sum += line[at++] ?? 0;
      own[x] = (own[x] ?? 0) + sum / (fine * fine);
    }
  }
}
