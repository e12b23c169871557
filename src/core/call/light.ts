/**
 * Light at one stop: aperture first, then the shutter down to its floor, then ISO up to the body's limit, then more
 * light. With flash: its power, and how far the room's light lies under it.
 */
import { ev100, flashPower, isoFor, shutterFor } from '../optics/exposure';
import { fullFrameDiagonalMm, sensorDiagonal } from '../optics/criterion';
import type { Body } from '../kit/schema';
import type { KnownLight, Setup } from '../setup/schema';

/** EV at ISO 100 by scene. Sun: the published sunny-16 rule (f/16, 1/125 s, ISO 100); the rest from memory. */
const knownLightEv100: Readonly<Record<KnownLight, number>> = {
  sun: 15,
  overcast: 12,
  openShade: 12,
  windowLight: 8,
  brightRoom: 7,
  livingRoom: 5,
  church: 4,
  stringBulbs: 3,
  candles: 2
};

/** At this scene level and below autofocus is taken as twice as uncertain (from memory). */
export const lowLightEv100 = 4;

/** Ambient this many stops under the flash freezes nothing and blurs nothing any more (common practice, no source). */
export const flashFreezesStops = 2;

export type FloorRule = 'focalLength' | 'group' | 'child' | 'moving' | 'tripod';

export interface ShutterFloor {
  readonly shutterS: number;
  /** The strictest rule, the one that applies. */
  readonly rule: FloorRule;
}

export interface LightAtStop {
  readonly shutterS: number;
  readonly floorRule: FloorRule;
  /** The longest time that rule allows. */
  readonly floorS: number;
  /** null when the light is not known. */
  readonly iso: number | null;
  /** Stops too bright at the fastest shutter (with flash: at the sync time); a filter of this strength helps. */
  readonly tooBrightStops: number;
  /** Stops missing at the ISO limit. */
  readonly missingStops: number;
  readonly flash: {
    /** Share of full power, 0 to 1; more means too weak. */
    readonly power: number;
    /** Stops by which the room's light lies under the flash exposure; negative over it; null when not known. */
    readonly ambientUnderStops: number | null;
  } | null;
}

/** How bright it is, EV at ISO 100, or null when nobody has looked. */
export function lightLevel(setup: Setup): number | null {
  const { level } = setup.light;
  switch (level.kind) {
    case 'unknown':
      return null;
    case 'estimated':
      return knownLightEv100[level.as];
    case 'ev':
      return level.ev100;
    case 'metered':
      return ev100(level.fNumber, level.shutterS, level.iso);
  }
}

/** Longest shutter time a tripod is used with before anything else applies, seconds. */
const tripodFloorS = 1 / 15;

/** The strictest shutter rule that applies, and which it is. */
export function shutterFloor(setup: Setup, body: Body): ShutterFloor {
  const { floors } = setup.light;
  const { camera, people } = setup;
  const crop = fullFrameDiagonalMm / sensorDiagonal(body.sensor);
  const rules: ShutterFloor[] = [
    camera.stance === 'tripod'
      ? { rule: 'tripod', shutterS: tripodFloorS }
      : { rule: 'focalLength', shutterS: 1 / (floors.perFocalLength * camera.focalLengthMm * crop) }
  ];
  if (people.length > 2) rules.push({ rule: 'group', shutterS: floors.groupS });
  if (people.some((person) => person.being === 'child' || person.being === 'pet')) {
    rules.push({ rule: 'child', shutterS: floors.childS });
  }
  if (people.some((person) => person.towardsMmPerS !== 0 || person.acrossMmPerS !== 0)) {
    rules.push({ rule: 'moving', shutterS: floors.movingS });
  }
  return rules.reduce((a, b) => (b.shutterS < a.shutterS ? b : a));
}

/** Settings and what they lack at one f-number. */
export function lightAtStop(
  setup: Setup,
  body: Body,
  level: number | null,
  floor: ShutterFloor,
  N: number
): LightAtStop {
  const { flash, filterStops } = setup.light;
  const shared = { floorRule: floor.rule, floorS: floor.shutterS };
  if (flash) return { ...shared, ...flashAtStop(setup, body, level, floor, N) };
  if (level === null) {
    return { ...shared, shutterS: floor.shutterS, iso: null, tooBrightStops: 0, missingStops: 0, flash: null };
  }
  const through = level - filterStops;
  const atBase = shutterFor(through, N, body.baseIso);
  if (atBase <= floor.shutterS) {
    const shutterS = Math.max(atBase, body.fastestShutterS);
    const tooBrightStops = Math.max(0, Math.log2(body.fastestShutterS / atBase));
    return { ...shared, shutterS, iso: body.baseIso, tooBrightStops, missingStops: 0, flash: null };
  }
  const wanted = isoFor(through, N, floor.shutterS);
  const iso = Math.min(wanted, body.isoLimit);
  return {
    ...shared,
    shutterS: floor.shutterS,
    iso,
    tooBrightStops: 0,
    missingStops: Math.max(0, Math.log2(wanted / body.isoLimit)),
    flash: null
  };
}

function flashAtStop(setup: Setup, body: Body, level: number | null, floor: ShutterFloor, N: number) {
  const { flash, filterStops } = setup.light;
  const guideNumberM = flash?.guideNumberM ?? 1;
  // Short enough for the floor, and as short as the room's light asks for, but never shorter than the sync time.
  const forRoom = level === null ? Infinity : shutterFor(level - filterStops, N, body.baseIso);
  const shutterS = Math.max(body.syncS, Math.min(floor.shutterS, 1 / 60, forRoom));
  // A filter takes from the flash as from the room: as if the aperture were so many stops smaller.
  const filteredN = N * 2 ** (filterStops / 2);
  const full = flashPower(guideNumberM, filteredN, flash?.distanceMm ?? 1000, body.baseIso);
  const iso = Math.min(body.isoLimit, Math.max(body.baseIso, body.baseIso * full));
  const power = (full * body.baseIso) / iso;
  const under = level === null ? null : ev100(filteredN, shutterS, iso) - level;
  return {
    shutterS,
    iso,
    tooBrightStops: under === null ? 0 : Math.max(0, -under),
    missingStops: Math.max(0, Math.log2(power)),
    flash: { power, ambientUnderStops: under }
  };
}
