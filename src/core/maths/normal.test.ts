import jstat from 'jstat';
import { describe, expect, it } from 'vitest';
import { gaussLegendre8, normalCdf, normalDensity } from './normal';

describe('normal distribution', () => {
  it('agrees with jstat, a general-purpose statistics package, to 1e−7', () => {
    for (let x = -7; x <= 7; x += 0.01) {
      expect(Math.abs(normalCdf(x) - jstat.normal.cdf(x, 0, 1))).toBeLessThan(1e-7);
      expect(Math.abs(normalDensity(x) - jstat.normal.pdf(x, 0, 1))).toBeLessThan(1e-12);
    }
  });

  it('has the handbook value Φ(1.96) = 0.9750 (Abramowitz and Stegun, table 26.1)', () => {
    expect(normalCdf(1.96)).toBeCloseTo(0.975, 4);
  });

  it('integrates polynomials up to degree 15 exactly', () => {
    const integral = gaussLegendre8.reduce((sum, [x, w]) => sum + w * x ** 14, 0);
    expect(integral).toBeCloseTo(2 / 15, 12);
  });
});
