/** Which frame to take: the best of a burst and why, or two that together hold everybody. */
import type { FrameJudged } from './eyes';

/** Who is sharp in a frame, with open eyes. */
export const sharpIn = ({ faces, shake }: FrameJudged): ReadonlySet<string> =>
  new Set(
    shake
      ? []
      : faces.flatMap(({ personId, judged, closed }) =>
          personId !== null && judged === 'sharp' && !closed ? [personId] : []
        )
  );

export interface Pair {
  readonly first: FrameJudged;
  readonly second: FrameJudged;
  /** Whom the second has and the first lacks. */
  readonly fromSecond: readonly string[];
}

/** So many of the best frames are tried with one another: 7,140 pairs. */
const tried = 120;

/**
 * Two frames in which together everybody is sharp: of all such pairs the one whose first holds most, then the one that is sharpest. Null
 * where one alone does, or no two do.
 */
export function pairThatHolds(ranked: readonly FrameJudged[], mustBe: readonly string[]): Pair | null {
  if (mustBe.length < 2) return null;
  const best = ranked.slice(0, tried).map((judged) => ({ judged, sharp: sharpIn(judged) }));
  if (best.some(({ sharp }) => mustBe.every((id) => sharp.has(id)))) return null;
  let found: { readonly pair: Pair; readonly score: number } | null = null;
  for (const [index, one] of best.entries()) {
    const lacking = mustBe.filter((id) => !one.sharp.has(id));
    for (const other of best.slice(index + 1)) {
      if (!lacking.every((id) => other.sharp.has(id))) continue;
      const [first, second] = one.sharp.size >= other.sharp.size ? [one, other] : [other, one];
      const score = 1000 * lacking.length + first.judged.rank + second.judged.rank;
      if (found && found.score <= score) continue;
      const fromSecond = mustBe.filter((id) => !first.sharp.has(id));
      found = { pair: { first: first.judged, second: second.judged, fromSecond }, score };
    }
  }
  return found?.pair ?? null;
}

/** The best frame of each burst of more than one, with the next one of it; frames already struck are none. */
export function bestOfBursts(
  judged: readonly FrameJudged[],
  bursts: readonly (readonly { readonly id: string }[])[]
): ReadonlyMap<string, FrameJudged> {
  const byId = new Map(judged.map((one) => [one.frame.id, one]));
  return new Map(
    bursts.flatMap((burst): [string, FrameJudged][] => {
      const own = burst.flatMap(({ id }) => byId.get(id) ?? []).filter(({ frame }) => frame.choice !== 'reject');
      const [best, next] = [...own].sort((a, b) => a.rank - b.rank);
      // Frames that cannot be told apart have no best.
      return best && next && best.rank < next.rank ? [[best.frame.id, next]] : [];
    })
  );
}
