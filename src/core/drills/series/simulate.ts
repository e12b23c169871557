/** The simulated camera before marks in line, each at a place of its own. */
import { gray, type Gray } from '../../bench/gray';
import { photograph, type PlacedPaper } from '../../bench/photograph';
import type { CameraIntrinsics } from '../../bench/pose';
import { marginMm, rasterOf } from '../../bench/raster';
import { ladderMark } from '../../bench/sheets';
import { noisy, poseAbout } from '../../bench/simulate';
import type { Random } from '../../maths/random';

export interface StandingMark {
  readonly index: number;
  /** Its middle before the lens, mm: to the right, down, and along the axis. */
  readonly x: number;
  readonly y: number;
  readonly z: number;
}

export interface MarksScene {
  readonly lens: CameraIntrinsics;
  readonly fNumber: number;
  readonly planeMm: number;
  readonly marks: readonly StandingMark[];
  /** Standard deviation of the lens's own blur, pixels. */
  readonly ownPx?: number;
  readonly noise?: number;
  /** What shake leaves: a straight track, pixels long, its direction in radians. */
  readonly track?: { readonly px: number; readonly angle: number };
}

const perMm = 8;
const rasters = new Map<number, Gray>();
const rasterFor = (index: number): Gray => {
  const known = rasters.get(index) ?? rasterOf(ladderMark(index), perMm, 2, marginMm);
  rasters.set(index, known);
  return known;
};

/** Marks are looked at by their own part of the picture: the rest is bare. */
export function marksShot(
  { lens, fNumber, planeMm, marks, ownPx = 0.4, noise = 0.004, track }: MarksScene,
  random: Random
): Gray {
  const papers = marks.map(({ index, x, y, z }): PlacedPaper => {
    const piece = ladderMark(index);
    const pose = poseAbout([0, 0, 0], { x: piece.width / 2, y: piece.height / 2 }, [x, y, z]);
    return { pose, raster: rasterFor(index), perMm, margin: marginMm };
  });
  const blurPx = { centre: ownPx, corner: ownPx };
  const picture = photograph({ ...lens, fNumber, planeMm, papers, blurPx, background: 0.25 }, random);
  return noisy(track ? smeared(picture, track) : picture, noise, random);
}

/** Three places a pixel along the track, between pixels by their neighbours: what each neighbour adds, once for all pixels. */
function trackKernel(px: number, angle: number): readonly { dx: number; dy: number; share: number }[] {
  const count = Math.max(1, Math.ceil(3 * px));
  const shares = new Map<string, { dx: number; dy: number; share: number }>();
  const add = (dx: number, dy: number, share: number) => {
    const known = shares.get(`${dx} ${dy}`) ?? { dx, dy, share: 0 };
    known.share += share / count;
    shares.set(`${dx} ${dy}`, known);
  };
  for (let place = 0; place < count; place++) {
    const along = px * ((place + 0.5) / count - 0.5);
    const [u, v] = [along * Math.cos(angle), along * Math.sin(angle)];
    const [i, j] = [Math.floor(u), Math.floor(v)];
    const [a, b] = [u - i, v - j];
    add(i, j, (1 - a) * (1 - b));
    add(i + 1, j, a * (1 - b));
    add(i, j + 1, (1 - a) * b);
    add(i + 1, j + 1, a * b);
  }
  return [...shares.values()].filter(({ share }) => share > 0);
}

/** A picture with everything drawn out along a straight track. */
export function smeared(picture: Gray, { px, angle }: { readonly px: number; readonly angle: number }): Gray {
  const { width, height, light } = picture;
  const out = gray(width, height);
  for (const { dx, dy, share } of trackKernel(px, angle))
    for (let y = 0; y < height; y++) {
      const row = Math.min(height - 1, Math.max(0, y + dy)) * width;
      for (let x = 0; x < width; x++) {
        const at = y * width + x;
        out.light[at] = (out.light[at] ?? 0) + share * (light[row + Math.min(width - 1, Math.max(0, x + dx))] ?? 0);
      }
    }
  return out;
}
