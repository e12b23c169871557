/** Which face is whose: by where the plan expects everybody, however the frame was shifted, moved in or out, or tilted a little. */
import { median } from 'd3-array';
import { linearSumAssignment } from 'linear-sum-assignment';

export interface ExpectedHead {
  readonly personId: string;
  /** Middle between the eyes, in widths of the picture from its left and top. */
  readonly x: number;
  readonly y: number;
  /** Distance between the eyes as the lens sees it, in widths of the picture. */
  readonly eyes: number;
}

export interface SeenHead {
  readonly x: number;
  readonly y: number;
  readonly eyes: number;
}

interface Placing {
  readonly scale: number;
  readonly x: number;
  readonly y: number;
}

/** Further off than this, in distances between the eyes, a face is nobody's the plan knows (chosen). */
const furthest = 4;
/** A head twice as large costs as much as one so far off, distances between the eyes (chosen). */
const sizeCost = 2;
const rounds = 4;

/** @returns for each face whose it is, or null */
export function assignFaces(seen: readonly SeenHead[], expected: readonly ExpectedHead[]): (string | null)[] {
  if (seen.length === 0 || expected.length === 0) return seen.map(() => null);
  return bestFit(seen, expected).pairs.map((index) => (index === null ? null : (expected[index]?.personId ?? null)));
}

interface Fit {
  /** For each face which of those expected it is. */
  readonly pairs: readonly (number | null)[];
  /** The sum over the faces; at most `furthest²` each. */
  readonly cost: number;
}

/** @param seen one at least; @param expected one at least */
export function bestFit(seen: readonly SeenHead[], expected: readonly ExpectedHead[]): Fit {
  let best: Fit = { pairs: seen.map(() => null), cost: Infinity };
  for (const start of startsOf(seen, expected)) {
    let placing = start;
    for (let round = 0; round < rounds; round++) {
      const next = fitted(seen, expected, paired(seen, expected, placing).pairs);
      if (!next) break;
      placing = next;
    }
    const { pairs, cost } = paired(seen, expected, placing);
    if (cost < best.cost) best = { pairs, cost };
  }
  return best;
}

const middle = (values: readonly number[]): number => median(values) ?? 0;

/** As it was planned; brought to the same middle and size; and a few faces in turn taken for a few of the heads expected. */
function startsOf(seen: readonly SeenHead[], expected: readonly ExpectedHead[]): Placing[] {
  const scale = middle(seen.map(({ eyes }) => eyes)) / Math.max(middle(expected.map(({ eyes }) => eyes)), 1e-9);
  const about = (s: number): Placing => ({
    scale: s,
    x: middle(seen.map(({ x }) => x)) - s * middle(expected.map(({ x }) => x)),
    y: middle(seen.map(({ y }) => y)) - s * middle(expected.map(({ y }) => y))
  });
  const few = 6;
  const pairs = seen
    .slice(0, few)
    .flatMap((face) =>
      expected.slice(0, few).map((head): Placing => ({ scale, x: face.x - scale * head.x, y: face.y - scale * head.y }))
    );
  return [{ scale: 1, x: 0, y: 0 }, about(scale), ...pairs];
}

function paired(seen: readonly SeenHead[], expected: readonly ExpectedHead[], { scale, x, y }: Placing): Fit {
  const most = furthest * furthest;
  const costs = seen.map((face) =>
    expected.map((head) => {
      const eyes = Math.max(head.eyes * scale, 1e-6);
      const off = Math.hypot(face.x - scale * head.x - x, face.y - scale * head.y - y) / eyes;
      const larger = sizeCost * Math.log2(Math.max(face.eyes, 1e-6) / eyes);
      return Math.min(most, off * off + larger * larger);
    })
  );
  const found = linearSumAssignment(costs, { maximaze: false }).rowAssignments;
  let cost = 0;
  const pairs = seen.map((_, row) => {
    const column = found[row] ?? -1;
    const own = column >= 0 ? (costs[row]?.[column] ?? most) : most;
    cost += own;
    return own < most ? column : null;
  });
  return { pairs, cost };
}

/** The shift and size that bring the heads expected onto the faces they are taken for (least squares). */
function fitted(
  seen: readonly SeenHead[],
  expected: readonly ExpectedHead[],
  pairs: readonly (number | null)[]
): Placing | null {
  const both = pairs.flatMap((index, row) => {
    const [face, head] = [seen[row], index === null ? undefined : expected[index]];
    return face && head ? [{ face, head }] : [];
  });
  if (both.length === 0) return null;
  const mean = (of: (pair: (typeof both)[number]) => number) =>
    both.reduce((sum, pair) => sum + of(pair), 0) / both.length;
  const [fx, fy, hx, hy] = [mean((p) => p.face.x), mean((p) => p.face.y), mean((p) => p.head.x), mean((p) => p.head.y)];
  const sizes = mean(({ face, head }) => Math.log(face.eyes / Math.max(head.eyes, 1e-9)));
  const across = mean(({ head }) => (head.x - hx) ** 2 + (head.y - hy) ** 2);
  const together = mean(({ face, head }) => (head.x - hx) * (face.x - fx) + (head.y - hy) * (face.y - fy));
  // One face alone tells its size only.
  const scale = both.length > 1 && across > 1e-6 ? Math.max(0.3, Math.min(3, together / across)) : Math.exp(sizes);
  return { scale, x: fx - scale * hx, y: fy - scale * hy };
}
