import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { formatLength, formatLengthExactly, formatLengthRange, parseLength, type LengthUnit, unbroken } from './length';

const read = (text: string, unit: LengthUnit = 'metric') => {
  const parsed = parseLength(text, unit);
  return parsed.ok ? parsed.mm : parsed.message;
};

describe('lengths as typed', () => {
  it.each([
    ['3.4', 3400],
    ['3,4 m', 3400],
    ['85 cm', 850],
    ['7 mm', 7],
    ['-1.5', -1500],
    ['−1.5m', -1500],
    ['11ft', 3352.8],
    [`11' 2"`, 3403.6],
    ['11′ 2″', 3403.6],
    ['11 ft 2 in', 3403.6],
    ['12 paces', 9000],
    ['1 m 20 cm', 1200]
  ])('reads %s', (text, mm) => {
    expect(read(text)).toBeCloseTo(mm, 6);
  });

  it('reads a bare number in the user’s unit, and bare inches after feet', () => {
    expect(read('11', 'feet')).toBeCloseTo(3352.8, 6);
    expect(read(`11' 2`, 'feet')).toBeCloseTo(3403.6, 6);
    expect(parseLength('12 paces', 'metric', 800)).toEqual({ ok: true, mm: 9600 });
  });

  it.each(['', 'far', '3.4 parsecs', '1 2 3', '3..4', 'NaN', '1e9'])('says what to type instead of %j', (text) => {
    expect(read(text)).toMatch(/^Not a length\. Type it as/);
  });

  it('survives writing and reading again to half an inch or half a centimetre', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -50_000, max: 50_000, noNaN: true }),
        fc.constantFrom<LengthUnit>('metric', 'feet'),
        (mm, unit) => {
          const back = read(formatLengthExactly(mm, unit), unit);
          expect(typeof back).toBe('number');
          expect(Math.abs(Number(back) - mm)).toBeLessThan(7);
        }
      )
    );
  });

  it('reads well', () => {
    expect([7, 62, 850, 3420, 12_345].map((mm) => formatLength(mm, 'metric'))).toEqual([
      '7 mm',
      '6 cm',
      '85 cm',
      '3.4 m',
      '12 m'
    ]);
    expect([40, 850, 3403.6, 12_345].map((mm) => formatLength(mm, 'feet'))).toEqual([
      '1.6″',
      '2′ 9″',
      '11′ 2″',
      '40′ 6″'
    ]);
  });
});

describe('lengths in a line', () => {
  it('stay with their unit and with what leads to them', () => {
    expect(unbroken('f/1.4 on Ines’s near eye, from 1.5 m.')).toBe('f/1.4 on Ines’s near eye, from\u00a01.5\u00a0m.');
    expect(unbroken('5.2 m from the front row, focused at 5.9 m')).toBe(
      '5.2\u00a0m from the front row, focused at\u00a05.9\u00a0m'
    );
    expect(unbroken('from 7′ 3″.')).toBe('from\u00a07′\u00a03″.');
    expect(unbroken('2 frames of 10 models')).toBe('2 frames of 10 models');
  });

  it('as a range have their unit once, where it is the same', () => {
    expect(formatLengthRange(270, 370, 'metric')).toBe('27–37 cm');
    expect(formatLengthRange(800, 1200, 'metric')).toBe('80 cm–1.2 m');
    expect(formatLengthRange(610, 914, 'feet')).toMatch(/^2′.*–3′/);
  });
});
