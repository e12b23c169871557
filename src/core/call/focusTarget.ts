/** From a target the core found to the wish that asks for it. */
import type { Target } from './plan';
import type { Intent, Setup } from '../setup/schema';

/**
 * The focus target, as a wish in the setup, that a found target stands for: the eye, or the thing, or else (a chin, an
 * ear, a plain distance) the distance, rounded to 1 mm.
 */
export function asFocusTarget({ subjectId, feature, focusDistanceMm }: Target, setup: Setup): Intent['target'] {
  if (subjectId !== null) {
    if (feature === 'leftEye' || feature === 'rightEye') return { kind: 'eye', personId: subjectId, eye: feature };
    if (setup.things.some((thing) => thing.id === subjectId)) return { kind: 'thing', thingId: subjectId };
  }
  return { kind: 'distance', distanceMm: Math.round(focusDistanceMm) };
}
