import { describe, expect, it } from 'vitest';
import { greySteps } from './sheets';
import { toneCurve } from './tone';

/** Pages, each lit by as much, through a curve. */
const pages = (lit: readonly number[], curve: (light: number) => number) =>
  lit.map((light) => greySteps.map((printed) => ({ printed, read: curve(printed * light) })));

describe('a tone curve', () => {
  it('that bends nothing is undone by a factor', () => {
    const found = toneCurve(pages([0.5, 0.9], (light) => light));
    expect(found?.exponent).toBeCloseTo(1, 9);
    expect((found?.undo(0.4) ?? 0) / (found?.undo(0.1) ?? 1)).toBeCloseTo(4, 9);
  });

  it('is found whatever light falls on each page, and ratios are as they were', () => {
    for (const power of [0.7, 1.4, 2.2]) {
      const found = toneCurve(pages([0.4, 0.6, 1], (light) => 0.9 * light ** power));
      expect(found?.exponent).toBeCloseTo(power, 6);
      const [dark = 0, light = 0] = [0.18, 0.72].map((one) => found?.undo(0.9 * one ** power));
      expect(light / dark).toBeCloseTo(4, 6);
    }
    const rolled = (light: number) => (1.25 * light ** 1.35) / (1 + 0.25 * light ** 2.7);
    const found = toneCurve(pages([0.5, 0.7, 0.85], rolled));
    const [dark = 0, light = 0] = [0.12, 0.48].map((one) => found?.undo(rolled(one)));
    expect(Math.abs(light / dark / 4 - 1)).toBeLessThan(0.03);
  });

  it('goes on straight beyond the steps, down to nothing', () => {
    const found = toneCurve(pages([0.8], (light) => light ** 1.2));
    const at = (read: number) => found?.undo(read) ?? NaN;
    expect(at(0)).toBe(0);
    for (let read = 0.01; read < 1.2; read += 0.01) expect(at(read)).toBeGreaterThan(at(read - 0.01));
    expect(at(1.1) / at(0.8)).toBeCloseTo((1.1 / 0.8) ** (1 / 1.2), 3);
  });

  it('is not made up: from few steps, from steps alike, from what no camera does', () => {
    expect(toneCurve([])).toBeNull();
    expect(toneCurve(pages([0.02], (light) => light))).toBeNull();
    expect(toneCurve(pages([0.8, 0.8], () => 0.5))).toBeNull();
    expect(toneCurve(pages([0.8, 0.8], (light) => 0.5 + 0.3 * Math.sin(20 * light)))).toBeNull();
  });
});
