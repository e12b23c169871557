import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { axialDepth, surfaceDepth, type FocusSurface } from './focusSurface';
import { imageDistance } from './thinLens';

const surfaces: readonly FocusSurface[] = ['flat', 'curved', { bendPerMm: 1e-4 }, { bendPerMm: -5e-5 }];

describe('the surface of sharp focus', () => {
  it('counts every place of itself as as deep', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...surfaces),
        fc.double({ min: 300, max: 8000, noNaN: true }),
        fc.double({ min: 0, max: 0.9, noNaN: true }),
        fc.double({ min: 0, max: 6.28, noNaN: true }),
        (surface, depth, tangent, angle) => {
          const z = axialDepth(surface, tangent, depth);
          const place = { x: z * tangent * Math.cos(angle), y: z * tangent * Math.sin(angle), z };
          expect(surfaceDepth(surface, place) / depth).toBeCloseTo(1, 9);
        }
      )
    );
  });

  it('is where the lens equation puts what is sharp on a bent field', () => {
    // 50 mm at 2 m; a flat wall is drawn 0.1 mm nearer to the lens at 20 mm on the sensor. Another way round: v there, then s by Gauss.
    const [f, s, sag, height] = [50, 2000, 0.1, 20];
    const v = imageDistance(f, s);
    const expected = 1 / (1 / f - 1 / (v + sag));
    const bend = { bendPerMm: sag / height ** 2 };
    // First order in sag/v and in what the bend takes of the distance.
    const found = axialDepth(bend, height / v, s);
    expect((s - found) / (s - expected)).toBeCloseTo(1, 1);
    expect(found).toBeLessThan(s);
  });

  it('has what no bent surface reaches further than anything, and what is behind the lens behind it', () => {
    expect(surfaceDepth({ bendPerMm: 1e-3 }, { x: 5000, y: 0, z: 9000 })).toBeGreaterThan(1e6);
    expect(surfaceDepth({ bendPerMm: 1e-3 }, { x: 10, y: 0, z: -5 })).toBe(-5);
    expect(axialDepth({ bendPerMm: -1e-3 }, 1, 5000)).toBeGreaterThan(1e6);
  });
});
