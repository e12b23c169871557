/** Frames brought to the wrong drill. */
import { arrangedFor } from './kinds';
import { drillIds, type DrillId } from './kinds/ids';
import type { KitLimits } from './kinds/kind';
import { matchFrames, type SeriesMatch } from './series/match';
import type { FrameRead } from './series/series';

/** So many frames spare or of no step, and so many steps of another drill with a frame of their own, and they are that drill's; fewer frames tell nothing (chosen). */
const another = { strayed: 0.5, filled: 0.8, least: 3 } as const;

/** The drill whose frames these are, when most of them are no use to the one they were brought to; null where that cannot be told. */
export function anotherDrill(
  own: DrillId,
  match: SeriesMatch,
  frames: readonly FrameRead[],
  kit: KitLimits
): DrillId | null {
  const strayed = match.left.length + match.steps.reduce((sum, { spare }) => sum + spare.length, 0);
  if (frames.length < another.least || strayed < another.strayed * frames.length) return null;
  const filled = (id: DrillId) => {
    const steps = arrangedFor(id, kit)?.steps ?? [];
    const found = matchFrames(steps, frames).steps.filter(({ frame }) => frame !== null).length;
    return found / Math.max(steps.length, frames.length);
  };
  const [best] = drillIds
    .filter((id) => id !== own)
    .map((id) => ({ id, share: filled(id) }))
    .sort((a, b) => b.share - a.share);
  return best && best.share >= another.filled ? best.id : null;
}
