/**
 * The f-number scale: nominal marks as engraved, exact values as computed with.
 * Exact f-number N = 2^(Av/2), Av the aperture value (APEX; ISO 517 gives the series and its marks).
 */

export type StopStep = 'full' | 'half' | 'third';

/** One position of the aperture ring. */
export interface Stop {
  /** The nominal mark, as the camera shows it: "2.8". */
  readonly label: string;
  /** The exact f-number used in every computation. */
  readonly fNumber: number;
}

const stepsPerStop: Record<StopStep, number> = { full: 1, half: 2, third: 3 };

/** Nominal marks from Av −1 (f/0.7) to Av 12 (f/64). ISO 517 for full stops; the rest as cameras engrave them. */
const marks: Record<StopStep, readonly string[]> = {
  full: '0.7 1 1.4 2 2.8 4 5.6 8 11 16 22 32 45 64'.split(' '),
  half: '0.7 0.8 1 1.2 1.4 1.7 2 2.4 2.8 3.3 4 4.8 5.6 6.7 8 9.5 11 13 16 19 22 27 32 38 45 54 64'.split(' '),
  third: (
    '0.7 0.8 0.9 1 1.1 1.2 1.4 1.6 1.8 2 2.2 2.5 2.8 3.2 3.5 4 4.5 5 5.6 6.3 7.1 8 9 10 11 13 14 16 18 20 22 25 29 ' +
    '32 36 40 45 51 57 64'
  ).split(' ')
};

const firstApertureValue = -1;

/** Two marks closer than this, in stops, are the same position of the ring. */
const sameStopTolerance = 0.12;

/** Aperture value Av = 2 log2 N (APEX). `fNumber` > 0. */
export function apertureValue(fNumber: number): number {
  return 2 * Math.log2(fNumber);
}

/** Exact f-number for an aperture value (APEX). */
export function fNumberFromApertureValue(av: number): number {
  return 2 ** (av / 2);
}

/** Stops between two f-numbers; positive when `to` is the smaller opening. */
export function stopsBetween(fromFNumber: number, toFNumber: number): number {
  return apertureValue(toFNumber) - apertureValue(fromFNumber);
}

/** The whole scale in one step size. */
export function stopScale(step: StopStep): readonly Stop[] {
  const perStop = stepsPerStop[step];
  return marks[step].map((label, index) => ({
    label,
    fNumber: fNumberFromApertureValue(firstApertureValue + index / perStop)
  }));
}

/** Every position of every scale, full stops first. */
const everyStop: readonly Stop[] = (['full', 'third', 'half'] as const).flatMap(stopScale);

/**
 * The exact value behind a nominal mark: "1.8" on a lens means 2^(5/6) = 1.782; "1.2", engraved for two positions, the
 * nearer one. A mark that is on no scale (f/0.95) stands for itself.
 */
export function exactFNumber(nominal: number): number {
  const positions = everyStop.filter((stop) => Number(stop.label) === nominal).map((stop) => stop.fNumber);
  if (positions.length === 0) return nominal;
  return positions.reduce((a, b) => (Math.abs(b - nominal) < Math.abs(a - nominal) ? b : a));
}

/**
 * The stops a lens really offers: its widest opening, then every mark of the scale down to its smallest, then that.
 *
 * @param widestNominal nominal mark of the widest opening, 0.7 to 64
 * @param smallestNominal nominal mark of the smallest opening, at least `widestNominal`
 */
export function lensStops(widestNominal: number, smallestNominal: number, step: StopStep): readonly Stop[] {
  const widest: Stop = { label: markOf(widestNominal), fNumber: exactFNumber(widestNominal) };
  const smallest: Stop = { label: markOf(smallestNominal), fNumber: exactFNumber(smallestNominal) };
  const between = stopScale(step).filter(
    (stop) =>
      stopsBetween(widest.fNumber, stop.fNumber) > sameStopTolerance &&
      stopsBetween(stop.fNumber, smallest.fNumber) > sameStopTolerance
  );
  if (stopsBetween(widest.fNumber, smallest.fNumber) <= sameStopTolerance) return [widest];
  return [widest, ...between, smallest];
}

function markOf(nominal: number): string {
  return String(Number(nominal.toPrecision(2)));
}

/** Files round f-numbers, and lenses report them in steps of a third: nearer together than this they are one, in stops (chosen). */
const sameStop = 1 / 6;

/** Whether two f-numbers, as files have them, are one stop. */
export const isSameStop = (a: number, b: number): boolean => Math.abs(stopsBetween(a, b)) <= sameStop;

/** A figure known at some stops, at another: in proportion to the stops between two, as at the nearest beyond the ends. @param table ascending by f-number, not empty */
export function alongStops(table: readonly { readonly fNumber: number; readonly value: number }[], N: number): number {
  const after = table.findIndex(({ fNumber }) => fNumber >= N);
  const [a, b] = [table[after - 1], table[after < 0 ? table.length - 1 : after]];
  if (!b) return NaN;
  if (!a || after < 0) return b.value;
  return a.value + ((b.value - a.value) * stopsBetween(a.fNumber, N)) / stopsBetween(a.fNumber, b.fNumber);
}
