import { describe, expect, it } from 'vitest';
import { zoneOfSharpness } from '../testing/depth';
import { seededRandom } from '../testing/random';
import { measureFocusFrame, type FocusFrame } from './focusFrame';
import { gray, type Gray } from './gray';
import type { CameraIntrinsics } from './pose';
import { isRefused } from './refused';
import { focusShot, type FocusSheetScene } from './simulate';

const lens = (focalLengthMm: number, pixelMm = 0.0114): CameraIntrinsics => ({
  focalLengthMm,
  pixelMm,
  width: 1110,
  height: 890
});
/** Where only the verdict counts: as few pixels as a sheet may have. */
const few: CameraIntrinsics = { focalLengthMm: 85, pixelMm: 0.0137, width: 900, height: 740 };
const measured = (picture: Gray, scene: FocusSheetScene): FocusFrame => {
  const found = measureFocusFrame(picture, scene.lens, scene.fNumber);
  if (isRefused(found)) throw new Error(found.problem);
  return found;
};
const scene = (changes: Partial<FocusSheetScene>): FocusSheetScene => ({
  lens: lens(85),
  fNumber: 1.4,
  distanceMm: 2000,
  leanDeg: 45,
  errorUm: 15,
  ...changes
});

describe('a frame of the focus sheet', () => {
  it.each([
    scene({ errorUm: 17 }),
    scene({
      lens: lens(85, 0.0153),
      distanceMm: 1500,
      errorUm: -30,
      leanDeg: 35,
      tiltDeg: [1.2, -0.8],
      rest: { uneven: 0.3, vignetting: 0.4, distortion: -0.03 }
    }),
    scene({
      lens: lens(50, 0.0152),
      fNumber: 2.8,
      distanceMm: 900,
      errorUm: 22,
      leanDeg: 50,
      rest: { distortion: 0.03 }
    }),
    // A half that leans far: its markers are seen at a slant, half as high as wide, and none of them is sharp (frame 217 of scripts/sheets.ts).
    scene({
      lens: { focalLengthMm: 85, pixelMm: 0.01164, width: 1030, height: 839 },
      distanceMm: 2106,
      errorUm: 23,
      leanDeg: 54.9,
      shiftMm: -6.5,
      tiltDeg: [0.58, 1.12],
      rest: { uneven: 0.2, vignetting: 0.3, distortion: -0.0114, blurPx: { centre: 0.65, corner: 0.8 } }
    })
  ])(
    'tells the plane to 0.15 of the depth of field or a millimetre: $lens.focalLengthMm mm at $distanceMm mm',
    (one) => {
      const { picture, offsetMm } = focusShot(one, seededRandom(3));
      const found = measured(picture, one);
      const depth = zoneOfSharpness(one.lens.focalLengthMm, one.fNumber, one.distanceMm);
      expect(Math.abs(found.offsetMm - offsetMm)).toBeLessThan(Math.max(1, 0.15 * depth));
      expect(Math.abs(found.distanceMm / one.distanceMm - 1)).toBeLessThan(0.01);
    }
  );

  const usual = scene({ lens: few, errorUm: 17 });
  const { picture } = focusShot(usual, seededRandom(4));
  const problemOf = (found: ReturnType<typeof measureFocusFrame>) => (isRefused(found) ? found.problem : null);
  const told = (changed: Gray, changes: Partial<CameraIntrinsics> = {}) =>
    problemOf(
      measureFocusFrame(
        changed,
        { ...usual.lens, width: changed.width, height: changed.height, ...changes },
        usual.fNumber
      )
    );
  const part = ({ width, light }: Gray, left: number, columns: number): Gray => {
    const cut = gray(columns, picture.height);
    for (let y = 0; y < picture.height; y++)
      cut.light.set(light.subarray(y * width + left, y * width + left + columns), y * columns);
    return cut;
  };
  const changed = (of: (value: number, x: number, y: number) => number): Gray => ({
    ...picture,
    light: picture.light.map((value, index) => of(value, index % picture.width, Math.floor(index / picture.width)))
  });

  it('says what is wrong with a picture that cannot be measured, and measures nothing', () => {
    expect(told({ ...gray(800, 600), light: new Float32Array(480_000).fill(0.5) })).toBe('noSheet');
    expect(told(part(picture, 0, 440))).toBe('half');
    expect(told(part(picture, 450, 450))).toBe('half');
    expect(told(changed((_, x, y) => picture.light[y * picture.width + picture.width - 1 - x] ?? 0))).toBe('mirrored');
    expect(told(changed((value) => Math.min(1, value * 1.6)))).toBe('blown');
    expect(told(changed((value) => value * 0.05))).toBe('dark');
    const twice = gray(2 * picture.width, picture.height);
    for (let y = 0; y < picture.height; y++)
      for (const at of [0, 1])
        twice.light.set(
          picture.light.subarray(y * picture.width, (y + 1) * picture.width),
          (2 * y + at) * picture.width
        );
    expect(told(twice)).toBe('two');
    // Glare over most of the texture: the plane may not be guessed from the rest.
    const glare = told(changed((value, x, y) => (x > 490 && y > 210 && y < 530 ? 0.96 : value)));
    expect(glare).not.toBeNull();
  });

  it('reckons with a printer that shrinks: all lengths are as much smaller', () => {
    const [whole, shrunk] = [1, 0.96].map((scale) => measureFocusFrame(picture, usual.lens, usual.fNumber, scale));
    if (!whole || !shrunk || isRefused(whole) || isRefused(shrunk)) throw new Error('not measured');
    // By hand: similar triangles. The sheet is smaller by a 25th, so it stands nearer by as much but for the focal length.
    const at = (mm: number) => mm - usual.lens.focalLengthMm;
    expect(at(shrunk.distanceMm) / at(whole.distanceMm)).toBeCloseTo(0.96, 3);
    expect(shrunk.offsetMm / whole.offsetMm).toBeCloseTo(0.96, 1);
  });

  it('says so where the sheet stands askew, or one wing is too short', () => {
    const of = (changes: Partial<FocusSheetScene>) => {
      const other = scene({ lens: few, ...changes });
      return measureFocusFrame(focusShot(other, seededRandom(5)).picture, other.lens, other.fNumber);
    };
    const askew = of({ tiltDeg: [0, 6] });
    expect(askew).toMatchObject({ problem: 'askew' });
    expect(isRefused(askew) && askew.by).toBeCloseTo(6, 0);
    // All of the leaning half stands behind what is aimed at, and the lens focuses before it.
    const short = of({ shiftMm: 75, errorUm: -20 });
    expect(short).toMatchObject({ problem: 'shortFront' });
    // Half of what 186 mm reach at 45°.
    expect(isRefused(short) && short.by).toBeCloseTo(93 * Math.SQRT1_2, -1);
    expect(of({ leanDeg: 0.5 })).toMatchObject({ problem: 'flat' });
  });
});
