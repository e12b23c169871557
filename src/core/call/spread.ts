/** How far from the target the plane of focus lands, and how far people drift, by the photographer's habits. */
import type { Habits } from '../habits/habits';
import type { Body } from '../kit/schema';
import { formatDisc } from '../optics/criterion';
import type { Camera, Person } from '../setup/schema';

/** σ_af = κ N_open C_ref / m², mm. */
export function autofocusSpread(
  habits: Habits,
  method: Camera['focusMethod'],
  widestN: number,
  body: Body,
  m: number
): number {
  return (habits.focusShare[method] * widestN * formatDisc(body.sensor)) / (m * m);
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
