import { mean, median } from 'd3-array';
import jstat from 'jstat';
import { describe, expect, it } from 'vitest';
import { boxMtf, mtf50 } from '../testing/mtf';
import { seededRandom } from '../testing/random';
import { measureEdgeFrame, student95, zoneOf, type EdgeFrame } from './edgeFrame';
import { gray } from './gray';
import type { CameraIntrinsics } from './pose';
import { edgeShot } from './simulate';
import {
  decentring,
  diffractionLpPerMm,
  lensTable,
  limitLpPerMm,
  notWritten,
  stopRows,
  stopVerdict,
  type StopRow
} from './stopSeries';

const lens: CameraIntrinsics = { focalLengthMm: 50, pixelMm: 0.012, width: 3000, height: 2000 };
const blurred = (sigma: number) =>
  mtf50((nu) => Math.exp(-2 * (Math.PI * sigma * nu) ** 2) * boxMtf(1, nu)) / lens.pixelMm;

describe('a frame of the edge sheet', () => {
  const picture = edgeShot(
    {
      lens,
      fNumber: 4,
      distanceMm: 2000,
      rest: { blurPx: { centre: 0.6, corner: 1.6 }, vignetting: 0.3, uneven: 0.2, distortion: 0.02 }
    },
    seededRandom(9)
  );
  const found = measureEdgeFrame(picture, lens) as EdgeFrame;

  it('has every page, and each edge as sharp as the lens is there', () => {
    expect(Math.abs(found.distanceMm / 2000 - 1)).toBeLessThan(0.002);
    expect(found.pages).toEqual([0, 1, 2, 3, 4, 5, 6, 7, 8]);
    expect(found.edges.length).toBeGreaterThanOrEqual(34);
    const errors = found.edges.map(({ height, lpPerMm }) => lpPerMm / blurred(0.6 + height * height) - 1);
    errors.sort((a, b) => a - b);
    expect(Math.abs(errors[Math.floor(errors.length / 2)] ?? 1)).toBeLessThan(0.04);
    for (const error of errors) expect(Math.abs(error)).toBeLessThan(0.12);
    expect(found.overshoot).toBeLessThan(0.03);
    expect(found.tone?.exponent).toBeCloseTo(1, 1);
    expect(Math.abs(found.tone?.shift ?? 1)).toBeLessThan(0.01);
  });

  it('undoes the camera’s tones: a curve of its own changes no figure', () => {
    // Deep shadows, and highlights rolled off: about what cameras do by themselves (made up).
    const curve = (light: number) => (1.25 * light ** 1.35) / (1 + 0.25 * light ** 2.7);
    const bent = measureEdgeFrame({ ...picture, light: picture.light.map(curve) }, lens) as EdgeFrame;
    expect(bent.edges.length).toBe(found.edges.length);
    expect(bent.tone?.exponent).toBeGreaterThan(1.1);
    const ratio = (of: EdgeFrame) =>
      median(of.edges, ({ page, stands, lpPerMm }) => {
        const same = found.edges.filter((one) => one.page === page && one.stands === stands);
        return lpPerMm / (mean(same, (one) => one.lpPerMm) ?? NaN);
      });
    expect(Math.abs((ratio(bent) ?? 0) - 1)).toBeLessThan(0.01);
    // Left as it is, it would.
    expect(Math.abs(bent.tone?.shift ?? 0)).toBeGreaterThan(0.015);
  });

  it('refuses a wall that is out of square, and not one whose blurred pages tell too little of it', () => {
    const small = { focalLengthMm: 85, pixelMm: 0.03, width: 1200, height: 800 };
    const wall = { lens: small, fNumber: 1.4, distanceMm: 3400 };
    const askew = measureEdgeFrame(edgeShot({ ...wall, tiltDeg: [0, 4] }, seededRandom(1)), small);
    expect(askew).toMatchObject({ problem: 'askew' });
    // 130 mm out of focus, by a lens whose field bends as much: corners lie half a pixel off, and a plane through them 3° askew.
    const rest = { vignetting: 0.2, uneven: 0.1, curvedMm: -134, blurPx: { centre: 0.5, corner: 0.7 } };
    const blurred = measureEdgeFrame(edgeShot({ ...wall, planeMm: 3531, rest }, seededRandom(3025)), small);
    expect(blurred).not.toHaveProperty('problem');
    for (const [index, value] of student95.entries()) expect(value).toBeCloseTo(jstat.studentt.inv(0.95, index + 1), 3);
  });

  it('says what is wrong where there is nothing to measure', () => {
    expect(measureEdgeFrame(gray(600, 400), lens)).toMatchObject({ problem: 'noSheet' });
    const twice = gray(6000, 2000);
    for (let y = 0; y < 2000; y++)
      for (const at of [0, 1]) twice.light.set(picture.light.subarray(y * 3000, (y + 1) * 3000), y * 6000 + at * 3000);
    expect(measureEdgeFrame(twice, { ...lens, width: 6000 })).toMatchObject({ problem: 'two' });
  });

  it('goes by zones: the middle of the picture, its corners, and between', () => {
    expect([0, 0.29, 0.31, 0.64, 0.66, 1].map(zoneOf)).toEqual([
      'centre',
      'centre',
      'middle',
      'middle',
      'corner',
      'corner'
    ]);
  });
});

const sharp = (lpPerMm: number) => ({ lpPerMm, standing: lpPerMm, lying: lpPerMm, risePx: 1.5, edges: 12, sd: 1 });
const row = (fNumber: number, centre: number, corner: number | null): StopRow => ({
  fNumber,
  frames: 3,
  overshoot: 0,
  middle: null,
  centre: sharp(centre),
  corner: corner === null ? null : sharp(corner)
});

describe('a series of stops', () => {
  const rows = [row(1.8, 30, 14), row(2.8, 50, 26), row(4, 62, 40), row(5.6, 60, 48), row(11, 45, 42)];

  it('says the best stop in the centre and to the corners, and which to avoid', () => {
    const verdict = stopVerdict(rows, 0.006);
    expect(verdict.bestCentre).toBe(4);
    expect(verdict.bestCorner).toEqual({ fNumber: 5.6, zone: 'corner' });
    expect(verdict.avoid.map(({ fNumber, zone }) => [fNumber, zone])).toEqual([
      [1.8, 'centre'],
      [1.8, 'corner'],
      [2.8, 'corner']
    ]);
    expect(verdict.avoid[1]?.loses).toBeCloseTo(1 - 14 / 48, 9);
    expect(verdict.unsound).toBe(false);
    expect(stopVerdict([row(4, 6, null)], 0.006).unsound).toBe(true);
  });

  it('is not written to the lens where it is soft, sharpened, or stops are missing', () => {
    const why = (of: readonly StopRow[], widest = 1.8) => notWritten(of, 0.006, widest);
    expect(why(rows)).toBeNull();
    expect(why([])).toBe('noCentre');
    expect(why(rows.map((one) => ({ ...one, centre: null })))).toBe('noCentre');
    expect(why([row(1.8, 6, null)])).toBe('unsound');
    expect(why(rows.map((one) => ({ ...one, overshoot: one.fNumber === 4 ? 0.12 : 0 })))).toBe('sharpened');
    expect(why(rows, 1.2)).toBe('notWide');
    expect(why(rows.filter(({ fNumber }) => fNumber === 1.8 || fNumber > 5))).toBe('gap');
  });

  it('is held against diffraction and the pixel, which the lens’s own table leaves out', () => {
    // MTF50 of a circular pupil, 0.404/(λN): at f/8 and 550 nm 91.8 lp/mm (by hand).
    expect(diffractionLpPerMm(8)).toBeCloseTo(0.404 / (0.00055 * 8), 1);
    // A pixel of 6 µm alone: 0.603/p = 100.5; together they are less.
    expect(limitLpPerMm(1, 0.006)).toBeCloseTo(99.9, 0);
    const [table] = lensTable([row(4, 62, 40)], 'centre', 0.006);
    expect(table?.lpPerMm).toBeCloseTo(0.705 / Math.sqrt((0.705 / 62) ** 2 - (1.17 * 0.006) ** 2), 0);
  });

  it('groups frames by their stop, and notices one corner weaker than the others', () => {
    const edge = (page: number, height: number, lpPerMm: number) =>
      ({
        page,
        height,
        lpPerMm,
        zone: zoneOf(height),
        stands: lpPerMm > 40,
        figure: { rise: 2 }
      }) as EdgeFrame['edges'][number];
    const frame = (scale: number): EdgeFrame => ({
      edges: [
        edge(0, 0, 60 * scale),
        edge(5, 0.9, 40 * scale),
        edge(6, 0.9, 41 * scale),
        edge(7, 0.9, 39 * scale),
        edge(8, 0.9, 24 * scale)
      ],
      pages: [0, 5, 6, 7, 8],
      lost: [],
      tiltDeg: 0,
      distanceMm: 2000,
      vPx: 2000,
      overshoot: 0.01,
      tone: null
    });
    const found = stopRows([
      { fNumber: 4, frame: frame(1) },
      { fNumber: 2, frame: frame(0.5) },
      { fNumber: 4, frame: frame(1.1) }
    ]);
    expect(found.map(({ fNumber, frames }) => [fNumber, frames])).toEqual([[2, 1], [4, 2]]); // prettier-ignore
    expect(found[1]?.centre?.lpPerMm).toBeCloseTo(63, 9);
    expect(found[1]?.corner?.edges).toBe(8);
    // Of those that stand: 41 and 1.1 times 40 and 41; of those that lie the rest.
    expect(found[1]?.corner?.standing).toBeCloseTo((41 + 44 + 45.1 + 42.9) / 4, 9);
    expect(found[1]?.corner?.lying).toBeCloseTo((40 + 39 + 24 + 26.4) / 4, 9);
    expect(found[1]?.corner?.risePx).toBe(2);
    expect(decentring([frame(1)])).toEqual({ page: 8, less: 1 - 24 / 40 });
  });
});
