/** What a key does on the Floor, and where a drag comes to rest. */

/** Step of an arrow key, mm, and with Shift. */
const stepMm = 20;
const bigStepMm = 200;
const turnStepDeg = 5;

/** Drags rest on whole steps unless Shift asks for fine work. */
const gridMm = 20;

/** A drag is caught by a row this near to the pointer, px. */
const catchPx = 7;

export interface Nudge {
  readonly depthMm: number;
  readonly lateralMm: number;
  /** Head, or what has no head. */
  readonly turnDeg: number;
  /** Shoulders. */
  readonly bodyTurnDeg: number;
}

/**
 * Left and right go to and from the lens, up and down across; comma and full stop turn the head, with Shift the
 * shoulders. Takes the key if it is one.
 */
export function nudge(event: KeyboardEvent): Nudge | null {
  if (event.ctrlKey || event.metaKey || event.altKey) return null;
  const step = event.shiftKey ? bigStepMm : stepMm;
  const moves: Readonly<Record<string, Partial<Nudge>>> = {
    ArrowLeft: { depthMm: -step },
    ArrowRight: { depthMm: step },
    ArrowUp: { lateralMm: -step },
    ArrowDown: { lateralMm: step },
    ',': { turnDeg: -turnStepDeg },
    '.': { turnDeg: turnStepDeg },
    '<': { bodyTurnDeg: -turnStepDeg },
    '>': { bodyTurnDeg: turnStepDeg }
  };
  const move = moves[event.key];
  if (!move) return null;
  event.preventDefault();
  event.stopPropagation();
  return { depthMm: 0, lateralMm: 0, turnDeg: 0, bodyTurnDeg: 0, ...move };
}

export function snapMm(mm: number, fine: boolean): number {
  const grid = fine ? 1 : gridMm;
  return Math.round(mm / grid) * grid + 0;
}

/** Round distances from the lens a drag prefers, by how coarse the drawing is, mm. */
const roundSteps = [50, 100, 250, 500, 1000, 2500, 5000] as const;

/** A distance from the lens: to a round one, or to the millimetre when fine. */
export function snapDistance(mm: number, pxPerMm: number, fine: boolean): number {
  if (fine) return Math.round(mm);
  // About four px to a step: coarse from afar, fine when zoomed in.
  const step = roundSteps.find((size) => size * pxPerMm >= 4) ?? 5000;
  return Math.round(mm / step) * step;
}

interface DepthSnap {
  readonly depthMm: number;
  /** The row it was caught by, if one; drawn as a line. */
  readonly rowMm: number | null;
}

/** Where a dragged depth comes to rest: in the row of somebody near, else at a round distance from the lens. */
export function snapDepth(
  depthMm: number,
  { rows, distanceMm, pxPerMm, fine }: { rows: readonly number[]; distanceMm: number; pxPerMm: number; fine: boolean }
): DepthSnap {
  if (fine) return { depthMm: Math.round(depthMm), rowMm: null };
  const off = (row: number) => Math.abs(row - depthMm);
  const [row] = [...rows].sort((a, b) => off(a) - off(b));
  if (row !== undefined && off(row) * pxPerMm <= catchPx) return { depthMm: row, rowMm: row };
  return { depthMm: snapDistance(depthMm + distanceMm, pxPerMm, false) - distanceMm, rowMm: null };
}

/** Angle brought into −180 to 180, to whole degrees, to fives unless fine. */
export function snapDeg(degrees: number, fine: boolean): number {
  const step = fine ? 1 : 5;
  const turned = ((((degrees + 180) % 360) + 360) % 360) - 180;
  return Math.round(turned / step) * step + 0;
}
