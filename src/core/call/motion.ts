/** Blur from movement while the shutter is open, and shift of the plane from movement before it opens. */
import { traditionalDiscMm } from '../optics/criterion';
import { motionDisc } from '../optics/sharpness';
import type { Body, Camera, Person } from '../setup/schema';
import { flashFreezesStops, type LightAtStop } from './light';

/** Share of the 1/focal-length shake each stance leaves (from memory). */
export const shakeShare: Readonly<Record<Camera['stance'], number>> = {
  standing: 1,
  braced: 0.5,
  kneeling: 0.5,
  monopod: 0.25,
  tripod: 0
};

/** Seconds by which a body in continuous focusing trails a steady movement (from memory). */
export const continuousLagS = 0.05;

/** Pivot of a turn after focusing with the centre point, mm behind the pupil (from memory). */
export const pivotMm: Readonly<Record<Exclude<Camera['recompose'], 'none'>, number>> = {
  wrists: 120,
  shoulders: 250,
  waist: 600
};

/**
 * Camera shake's equivalent disc on the sensor, mm: at 1/focal length (full-frame equivalent) a steady photographer just
 * reaches the traditional disc (common practice); in proportion to the time, halved by each stop of stabiliser.
 */
export function shakeDisc(camera: Camera, body: Body, shutterS: number): number {
  // The format's disc times its crop factor is the full-frame disc.
  return traditionalDiscMm * shutterS * camera.focalLengthMm * shakeShare[camera.stance] * 2 ** -body.stabiliserStops;
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
export function approach(person: Person, camera: Camera): number {
  return person.towardsMmPerS * (camera.focusMode === 'continuous' ? continuousLagS : camera.secondsToShutter);
}

/** The plane ends up (s + r)(1 − cos θ) behind a target θ off the axis when the camera is turned about a point r behind the pupil. */
export function recomposeBias(focusMm: number, angle: number, pivotBehindMm: number): number {
  return (focusMm + pivotBehindMm) * (1 - Math.cos(angle));
}
