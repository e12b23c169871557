/** What a flash does when stop or distance change, and what the room's light does meanwhile. */
import type { StopPlan } from '../call/plan';
import { ev100 } from '../optics/exposure';
import { stopsBetween } from '../optics/stops';
import type { Body } from '../kit/schema';
import { lightBehindFilter } from '../call/light';
import type { Setup } from '../setup/schema';

/** So many stops under middle grey a frame is black (common practice, no source). */
const blackStops = 5;

/** The distance another place of the flash is spoken of at, over the one it has. */
const furtherBy = 1.5;

export interface FlashFacts {
  /** Share of full power now, and one stop narrower. */
  readonly power: number;
  readonly narrower: number;
  /** Half as far away again: where that is, mm, and the stops of power more (as the aperture, by the inverse square). */
  readonly fromMm: number;
  readonly furtherMm: number;
  readonly furtherStops: number;
  /** A frame without the flash at these settings: so many stops too dark; null where the light is not known. */
  readonly withoutStops: number | null;
  /** Stops more that turn the room black; 0 when it is, null where the light is not known. */
  readonly toBlackStops: number | null;
}

/** Null without a flash. */
export function flashFacts(setup: Setup, body: Body, entry: StopPlan): FlashFacts | null {
  const { flash } = setup.light;
  if (!flash || !entry.light.flash) return null;
  const level = lightBehindFilter(setup);
  const { shutterS, iso } = entry.light;
  const needed = ev100(entry.stop.fNumber, shutterS, iso ?? body.baseIso);
  const withoutStops = level === null ? null : needed - level;
  const { power } = entry.light.flash;
  return {
    power,
    narrower: power * 2,
    fromMm: flash.distanceMm,
    furtherMm: flash.distanceMm * furtherBy,
    furtherStops: stopsBetween(1, furtherBy),
    withoutStops,
    toBlackStops: withoutStops === null ? null : Math.max(0, blackStops - withoutStops)
  };
}
