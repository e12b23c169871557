import { describe, expect, it } from 'vitest';
import { seededRandom } from '../testing/random';
import { photograph, type PlacedPaper, type SheetScene } from './photograph';
import { marginMm, rasterOf } from './raster';
import { ladderMark } from './sheets';
import { poseAbout } from './simulate';

describe('a photographed paper', () => {
  const mark = ladderMark(1);
  const raster = rasterOf(mark, 8, 2, marginMm);
  const at = (z: number, turned: readonly [number, number, number] = [0, 0, 0]): PlacedPaper => ({
    pose: poseAbout(turned, { x: mark.width / 2, y: mark.height / 2 }, [0, 0, z]),
    raster,
    perMm: 8,
    margin: marginMm
  });
  const lens = { focalLengthMm: 85, pixelMm: 0.02, width: 360, height: 320 };

  it.each([
    ['in the plane', {}, [0, 0, 0]],
    ['out of it', { planeMm: 1900, fNumber: 1.4 }, [0, 0, 0]],
    [
      'leaning, by a lens that distorts and blurs',
      { distortion: 0.03, blurPx: { centre: 0.6, corner: 2 } },
      [40, 25, 5]
    ]
  ] as const)('%s is the same, whether what is of one tone is passed over or not', (_, changes, turned) => {
    const scene: SheetScene = { ...lens, fNumber: 2.8, planeMm: 2000, papers: [at(2000, turned)], ...changes };
    // A second paper, behind the camera, is met by no ray; but where it would be drawn, within the first, nothing is passed over.
    const every = photograph({ ...scene, papers: [...scene.papers, at(-4500)] }, seededRandom(3));
    const found = photograph(scene, seededRandom(3));
    // Summed ray by ray or not: a last digit apart at most.
    const off = found.light.reduce((most, value, i) => Math.max(most, Math.abs(value - (every.light[i] ?? NaN))), 0);
    expect(off).toBeLessThan(1e-6);
    // There is something of each tone in it.
    expect(Math.max(...found.light) - Math.min(...found.light)).toBeGreaterThan(0.5);
  });
});

describe('a sheet as pixels', () => {
  it('leaves the paper white where a polygon lies beside it', () => {
    const beside = [
      [-9, 2],
      [-6, 2],
      [-6, 5],
      [-9, 5]
    ] as const;
    const piece = { ...ladderMark(1), polygons: [{ points: beside, tone: 0 }] };
    expect(rasterOf(piece, 4).light.every((tone) => tone === 1)).toBe(true);
  });
});
