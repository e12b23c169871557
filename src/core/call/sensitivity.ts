/** How much the answer moves when the distance is not what it was taken to be. */
import { apertureValue } from '../optics/stops';
import type { Setup } from '../setup/schema';
import { isSharpInPrintOnly } from './inPrint';
import type { StopPlan } from './plan';
import type { PlanInput } from './planInput';
import { planSetup } from './planSetup';

/** A distance judged by eye is easily out by this share (common practice, no source). */
export const distanceErrorShare = 0.1;

/** From this many stops' difference on, or when the stop no longer holds the faces, measuring matters. */
const mattersFromStops = 0.9;

interface DistanceCase {
  readonly distanceMm: number;
  /** The stop the call would pick there; null when there is no plan. */
  readonly stop: string | null;
  /** Its difference from the call in stops. */
  readonly stops: number;
  /** Odds there with the stop picked here. */
  readonly oddsWithThisStop: number;
}

export interface DistanceSensitivity {
  readonly nearer: DistanceCase;
  readonly further: DistanceCase;
  readonly measuringMatters: boolean;
}

/** Plans the setup again 10% nearer and further. Null when it cannot be planned as it is. */
export function distanceSensitivity(input: PlanInput): DistanceSensitivity | null {
  const { setup } = input;
  const free: Setup = { ...setup, intent: { ...setup.intent, stop: { kind: 'byStyle' } } };
  const here = planSetup({ ...input, setup: free });
  if (here.kind === 'noPlan') return null;
  const chosen = here.stops[here.recommended];
  // Where only a print is sharp, its rate is what counts.
  const inPrint = isSharpInPrintOnly(here);
  const rateAt = (entry: StopPlan | undefined, moved: Setup): number => {
    if (!inPrint || !entry) return entry?.oddsOnTarget ?? 0;
    const kept: Setup['intent'] = { ...moved.intent, stop: { kind: 'chosen', fNumber: entry.stop.fNumber } };
    const there = planSetup({ ...input, setup: { ...moved, intent: kept } });
    return there.kind === 'plan' ? (there.inPrint?.odds ?? 0) : 0;
  };
  const at = (share: number): DistanceCase => {
    const distanceMm = here.distanceMm * share;
    const camera: Setup['camera'] = { ...free.camera, placement: { kind: 'distance', distanceMm } };
    const moved = { ...free, camera };
    const there = planSetup({ ...input, setup: moved });
    if (there.kind === 'noPlan') return { distanceMm, stop: null, stops: 0, oddsWithThisStop: 0 };
    const picked = there.stops[there.recommended]?.stop;
    const same = there.stops[here.recommended];
    return {
      distanceMm,
      stop: picked?.label ?? null,
      stops: apertureValue(picked?.fNumber ?? 1) - apertureValue(chosen?.stop.fNumber ?? 1),
      oddsWithThisStop: rateAt(same, moved)
    };
  };
  const nearer = at(1 - distanceErrorShare);
  const further = at(1 + distanceErrorShare);
  const holds = inPrint || (chosen?.oddsOnTarget ?? 0) >= here.oddsWanted;
  const measuringMatters = [nearer, further].some(
    (item) =>
      item.stop === null ||
      Math.abs(item.stops) >= mattersFromStops ||
      (holds && item.oddsWithThisStop < here.oddsWanted)
  );
  return { nearer, further, measuringMatters };
}
