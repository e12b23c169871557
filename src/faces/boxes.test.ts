import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { headPerEyes, merged, tilesOf, type PixelBox } from './boxes';

const holds = (tile: PixelBox, x: number, y: number, room: number) =>
  x - room >= tile.x && y - room >= tile.y && x + room <= tile.x + tile.width && y + room <= tile.y + tile.height;

describe('tiles', () => {
  it('lie inside the picture, and every head that fits into it is whole in one of them', () => {
    const size = { width: 6000, height: 4000 };
    fc.assert(
      fc.property(
        fc.double({ min: 25, max: 120, noNaN: true }),
        fc.double({ min: 0, max: 1, noNaN: true }),
        fc.double({ min: 0, max: 1, noNaN: true }),
        (eyesPx, u, v) => {
          const tiles = tilesOf(size, eyesPx);
          for (const { x, y, width, height } of tiles) {
            expect(x).toBeGreaterThanOrEqual(0);
            expect(y).toBeGreaterThanOrEqual(0);
            expect(x + width).toBeLessThanOrEqual(size.width + 1e-6);
            expect(y + height).toBeLessThanOrEqual(size.height + 1e-6);
          }
          const room = (eyesPx * headPerEyes) / 2;
          const [x, y] = [room + u * (size.width - 2 * room), room + v * (size.height - 2 * room)];
          expect(tiles.length === 0 || tiles.some((tile) => holds(tile, x, y, room - 1e-6))).toBe(true);
        }
      )
    );
  });

  it('are none where heads are large in the picture, and never too many', () => {
    expect(tilesOf({ width: 2000, height: 1300 }, 200)).toEqual([]);
    expect(tilesOf({ width: 9000, height: 6000 }, 3).length).toBeLessThan(120);
    expect(tilesOf({ width: 3000, height: 2000 }, null).length).toBeGreaterThan(3);
  });
});

describe('finds of one face', () => {
  const at = (x: number, score: number, width = 100) => ({ box: { x, y: 0, width, height: width }, score });
  it('are one, the surest; faces beside each other stay two', () => {
    expect(merged([at(0, 0.5), at(20, 0.9), at(150, 0.4)])).toEqual([at(20, 0.9), at(150, 0.4)]);
    // Cut by the edge of a tile, a box is narrower.
    expect(merged([at(0, 0.9), at(40, 0.8, 60)])).toEqual([at(0, 0.9)]);
    expect(merged([])).toEqual([]);
  });
});
