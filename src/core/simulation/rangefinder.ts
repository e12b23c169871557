/**
 * A laser rangefinder as the application sees one: readings of a distance, some of which do not come back. The stand-in
 * that ships makes such readings up; what is done with them is the same for a real one.
 */
import { z } from 'zod';

export const readingSchema = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('distance'), mm: z.number().positive() }),
  /** The spot fell on something dark, shiny or too far away. */
  z.strictObject({ kind: z.literal('noReturn') })
]);
export type DistanceReading = z.infer<typeof readingSchema>;

/** What the stand-in can measure, mm. */
export const rangeMm = { least: 50, most: 60_000 } as const;

/** Spread of one reading: 1.5 mm, and 0.02% of the distance for the hand that holds it (from memory). */
export function readingSpread(mm: number): number {
  return 1.5 + mm * 0.0002;
}

/** Chances, from reading to reading, that the return is lost and that it is found again (from memory). */
const lostShare = 0.06;
const foundShare = 0.4;

/** The stand-in: readings of a true distance, in order. `random` gives numbers from 0 to 1. */
export function* simulatedReadings(trueMm: number, random: () => number): Generator<DistanceReading, never> {
  let lost = false;
  for (;;) {
    lost = lost ? random() >= foundShare : random() < lostShare;
    const inRange = trueMm >= rangeMm.least && trueMm <= rangeMm.most;
    if (lost || !inRange) {
      yield { kind: 'noReturn' };
      continue;
    }
    // Box and Muller, 1958.
    const normal = Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
    yield { kind: 'distance', mm: Math.max(1, Math.round(trueMm + normal * readingSpread(trueMm))) };
  }
}

export interface Settled {
  /** Median of the last good readings, mm. */
  readonly mm: number;
  /** Whether enough of them agree. */
  readonly steady: boolean;
}

/** Of so many last readings, so many must agree before the distance is taken (from memory). */
const looksAt = 7;
const enough = 5;

/** Readings further than this from their median do not agree, mm. */
const agreementMm = 25;

/** What the last readings say; null when fewer than three came back. */
export function settled(readings: readonly DistanceReading[]): Settled | null {
  const good = readings
    .slice(-looksAt)
    .flatMap((reading) => (reading.kind === 'distance' ? [reading.mm] : []))
    .sort((a, b) => a - b);
  if (good.length < 3) return null;
  const mm = good[Math.floor(good.length / 2)] ?? 0;
  const agreeing = good.filter((reading) => Math.abs(reading - mm) <= agreementMm);
  return { mm, steady: agreeing.length >= enough };
}
