/** What a flash does when stop or distance change, and what the room's light does meanwhile. */
import type { StopPlan } from '../call/plan';
import { ev100 } from '../optics/exposure';
import type { Body } from '../kit/schema';
import { lightLevel } from '../call/light';
import type { Setup } from '../setup/schema';

/** So many stops under middle grey a frame is black (common practice, no source). */
const blackStops = 5;

export interface FlashFacts {
  /** Stops of power more for the next stop narrower, and for a flash half as far away again. */
  readonly perStop: number;
  readonly perHalfAgain: number;
  /** A frame without the flash at these settings: so many stops too dark; null where the light is not known. */
  readonly withoutStops: number | null;
  /** Stops more that turn the room black; 0 when it is. */
  readonly toBlackStops: number | null;
  /** A modelling light is seen in the frame when it is within so many stops of the flash; here the room is. */
  readonly roomShows: boolean;
}

/** Stops between two f-numbers or two distances: 2 log2 of their ratio (inverse square law). */
export const stopsOfRatio = (ratio: number): number => 2 * Math.log2(ratio);

/** Null without a flash. */
export function flashFacts(setup: Setup, body: Body, entry: StopPlan): FlashFacts | null {
  const { flash, filterStops } = setup.light;
  if (!flash || !entry.light.flash) return null;
  const level = lightLevel(setup);
  const { shutterS, iso } = entry.light;
  const needed = ev100(entry.stop.fNumber, shutterS, iso ?? body.baseIso) + filterStops;
  const withoutStops = level === null ? null : needed - level;
  return {
    perStop: stopsOfRatio(Math.SQRT2),
    perHalfAgain: stopsOfRatio(1.5),
    withoutStops,
    toBlackStops: withoutStops === null ? null : Math.max(0, blackStops - withoutStops),
    roomShows: withoutStops !== null && withoutStops < blackStops
  };
}
