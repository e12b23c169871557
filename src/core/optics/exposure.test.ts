import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  ev100,
  exposureValue,
  flashFallOff,
  flashPower,
  flashStopsBetween,
  isoFor,
  isoLabel,
  shutterFor,
  shutterLabel
} from './exposure';
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
    const level = fc.double({ min: -5, max: 18, noNaN: true });
    const N = fc.double({ min: 1, max: 32, noNaN: true });
    const iso = fc.double({ min: 50, max: 25_600, noNaN: true });
    fc.assert(
      fc.property(level, N, iso, (scene, fNumber, speed) => {
        const shutter = shutterFor(scene, fNumber, speed);
        expect(ev100(fNumber, shutter, speed)).toBeCloseTo(scene, 9);
        expect(isoFor(scene, fNumber, shutter) / speed).toBeCloseTo(1, 9);
      })
    );
  });

  it('counts flash stops between apertures and by the inverse square', () => {
    expect(flashStopsBetween(2.8, 5.6)).toBeCloseTo(2, 12);
    expect(flashFallOff(2000, 4000)).toBeCloseTo(2, 12);
    // Guide number = f-number × distance (definition): GN 40 lights 5 m at f/8 in full.
    expect(flashPower(40, 8, 5000, 100)).toBeCloseTo(1, 12);
    expect(flashPower(40, 8, 5000, 400)).toBeCloseTo(0.25, 12);
  });

  it('reads as the marks on a camera', () => {
    expect([1 / 8000, 1 / 250, 1 / 128, 1 / 60, 1 / 2, 1, 30].map(shutterLabel)).toEqual([
      '1/8000',
      '1/250',
      '1/125',
      '1/60',
      '0.5 s',
      '1 s',
      '30 s'
    ]);
    expect([50, 100, 250, 640, 1250, 1600, 6400, 12_800].map(isoLabel)).toEqual([
      '50',
      '100',
      '250',
      '640',
      '1250',
      '1600',
      '6400',
      '12800'
    ]);
  });
});
