import { describe, expect, it } from 'vitest';
import { seededRandom } from '../testing/random';
import { besselJ1, boxMtf, diffractionMtf, discMtf, mtf50 } from '../testing/mtf';
import { diffractionDisc, discMtf50, motionDisc, pixelDisc, totalDisc, wavelengthMm } from './sharpness';

describe('modulation transfer', () => {
  it('has J1 of the handbook (Abramowitz and Stegun, table 9.1)', () => {
    expect(besselJ1(1)).toBeCloseTo(0.4400505857, 7);
    expect(besselJ1(5)).toBeCloseTo(-0.3275791376, 7);
    expect(besselJ1(10)).toBeCloseTo(0.0434727462, 7);
    expect(besselJ1(3.8317059702)).toBeCloseTo(0, 7);
    expect(besselJ1(-1)).toBeCloseTo(-besselJ1(1), 12);
  });

  it('has the disc’s first zero at 1.22/c (Hopkins 1955; Airy)', () => {
    expect(discMtf(0.03, 1.2196698912 / 0.03)).toBeCloseTo(0, 6);
  });

  it('passes half the contrast where the equivalent discs say', () => {
    expect(mtf50((v) => discMtf(0.03, v)) * 0.03).toBeCloseTo(discMtf50, 3);
    expect(mtf50((v) => diffractionMtf(8, v)) * wavelengthMm * 8).toBeCloseTo(0.404, 3);
    for (const [equivalent, mtf] of [
      [diffractionDisc(8), (v: number) => diffractionMtf(8, v)],
      [pixelDisc(0.006), (v: number) => boxMtf(0.006, v)],
      [motionDisc(0.02), (v: number) => boxMtf(0.02, v)]
    ] as const) {
      expect(mtf50((v) => discMtf(equivalent, v)) / mtf50(mtf)).toBeCloseTo(1, 2);
    }
  });

  it('as a product agrees with discs in quadrature within about 10% on 300 random mixtures', () => {
    const random = seededRandom(7);
    let worst = 0;
    for (let i = 0; i < 300; i++) {
      const c = 0.002 + 0.05 * random();
      const N = 1.4 * 2 ** (4 * random());
      const p = 0.003 + 0.004 * random();
      const track = 0.02 * random();
      const product = mtf50((v) => discMtf(c, v) * diffractionMtf(N, v) * boxMtf(p, v) * boxMtf(track, v));
      const quadrature = discMtf50 / totalDisc(c, diffractionDisc(N), pixelDisc(p), motionDisc(track));
      worst = Math.max(worst, Math.abs(quadrature / product - 1));
    }
    expect(worst).toBeLessThan(0.1);
  });
});
