/** What an arrow key does on the Floor, and where a drag comes to rest. */

/** Step of an arrow key, mm, and with Shift. */
const stepMm = 20;
const bigStepMm = 200;
const turnStepDeg = 5;

/** Drags rest on whole steps unless Shift asks for fine work. */
const gridMm = 20;

export interface Nudge {
  readonly depthMm: number;
  readonly lateralMm: number;
  readonly turnDeg: number;
}

/** Left and right go to and from the lens, up and down across; comma and full stop turn. Takes the key if it is one. */
export function nudge(event: KeyboardEvent): Nudge | null {
  if (event.ctrlKey || event.metaKey || event.altKey) return null;
  const step = event.shiftKey ? bigStepMm : stepMm;
  const moves: Readonly<Record<string, Partial<Nudge>>> = {
    ArrowLeft: { depthMm: -step },
    ArrowRight: { depthMm: step },
    ArrowUp: { lateralMm: -step },
    ArrowDown: { lateralMm: step },
    ',': { turnDeg: -turnStepDeg },
    '.': { turnDeg: turnStepDeg }
  };
  const move = moves[event.key];
  if (!move) return null;
  event.preventDefault();
  event.stopPropagation();
  return { depthMm: 0, lateralMm: 0, turnDeg: 0, ...move };
}

export function snapMm(mm: number, fine: boolean): number {
  const grid = fine ? 1 : gridMm;
  return Math.round(mm / grid) * grid;
}

/** Angle brought into −180 to 180, to whole degrees, to fives unless fine. */
export function snapDeg(degrees: number, fine: boolean): number {
  const step = fine ? 1 : 5;
  const turned = ((((degrees + 180) % 360) + 360) % 360) - 180;
  return Math.round(turned / step) * step;
}
