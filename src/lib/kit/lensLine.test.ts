import { describe, expect, it } from 'vitest';
import { builtInKit } from '$core/kit/builtInKit';
import { newLens } from '$core/kit/defaults';
import { lensLabel, lensLine } from './lensLine';

describe('lenses on a line', () => {
  it('stand by their focal length, in equal steps for equal ratios', () => {
    const at = (f: number) => newLens(`l${f}`, `${f} mm f/1.8`, { shortestMm: f, longestMm: f });
    const { placed } = lensLine([at(100), at(25), at(50)], 800);
    expect(placed.map((item) => item.lens.shortestMm)).toEqual([25, 50, 100]);
    const [a, b, c] = placed.map((item) => item.x1) as [number, number, number];
    expect(b - a).toBeCloseTo(c - b, 9);
    expect(placed.every((item) => item.x1 === item.x2)).toBe(true);
  });

  it('never meet in a row, neither shape nor name, and stay inside', () => {
    for (const width of [340, 900]) {
      const { placed, rows } = lensLine(builtInKit.lenses, width);
      expect(Math.max(...placed.map((item) => item.row))).toBe(rows - 1);
      for (const one of placed) {
        expect(one.labelX).toBeGreaterThanOrEqual(0);
        expect(one.x2).toBeLessThanOrEqual(width);
        for (const other of placed)
          if (one !== other && one.row === other.row && one.x1 <= other.x1)
            expect(other.labelX).toBeGreaterThan(one.labelX + one.label.length * 6);
      }
    }
  });

  it('are as tall as their pupil, at both ends of a zoom', () => {
    const slow = newLens('s', 'S', { shortestMm: 18, longestMm: 55, widestFNumber: 3.5, widestAtLong: 5.6 });
    const fast = newLens('f', 'F', { shortestMm: 85, longestMm: 85, widestFNumber: 1.4 });
    const { placed } = lensLine([slow, fast], 800);
    expect(placed[0]?.long).toBeLessThan(placed[1]?.short ?? 0);
    // 85/1.4 = 60.7 mm.
    expect(placed[1]?.short).toBeCloseTo(17, 0);
  });

  it('are named with their widest opening', () => {
    expect(lensLabel(newLens('a', '85 mm f/1.8', {}))).toBe('85 mm f/1.8');
    expect(lensLabel(newLens('a', 'Gran’s', { widestFNumber: 2 }))).toBe('Gran’s, f/2');
  });

  it('has a line even with none', () => {
    expect(lensLine([], 600).marks.length).toBeGreaterThan(4);
  });
});
