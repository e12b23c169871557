import { describe, expect, it } from 'vitest';
import { seededRandom } from '../testing/random';
import { rangeMm, readingSchema, readingSpread, settled, simulatedReadings, type DistanceReading } from './rangefinder';

function take(mm: number, count: number, seed = 1): DistanceReading[] {
  const readings = simulatedReadings(mm, seededRandom(seed));
  return Array.from({ length: count }, () => readings.next().value);
}
const good = (readings: readonly DistanceReading[]) =>
  readings.flatMap((reading) => (reading.kind === 'distance' ? [reading.mm] : []));

describe('the simulated rangefinder', () => {
  it('scatters about the true distance with the spread it names, and loses some returns, often several in a row', () => {
    const readings = take(3400, 20_000);
    for (const reading of readings.slice(0, 50)) expect(readingSchema.safeParse(reading).success).toBe(true);
    const values = good(readings);
    const mean = values.reduce((sum, value) => sum + value, 0) / values.length;
    const spread = Math.sqrt(values.reduce((sum, value) => sum + (value - mean) ** 2, 0) / values.length);
    expect(mean).toBeCloseTo(3400, 0);
    expect(spread).toBeCloseTo(readingSpread(3400), 1);
    const lostShare = 1 - values.length / readings.length;
    expect(lostShare).toBeGreaterThan(0.08);
    expect(lostShare).toBeLessThan(0.2);
    const runs = readings.map((reading) => (reading.kind === 'noReturn' ? 'x' : ' ')).join('');
    expect(runs).toContain('xxx');
  });

  it('gives nothing back beyond its range', () => {
    expect(good(take(rangeMm.most + 1, 50))).toEqual([]);
    expect(good(take(rangeMm.least - 1, 50))).toEqual([]);
  });
});

describe('settling on a distance', () => {
  const at = (...mm: number[]): DistanceReading[] => mm.map((value) => ({ kind: 'distance', mm: value }));

  it('takes the median, so that one stray reading changes nothing', () => {
    expect(settled(at(3400, 3402, 3398, 3401, 9000, 3399))).toEqual({ mm: 3401, steady: true });
  });

  it('waits for enough readings that agree', () => {
    expect(settled(at(3400, 3401))).toBeNull();
    expect(settled(at(3400, 3401, 3402))).toEqual({ mm: 3401, steady: false });
    expect(settled(at(3000, 3100, 3200, 3300, 3400, 3500))?.steady).toBe(false);
    expect(settled(Array.from({ length: 9 }, () => ({ kind: 'noReturn' as const })))).toBeNull();
  });

  it('forgets what is long past', () => {
    const moved = [...at(...Array.from({ length: 20 }, () => 3000)), ...at(...Array.from({ length: 7 }, () => 4000))];
    expect(settled(moved)?.mm).toBe(4000);
  });
});
