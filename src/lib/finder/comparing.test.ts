import { describe, expect, it } from 'vitest';
import { lineUp } from '$core/call/lineUp';
import { defaultHabits } from '$core/habits/habits';
import { demoSetup } from '$core/testing/demo';
import { builtInKit } from '$core/kit/builtInKit';
import { cellsFor, lensesToCompare, stopsToCompare } from './comparing';

describe('what is compared', () => {
  it('is a row of whole stops with the one in use second, inside what the lens has', () => {
    expect(stopsToCompare(6, 15, 'half')).toEqual([4, 6, 8, 10]);
    expect(stopsToCompare(0, 15, 'half')).toEqual([0, 2, 4, 6]);
    expect(stopsToCompare(14, 15, 'half')).toEqual([8, 10, 12, 14]);
    expect(stopsToCompare(1, 3, 'full')).toEqual([0, 1, 2]);
  });

  it('is the lens in use and three others the room allows, short to long', () => {
    const setup = demoSetup('Family on the steps');
    const line = lineUp({ setup, kit: builtInKit, stopStep: 'half', habits: defaultHabits });
    const shown = lensesToCompare(line);
    expect(shown.filter((item) => item.inUse)).toHaveLength(1);
    expect(shown.length).toBeLessThanOrEqual(4);
    expect(shown.every((item) => item.beyondRoomMm === 0 && item.result)).toBe(true);
    const focalLengths = shown.map((item) => item.focalLengthMm);
    expect(focalLengths).toEqual([...focalLengths].sort((a, b) => a - b));
  });
});

describe('their cells', () => {
  it('show all of them at once, as large as fits', () => {
    const screen = { width: 1280, height: 800 };
    for (const [count, ratio] of [
      [4, 2 / 3],
      [4, 1.5],
      [2, 1.5]
    ] as const) {
      const { columns, width, height } = cellsFor(count, ratio, screen);
      const rows = Math.ceil(count / columns);
      expect(columns * width).toBeLessThanOrEqual(1240);
      expect(rows * (height + 34)).toBeLessThanOrEqual(610);
      expect(width / height).toBeCloseTo(ratio, 1);
    }
    expect(cellsFor(4, 2 / 3, screen).columns).toBe(4);
    expect(cellsFor(4, 1.5, screen).columns).toBe(2);
    expect(cellsFor(4, 1.5, { width: 390, height: 844 }).columns).toBe(1);
  });
});
