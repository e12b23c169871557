/**
 * Focus with the centre point, then turn: what turning costs in this picture about each pivot, what leaning costs, and from
 * which stop on it is safe.
 */
import type { PlanInput } from '../call/planInput';
import { stopsOf } from '../call/planSetup';
import { degrees } from '../maths/vector';
import type { Stop } from '../optics/stops';
import { toCamera } from '../setup/scene';
import type { Camera } from '../setup/schema';
import { surfacesIn, type SeenSurface } from '../setup/lineOfSight';
import { pointBox } from '../setup/focusArea';
import { withCamera } from '../setup/moves';
import { evaluateAt } from './evaluateAt';

type Pivot = 'wrists' | 'shoulders' | 'waist';
const pivots: readonly Pivot[] = ['wrists', 'shoulders', 'waist'];

interface Turned {
  /** Shift of the plane, mm behind the target. */
  readonly shiftMm: number;
  readonly planeMm: number;
  readonly odds: number;
}

export interface Recomposing {
  /** From the middle of the picture to the target, degrees. */
  readonly turnDeg: number;
  /** With the point moved onto the target instead. */
  readonly moved: number;
  readonly byPivot: readonly (Turned & { readonly pivot: Pivot })[];
  readonly leaning: Turned;
  /** First stops from which turning at the wrists, and leaning, hold the faces; null where none does. */
  readonly safeFrom: string | null;
  readonly leaningSafeFrom: string | null;
  /** What lies under the centre point in the final picture: what is focused on when the button is let go. */
  readonly refocus: SeenSurface | null;
}

/** A smaller turn is none, degrees. */
const leastDeg = 0.3;

/** Null where the target lies in the middle, or the focus is set to a distance. */
export function recomposing(input: PlanInput, stop: Stop): Recomposing | null {
  const { setup } = input;
  const by = (recompose: Camera['recompose'], at = stop) =>
    evaluateAt(input, withCamera(setup, { recompose, focusArea: 'point' }), at);
  const now = by('none');
  const position = now?.entry.target.position;
  if (!now || !position) return null;
  const { situation, entry } = now;
  const local = toCamera(situation.view, position);
  const turnDeg = degrees(Math.atan2(Math.hypot(local.x, local.y), local.z));
  if (turnDeg < leastDeg) return null;
  const turned = (recompose: Camera['recompose']): Turned => {
    const tried = by(recompose);
    const found = tried?.entry.target.recomposed;
    return {
      shiftMm: (found?.turnMm ?? 0) + (found?.leanMm ?? 0),
      planeMm: tried?.entry.planeMm ?? entry.planeMm,
      odds: tried?.entry.odds ?? 0
    };
  };
  const safe = (recompose: Camera['recompose']): string | null =>
    stopsOf(situation.lens, input.stopStep).find((item) => by(recompose, item)?.entry.facesHold)?.label ?? null;
  const centre = pointBox({ body: situation.body, camera: setup.camera }, { x: 0.5, y: 0.5 });
  return {
    turnDeg,
    moved: entry.odds,
    byPivot: pivots.map((pivot) => ({ pivot, ...turned(pivot) })),
    leaning: turned('leaning'),
    safeFrom: safe('wrists'),
    leaningSafeFrom: safe('leaning'),
    refocus: surfacesIn(situation.lineOfSight(), centre, 5, 5)[0] ?? null
  };
}
