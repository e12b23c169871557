import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  alongStops,
  apertureValue,
  exactFNumber,
  fNumberFromApertureValue,
  isSameStop,
  lensStops,
  stopScale,
  stopsBetween
} from './stops';

describe('f-number scale', () => {
  it('has the marks of ISO 517 for full stops, each a factor √2 from the last', () => {
    const scale = stopScale('full');
    expect(scale.map((stop) => stop.label).slice(1, 10)).toEqual('1 1.4 2 2.8 4 5.6 8 11 16'.split(' '));
    for (let i = 1; i < scale.length; i++) {
      expect((scale[i]?.fNumber ?? 0) / (scale[i - 1]?.fNumber ?? 1)).toBeCloseTo(Math.SQRT2, 12);
    }
  });

  it.each(['full', 'half', 'third'] as const)(
    'marks each of the %s stops within a sixth of a stop of its place',
    (step) => {
      for (const stop of stopScale(step)) {
        expect(Math.abs(stopsBetween(Number(stop.label), stop.fNumber)), stop.label).toBeLessThan(1 / 6);
      }
    }
  );

  it('counts four and a half stops from f/5.6 to f/1.2 (common practice, no source)', () => {
    expect(stopsBetween(exactFNumber(1.2), exactFNumber(5.6))).toBeCloseTo(4.5, 9);
  });

  it('counts f/1.4, 2, 2.8, 4 one stop apart (APEX: Av = 2 log2 N)', () => {
    expect([1.4, 2, 2.8, 4].map(exactFNumber).map(apertureValue)).toEqual(
      [1, 2, 3, 4].map((av) => expect.closeTo(av, 12))
    );
  });

  it('offers the stops a lens has, from its widest to its smallest', () => {
    expect(lensStops(1.8, 16, 'full').map((stop) => stop.label)).toEqual('1.8 2 2.8 4 5.6 8 11 16'.split(' '));
    expect(lensStops(1.4, 16, 'half').map((stop) => stop.label)).toEqual(
      '1.4 1.7 2 2.4 2.8 3.3 4 4.8 5.6 6.7 8 9.5 11 13 16'.split(' ')
    );
    expect(lensStops(0.95, 2, 'full').map((stop) => stop.label)).toEqual(['0.95', '1', '1.4', '2']);
    expect(lensStops(4, 4, 'third').map((stop) => stop.label)).toEqual(['4']);
  });

  it('takes f-numbers nearer than a sixth of a stop for one', () => {
    const closed = (stops: number) => 2.8 * 2 ** (stops / 2);
    expect(isSameStop(2.8, exactFNumber(2.8))).toBe(true);
    for (const by of [-1, 1]) {
      expect(isSameStop(2.8, closed(0.16 * by))).toBe(true);
      expect(isSameStop(2.8, closed(0.17 * by))).toBe(false);
    }
  });

  it('finds a figure between two stops in proportion, and beyond the ends as at the nearest', () => {
    const table = [
      { fNumber: 2, value: 10 },
      { fNumber: 4, value: 30 },
      { fNumber: 8, value: 20 }
    ];
    expect(alongStops(table, 1.4)).toBe(10);
    expect(alongStops(table, 2)).toBe(10);
    // Half of two stops, by hand.
    expect(alongStops(table, 2 * Math.SQRT2)).toBeCloseTo(20, 9);
    expect(alongStops(table, 4)).toBeCloseTo(30, 9);
    expect(alongStops(table, 4 * Math.SQRT2)).toBeCloseTo(25, 9);
    expect(alongStops(table, 16)).toBe(20);
    expect(alongStops([], 4)).toBeNaN();
  });

  it('takes the nearer of the two positions a lens may be engraved for', () => {
    // 1.2 is the mark of 2^(1/2·0.5) = 1.189 (half stops) and 2^(1/2·(2/3)) = 1.26 (thirds).
    expect(exactFNumber(1.2)).toBeCloseTo(2 ** 0.25, 9);
  });

  it('goes from aperture value to f-number and back', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.5, max: 128, noNaN: true }), (N) => {
        expect(fNumberFromApertureValue(apertureValue(N))).toBeCloseTo(N, 9);
      })
    );
  });
});
