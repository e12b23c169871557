/** The steps cameras have for shutter time and sensitivity: thirds of a stop by their nominal marks (from memory; ISO 12232). */

const fractions = [
  4, 5, 6, 8, 10, 13, 15, 20, 25, 30, 40, 50, 60, 80, 100, 125, 160, 200, 250, 320, 400, 500, 640, 800, 1000, 1250,
  1600, 2000, 2500, 3200, 4000, 5000, 6400, 8000, 10_000, 12_800, 16_000, 20_000, 25_600, 32_000
] as const;
const seconds = [0.3, 0.4, 0.5, 0.6, 0.8, 1, 1.3, 1.6, 2, 2.5, 3.2, 4, 5, 6, 8, 10, 13, 15, 20, 25, 30, 60] as const;

/** A shutter time as it is marked. */
export interface ShutterMark {
  readonly shutterS: number;
  readonly label: string;
}

/** All marks, the shortest first. */
const shutterMarks: readonly ShutterMark[] = [
  ...fractions.map((one) => ({ shutterS: 1 / one, label: `1/${one}` })).reverse(),
  ...seconds.map((shutterS) => ({ shutterS, label: `${shutterS} s` }))
];

/** Sensitivities in thirds of a stop. */
const isoMarks = [
  25, 32, 40, 50, 64, 80, 100, 125, 160, 200, 250, 320, 400, 500, 640, 800, 1000, 1250, 1600, 2000, 2500, 3200, 4000,
  5000, 6400, 8000, 10_000, 12_800, 16_000, 20_000, 25_600, 32_000, 40_000, 51_200, 64_000, 80_000, 102_400, 128_000,
  160_000, 204_800, 256_000, 320_000, 409_600, 512_000, 640_000, 819_200
] as const;

function nearest<T>(marks: readonly T[], value: number, of: (mark: T) => number): T | undefined {
  const off = (mark: T) => Math.abs(Math.log(of(mark) / value));
  return marks.reduce<T | undefined>(
    (best, mark) => (best === undefined || off(mark) < off(best) ? mark : best),
    undefined
  );
}

/** Times longer than a limit by less than this, in proportion, are it: 1/125 is the mark of 1/128. */
const sameTime = 1.04;

/** The mark nearest to a time in seconds; of those no longer than a limit, where one is given and there are any. */
export function markedShutter(shutterS: number, noLongerThanS = Infinity): ShutterMark {
  const allowed = shutterMarks.filter((mark) => mark.shutterS <= noLongerThanS * sameTime);
  const found = nearest(allowed.length > 0 ? allowed : shutterMarks.slice(0, 1), shutterS, (mark) => mark.shutterS);
  return found ?? { shutterS, label: `${shutterS} s` };
}

/** The marked sensitivity nearest to one. */
export function markedIso(iso: number): number {
  return nearest(isoMarks, iso, (mark) => mark) ?? iso;
}
