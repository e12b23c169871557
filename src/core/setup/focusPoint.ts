/** Which of a body's focus points lies nearest to a place in the picture. */
import type { FocusGrid } from '../kit/schema';
import type { Camera } from './schema';

type Grid = Pick<FocusGrid, 'columns' | 'rows' | 'widthShare' | 'heightShare' | 'sensitive'> & {
  readonly anywhere?: boolean;
};

export interface FocusPoint {
  /** In shares of the picture from the left and the top. */
  readonly x: number;
  readonly y: number;
  /** Counted from the middle: to the right, and up. */
  readonly right: number;
  readonly up: number;
  /** Sees lines in both directions. */
  readonly sensitive: boolean;
  /** Put there freely, between the points of the grid. */
  readonly free?: boolean;
}

/** The columns about the middle that are sensitive where only some are, as a share of all (common practice, no source). */
const middleShare = 1 / 3;

/** Places of n points over a share of the picture, and their numbers counted from the middle. */
function axis(n: number, share: number): { readonly at: number; readonly from: number; readonly aside: number }[] {
  return Array.from({ length: n }, (_, index) => {
    const aside = n === 1 ? 0 : index / (n - 1) - 0.5;
    return { at: 0.5 + aside * share, from: index - Math.floor((n - 1) / 2), aside: Math.abs(aside) * 2 };
  });
}

interface Held {
  readonly points: readonly FocusPoint[];
  readonly at: (x: number, y: number) => FocusPoint | null;
}

/** The points of a grid as a body is held, with the way to find the one that lies on a place: made once for each grid. */
export function heldPoints(grid: Grid, orientation: Camera['orientation']): Held {
  const known = made[orientation].get(grid);
  if (known) return known;
  const points = focusPoints(grid, orientation);
  const onGrid = pointFinder(points);
  const free = (x: number, y: number): FocusPoint | null => {
    const near = onGrid(x, y);
    return near && { ...near, x, y, free: true };
  };
  const held = { points, at: grid.anywhere ? free : onGrid };
  made[orientation].set(grid, held);
  return held;
}

const made = { landscape: new WeakMap<Grid, Held>(), portrait: new WeakMap<Grid, Held>() };

/** Every focus point of a grid; a body held upright has its rows upright. */
export function focusPoints(grid: Grid, orientation: Camera['orientation']): FocusPoint[] {
  const { columns, rows, widthShare, heightShare } = grid;
  const upright = orientation === 'portrait';
  const [across, down] = [axis(columns, widthShare), axis(rows, heightShare)];
  return (upright ? across : down).flatMap((row) =>
    (upright ? down : across).map((column) => {
      const alongLong = upright ? row : column;
      const central = column.from === 0 && row.from === 0;
      const sensitive = {
        all: true,
        middleColumns: alongLong.aside <= middleShare + 1e-9,
        centre: central,
        none: false
      }[grid.sensitive];
      return { x: column.at, y: row.at, right: column.from, up: -row.from + 0, sensitive };
    })
  );
}

/** Places along one axis of a grid, and half the step between them: what a point may be said to lie on. */
function stepsOf(places: readonly number[]): number {
  const sorted = [...new Set(places)].sort((a, b) => a - b);
  const gaps = sorted.slice(1).map((place, index) => place - (sorted[index] ?? place));
  return gaps.length === 0 ? loneReach : Math.min(...gaps) / 2 + 1e-9;
}

/** How far a lone row or column of points reaches to either side, as a share of the picture (common practice, no source). */
const loneReach = 0.06;

/** Finds the point that lies on a place of the picture; null where none does. Made once for a grid. */
export function pointFinder(points: readonly FocusPoint[]): (x: number, y: number) => FocusPoint | null {
  const reach = { x: stepsOf(points.map((point) => point.x)), y: stepsOf(points.map((point) => point.y)) };
  return (x, y) => points.find((point) => Math.abs(point.x - x) <= reach.x && Math.abs(point.y - y) <= reach.y) ?? null;
}

const finer = new WeakMap<FocusGrid, FocusGrid>();

/** The grid the point is moved on: the finer one where it is asked for and there is one. */
export function gridInUse(grid: FocusGrid, { fineGrid }: Pick<Camera, 'fineGrid'>): FocusGrid {
  if (!fineGrid || !grid.fine) return grid;
  const found = finer.get(grid) ?? { ...grid, ...grid.fine };
  finer.set(grid, found);
  return found;
}

/** "the centre point", "point 4 right, 2 up". */
export function focusPointWords({ right, up, free }: FocusPoint): string {
  if (free) return 'the point put on it';
  if (right === 0 && up === 0) return 'the centre point';
  const across = right === 0 ? '' : `${Math.abs(right)} ${right > 0 ? 'right' : 'left'}`;
  const along = up === 0 ? '' : `${Math.abs(up)} ${up > 0 ? 'up' : 'down'}`;
  return `point ${[across, along].filter(Boolean).join(', ')}`;
}
