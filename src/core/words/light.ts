/** Shutter times, ISO and where they come from, in words. */
import type { FloorRule } from '../call/light';
import { markedIso, markedShutter } from '../optics/cameraSteps';
import type { KnownLight } from '../setup/schema';

/** The marked time nearest to one in seconds: "1/250", "0.5 s". */
export const formatShutter = (shutterS: number): string => markedShutter(shutterS).label;

/** The marked sensitivity nearest to one: "640", "12800". */
export const formatIso = (iso: number): string => String(markedIso(iso));

export const knownLightWords: Readonly<Record<KnownLight, string>> = {
  sun: 'sun',
  overcast: 'overcast sky',
  openShade: 'open shade',
  windowLight: 'window light',
  brightRoom: 'a bright room',
  livingRoom: 'a living room at night',
  church: 'a dark church',
  stringBulbs: 'strings of bulbs',
  candles: 'candles'
};

/** Why the shutter may not be slower. */
export const floorWords: Readonly<Record<FloorRule, string>> = {
  focalLength: 'the slowest a steady hand holds this focal length',
  people: 'the slowest for people, who never keep quite still',
  restless: 'the slowest for somebody who talks or fidgets',
  group: 'the slowest for a group, where somebody always moves',
  child: 'the slowest for a child or a pet',
  moving: 'the slowest for somebody moving',
  lively: 'the slowest for somebody who plays or dances',
  tripod: 'the slowest on a tripod before people move',
  shake: 'short enough for camera shake to hide',
  movement: 'short enough for the movement to freeze',
  sync: 'the shortest with flash, though a shorter one was called for',
  chosen: 'as you set it'
};
