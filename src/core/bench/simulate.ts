/** The simulated camera's frames of the sheets, with what was really so. */
import { radians } from '../geometry/vector';
import { shiftedFocus } from '../optics/thinLens';
import { normalFrom, type Random } from '../statistics/random';
import type { Gray } from './gray';
import { photograph, type PlacedPaper, type Scene } from './photograph';
import { turned, type Lens, type Pose } from './pose';
import { marginMm, rasterOf } from './raster';
import { aim, edgePage, focusHalves, type Piece } from './sheets';

export interface FocusScene {
  readonly lens: Lens;
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
    Pick<Scene, 'blurPx' | 'distortion' | 'vignetting' | 'uneven' | 'curvedMm' | 'exposure' | 'background'>
  >;
  /** Noise of each pixel, as a share of white. */
  readonly noise?: number;
}

const perMm = 12;
const papers = new Map<string, { readonly raster: Gray; readonly perMm: number; readonly margin: number }>();
function paperOf(key: string, piece: () => Piece) {
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
export function focusShot(scene: FocusScene, random: Random): { readonly picture: Gray; readonly offsetMm: number } {
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
    { pose: standing, ...paperOf('upright', () => upright) },
    { pose: back, ...paperOf('leaning', () => leaning) }
  ];
  const clean = photograph({ ...lens, fNumber, planeMm, papers: placed, ...rest }, random);
  return { picture: noisy(clean, noise, random), offsetMm: planeMm - distanceMm };
}

export function noisy(picture: Gray, share: number, random: Random): Gray {
  const normal = normalFrom(random);
  return {
    ...picture,
    light: picture.light.map((value) => Math.max(0, value + share * normal() * Math.sqrt(0.2 + value)))
  };
}

export interface EdgeScene {
  readonly lens: Lens;
  readonly fNumber: number;
  readonly distanceMm: number;
  readonly rest?: FocusScene['rest'];
  readonly noise?: number;
  /** How the wall is out of square, degrees. */
  readonly tiltDeg?: readonly [number, number];
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
  const { lens, fNumber, distanceMm, rest = {}, noise = 0.003, tiltDeg = [0, 0] } = scene;
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
    return [{ pose, ...paperOf(`edge ${page}`, () => piece) }];
  });
  const clean = photograph({ ...lens, fNumber, planeMm: distanceMm, papers: placed, ...rest }, random);
  return noisy(clean, noise, random);
}
