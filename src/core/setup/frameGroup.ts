/** Standing and pointing so that everybody is in the picture. */
import type { Body } from '../kit/schema';
import { cameraDistance } from './framing';
import { aimAtGroup } from './groupFraming';
import type { Camera, Framing, Setup } from './schema';

/** Space left on every side where nothing else was said, as a share of the picture (common practice, no source). */
export const usualMarginShare = 0.08;

/** Where a camera stands and points so that everybody is in the picture. */
export function frameGroup(
  { camera, people }: Pick<Setup, 'camera' | 'people'>,
  body: Body,
  framing: Framing,
  marginShare: number,
  P = 1
): Pick<Camera, 'placement' | 'yawDeg' | 'pitchDeg'> {
  const placement = { kind: 'group', framing, marginShare } as const;
  const changed: Camera = { ...camera, placement };
  const distance = cameraDistance({ camera: changed, people }, body, P);
  return { placement, ...aimAtGroup(people, changed, framing, distance) };
}
