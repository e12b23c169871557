/** How much nearer or further heads came since the frame before: larger eyes are nearer ones. */
import { straightPx, straightSd } from './distance';
import type { Frame } from './schema';

export interface HeadChange {
  readonly personId: string;
  /** mm; positive is further from the lens. */
  readonly mm: number;
  readonly sdMm: number;
}

/** Beyond this turn the eyes tell too little of a change, degrees (chosen). */
const mostTurnDeg = 35;

/**
 * Of one person in two frames the distance between the eyes is the same, so it needs not be known: s₁/s₀ = e₀/e₁.
 *
 * @param depthOf mm from the lens, as planned
 */
export function headChanges(
  now: Pick<Frame, 'faces' | 'widthPx' | 'focalLengthMm'>,
  before: Pick<Frame, 'faces' | 'widthPx' | 'focalLengthMm'>,
  depthOf: (personId: string) => number | undefined
): HeadChange[] {
  // Zoomed, or delivered at another size: nothing can be compared.
  if (now.focalLengthMm !== before.focalLengthMm || now.widthPx !== before.widthPx) return [];
  return now.faces.flatMap((face): HeadChange[] => {
    const { personId } = face;
    const other = personId === null ? undefined : before.faces.find((one) => one.personId === personId);
    const depth = personId === null ? undefined : depthOf(personId);
    if (personId === null || !other || depth === undefined || face.pointed || other.pointed) return [];
    if (Math.max(Math.abs(face.yawDeg), Math.abs(other.yawDeg)) > mostTurnDeg) return [];
    const relative = Math.hypot(straightSd(face), straightSd(other));
    return [{ personId, mm: depth * (straightPx(other) / straightPx(face) - 1), sdMm: depth * relative }];
  });
}
