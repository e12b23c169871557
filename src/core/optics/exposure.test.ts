import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { ev100, exposureValue, flashPower, isoFor, shutterFor } from './exposure';
import { exactFNumber } from './stops';

describe('exposure', () => {
  it('is EV100 15 at f/16, 1/125 s, ISO 100 (the published sunny-16 rule; APEX)', () => {
    expect(ev100(16, 1 / 125, 100)).toBeCloseTo(15, 1);
    expect(ev100(16, 1 / 128, 100)).toBeCloseTo(15, 12);
    expect(ev100(16, 1 / 128, 400)).toBeCloseTo(13, 12);
  });

  it('is the same at f/5.6, 1/3200 s and at f/32, 1/100 s (common practice, no source)', () => {
    expect(exposureValue(exactFNumber(5.6), 1 / 3200)).toBeCloseTo(exposureValue(exactFNumber(32), 1 / 100), 9);
  });

  it('inverts for shutter and ISO', () => {
    const levels = fc.double({ min: -5, max: 18, noNaN: true });
    const N = fc.double({ min: 1, max: 32, noNaN: true });
    const iso = fc.double({ min: 50, max: 25_600, noNaN: true });
    fc.assert(
      fc.property(levels, N, iso, (level, fNumber, speed) => {
        const shutter = shutterFor(level, fNumber, speed);
        expect(ev100(fNumber, shutter, speed)).toBeCloseTo(level, 9);
        expect(isoFor(level, fNumber, shutter) / speed).toBeCloseTo(1, 9);
      })
    );
  });

  it('counts flash by its guide number and the inverse square', () => {
    // Guide number = f-number × distance (definition): GN 40 lights 5 m at f/8 in full.
    expect(flashPower(40, 8, 5000, 100)).toBeCloseTo(1, 12);
    expect(flashPower(40, 8, 5000, 400)).toBeCloseTo(0.25, 12);
    // Twice as far, or two stops further closed, is four times the power.
    expect(flashPower(40, 8, 10_000, 100)).toBeCloseTo(4, 12);
    expect(flashPower(40, 16, 5000, 100)).toBeCloseTo(4, 12);
  });
});
