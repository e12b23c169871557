/** A fix as something that turned out different: what one does oneself, standing elsewhere or changing the lens. */
import type { Remedy } from '../call/remedies/remedy';
import type { Different } from '../setup/schedule';

/** What is different once it has been done; null for what others have to do. */
export function asDifferent({ kind, setup: { camera } }: Remedy, different: Different): Different | null {
  switch (kind) {
    case 'stepBack':
    case 'stepCloser':
      return camera.placement.kind === 'distance' ? { ...different, distanceMm: camera.placement.distanceMm } : null;
    case 'changeLens':
    case 'widerFromHere': {
      const { lensId, adapterIds, focalLengthMm, placement } = camera;
      const distanceMm = placement.kind === 'distance' ? placement.distanceMm : null;
      return { ...different, lens: { lensId, adapterIds, focalLengthMm }, distanceMm };
    }
    default:
      return null;
  }
}
