import { describe, expect, it } from 'vitest';
import { pupilAt, pupilEdge, pupilPoint, viewsFor, viewsRange } from './pupil';

describe('the pupil', () => {
  it('is round wide open and a polygon of the same area a stop and a half down', () => {
    expect(pupilAt(9, 0).roundness).toBe(1);
    expect(pupilEdge(pupilAt(9, 0), 0.3)).toBeCloseTo(1, 9);
    const closed = pupilAt(7, 2);
    expect(closed.roundness).toBe(0);
    // Area of a shape by its edge: ½ ∫ r² dφ. A disc of radius 1 has π.
    const steps = 20_000;
    let area = 0;
    for (let n = 0; n < steps; n++) area += (pupilEdge(closed, (n / steps) * 2 * Math.PI) ** 2 * Math.PI) / steps;
    expect(area).toBeCloseTo(Math.PI, 3);
    // Corner over side of a heptagon: 1/cos(π/7).
    const edges = Array.from({ length: 700 }, (_, n) => pupilEdge(closed, (n / 700) * 2 * Math.PI));
    expect(Math.max(...edges) / Math.min(...edges)).toBeCloseTo(1 / Math.cos(Math.PI / 7), 2);
  });

  it('is covered evenly by any run of points: the means of a uniform disc', () => {
    for (const count of [64, 256]) {
      const points = Array.from({ length: count }, (_, n) => pupilPoint(pupilAt(9, 0), n));
      const mean = (of: (p: { x: number; y: number }) => number) => points.reduce((sum, p) => sum + of(p), 0) / count;
      expect(Math.abs(mean((p) => p.x))).toBeLessThan(0.03);
      expect(Math.abs(mean((p) => p.y))).toBeLessThan(0.03);
      // A uniform disc of radius 1 has ⟨r²⟩ = 1/2.
      expect(mean((p) => p.x * p.x + p.y * p.y)).toBeCloseTo(0.5, 1);
      expect(points.every((p) => Math.hypot(p.x, p.y) <= 1 + 1e-9)).toBe(true);
    }
  });

  it('is brighter at a hard rim and darker at a soft one, wide open; three stops down it is even', () => {
    const meanSquare = (rim: 'soft' | 'even' | 'hard', stopsDown: number) => {
      const pupil = { ...pupilAt(9, stopsDown, rim), roundness: 1 };
      const points = Array.from({ length: 4096 }, (_, n) => pupilPoint(pupil, n));
      return points.reduce((sum, p) => sum + p.x * p.x + p.y * p.y, 0) / points.length;
    };
    // Light 1 + k(2q − 1) over q = r²: ⟨q⟩ = 1/2 + k/6, with k = ±0.6.
    expect(meanSquare('hard', 0)).toBeCloseTo(0.6, 2);
    expect(meanSquare('even', 0)).toBeCloseTo(0.5, 2);
    expect(meanSquare('soft', 0)).toBeCloseTo(0.4, 2);
    expect(meanSquare('hard', 3)).toBe(meanSquare('even', 3));
  });

  it('takes more views for larger discs, within bounds', () => {
    expect(viewsFor(0)).toBe(viewsRange.least);
    expect(viewsFor(60)).toBeGreaterThan(viewsFor(45));
    expect(viewsFor(5000)).toBe(viewsRange.most);
  });
});
