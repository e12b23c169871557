/** A piece of paper as pixels. */
import { gray, smaller, type Gray } from './gray';
import type { SheetPiece, Polygon } from './sheets';

/** Pixels whose middle lies in a polygon: between pairs of crossings of each row. */
function fill({ width, height, light }: Gray, { points, tone }: Polygon, perMm: number): void {
  const at = points.map(([x, y]) => [x * perMm - 0.5, y * perMm - 0.5] as const);
  const ys = at.map(([, y]) => y);
  const [top, bottom] = [Math.max(0, Math.ceil(Math.min(...ys))), Math.min(height - 1, Math.floor(Math.max(...ys)))];
  for (let y = top; y <= bottom; y++) {
    const crossings: number[] = [];
    for (let index = 0; index < at.length; index++) {
      const [a, b] = [at[index], at[(index + 1) % at.length]];
      if (!a || !b || a[1] > y === b[1] > y) continue;
      crossings.push(a[0] + ((y - a[1]) / (b[1] - a[1])) * (b[0] - a[0]));
    }
    crossings.sort((one, other) => one - other);
    for (let index = 0; index + 1 < crossings.length; index += 2) {
      const from = Math.max(0, Math.ceil(crossings[index] ?? 0));
      const to = Math.min(width - 1, Math.floor(crossings[index + 1] ?? 0));
      light.fill(tone, y * width + from, y * width + to + 1);
    }
  }
}

/** White paper around what is printed, mm. */
export const marginMm = 8;

/** @param perMm pixels a mm; @param fine so many times finer while drawing, so that edges are grey where they should be */
export function rasterOf(piece: SheetPiece, perMm: number, fine = 2, margin = 0): Gray {
  const scale = perMm * fine;
  const drawn = gray(Math.round((piece.width + 2 * margin) * scale), Math.round((piece.height + 2 * margin) * scale));
  drawn.light.fill(1);
  for (const { points, tone } of piece.polygons)
    fill(drawn, { points: points.map(([x, y]) => [x + margin, y + margin] as const), tone }, scale);
  return smaller(drawn, fine);
}
