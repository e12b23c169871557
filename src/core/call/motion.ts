/** Blur from movement while the shutter is open, and shift of the plane from movement before it opens. */
import type { Habits } from '../habits/habits';
import { traditionalDiscMm } from '../optics/criterion';
import { motionDisc } from '../optics/sharpness';
import type { Body, Lens } from '../kit/schema';
import type { Vector } from '../maths/vector';
import { surfaceDepth, type FocusSurface } from '../optics/focusSurface';
import type { Camera, Person, Setup } from '../setup/schema';
import { isByHand } from './scatter';
import { flashFreezesStops, type LightAtStop, type ShutterFloor } from './light';

/**
 * Stops the stabilisers of body and lens give: the better of the two (together they may give more), less what a rating
 * promises and a hand does not reach. From memory.
 */
export function stabiliserStops({ stabiliserLossStops }: Habits, body: Body, lens: Lens): number {
  return Math.max(0, Math.max(body.stabiliserStops, lens.stabiliserStops) - stabiliserLossStops);
}

/**
 * Camera shake's equivalent disc on the sensor, mm: at 1/focal length (full-frame equivalent) a share of the traditional
 * disc by stance; in proportion to the time, halved by each stop of stabiliser. All from memory.
 */
export function shakeDisc(
  habits: Pick<Habits, 'shakeShare'>,
  camera: Pick<Camera, 'focalLengthMm' | 'stance'>,
  stabiliserStops: number,
  shutterS: number
): number {
  // The format's disc times its crop factor is the full-frame disc.
  return traditionalDiscMm * shutterS * camera.focalLengthMm * habits.shakeShare[camera.stance] * 2 ** -stabiliserStops;
}

/** How many times longer than standing without a stabiliser the camera is held as still, 1 or more. */
export function steadiness({ shakeShare }: Habits, { stance }: Camera, stabiliserStops: number): number {
  const byStance = shakeShare[stance] === 0 ? 1 : shakeShare.standing / shakeShare[stance];
  return Math.max(1, byStance * 2 ** stabiliserStops);
}

/** Subject motion's equivalent disc on the sensor, mm: 1.17 × speed × time × magnification. */
export function subjectMotionDisc(acrossMmPerS: number, shutterS: number, m: number): number {
  return motionDisc(acrossMmPerS * shutterS * m);
}

/** Whether the flash stands alone, so that the shutter time no longer shows. */
export function frozenByFlash(light: LightAtStop): boolean {
  return light.flash !== null && (light.flash.ambientUnderStops ?? Infinity) >= flashFreezesStops;
}

/**
 * Whether the body follows somebody up to the shutter. The small sway of those who keep still lies within what continuous
 * focusing lets pass, so there it is no better than single, and restless besides (common practice, no source).
 */
export const follows = (
  { focusMode, focusMethod }: Pick<Camera, 'focusMode' | 'focusMethod'>,
  somebodyMoves: boolean
): boolean => focusMode !== 'single' && !isByHand(focusMethod) && somebodyMoves;

/** From the focus being found to the shutter opening, seconds: as set, and what coming back from a magnified view or turning takes. */
export function focusedForS(
  { magnifiedS, turnS }: Pick<Habits, 'magnifiedS' | 'turnS'>,
  { secondsToShutter, focusMethod, recompose }: Pick<Camera, 'secondsToShutter' | 'focusMethod' | 'recompose'>
): number {
  if (focusMethod === 'magnifier') return secondsToShutter + magnifiedS;
  return secondsToShutter + (recompose === 'none' || isByHand(focusMethod) ? 0 : turnS);
}

/** Whether anybody goes somewhere, plays or dances. */
export const somebodyMoves = ({ people }: Pick<Setup, 'people'>): boolean =>
  people.some((person) => person.towardsMmPerS !== 0 || person.acrossMmPerS !== 0 || person.mood === 'lively');

/**
 * Time people have to move in between the focus being found and the shutter opening, seconds: where the body follows them,
 * its lag.
 */
export function unfollowedS(habits: Habits, camera: Camera, moves: boolean): number {
  const { continuousLagS, automaticLagS } = habits;
  if (!follows(camera, moves)) return focusedForS(habits, camera);
  return camera.focusMode === 'continuous' ? continuousLagS : Math.min(automaticLagS, camera.secondsToShutter);
}

/** How unevenly a body follows somebody who comes or goes, as one standard deviation along the axis, mm. */
export function followSd({ lagSpreadS }: Habits, { towardsMmPerS }: Person, camera: Camera): number {
  return follows(camera, towardsMmPerS !== 0) ? Math.abs(towardsMmPerS) * lagSpreadS : 0;
}

/** How far a person comes nearer between focusing and release, mm; a body in continuous focusing follows but for its lag. */
export function approach(habits: Habits, person: Person, camera: Camera): number {
  return person.towardsMmPerS * unfollowedS(habits, camera, person.towardsMmPerS !== 0);
}

/**
 * Shift of the surface of focus, mm behind the target, when the camera focuses on it in the middle of the frame and is then
 * turned about a pivot r behind the pupil. `target` is where the target lies in the final picture, camera coordinates. The
 * distance found is hypot(x, y, z + r) − r; the surface then lies at that depth while the target lies as deep as the surface counts it: a flat
 * one behind it by hypot(x, y, z + r) − (z + r), never negative, a curved one by hypot(x, y, z + r) − r − hypot(x, y, z), never positive.
 * (Closed form, from the triangle pivot, pupil, target.)
 */
export function recomposeShift(target: Vector, pivotBehindMm: number, surface: FocusSurface): number {
  const { x, y, z } = target;
  return Math.hypot(x, y, z + pivotBehindMm) - pivotBehindMm - surfaceDepth(surface, target);
}

interface Stilled {
  readonly habits: Habits;
  readonly camera: Camera;
  /** Stops the stabiliser really gives. */
  readonly stabiliser: number;
  /** Permissible disc, mm. */
  readonly C: number;
}

/**
 * The longest shutter time that leaves shake, and the movement of whoever must be sharp, no more than their share of the
 * circle of confusion; null when neither is there.
 */
export function stillFor(
  { habits, camera, stabiliser, C }: Stilled,
  moving: readonly { readonly across: number; readonly m: number }[]
): ShutterFloor | null {
  const allowed = habits.shakeAtMost * C;
  const perSecond = shakeDisc(habits, camera, stabiliser, 1);
  const limits: ShutterFloor[] = perSecond > 0 ? [{ rule: 'shake', shutterS: allowed / perSecond }] : [];
  for (const { across, m } of moving) {
    if (across !== 0) limits.push({ rule: 'movement', shutterS: allowed / subjectMotionDisc(across, 1, m) });
  }
  return limits.reduce<ShutterFloor | null>(
    (least, item) => (least && least.shutterS <= item.shutterS ? least : item),
    null
  );
}
