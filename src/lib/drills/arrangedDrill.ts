/** A drill laid out for a body and a lens. */
import { stabiliserStops } from '$core/call/motion';
import { arrangedFor, type Arranged, type KitLimits } from '$core/drills/definitions';
import type { DrillId } from '$core/drills/ids';
import type { Habits } from '$core/habits/habits';
import { mountedLens } from '$core/kit/mounted';
import type { Body, Lens } from '$core/kit/schema';
import { formatDisc } from '$core/optics/criterion';
import { focusFromSensor } from '$core/optics/thinLens';

export interface LaidOut {
  readonly kit: KitLimits;
  readonly discMm: number;
  /** What holds the picture still, stops. */
  readonly stops: number;
  readonly arranged: Arranged | null;
}

/** At the long end of a zoom. */
export function laidOut(drill: DrillId, body: Body, lens: Lens, habits: Habits): LaidOut {
  const f = lens.longestMm;
  const atLong = mountedLens(lens, [], f);
  const [discMm, stops] = [formatDisc(body.sensor), stabiliserStops(habits, body, lens)];
  const kit: KitLimits = {
    ...{ focalLengthMm: f, discMm, stabilised: stops > 0 },
    ...{ widestFNumber: atLong.widestFNumber, smallestFNumber: atLong.smallestFNumber },
    closestMm: focusFromSensor(f, lens.closestFocusMm, lens.pupilMagnification)
  };
  return { kit, discMm, stops, arranged: arrangedFor(drill, kit) };
}
