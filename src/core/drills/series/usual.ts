/** What one expects of a photographer before a drill. */
import { focusSd } from '../../call/scatter';
import type { Habits } from '../../habits/habits';
import type { Body } from '../../kit/schema';
import { magnification } from '../../optics/thinLens';
import type { Camera } from '../../setup/schema';

type Stance = Camera['stance'];

/** Nobody is expected to be steadier than this: a tripod's share is nought, and of nought nothing can be learned (chosen). */
const leastShare = 0.02;

/** How autofocus scatters at a distance, mm. */
export function usualFocusMm(habits: Habits, body: Body, focalLengthMm: number, distanceMm: number): number {
  const behind = focusSd(habits, { method: 'crossPoint', stance: 'standing', widestN: 1, body, lowLight: 1 });
  return behind / magnification(focalLengthMm, distanceMm) ** 2;
}

/** The share of shake one expects, less what a stabiliser takes, stops. */
export const usualShare = ({ shakeShare }: Habits, stance: Stance, stabiliserStops: number): number =>
  Math.max(leastShare, shakeShare[stance]) * 2 ** -stabiliserStops;
