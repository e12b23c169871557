/** How much nearer or further heads came since the frame before: larger eyes are nearer ones. */
import { eyesPx } from './eyes';
import type { Frame } from './schema';

export interface HeadChange {
  readonly personId: string;
  /** mm; positive is further from the lens. */
  readonly mm: number;
  readonly sdMm: number;
}

/** Each iris is found to about so many pixels (docs/model.md, section 12). */
const irisPx = 1.5;
/** Beyond this turn the eyes tell too little, degrees; a turn is read to about five. */
const mostTurnDeg = 35;
const turnDeg = 5;
const rad = (degrees: number): number => (degrees * Math.PI) / 180;

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
    const straight = ({ left, right, yawDeg }: typeof face) => eyesPx({ left, right }) / Math.cos(rad(yawDeg));
    const turned = ({ yawDeg }: typeof face) => Math.tan(rad(Math.abs(yawDeg))) * rad(turnDeg);
    const relative = Math.hypot(
      (irisPx * Math.SQRT2) / eyesPx(face),
      (irisPx * Math.SQRT2) / eyesPx(other),
      turned(face),
      turned(other)
    );
    return [{ personId, mm: depth * (straight(other) / straight(face) - 1), sdMm: depth * relative }];
  });
}
