import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { apertureValue, exactFNumber, fNumberFromApertureValue, lensStops, stopScale, stopsBetween } from './stops';

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

  it('goes from aperture value to f-number and back', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.5, max: 128, noNaN: true }), (N) => {
        expect(fNumberFromApertureValue(apertureValue(N))).toBeCloseTo(N, 9);
      })
    );
  });
});
