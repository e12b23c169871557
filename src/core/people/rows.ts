/** Rows among people as a photographer sees them: sets of faces with a clear step in depth between them. */

/** Faces further apart in depth than this stand in different rows, mm (common practice, no source). */
const rowGapMm = 300;

/** Splits items into rows, nearest first, wherever depth jumps by more than `rowGapMm`. */
export function rowsByDepth<T>(items: readonly T[], depth: (item: T) => number): T[][] {
  const sorted = [...items].sort((a, b) => depth(a) - depth(b));
  const rows: T[][] = [];
  let last = -Infinity;
  for (const item of sorted) {
    if (depth(item) - last > rowGapMm) rows.push([]);
    rows[rows.length - 1]?.push(item);
    last = depth(item);
  }
  return rows;
}

/** Least-squares line of depth against lateral position: depth = at + slope · lateral. */
export function rowLine(points: readonly { readonly depthMm: number; readonly lateralMm: number }[]): {
  readonly at: number;
  readonly slope: number;
} {
  const n = points.length;
  if (n === 0) return { at: 0, slope: 0 };
  const x = points.reduce((sum, point) => sum + point.lateralMm, 0) / n;
  const z = points.reduce((sum, point) => sum + point.depthMm, 0) / n;
  const spread = points.reduce((sum, point) => sum + (point.lateralMm - x) ** 2, 0);
  const joint = points.reduce((sum, point) => sum + (point.lateralMm - x) * (point.depthMm - z), 0);
  const slope = spread < 1 ? 0 : joint / spread;
  return { at: z - slope * x, slope };
}
