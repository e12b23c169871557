/** Shutter times, ISO and where they come from, in words. */
import type { FloorRule } from '../call/light';
import type { KnownLight } from '../setup/schema';

/** Marked shutter times in thirds of a stop, seconds, as cameras print them (from memory). */
const fractions = [
  4, 5, 6, 8, 10, 13, 15, 20, 25, 30, 40, 50, 60, 80, 100, 125, 160, 200, 250, 320, 400, 500, 640, 800, 1000, 1250,
  1600, 2000, 2500, 3200, 4000, 5000, 6400, 8000, 10_000, 12_800, 16_000, 20_000, 25_600, 32_000
] as const;
const seconds = [0.3, 0.4, 0.5, 0.6, 0.8, 1, 1.3, 1.6, 2, 2.5, 3.2, 4, 5, 6, 8, 10, 13, 15, 20, 25, 30, 60] as const;

/** Marked sensitivities in thirds of a stop (the steps of ISO 12232, from memory). */
const isoMarks = [100, 125, 160, 200, 250, 320, 400, 500, 640, 800] as const;

function nearest<T extends number>(marks: readonly T[], value: number): T | undefined {
  const off = (mark: number) => Math.abs(Math.log(mark / value));
  return marks.reduce<T | undefined>(
    (best, mark) => (best === undefined || off(mark) < off(best) ? mark : best),
    undefined
  );
}

/** The marked time nearest to one in seconds: "1/250", "0.5 s". */
export function formatShutter(shutterS: number): string {
  const fraction = nearest(fractions, 1 / shutterS) ?? 1;
  const whole = nearest(seconds, shutterS) ?? 1;
  return shutterS < Math.sqrt(0.25 * 0.3) ? `1/${fraction}` : `${whole} s`;
}

/** The marked sensitivity nearest to one: "640", "12800". */
export function formatIso(iso: number): string {
  // 800 and 1000 are a third apart as 100 and 125 are: ten marks to a factor of ten.
  const decade = Math.floor(Math.log10(iso / 100) + 0.05);
  const marks = isoMarks.map((mark) => mark * 10 ** decade);
  const mark = nearest([...marks, 1000 * 10 ** decade], iso) ?? iso;
  const printed: Readonly<Record<number, number>> = { 12_500: 12_800, 25_000: 25_600, 50_000: 51_200 };
  return String(printed[Math.round(mark)] ?? Math.round(mark));
}

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
