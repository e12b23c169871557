/** The ribbons beside the day: what each body holds, and where one is. */
import type { DayEntry } from '$core/day/timetable';

/** A piece of ribbon beside one row. */
export interface RibbonPiece {
  /** Used for this picture, or only carried. */
  readonly used: boolean;
  /** It begins, and ends, here. */
  readonly starts: boolean;
  readonly ends: boolean;
}

/** For each row, for each body of the day: the lens it holds; null before its first and after its last picture. */
export function lensLanes(entries: readonly DayEntry[]): (RibbonPiece | null)[][] {
  const bodies = [...new Set(entries.map((entry) => entry.item.bodyId))];
  const lanes = bodies.map((bodyId) => {
    const uses = entries.flatMap((entry, index) => (entry.item.bodyId === bodyId ? [index] : []));
    const [first, last] = [uses[0] ?? 0, uses[uses.length - 1] ?? -1];
    return entries.map((entry, index): RibbonPiece | null => {
      if (index < first || index > last) return null;
      const used = entry.item.bodyId === bodyId;
      const next = entries.slice(index + 1, last + 1).find((other) => other.item.bodyId === bodyId);
      return {
        used,
        starts: index === first || (used && entry.lensChange),
        ends: index === last || (entries[index + 1]?.item.bodyId === bodyId && next?.lensChange === true)
      };
    });
  });
  return entries.map((_, index) => lanes.map((lane) => lane[index] ?? null));
}

export function placePieces(entries: readonly DayEntry[]): RibbonPiece[] {
  return entries.map((entry, index) => ({
    used: true,
    starts: index === 0 || entry.walk,
    ends: entries[index + 1]?.walk ?? true
  }));
}
