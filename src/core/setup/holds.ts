/** All that a setup holds: as it is planned, and as it turned out. */
import type { Holds } from '../kit/between';
import type { Setup } from './schema';

export function holdsOf({ camera, taken }: Pick<Setup, 'camera' | 'taken'>): Holds[] {
  const { lens } = taken.different;
  return lens ? [camera, { ...camera, ...lens }] : [camera];
}
