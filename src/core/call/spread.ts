/** How far from the target the plane of focus lands, and how far people drift, by the photographer's habits. */
import type { Habits } from '../habits/habits';
import type { Body } from '../kit/schema';
import { formatDisc } from '../optics/criterion';
import type { Camera, Person } from '../setup/schema';

/**
 * σ_af = κ N_open C_ref / m², mm. A body whose own spread is known, in µm behind the lens, has that in place of
 * κ N_open C_ref for the points it was measured with; lesser points are worse in the proportion the habits say.
 */
export function autofocusSpread(
  habits: Habits,
  method: Camera['focusMethod'],
  widestN: number,
  body: Body,
  m: number
): number {
  const { focusShare } = habits;
  const own = method === 'crossPoint' || method === 'ordinaryPoint' ? body.focusSpreadUm : null;
  const behind =
    own === null || focusShare.crossPoint === 0
      ? focusShare[method] * widestN * formatDisc(body.sensor)
      : (own / 1000) * (focusShare[method] / focusShare.crossPoint);
  return behind / (m * m);
}

/** Photographer's sway between focusing and release, mm: grows with the square root of time. */
export function holdSpread(habits: Habits, stance: Camera['stance'], seconds: number): number {
  return habits.holdMm[stance] * Math.sqrt(Math.min(seconds, habits.swayGrowsForS));
}

/** Somebody's sway along the axis, mm: their own where it is known. */
export function swayOf({ swayMm }: Habits, person: Person): number {
  if (person.swayMm !== null) return person.swayMm;
  if (person.being === 'adult') return swayMm[person.posture];
  return person.being === 'pet' ? swayMm.pet : swayMm.child;
}
