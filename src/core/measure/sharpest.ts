/** Where a picture is sharpest: which of its cells have edges that neighbouring pixels show. */

export interface Cell {
  /** The middle, in shares of the picture's width and height. */
  readonly x: number;
  readonly y: number;
  /** How much neighbouring pixels differ by curvature, over how much they would by noise alone: larger is sharper. */
  readonly edges: number;
}

/** Darker than this on average, a cell is taken to be so bright: light from 0 to 1 (chosen). */
const leastLight = 0.01;

/**
 * The cells with most to see in what is finest, best first: the mean square of the Laplacian over the mean light, as the
 * variance of photon noise is: dark cells would win otherwise.
 *
 * @param light linear, row by row
 * @param cell side of a cell, pixels of `light`
 */
export function sharpestCells(light: Float32Array, width: number, height: number, cell: number, most: number): Cell[] {
  const cells: Cell[] = [];
  for (let top = 1; top + cell < height; top += cell)
    for (let left = 1; left + cell < width; left += cell) {
      let [sum, squares] = [0, 0];
      for (let y = top; y < top + cell; y++)
        for (let x = left; x < left + cell; x++) {
          const at = y * width + x;
          const here = light[at] ?? 0;
          const around =
            (light[at - 1] ?? 0) + (light[at + 1] ?? 0) + (light[at - width] ?? 0) + (light[at + width] ?? 0);
          sum += here;
          squares += (4 * here - around) ** 2;
        }
      const count = cell * cell;
      const mean = Math.max(sum / count, leastLight);
      cells.push({
        x: (left + cell / 2) / width,
        y: (top + cell / 2) / height,
        edges: squares / count / mean
      });
    }
  return cells.sort((a, b) => b.edges - a.edges).slice(0, most);
}
