/** How far from the target the plane of focus lands, and how far people drift. All figures from memory, editable. */
import { formatDisc } from '../optics/criterion';
import type { Body, Camera, Person } from '../setup/schema';

/** Low light multiplies the focus spread by this. */
export const lowLightFactor = 2;

/** Focus spread as a share of the depth of focus wide open. */
export const focusShare: Readonly<Record<Camera['focusMethod'], number>> = {
  crossPoint: 1 / 6,
  ordinaryPoint: 1 / 3,
  magnifier: 1 / 4,
  byEye: 1
};

/** Photographer's fore-and-aft sway after one second, mm. */
export const holdAtOneSecond: Readonly<Record<Camera['stance'], number>> = {
  standing: 8,
  braced: 5,
  kneeling: 4,
  monopod: 3,
  tripod: 0.5
};

/** Sway stops growing after so many seconds. */
export const swayGrowsForSeconds = 3;

/** Person's sway along the axis, mm. */
export const personSway = { standing: 5, seated: 3, embracing: 3, child: 20, pet: 25 } as const;

/** σ_af = κ N_open C_ref / m², mm. */
export function autofocusSpread(method: Camera['focusMethod'], widestN: number, body: Body, m: number): number {
  return (focusShare[method] * widestN * formatDisc(body.sensor)) / (m * m);
}

/** Photographer's sway between focusing and release, mm: grows with the square root of time. */
export function holdSpread(stance: Camera['stance'], seconds: number): number {
  return holdAtOneSecond[stance] * Math.sqrt(Math.min(seconds, swayGrowsForSeconds));
}

export function swayOf(person: Person): number {
  if (person.being === 'adult') return personSway[person.posture];
  return person.being === 'pet' ? personSway.pet : personSway.child;
}
