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
  focalLength: 'the slowest you can hand-hold this focal length',
  people: 'the slowest for people: no one is perfectly still',
  restless: 'the slowest for someone talking or fidgeting',
  group: 'the slowest for a group: someone always moves',
  close: 'the slowest so close up: every sway is drawn large',
  child: 'the slowest for a child or a pet',
  moving: 'the slowest for someone moving',
  lively: 'the slowest for someone playing or dancing',
  tripod: 'the slowest on a tripod before people move',
  shake: 'fast enough to hide camera shake',
  movement: 'fast enough to freeze the movement',
  sync: 'your flash sync speed, though this setup wants faster',
  chosen: 'as you set it'
};
