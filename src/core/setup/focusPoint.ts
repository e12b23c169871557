/** Which of a body's focus points lies nearest to a place in the picture. */
import type { FocusGrid } from '../kit/schema';
import type { Camera } from './schema';

type Grid = Pick<FocusGrid, 'columns' | 'rows' | 'widthShare' | 'heightShare'>;

interface FocusPoint {
  /** In shares of the picture from the left and the top. */
  readonly x: number;
  readonly y: number;
  /** Counted from the middle: to the right, and up. */
  readonly right: number;
  readonly up: number;
}

/** The grid as the body is held: a body held upright has its rows upright. */
function heldGrid(grid: Grid, orientation: Camera['orientation']): Grid {
  if (orientation === 'landscape') return grid;
  const { columns, rows, widthShare, heightShare } = grid;
  return { columns: rows, rows: columns, widthShare: heightShare, heightShare: widthShare };
}

/** Places of n points over a share of the picture, and their numbers counted from the middle. */
function axis(n: number, share: number): { readonly at: number; readonly from: number }[] {
  return Array.from({ length: n }, (_, index) => ({
    at: n === 1 ? 0.5 : 0.5 + (index / (n - 1) - 0.5) * share,
    from: index - Math.floor((n - 1) / 2)
  }));
}

export function focusPoints(grid: Grid, orientation: Camera['orientation']): FocusPoint[] {
  const { columns, rows, widthShare, heightShare } = heldGrid(grid, orientation);
  return axis(rows, heightShare).flatMap((row) =>
    axis(columns, widthShare).map((column) => ({ x: column.at, y: row.at, right: column.from, up: -row.from + 0 }))
  );
}

/** The point nearest to a place, or null when the place lies outside the grid by more than a point's spacing. */
export function nearestFocusPoint(points: readonly FocusPoint[], x: number, y: number): FocusPoint | null {
  const distance = (point: FocusPoint) => Math.hypot(point.x - x, point.y - y);
  const nearest = points.reduce<FocusPoint | null>(
    (best, point) => (!best || distance(point) < distance(best) ? point : best),
    null
  );
  if (!nearest) return null;
  const others = points
    .filter((point) => point !== nearest)
    .map((point) => Math.hypot(point.x - nearest.x, point.y - nearest.y));
  const spacing = Math.min(...others, 1);
  return distance(nearest) <= spacing ? nearest : null;
}

/** "the centre point", "point 4 right, 2 up". */
export function focusPointWords({ right, up }: FocusPoint): string {
  if (right === 0 && up === 0) return 'the centre point';
  const across = right === 0 ? '' : `${Math.abs(right)} ${right > 0 ? 'right' : 'left'}`;
  const along = up === 0 ? '' : `${Math.abs(up)} ${up > 0 ? 'up' : 'down'}`;
  return `point ${[across, along].filter(Boolean).join(', ')}`;
}
