/** The simulated camera before marks in line, each at a place of its own. */
import type { Gray } from '../bench/gray';
import { photograph, type PlacedPaper } from '../bench/photograph';
import type { Lens } from '../bench/pose';
import { marginMm, rasterOf } from '../bench/raster';
import { ladderMark } from '../bench/sheets';
import { noisy, poseAbout } from '../bench/simulate';
import type { Random } from '../statistics/random';

export interface StandingMark {
  readonly index: number;
  /** Its middle before the lens, mm: to the right, down, and along the axis. */
  readonly x: number;
  readonly y: number;
  readonly z: number;
}

export interface MarksScene {
  readonly lens: Lens;
  readonly fNumber: number;
  readonly planeMm: number;
  readonly marks: readonly StandingMark[];
  /** Standard deviation of the lens's own blur, pixels. */
  readonly ownPx?: number;
  readonly noise?: number;
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
  { lens, fNumber, planeMm, marks, ownPx = 0.4, noise = 0.004 }: MarksScene,
  random: Random
): Gray {
  const papers = marks.map(({ index, x, y, z }): PlacedPaper => {
    const piece = ladderMark(index);
    const pose = poseAbout([0, 0, 0], { x: piece.width / 2, y: piece.height / 2 }, [x, y, z]);
    return { pose, raster: rasterFor(index), perMm, margin: marginMm };
  });
  const blurPx = { centre: ownPx, corner: ownPx };
  const picture = photograph({ ...lens, fNumber, planeMm, papers, blurPx, background: 0.25 }, random);
  return noisy(picture, noise, random);
}
