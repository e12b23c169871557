/** A drill laid out for a body and a lens. */
import { stabiliserStops } from '$core/call/motion';
import { arrangedFor } from '$core/drills/kinds';
import { type Arranged } from '$core/drills/series/steps';
import { type KitLimits } from '$core/drills/kinds/kind';
import type { DrillId } from '$core/drills/kinds/ids';
import type { Habits } from '$core/habits/habits';
import { mountedLens } from '$core/kit/mounted';
import type { Body, Lens } from '$core/kit/schema';
import { formatDisc } from '$core/optics/criterion';
import { focusFromSensor } from '$core/optics/thinLens';

export interface ArrangedDrill {
  readonly kit: KitLimits;
  readonly discMm: number;
  /** What holds the picture still, stops. */
  readonly stops: number;
  readonly arranged: Arranged | null;
}

/** At the long end of a zoom. */
export function laidOut(drill: DrillId, body: Body, lens: Lens, habits: Habits): ArrangedDrill {
  const f = lens.longestMm;
  const atLong = mountedLens(lens, [], f);
  const [discMm, stops] = [formatDisc(body.sensor), stabiliserStops(habits, body, lens)];
  const kit: KitLimits = {
    focalLengthMm: f,
    discMm,
    stabilised: stops > 0,
    widestFNumber: atLong.widestFNumber,
    smallestFNumber: atLong.smallestFNumber,
    closestMm: focusFromSensor(f, lens.closestFocusMm, lens.pupilMagnification)
  };
  return { kit, discMm, stops, arranged: arrangedFor(drill, kit) };
}
