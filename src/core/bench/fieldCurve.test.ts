import { describe, expect, it } from 'vitest';
import { blurDiscDiameter } from '../optics/blur';
import { depthOfField } from '../optics/depthOfField';
import { imageDistance } from '../optics/thinLens';
import { boxMtf, discMtf, mtf50 } from '../testing/mtf';
import { seededNormal, seededRandom } from '../testing/random';
import { measureEdgeFrame } from './edgeFrame';
import { fieldCurve, nearerAt, type FieldCurve, type FieldFrame } from './fieldCurve';
import { isRefused } from './refused';
import { edgeShot } from './simulate';

const pixelMm = 0.006;
const halfDiagonalPx = Math.hypot(3000, 2000);
/** Heights of nine pages, over half the diagonal. */
const heights = [0.02, 0.42, 0.42, 0.42, 0.42, 0.73, 0.73, 0.72, 0.72];

interface Bracket {
  readonly focalLengthMm: number;
  readonly fNumber: number;
  readonly wallMm: number;
  readonly bendPerMm: number;
  readonly by: 'moving' | 'turning';
  /** In steps of half the depth of field, of the first and the last frame. */
  readonly from?: number;
  readonly to?: number;
  readonly pages?: readonly number[];
}

/** MTF50 of each edge by the product of closed forms: the lens's own Gaussian, the disc of its distance, the pixel; with noise. */
function framesOf(
  { focalLengthMm: f, fNumber: N, wallMm, bendPerMm, by, from = -4, to = 4, pages = heights }: Bracket,
  seed: number
) {
  const normal = seededNormal(seed);
  const { near, far } = depthOfField(f, N, 0.03, wallMm);
  const step = (far - near) / 2;
  return Array.from({ length: to - from + 1 }, (_, index): FieldFrame => {
    const off = (from + index) * step;
    const [distanceMm, focusMm] = by === 'moving' ? [wallMm + off, wallMm] : [wallMm, wallMm + off];
    const vPx = imageDistance(f, distanceMm) / pixelMm;
    const edges = pages.flatMap((height, page) => {
      const tangent = (height * halfDiagonalPx) / vPx;
      const surface = 1 / (1 / focusMm + bendPerMm * tangent * tangent);
      const disc = blurDiscDiameter(f, N, surface, distanceMm);
      const own = 0.004 * (1 + height);
      const lp = mtf50((nu) => discMtf(disc, nu) * Math.exp(-2 * (Math.PI * own * nu) ** 2) * boxMtf(pixelMm, nu));
      return Array.from({ length: 4 }, () => ({ page, height, lpPerMm: lp * Math.exp(0.04 * normal()) }));
    });
    return { distanceMm: distanceMm * (1 + 1e-4 * normal()), vPx, edges };
  });
}
const read = (bracket: Bracket, seed = 1) => fieldCurve(framesOf(bracket, seed), { ...bracket, halfDiagonalPx });
const curve = (bracket: Bracket, seed = 1): FieldCurve => {
  const found = read(bracket, seed);
  if (typeof found === 'string') throw new Error(found);
  return found;
};
const fifty = { focalLengthMm: 50, fNumber: 1.8, wallMm: 2000 } as const;

describe('the curve of the field', () => {
  it.each([
    { ...fifty, bendPerMm: 2.5e-4, by: 'moving' },
    { ...fifty, bendPerMm: -1.5e-4, by: 'moving' },
    { ...fifty, bendPerMm: 2e-4, by: 'turning' },
    { ...fifty, bendPerMm: -2e-4, by: 'turning' },
    { focalLengthMm: 35, fNumber: 2, wallMm: 1400, bendPerMm: 2e-4, by: 'moving' },
    { focalLengthMm: 85, fNumber: 1.4, wallMm: 3400, bendPerMm: 3e-4, by: 'turning' }
  ] as const)('is told within 15%, from edges by closed forms: $focalLengthMm mm, $bendPerMm, $by', (bracket) => {
    for (const seed of [1, 2]) {
      const found = curve(bracket, seed);
      expect(found.by).toBe(bracket.by);
      expect(found.perM.value / (1000 * bracket.bendPerMm)).toBeGreaterThan(0.85);
      expect(found.perM.value / (1000 * bracket.bendPerMm)).toBeLessThan(1.15);
    }
  });

  it('is flat where the field is, and each page lies where it is sharpest', () => {
    const flat = curve({ ...fifty, bendPerMm: 0, by: 'moving' });
    // A row that fills the picture is off by less than a twentieth of the depth of field.
    expect(Math.abs(nearerAt(flat.perM.value, 0.35, 2000))).toBeLessThan(8);
    const bent = curve({ ...fifty, bendPerMm: 2e-4, by: 'moving' });
    const corner = bent.places.find(({ page }) => page === 5);
    // By hand: 1/z = 1/2000 + 2e-4 × 0.308², 1927 mm.
    expect(corner?.tangent).toBeCloseTo(0.308, 2);
    expect(Math.abs((corner?.nearerMm ?? 0) - 73)).toBeLessThan(12);
  });

  it('says what is missing, and measures nothing', () => {
    const bracket = { ...fifty, bendPerMm: 2e-4, by: 'turning' } as const;
    expect(read({ ...bracket, from: 0, to: 3 })).toBe('few');
    expect(read({ ...bracket, pages: heights.slice(0, 5) })).toBe('narrow');
    expect(read({ ...bracket, from: 3, to: 9 })).toBe('shortNear');
    expect(read({ ...bracket, bendPerMm: -2e-4, from: -9, to: -3 })).toBe('shortFar');
    const still = framesOf({ ...bracket, bendPerMm: 0, from: 0, to: 0 }, 1);
    expect(fieldCurve(Array.from({ length: 6 }, () => still).flat(), { ...bracket, halfDiagonalPx })).toBe('still');
  });

  it('comes through the camera: pages of a wall photographed by a lens whose field bends', () => {
    const lens = { focalLengthMm: 50, pixelMm: 0.0333, width: 1080, height: 720 };
    const [fNumber, wallMm, curvedMm] = [1.8, 2000, 150];
    const frames = [-1.4, -0.7, 0, 0.7, 1.4].map((step, index) => {
      const rest = { curvedMm, vignetting: 0.2, blurPx: { centre: 0.4, corner: 0.6 } };
      const scene = { lens, fNumber, distanceMm: wallMm, planeMm: wallMm + 40 + 100 * step, rest };
      const found = measureEdgeFrame(edgeShot(scene, seededRandom(index)), lens);
      if (isRefused(found)) throw new Error(found.problem);
      return found;
    });
    const found = fieldCurve(frames, { focalLengthMm: 50, fNumber, halfDiagonalPx: Math.hypot(540, 360) });
    if (typeof found === 'string') throw new Error(found);
    // At the pages in the corners, 0.74 of the way, the plane lies 0.74² × 150 mm nearer.
    const tangent = 0.74 * (Math.hypot(540, 360) / (imageDistance(50, wallMm) / lens.pixelMm));
    expect(nearerAt(found.perM.value, tangent, wallMm) / (0.74 ** 2 * curvedMm)).toBeGreaterThan(0.85);
    expect(nearerAt(found.perM.value, tangent, wallMm) / (0.74 ** 2 * curvedMm)).toBeLessThan(1.15);
  });
});
