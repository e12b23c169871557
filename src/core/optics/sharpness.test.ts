import { describe, expect, it } from 'vitest';
import { fullFrameDiagonalMm } from './criterion';
import { diffractionDisc, lensBesideAxis, lensDisc, totalDisc, verdict, type LensSharpness } from './sharpness';

/** MTF50 of lens and diffraction together, as it would be measured, line pairs per mm. */
const measuredAt = (measured: NonNullable<LensSharpness['measured']>, N: number) =>
  0.705 /
  totalDisc(
    lensDisc({ character: 'ordinary', widestFNumber: 1.4, formatDiagonalMm: fullFrameDiagonalMm, measured }, N),
    diffractionDisc(N)
  );

const table = [
  { fNumber: 2, lpPerMm: 40 },
  { fNumber: 4, lpPerMm: 80 },
  { fNumber: 16, lpPerMm: 40 }
];

describe('a lens that has been measured', () => {
  it('is as sharp as it was measured, at every stop that was', () => {
    for (const { fNumber, lpPerMm } of table) expect(measuredAt(table, fNumber)).toBeCloseTo(lpPerMm, 9);
  });

  it('has, between two stops, the disc in proportion to the stops from one to the other', () => {
    // One of two stops on from f/2 at 40 lp/mm to f/4 at 80: half way between 17.6 and 8.8 µm.
    expect((0.705 / measuredAt(table, 2 * Math.SQRT2)) * 1000).toBeCloseTo((17.625 + 8.8125) / 2, 9);
    // One of four on from f/4 at 80 to f/16 at 40: a quarter of the way.
    expect((0.705 / measuredAt(table, 4 * Math.SQRT2)) * 1000).toBeCloseTo(8.8125 + (17.625 - 8.8125) / 4, 9);
  });

  it('is taken as at the nearest stop measured, beyond the ends of the table', () => {
    expect(measuredAt(table, 1.4)).toBeCloseTo(40, 9);
    expect(measuredAt(table.slice(0, 2), 5.6)).toBeCloseTo(80, 9);
    for (const N of [1.4, 4, 5.6]) expect(measuredAt([{ fNumber: 4, lpPerMm: 60 }], N)).toBeCloseTo(60, 9);
  });

  it('has no disc of its own where diffraction alone explains what was measured', () => {
    expect(
      lensDisc(
        {
          character: 'ordinary',
          widestFNumber: 2,
          formatDiagonalMm: fullFrameDiagonalMm,
          measured: [{ fNumber: 16, lpPerMm: 400 }]
        },
        16
      )
    ).toBe(0);
  });

  it('with nothing in its table is one nobody has measured', () => {
    const unmeasured = { character: 'ordinary', widestFNumber: 2, formatDiagonalMm: fullFrameDiagonalMm } as const;
    expect(lensDisc({ ...unmeasured, measured: [] }, 2.8)).toBe(lensDisc(unmeasured, 2.8));
  });
});

describe('a lens nobody has measured', () => {
  it('loses half its aberrations with each stop, down to what no stop removes', () => {
    const disc = (N: number) =>
      lensDisc({ character: 'ordinary', widestFNumber: 2, formatDiagonalMm: fullFrameDiagonalMm }, N) ** 2 - 0.007 ** 2;
    expect(Math.sqrt(disc(2))).toBeCloseTo(0.016, 9);
    expect(Math.sqrt(disc(2 * Math.SQRT2))).toBeCloseTo(0.008, 9);
    expect(Math.sqrt(disc(8))).toBeCloseTo(0.001, 9);
  });

  it('is no worse than wide open, and differs by its character there alone', () => {
    const at = (character: LensSharpness['character'], N: number) =>
      lensDisc({ character, widestFNumber: 2, formatDiagonalMm: fullFrameDiagonalMm }, N);
    expect(at('ordinary', 1.4)).toBe(at('ordinary', 2));
    expect(at('crisp', 2)).toBeLessThan(at('ordinary', 2));
    expect(at('ordinary', 2)).toBeLessThan(at('weakWideOpen', 2));
    expect(at('weakWideOpen', 64) / at('crisp', 64)).toBeCloseTo(1, 3);
  });
});

it('blur in words: up to the disc allowed sharp, up to 1.6 of it a touch soft, beyond soft', () => {
  expect([0, 0.5, 1, 1 + 1e-10].map(verdict)).toEqual(Array(4).fill('sharp'));
  expect([1.001, 1.3, 1.6].map(verdict)).toEqual(Array(3).fill('touchSoft'));
  expect([1.601, 3, Infinity].map(verdict)).toEqual(Array(3).fill('soft'));
});

describe('a lens measured near its corners too', () => {
  const lens: LensSharpness = {
    character: 'ordinary',
    widestFNumber: 2,
    formatDiagonalMm: fullFrameDiagonalMm,
    measured: table,
    measuredCorner: [
      { fNumber: 2, lpPerMm: 20 },
      { fNumber: 4, lpPerMm: 80 },
      { fNumber: 16, lpPerMm: 45 }
    ]
  };
  const at = (height: number, N = 2) =>
    totalDisc(lensDisc(lens, N), lensBesideAxis(lens, N, height), diffractionDisc(N));

  it('is as measured on the axis and where corners are measured, between them in quadrature with the height', () => {
    expect(0.705 / at(0)).toBeCloseTo(40, 9);
    expect(0.705 / at(0.75)).toBeCloseTo(20, 9);
    expect(0.705 / at(1)).toBeCloseTo(20, 9);
    // Half way out half of what the corner adds: by hand √(17.625² + (√(35.25² − 17.625²)/2)²).
    expect(1000 * at(0.375)).toBeCloseTo(Math.hypot(17.625, Math.sqrt(35.25 ** 2 - 17.625 ** 2) / 2), 6);
  });

  it('adds nothing where the corners are as good or better, or were not measured', () => {
    expect(lensBesideAxis(lens, 4, 0.75)).toBeCloseTo(0, 6);
    expect(lensBesideAxis(lens, 16, 0.75)).toBe(0);
    expect(lensBesideAxis({ ...lens, measuredCorner: undefined }, 2, 0.75)).toBe(0);
    expect(lensBesideAxis({ ...lens, measuredCorner: [] }, 2, 0.75)).toBe(0);
  });
});
