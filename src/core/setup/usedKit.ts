/** All that a setup holds: as it is planned, and as it turned out. */
import type { CameraKit } from '../kit/cameraKit';
import type { Setup } from './schema';

export function usedKitOf({ camera, taken }: Pick<Setup, 'camera' | 'taken'>): CameraKit[] {
  const { lens } = taken.different;
  return lens ? [camera, { ...camera, ...lens }] : [camera];
}
