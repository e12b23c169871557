/** The simulated camera's frames of the sheets, with what was really so. */
import { radians } from '../maths/vector';
import { shiftedFocus } from '../optics/thinLens';
import { normalFrom, type Random } from '../maths/random';
import { gray, type Gray } from './gray';
import { photograph, type PlacedPaper, type SheetScene } from './photograph';
import { turned, type CameraIntrinsics, type Pose } from './pose';
import { marginMm, rasterOf } from './raster';
import { aim, edgePage, focusHalves, type SheetPiece } from './sheets';

export interface FocusSheetScene {
  readonly lens: CameraIntrinsics;
  readonly fNumber: number;
  /** To what is aimed at, mm from the pupil. */
  readonly distanceMm: number;
  /** How the leaning half leans back, degrees; its middle stands `shiftMm` behind what is aimed at. */
  readonly leanDeg: number;
  readonly shiftMm?: number;
  /** How the upright half is turned out of square, degrees about the standing and the lying axis. */
  readonly tiltDeg?: readonly [number, number];
  /** The plane behind what is aimed at, on the sensor, µm. */
  readonly errorUm: number;
  readonly rest?: Partial<
    Pick<SheetScene, 'blurPx' | 'distortion' | 'vignetting' | 'uneven' | 'curvedMm' | 'exposure' | 'background'>
  >;
  /** Noise of each pixel, as a share of white. */
  readonly noise?: number;
}

/** Pixels of a raster to a mm of paper: where the camera's own are coarse, no more than it could see (chosen: six to one of its own). */
const fineness = { most: 12, least: 6, toOne: 6 } as const;
const finenessFor = (mmPerPx: number): number =>
  Math.min(fineness.most, Math.max(fineness.least, Math.ceil(fineness.toOne / mmPerPx)));
const papers = new Map<string, { readonly raster: Gray; readonly perMm: number; readonly margin: number }>();
function paperOf(name: string, perMm: number, piece: () => SheetPiece) {
  const key = `${name} ${perMm}`;
  const known = papers.get(key);
  if (known) return known;
  const made = { raster: rasterOf(piece(), perMm, 2, marginMm), perMm, margin: marginMm };
  papers.set(key, made);
  return made;
}

/** Turned about the lying and then the standing axis, a place of the paper lying at a place before the lens. */
export function poseAbout(
  [pitchDeg, yawDeg, rollDeg]: readonly [number, number, number],
  on: { readonly x: number; readonly y: number },
  at: readonly [number, number, number]
): Pose {
  const rolled = turned([1, 0, 0, 0, 1, 0, 0, 0, 1], [0, 0, radians(rollDeg)]);
  const r = turned(turned(rolled, [-radians(pitchDeg), 0, 0]), [0, radians(yawDeg), 0]);
  const t = [0, 1, 2].map((row) => (at[row] ?? 0) - (r[row * 3] ?? 0) * on.x - (r[row * 3 + 1] ?? 0) * on.y);
  return { r, t: [t[0] ?? 0, t[1] ?? 0, t[2] ?? 0] };
}

/** A frame of the focus sheet; its truth: where the plane lies behind what is aimed at, mm. */
export function focusShot(
  scene: FocusSheetScene,
  random: Random
): { readonly picture: Gray; readonly offsetMm: number } {
  const {
    lens,
    fNumber,
    distanceMm,
    leanDeg,
    shiftMm = 0,
    tiltDeg = [0, 0],
    errorUm,
    rest = {},
    noise = 0.004
  } = scene;
  const { upright, leaning } = focusHalves();
  const planeMm = shiftedFocus(lens.focalLengthMm, distanceMm, errorUm / 1000);
  const standing = poseAbout([tiltDeg[0], tiltDeg[1], 0], aim, [-68, 0, distanceMm]);
  const back = poseAbout([leanDeg, 0, 0.4], { x: leaning.width / 2, y: leaning.height / 2 }, [
    66,
    3,
    distanceMm + shiftMm
  ]);
  const placed: readonly PlacedPaper[] = [
    { pose: standing, ...paperOf('upright', fineness.most, () => upright) },
    { pose: back, ...paperOf('leaning', fineness.most, () => leaning) }
  ];
  const clean = photograph({ ...lens, fNumber, planeMm, papers: placed, ...rest }, random);
  return { picture: noisy(clean, noise, random), offsetMm: planeMm - distanceMm };
}

export function noisy(picture: Gray, share: number, random: Random): Gray {
  const normal = normalFrom(random);
  return {
    ...picture,
    // No brighter than full: what is more is cut off, as in a camera.
    light: picture.light.map((value) => Math.min(1, Math.max(0, value + share * normal() * Math.sqrt(0.2 + value))))
  };
}

export interface EdgeScene {
  readonly lens: CameraIntrinsics;
  readonly fNumber: number;
  readonly distanceMm: number;
  readonly rest?: FocusSheetScene['rest'];
  readonly noise?: number;
  /** How the wall is out of square, degrees. */
  readonly tiltDeg?: readonly [number, number];
  /** Where it is focused, mm from the pupil; on the wall where nothing is said. */
  readonly planeMm?: number;
}

/** Where the pages hang in the picture, as shares of half its width and height: centre, middles, corners. */
const spots = [
  [0, 0],
  [-0.42, -0.42],
  [0.42, -0.42],
  [-0.42, 0.42],
  [0.42, 0.42],
  [-0.75, -0.68],
  [0.75, -0.68],
  [-0.75, 0.68],
  [0.75, 0.68]
] as const;

/** A frame of a wall with the pages of the edge sheet: five (centre and corners) where they would hang over one another, else nine. */
export function edgeShot(scene: EdgeScene, random: Random): Gray {
  const { lens, fNumber, distanceMm, rest = {}, noise = 0.003, tiltDeg = [0, 0], planeMm = distanceMm } = scene;
  const across = (lens.width * lens.pixelMm * distanceMm) / lens.focalLengthMm;
  const down = (lens.height * lens.pixelMm * distanceMm) / lens.focalLengthMm;
  const nine = across * 0.18 > 200;
  const wall = poseAbout([tiltDeg[0], tiltDeg[1], 0], { x: 0, y: 0 }, [0, 0, distanceMm]);
  const placed = spots.flatMap(([x, y], page): PlacedPaper[] => {
    if (!nine && page > 0 && page < 5) return [];
    const piece = edgePage(page);
    const [u, v] = [(x * across) / 2 - piece.width / 2, (y * down) / 2 - piece.height / 2];
    const { r, t } = wall;
    const at = [0, 1, 2].map((row) => (r[row * 3] ?? 0) * u + (r[row * 3 + 1] ?? 0) * v + (t[row] ?? 0));
    const pose: Pose = { r, t: [at[0] ?? 0, at[1] ?? 0, at[2] ?? 0] };
    return [{ pose, ...paperOf(`edge ${page}`, finenessFor(across / lens.width), () => piece) }];
  });
  const clean = photograph({ ...lens, fNumber, planeMm, papers: placed, ...rest }, random);
  return noisy(clean, noise, random);
}

export interface Speck {
  /** As shares of the picture. */
  readonly x: number;
  readonly y: number;
  readonly mm: number;
}

export interface SpotScene {
  readonly lens: CameraIntrinsics;
  readonly fNumber: number;
  readonly specks: readonly Speck[];
  /** How far before the sensor they lie, mm. */
  readonly heightMm: number;
  readonly rest?: Pick<NonNullable<FocusSheetScene['rest']>, 'vignetting' | 'uneven' | 'exposure'>;
  readonly noise?: number;
}

/** The area two discs share, their middles so far apart (closed form of two circular segments). */
export function sharedArea(a: number, b: number, apart: number): number {
  const [r, s] = [a / 2, b / 2];
  if (apart >= r + s) return 0;
  if (apart <= Math.abs(r - s)) return Math.PI * Math.min(r, s) ** 2;
  const of = (own: number, other: number) =>
    own * own * Math.acos((apart * apart + own * own - other * other) / (2 * apart * own));
  const kite = Math.sqrt((-apart + r + s) * (apart + r - s) * (apart - r + s) * (apart + r + s)) / 2;
  return of(r, s) + of(s, r) - kite;
}

/** A plain bright surface, out of focus, before a sensor with dust on it. */
export function spotShot(
  { lens, fNumber, specks, heightMm, rest = {}, noise = 0.004 }: SpotScene,
  random: Random
): Gray {
  const { width, height, pixelMm } = lens;
  const { vignetting = 0, uneven = 0, exposure = 0.7 } = rest;
  const picture = gray(width, height);
  const half = Math.hypot(width, height) / 2;
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const off = Math.hypot(x - width / 2, y - height / 2) / half;
      picture.light[y * width + x] = exposure * (1 - vignetting * off * off) * (1 - uneven * (0.5 - x / width));
    }
  const cone = heightMm / fNumber;
  for (const { x, y, mm } of specks) {
    const [cx, cy, reach] = [x * width - 0.5, y * height - 0.5, (cone + mm) / 2 / pixelMm + 1];
    for (let row = Math.max(0, Math.floor(cy - reach)); row <= Math.min(height - 1, cy + reach); row++)
      for (let column = Math.max(0, Math.floor(cx - reach)); column <= Math.min(width - 1, cx + reach); column++) {
        const taken = sharedArea(mm, cone, Math.hypot(column - cx, row - cy) * pixelMm) / (Math.PI * (cone / 2) ** 2);
        picture.light[row * width + column] = (picture.light[row * width + column] ?? 0) * (1 - taken);
      }
  }
  return noisy(picture, noise, random);
}
