/** Blur from movement while the shutter is open, and shift of the plane from movement before it opens. */
import type { Habits } from '../habits/habits';
import { traditionalDiscMm } from '../optics/criterion';
import { motionDisc } from '../optics/sharpness';
import type { Body, Lens } from '../kit/schema';
import type { Camera, Person } from '../setup/schema';
import { flashFreezesStops, type LightAtStop } from './light';

/** Stops the stabilisers of body and lens give: the better of the two (from memory; together they may give more). */
export function stabiliserStops(body: Body, lens: Lens): number {
  return Math.max(body.stabiliserStops, lens.stabiliserStops);
}

/**
 * Camera shake's equivalent disc on the sensor, mm: at 1/focal length (full-frame equivalent) a steady photographer just
 * reaches the traditional disc (common practice); in proportion to the time, halved by each stop of stabiliser.
 */
export function shakeDisc(habits: Habits, camera: Camera, stabiliserStops: number, shutterS: number): number {
  // The format's disc times its crop factor is the full-frame disc.
  return traditionalDiscMm * shutterS * camera.focalLengthMm * habits.shakeShare[camera.stance] * 2 ** -stabiliserStops;
}

/** Subject motion's equivalent disc on the sensor, mm: 1.17 × speed × time × magnification. */
export function subjectMotionDisc(acrossMmPerS: number, shutterS: number, m: number): number {
  return motionDisc(acrossMmPerS * shutterS * m);
}

/** Whether the flash stands alone, so that the shutter time no longer shows. */
export function frozenByFlash(light: LightAtStop): boolean {
  return light.flash !== null && (light.flash.ambientUnderStops ?? Infinity) >= flashFreezesStops;
}

/** How far a person comes nearer between focusing and release, mm; a body in continuous focusing follows but for its lag. */
export function approach({ continuousLagS }: Habits, person: Person, camera: Camera): number {
  return person.towardsMmPerS * (camera.focusMode === 'continuous' ? continuousLagS : camera.secondsToShutter);
}

/** The plane ends up (s + r)(1 − cos θ) behind a target θ off the axis when the camera is turned about a point r behind the pupil. */
export function recomposeBias(focusMm: number, angle: number, pivotBehindMm: number): number {
  return (focusMm + pivotBehindMm) * (1 - Math.cos(angle));
}
