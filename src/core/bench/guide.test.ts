import { expect, it } from 'vitest';
import { zoneOfSharpness } from '../testing/depth';
import { focusGuide } from './guide';

it('stands the sheet where the sharp zone just fits into a wing, by the textbook’s depth of field', () => {
  const wing = 0.9 * 93 * Math.SQRT1_2;
  for (const [f, N] of [
    [85, 1.4],
    [50, 2.8],
    [135, 2]
  ] as const) {
    const { distanceMm, short } = focusGuide(f, N, 0.03, 36, 400);
    expect(short).toBe(false);
    // The textbook measures from the lens, as this does.
    expect(zoneOfSharpness(f, N, distanceMm) / wing).toBeCloseTo(1, 4);
  }
  expect(focusGuide(85, 1.4, 0.03, 36, 800).distanceMm).toBeGreaterThan(2000);
  expect(focusGuide(50, 2.8, 0.03, 36, 400).distanceMm).toBeLessThan(1050);
});

it('says so where the lens cannot come so near, or the sheet would not fit', () => {
  expect(focusGuide(50, 2.8, 0.03, 36, 1500)).toEqual({ distanceMm: 1500 * 1.05, short: true });
  const wide = focusGuide(24, 16, 0.03, 36, 200);
  // f (1 + object over image), by hand: 280 mm over 0.85 of 36 mm.
  expect(wide.distanceMm).toBeCloseTo(24 * (1 + 280 / 0.85 / 36), 6);
  expect(wide.short).toBe(true);
});
