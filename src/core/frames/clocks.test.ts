import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  clockKey,
  clocksWithoutSerials,
  fitClock,
  offsetFromPhone,
  clockOffsetText,
  readOffset,
  timeOf
} from './clocks';

describe('the clocks of bodies', () => {
  const at = (hours: number, minutes: number, seconds = 0) => Date.UTC(2027, 5, 12, hours, minutes, seconds);

  it('are told apart by make, model and number, and corrected each by its own', () => {
    const one = { body: 'Focalis Stand-in', serial: '7', clockMs: at(14, 0) };
    const other = { ...one, serial: '8' };
    const clocks = [{ body: clockKey(one), offsetMs: 90_000 }];
    expect(timeOf(one, clocks)).toBe(at(14, 1, 30));
    expect(timeOf(other, clocks)).toBe(at(14, 0));
    expect(timeOf({ ...one, clockMs: null }, clocks)).toBeNull();
    expect(clockKey({ body: null, serial: null })).toBe('body not set');
  });

  it('say no serial number, and jobs that hold one are corrected as before and leave without it', () => {
    const frame = { body: 'Focalis Stand-in', serial: 'SN-40221907', clockMs: at(14, 0) };
    expect(clockKey(frame)).toMatch(/^Focalis Stand-in · #[0-9a-f]{5}$/);
    const before = [{ body: 'Focalis Stand-in · SN-40221907', offsetMs: 90_000 }];
    expect(timeOf(frame, before)).toBe(at(14, 1, 30));
    const leaving = clocksWithoutSerials([{ body: clockKey(frame), offsetMs: 60_000 }, ...before]);
    expect(leaving).toEqual([{ body: clockKey(frame), offsetMs: 60_000 }]);
    expect(clocksWithoutSerials([{ body: 'No serial', offsetMs: 1 }])).toEqual([{ body: 'No serial', offsetMs: 1 }]);
  });

  it('are fitted to the ticks by the median: one forgotten tick does no harm', () => {
    const offset = -3 * 60_000 - 15_000;
    const ticks = [20, 25, 12, 30].map((seconds, index) => ({
      lastMs: at(14, 10 * index) - offset,
      tickMs: at(14, 10 * index) + seconds * 1000
    }));
    const forgotten = { lastMs: at(15, 0) - offset, tickMs: at(16, 20) };
    const fit = fitClock([...ticks, forgotten]);
    expect(Math.abs((fit?.offsetMs ?? 0) - offset)).toBeLessThanOrEqual(10_000);
    expect(fit?.ticks).toBe(5);
    expect(fit?.spreadMs).toBeLessThan(30_000);
    expect(fitClock([])).toBeNull();
  });

  it('are read off a photograph of the phone, also about midnight', () => {
    expect(offsetFromPhone(at(14, 35, 2), '14:36:22')).toBe(80_000);
    expect(offsetFromPhone(at(14, 35, 2), '14.34')).toBe(-62_000);
    expect(offsetFromPhone(at(23, 59, 50), '0:00:10')).toBe(20_000);
    expect(offsetFromPhone(at(0, 0, 10), '23:59:50')).toBe(-20_000);
    for (const no of ['', 'noon', '25:00', '14:60', '14:35:61']) expect(offsetFromPhone(at(14, 0), no)).toBeNull();
  });

  it('are written as they are read', () => {
    expect([readOffset('+1:20'), readOffset('-0:03:15'), readOffset('−2:00:00'), readOffset('0')]).toEqual([
      80_000, -195_000, -7_200_000, 0
    ]);
    for (const no of ['', 'x', '1', '1:60', '1:2']) expect(readOffset(no)).toBeNull();
    fc.assert(
      fc.property(fc.integer({ min: -400_000, max: 400_000 }), (seconds) => {
        expect(readOffset(clockOffsetText(seconds * 1000))).toBe(seconds * 1000);
      })
    );
  });
});
