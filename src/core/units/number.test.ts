import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { formatNumber, parseNumber, rangeWords, steppedNumber, type NumberRange } from './number';

const degrees: NumberRange = { unit: 'deg', min: -180, max: 180 };
const seconds: NumberRange = { unit: 'seconds', min: 0, max: 60 };
const value = (text: string, range: NumberRange) => {
  const parsed = parseNumber(text, range);
  return parsed.ok ? parsed.value : parsed.message;
};

describe('a number as it is typed', () => {
  it.each([
    ['-15', degrees, -15],
    ['−15', degrees, -15],
    ['+15°', degrees, 15],
    ['12.5 deg', degrees, 12.5],
    ['1,5', seconds, 1.5],
    ['1,5 s', seconds, 1.5],
    ['.5', seconds, 0.5],
    ['250 ms', seconds, 0.25],
    ['1/4 s', seconds, 0.25],
    ['37%', { unit: 'percent', min: 5, max: 99 }, 37],
    ['1/125', { unit: 'oneOverSeconds', min: 1, max: 8000 }, 125],
    ['125', { unit: 'oneOverSeconds', min: 1, max: 8000 }, 125],
    ['50mm', { unit: 'millimetres', min: 24, max: 70 }, 50],
    ['3,6 km/h', { unit: 'metresPerSecond', min: 0, max: 20 }, 1],
    ['f/2.8', { unit: 'none', min: 0.5, max: 128 }, 2.8]
  ] as const)('%s is understood', (text, range, expected) => {
    expect(value(text, range)).toBeCloseTo(expected as number, 9);
  });

  it.each([
    ['', degrees, /^Type degrees/],
    ['-', degrees, /^Type degrees/],
    ['forty', degrees, /^Type degrees/],
    ['1e5', degrees, /no unit|Type/],
    ['12 13', degrees, /Type|no unit/],
    ['40 kg', degrees, /“kg” isn’t a unit/],
    ['99999', degrees, /^From −180 to 180°\.$/],
    ['7', { unit: 'millimetres', min: 24, max: 70 }, /^From 24 to 70 mm\.$/],
    ['2.5', { unit: 'none', min: 1, max: 6, whole: true }, /^A whole number, from 1 to 6\.$/],
    ['1/0', seconds, /Type seconds/],
    ['9000', { unit: 'oneOverSeconds', min: 1, max: 8000 }, /^From 1\/1 to 1\/8000 s\.$/]
  ] as const)('“%s” is refused, with what could be typed', (text, range, message) => {
    expect(value(text, range as NumberRange)).toMatch(message);
  });

  it('comes back as it was shown', () => {
    fc.assert(
      fc.property(fc.double({ min: -180, max: 180, noNaN: true }), (angle) => {
        const shown = formatNumber(angle);
        expect(value(shown, degrees)).toBeCloseTo(angle, 3);
        expect(formatNumber(Number(value(shown, degrees)))).toBe(shown);
      })
    );
  });

  it('goes up and comes back down, and never leaves its range', () => {
    fc.assert(
      fc.property(fc.integer({ min: -1800, max: 1800 }), fc.constantFrom(0.1, 0.5, 1, 5), (tenths, step) => {
        const from = tenths / 10;
        const up = steppedNumber(from, step, degrees);
        if (up !== from) expect(steppedNumber(up, -step, degrees)).toBe(from);
        expect(up).toBeLessThanOrEqual(180);
      })
    );
    expect(steppedNumber(178, 5, degrees)).toBe(178);
    expect(rangeWords(seconds)).toBe('from 0 to 60 s');
  });
});
