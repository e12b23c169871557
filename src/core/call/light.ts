/**
 * Light at one stop: aperture first, then the shutter down to its floor, then ISO up to the body's limit, then more
 * light. With flash: its power, and how far the room's light lies under it.
 */
import { markedIso, markedShutter } from '../optics/cameraSteps';
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

/** Ambient this many stops under the flash freezes nothing and blurs nothing any more (common practice, no source). */
export const flashFreezesStops = 2;

/** Longest shutter time with a flash that lights the picture, seconds (common practice, no source). */
const slowestWithFlashS = 1 / 60;

export type FloorRule =
  | 'focalLength'
  | 'tripod'
  | 'people'
  | 'restless'
  | 'group'
  | 'close'
  | 'child'
  | 'moving'
  | 'lively'
  | 'shake'
  | 'movement'
  | 'isoLimit'
  | 'sync'
  | 'chosen';

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
    /** Share of full power, 0 to 1; a main flash that is too weak would need more. */
    readonly power: number;
    /** Stops by which the other light lies under the flash exposure, negative over it; null when not known. */
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

/** How bright it is behind the filter, where autofocus looks, EV at ISO 100; null when nobody has looked. */
export function lightBehindFilter(setup: Setup): number | null {
  const level = lightLevel(setup);
  return level === null ? null : level - setup.light.filterStops;
}

/** Magnification on full frame up to which the time for people holds: a head and shoulders across the frame (no source). */
const headsAndShoulders = 1 / 20;

/** Longest shutter time a tripod is used with before anything else applies, seconds (common practice, no source). */
const tripodFloorS = 1 / 15;

/** The light's share of a situation. */
export interface LightConditions {
  readonly setup: Setup;
  readonly body: Body;
  /** Scene level, EV at ISO 100, or null. */
  readonly level: number | null;
  readonly floor: ShutterFloor;
  /** Shorter than the floor, where shake or movement asks for it and the ISO limit allows; null when neither does. */
  readonly wanted: ShutterFloor | null;
  /** Light lost to the lens being drawn out, stops. */
  readonly extensionStops: number;
}

/**
 * The strictest shutter rule that applies, and which it is. `steadiness`: how many times longer than a standing photographer
 * without a stabiliser this one can hold the camera still, 1 or more; `m`: magnification of the nearest who must be sharp.
 */
export function shutterFloor(setup: Setup, body: Body, steadiness: number, m: number): ShutterFloor {
  const { floors } = setup.light;
  const { camera, people } = setup;
  const crop = fullFrameDiagonalMm / sensorDiagonal(body.sensor);
  const steady = floors.stabiliserCounts ? steadiness : 1;
  const rules: ShutterFloor[] = [
    camera.stance === 'tripod'
      ? { rule: 'tripod', shutterS: tripodFloorS }
      : { rule: 'focalLength', shutterS: steady / (floors.perFocalLength * camera.focalLengthMm * crop) }
  ];
  if (people.length > 0) {
    rules.push({ rule: 'people', shutterS: floors.peopleS });
    // A hand sways as a head does, and is drawn larger.
    if (m * crop > headsAndShoulders) {
      rules.push({ rule: 'close', shutterS: (floors.peopleS * headsAndShoulders) / (m * crop) });
    }
  }
  if (people.some((person) => person.mood === 'restless')) rules.push({ rule: 'restless', shutterS: floors.restlessS });
  if (people.length > 2) rules.push({ rule: 'group', shutterS: floors.groupS });
  const young = people.filter(({ being }) => being !== 'adult');
  if (young.length > 0) {
    // Posed, a child keeps as still as somebody who talks.
    const posed = young.every(({ mood }) => mood === 'still');
    rules.push({ rule: 'child', shutterS: posed ? Math.max(floors.childS, floors.restlessS) : floors.childS });
  }
  if (people.some((person) => person.towardsMmPerS !== 0 || person.acrossMmPerS !== 0)) {
    rules.push({ rule: 'moving', shutterS: floors.movingS });
  }
  if (people.some((person) => person.mood === 'lively')) rules.push({ rule: 'lively', shutterS: floors.livelyS });
  return rules.reduce((a, b) => (b.shutterS < a.shutterS ? b : a));
}

/** Settings and what they lack at one f-number. */
export function lightAtStop(lighting: LightConditions, N: number): LightAtStop {
  const { flash } = lighting.setup.light;
  if (flash && flash.use !== 'fill') return withMainFlash(lighting, flash, N);
  const without = byLight(lighting, N, flash ? lighting.body.syncS : lighting.body.fastestShutterS);
  return flash ? withFill(lighting, flash, N, without) : without;
}

/**
 * The same on the steps a camera has: the shutter on a mark no longer than its limit, the sensitivity on the one that then
 * exposes nearest to right (within a sixth of a stop), a flash's power after it.
 */
export function onSteps(
  light: LightAtStop,
  { baseIso, isoLimit, syncS, fastestShutterS }: Pick<Body, 'baseIso' | 'isoLimit' | 'syncS' | 'fastestShutterS'>
): LightAtStop {
  const { iso, flash, floorS, floorRule } = light;
  const atSync = floorRule === 'sync' && light.shutterS === syncS;
  const kept = atSync || floorRule === 'chosen';
  const shutterS = kept ? light.shutterS : Math.max(fastestShutterS, markedShutter(light.shutterS, floorS).shutterS);
  if (iso === null) return { ...light, shutterS };
  // The room pays for a shorter time with more sensitivity; a flash that lights the picture does not care.
  const lights = flash !== null && (flash.ambientUnderStops ?? 1) > 0;
  const wanted = lights ? iso : (iso * light.shutterS) / shutterS;
  const marked = Math.min(isoLimit, Math.max(baseIso, markedIso(wanted)));
  const power = flash && (flash.power > 1 ? flash.power : Math.min(1, (flash.power * iso) / marked));
  return {
    ...light,
    shutterS,
    iso: marked,
    // Beyond the limit the shorter time is missed; less than a step is nothing a camera could give.
    missingStops: light.missingStops + stopsBeyond(wanted / isoLimit),
    flash: flash && power !== null ? { ...flash, power } : null
  };
}

/** Stops by which a ratio is over one, from half a third of a stop on. */
const stopsBeyond = (ratio: number): number => (Math.log2(ratio) > 1 / 6 ? Math.log2(ratio) : 0);

type Flash = NonNullable<Setup['light']['flash']>;

/** For less blur of shake and movement than the rules ask, the ISO goes up to this share of its limit (common practice, no source). */
const stillOfIsoLimit = 1 / 2;

/** How many stops more than one a ratio is; 0 where it is less. */
const stopsOver = (ratio: number): number => (ratio > 1 ? Math.log2(ratio) : 0);

/** The light there is: the shutter down to its floor at the lowest ISO, then ISO, which also pays for what stills blur. */
function byLight(lighting: LightConditions, N: number, fastestS: number): LightAtStop {
  const { setup, body, level, floor, wanted, extensionStops } = lighting;
  const { filterStops, shutterS: chosen } = setup.light;
  const longest: ShutterFloor = chosen === null ? floor : { rule: 'chosen', shutterS: chosen };
  const still = chosen === null && wanted !== null && wanted.shutterS < longest.shutterS ? wanted : null;
  // Only the sync time is a limit one may be asked to go under.
  const isSync = fastestS === body.syncS;
  if (level === null) {
    const { rule, shutterS } = still ?? longest;
    return {
      shutterS: Math.max(shutterS, fastestS),
      floorRule: isSync && shutterS < fastestS ? 'sync' : rule,
      floorS: shutterS,
      iso: null,
      tooBrightStops: 0,
      missingStops: 0,
      flash: null
    };
  }
  /** ISO × seconds that expose it. */
  const isoSeconds = isoFor(level - filterStops - extensionStops, N, 1);
  const atBase = isoSeconds / body.baseIso;
  const dark = isoSeconds / body.isoLimit;
  // As short as shake and movement ask, but no shorter than so much of the ISO limit bears.
  const bearableS = dark / stillOfIsoLimit;
  const limit: ShutterFloor =
    still === null || bearableS >= longest.shutterS
      ? longest
      : bearableS > still.shutterS
        ? { rule: 'isoLimit', shutterS: bearableS }
        : still;
  const limitS = limit.shutterS;
  const enough = chosen === null && atBase <= limitS;
  const shutterS = Math.max(enough ? atBase : limitS, fastestS);
  const isoWanted = isoSeconds / shutterS;
  return {
    shutterS,
    floorRule: isSync && (enough ? atBase : limitS) < fastestS ? 'sync' : limit.rule,
    floorS: limitS,
    iso: enough ? body.baseIso : Math.min(Math.max(isoWanted, body.baseIso), body.isoLimit),
    tooBrightStops: stopsOver(body.baseIso / isoWanted),
    missingStops: stopsOver(isoWanted / body.isoLimit),
    flash: null
  };
}

/** The flash lights the picture; the room lies as far under it as it falls, or as it is wanted. */
function withMainFlash(
  { setup, body, level, floor, extensionStops }: LightConditions,
  flash: Flash,
  N: number
): LightAtStop {
  const lost = setup.light.filterStops + extensionStops;
  const longest = setup.light.shutterS ?? floor.shutterS;
  // Short enough for the floor, and as short as the room's light asks for, but never shorter than the sync time.
  const forRoom = level === null ? Infinity : shutterFor(level - lost, N, body.baseIso);
  const wantedS = Math.min(longest, slowestWithFlashS, forRoom);
  const shutterS = Math.max(body.syncS, wantedS);
  // A filter, and the lens drawn out, take from the flash as from the room: as if the aperture were so many stops smaller.
  const lostN = N * 2 ** (lost / 2);
  const full = flashPower(flash.guideNumberM, lostN, flash.distanceMm, body.baseIso);
  const forFlash = Math.max(body.baseIso, body.baseIso * full);
  const forVisible =
    flash.use === 'keepRoom' && level !== null ? isoFor(level, lostN, shutterS) * 2 ** -flash.underStops : 0;
  // More ISO than the least power bears would overexpose.
  const mostIso = Math.max(body.baseIso, (body.baseIso * full) / flash.leastPower);
  const iso = Math.min(body.isoLimit, Math.max(forFlash, Math.min(forVisible, mostIso)));
  const power = (full * body.baseIso) / iso;
  const under = level === null ? null : ev100(lostN, shutterS, iso) - level;
  const short = wantedS < body.syncS * 0.98;
  return {
    shutterS,
    floorRule: short ? 'sync' : setup.light.shutterS === null ? floor.rule : 'chosen',
    floorS: longest,
    iso,
    tooBrightStops: Math.max(0, under === null ? 0 : -under, Math.log2(flash.leastPower / power)),
    missingStops: Math.max(0, Math.log2(power)),
    flash: { power: Math.max(power, flash.leastPower), ambientUnderStops: under }
  };
}

/** The light lights the picture; the flash lies under it and lifts the shadows, by less than wished where it is too weak. */
function withFill(
  { setup, body, extensionStops }: LightConditions,
  flash: Flash,
  N: number,
  light: LightAtStop
): LightAtStop {
  const lostN = N * 2 ** ((setup.light.filterStops + extensionStops) / 2);
  const iso = light.iso ?? body.baseIso;
  const wanted = flashPower(flash.guideNumberM, lostN, flash.distanceMm, iso) * 2 ** -flash.underStops;
  const power = Math.min(1, Math.max(wanted, flash.leastPower));
  return { ...light, flash: { power, ambientUnderStops: Math.log2(power / wanted) - flash.underStops } };
}
