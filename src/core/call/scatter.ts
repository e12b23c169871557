/** How far from the target the plane of focus lands, and how far people drift, by the photographer's habits. */
import { minIndex } from 'd3-array';
import type { Habits, OwnFocus } from '../habits/habits';
import type { Body } from '../kit/schema';
import { formatDisc, traditionalDiscMm } from '../optics/criterion';
import { alongStops } from '../optics/stops';
import type { Camera, Person } from '../setup/schema';

/**
 * What low light makes of the autofocus spread: nothing from `lowLightFromEv` up, `lowLightFactor` at the light the body
 * is rated for, in a straight line between and beyond. `ev100` is null when the light is not known.
 */
export function lowLightOf(
  { lowLightFromEv, lowLightFactor }: Habits,
  { focusLimitEv }: Pick<Body, 'focusLimitEv'>,
  ev100: number | null
): number {
  if (ev100 === null || ev100 >= lowLightFromEv) return 1;
  const range = Math.max(1, lowLightFromEv - focusLimitEv);
  return 1 + ((lowLightFactor - 1) * (lowLightFromEv - ev100)) / range;
}

/** Whether the lens is focused by hand, which it can be on any place, also where nothing is. */
export const isByHand = (method: Camera['focusMethod']): method is 'magnifier' | 'byEye' | 'scale' =>
  method === 'magnifier' || method === 'byEye' || method === 'scale';

/** What has been measured of this kit, focused so, at the nearest focal length that was; null where nothing has. */
export function ownFocus({ own }: Habits, kit: OwnKey, focalLengthMm: number): OwnFocus | null {
  const away = (item: OwnFocus) => Math.abs(Math.log((item.focalLengthMm ?? focalLengthMm) / focalLengthMm));
  const all = own.filter((item) => sameKit(item, kit));
  return all[minIndex(all, away)] ?? null;
}

/**
 * How far stopping down has been measured to move the plane, µm on the sensor, positive behind: none at the widest stop measured, in
 * proportion to the stops between two, and as at the last beyond.
 */
export function stopShiftAt(shift: OwnFocus['stopShift'], widestN: number, N: number): number {
  if (shift.length === 0) return 0;
  const narrower = shift.filter(({ fNumber }) => fNumber > widestN);
  return alongStops(
    [{ fNumber: widestN, value: 0 }, ...narrower.map(({ fNumber, um }) => ({ fNumber, value: um }))],
    N
  );
}

/** What a measured figure is of. */
export type OwnKey = Pick<OwnFocus, 'bodyId' | 'lensId' | 'method' | 'recomposed'>;

export const sameKit = (a: OwnKey, b: OwnKey): boolean =>
  a.bodyId === b.bodyId && a.lensId === b.lensId && a.method === b.method && a.recomposed === b.recomposed;

/** By what the lens is focused, and in what light. */
export interface Focusing {
  readonly method: Camera['focusMethod'];
  readonly stance: Camera['stance'];
  readonly widestN: number;
  readonly body: Body;
  /** What low light makes of autofocus. */
  readonly lowLight: number;
}

/**
 * Spread of the focus behind the lens, mm: a body's autofocus has one of its own, else the habits', in proportion to the
 * format, whatever the lens; lesser points are worse in the proportion the habits say. By hand it is a share of the depth of focus wide open,
 * κ N_open C_ref, which is what the eye sees; by the scale it is a share of the distance (focus.ts), and nothing is counted here.
 */
export function focusSd(habits: Habits, { method, stance, widestN, body, lowLight }: Focusing): number {
  const { focusShare, focusSpreadUm } = habits;
  if (method === 'scale') return 0;
  if (isByHand(method)) {
    const steady = method === 'magnifier' && stance === 'tripod' ? 'magnifierOnTripod' : method;
    return focusShare[steady] * widestN * formatDisc(body.sensor);
  }
  const own = body.focusSpreadUm;
  const usual = focusSpreadUm[method] * (formatDisc(body.sensor) / traditionalDiscMm);
  const um =
    own === null || focusSpreadUm.crossPoint === 0 ? usual : (own * focusSpreadUm[method]) / focusSpreadUm.crossPoint;
  return (um / 1000) * lowLight;
}

/** Photographer's sway between focusing and release, mm: grows with the square root of time. */
export function holdSd(habits: Habits, stance: Camera['stance'], seconds: number): number {
  return habits.holdMm[stance] * Math.sqrt(Math.min(seconds, habits.swayGrowsForS));
}

/** Somebody's sway along the axis after one second, mm: their own where it is known, more when they do not keep still. */
export function personSway(habits: Habits, person: Person): number {
  return (person.swayMm ?? usualSway(habits, person)) * moodFactor(habits, person);
}

/** What is usual for somebody like them, keeping still. */
export function usualSway({ swayMm }: Habits, { being, posture }: Pick<Person, 'being' | 'posture'>): number {
  return being === 'adult' ? swayMm[posture] : being === 'pet' ? swayMm.pet : swayMm.child;
}

/** What not keeping still makes of a sway. */
export const moodFactor = ({ restlessFactor, livelyFactor }: Habits, { mood }: Pick<Person, 'mood'>): number =>
  ({ still: 1, restless: restlessFactor, lively: livelyFactor })[mood];

/** A sway after one second as one after so many: with the square root of time, up to where it stops growing. */
export function swayAfter({ swayGrowsForS }: Habits, swayMm: number, seconds: number): number {
  return swayMm * Math.sqrt(Math.min(seconds, swayGrowsForS));
}
