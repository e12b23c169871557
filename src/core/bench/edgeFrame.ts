/** One frame of a wall with pages of the edge sheet: how sharp it is at each edge. */
import { degrees } from '../maths/vector';
import { gray, type Gray } from './gray';
import { group, max, mean, median, sum } from 'd3-array';
import { Matrix, inverse, solve } from 'ml-matrix';
import { findMarkers, mirrorImage } from './markers';
import {
  completed,
  distortionOf,
  matchesOf,
  placed,
  poseFrom,
  projected,
  projectionPx,
  maxTiltDeg,
  type CameraIntrinsics,
  type Correspondence,
  type Pose
} from './pose';
import { refused, type RefusedFrame } from './refused';
import type { Zone } from './schema';
import { drawnEdges, edgePage, edgePageOf, edgePages, greyStepAreas, greySteps } from './sheets';
import { isBlown, slantedEdge, transposed, type EdgeFigure, type EdgeProblem } from './slantedEdge';
import { toneCurve, type GreyStep, type ToneCurve } from './tone';

export interface MeasuredEdge {
  readonly page: number;
  /** Its middle, pixels, and how far that is from the middle of the picture, over half its diagonal. */
  readonly x: number;
  readonly y: number;
  readonly height: number;
  readonly zone: Zone;
  /** Its normal lies across the picture. */
  readonly stands: boolean;
  readonly figure: EdgeFigure;
  readonly lpPerMm: number;
}

export interface EdgeFrame {
  readonly edges: readonly MeasuredEdge[];
  readonly pages: readonly number[];
  /** Edges that could not be measured, and why. */
  readonly lost: readonly { readonly page: number; readonly why: EdgeProblem }[];
  readonly tiltDeg: number;
  /** To the wall along the axis, mm from the pupil. */
  readonly distanceMm: number;
  /** The picture behind the pupil, pixels: a place so many pixels off the axis over it is the tangent of its angle. */
  readonly vPx: number;
  /** The largest of its edges' overshoots: sharpening. */
  readonly overshoot: number;
  /** How the camera's tones lay, from the steps of grey; null where they could not be read. It is undone in all figures. */
  readonly tone: {
    /** The exponent between what is printed and what was read. */
    readonly exponent: number;
    /** What undoing it did to the figures, as a share of them. */
    readonly shift: number;
  } | null;
}

export type EdgeFrameProblem = 'noSheet' | 'two' | 'mirrored' | 'small' | 'noEdges' | 'askew';

/** Half the picture's diagonal is 1: within the first it is the centre, beyond the second the corner (chosen). */
const zoneEnds = { centre: 0.3, corner: 0.65 } as const;
export const zoneOf = (height: number): Zone =>
  height < zoneEnds.centre ? 'centre' : height > zoneEnds.corner ? 'corner' : 'middle';

/** An edge is measured over this share of its length, and so far to either side, as a share of it and in pixels. */
const along = 0.62;
const beside = { share: 0.22, mostPx: 40 } as const;

/** Five pages at least, each by three markers: what is missing of a page is found by the others. */
function areWholePages(ids: readonly number[]): boolean {
  const pages = group(ids, edgePageOf);
  pages.delete(null);
  return pages.size >= 5 && [...pages.values()].every((own) => own.length >= 3);
}

export function measureEdgeFrame(
  picture: Gray,
  straight: CameraIntrinsics
): EdgeFrame | RefusedFrame<EdgeFrameProblem> {
  const { markers: found, twice } = findMarkers(picture, areWholePages);
  if (twice.some((id) => edgePageOf(id) !== null)) return refused('two');
  const pages = Array.from({ length: edgePages }, (_, page) => page).flatMap((page) => {
    const read = found.filter(({ id }) => edgePageOf(id) === page);
    const own = read.length === 0 ? [] : completed(picture, edgePage(page), read, straight);
    return own.length >= 3 ? [{ page, own }] : [];
  });
  if (pages.length === 0) {
    const other =
      pages.length === 0 &&
      found.length === 0 &&
      findMarkers(mirrorImage(picture)).markers.some(({ id }) => edgePageOf(id) !== null);
    return refused(other ? 'mirrored' : 'noSheet');
  }
  const seen = pages.map(({ page, own }) => matchesOf(edgePage(page), own));
  const lens: CameraIntrinsics = { ...straight, distortion: distortionOf(seen, straight) };
  const laid = pages.flatMap(({ page }, index) => {
    const pose = poseFrom(seen[index] ?? [], lens);
    if (!pose) return [];
    const sdMm = depthSdMm(seen[index] ?? [], pose);
    return [{ page, pose, vPx: projectionPx(lens, pose.t[2]), sdMm }];
  });
  const curve = toneCurve(laid.map(({ pose, vPx }) => stepsOf(picture, pose, lens, vPx)));
  const measured = laid.map((page, index) => measurePage(picture, lens, page, curve, index < toldBy));
  const edges = measured.flatMap((one) => one.edges);
  if (edges.length === 0)
    return refused(measured.every(({ lost }) => lost.every(({ why }) => why === 'small')) ? 'small' : 'noEdges');
  const { tiltDeg, tiltSdDeg, distanceMm } = wallOf(measured.map(({ middle }) => middle));
  // Nineteen in twenty that it is more than it may be: few pages tell little of how much they scatter.
  const free = Math.max(1, Math.min(student95.length, measured.length - 3));
  if (tiltDeg - (student95[free - 1] ?? 0) * tiltSdDeg > maxTiltDeg) return refused('askew', tiltDeg);
  return {
    edges,
    tiltDeg,
    distanceMm,
    vPx: projectionPx(lens, distanceMm),
    pages: pages.map(({ page }) => page),
    lost: measured.flatMap(({ lost }) => lost),
    overshoot: max(edges, ({ figure }) => figure.overshoot) ?? 0,
    tone: curve && { exponent: curve.exponent, shift: median(measured.flatMap(({ shifts }) => shifts)) ?? 0 }
  };
}

/** Student's t that is exceeded once in twenty, by degrees of freedom from one on (Student 1908; to three places, as in any table). */
export const student95 = [6.314, 2.92, 2.353, 2.132, 2.015, 1.943] as const;

interface LaidPage {
  readonly page: number;
  readonly pose: Pose;
  readonly vPx: number;
  /** How well its depth is known, mm. */
  readonly sdMm: number;
}

function measurePage(
  picture: Gray,
  lens: CameraIntrinsics,
  { page, pose, vPx, sdMm }: LaidPage,
  curve: ToneCurve | null,
  told: boolean
) {
  const piece = edgePage(page);
  const lost: { page: number; why: EdgeProblem }[] = [];
  const shifts: number[] = [];
  const [cx, cy] = [(picture.width - 1) / 2, (picture.height - 1) / 2];
  const edges = drawnEdges().flatMap(({ from, to, stands }): MeasuredEdge[] => {
    const [a, b] = [from, to].map(([x, y]) => projected(pose, { x, y }, lens, vPx));
    if (!a || !b) return [];
    const length = Math.hypot(b.x - a.x, b.y - a.y);
    const [x, y] = [(a.x + b.x) / 2, (a.y + b.y) / 2];
    const half = (along * length) / 2;
    const wide = Math.min(beside.mostPx, beside.share * length);
    const part = stands
      ? cut(picture, x - wide, y - half, 2 * wide, 2 * half)
      : cut(picture, x - half, y - wide, 2 * half, 2 * wide);
    const standing = part && (stands ? part : transposed(part));
    const figure =
      standing === null
        ? 'small'
        : // What was cut off, no curve brings back: the picture as it was read tells.
          isBlown(standing)
          ? 'blown'
          : slantedEdge(curve ? undone(standing, curve) : standing);
    if (told && standing && curve && typeof figure !== 'string') {
      const asRead = slantedEdge(standing);
      if (typeof asRead !== 'string') shifts.push(figure.mtf50 / asRead.mtf50 - 1);
    }
    if (typeof figure === 'string') {
      lost.push({ page, why: figure });
      return [];
    }
    const height = Math.hypot(x - cx, y - cy) / Math.hypot(cx, cy);
    const lpPerMm = figure.mtf50 / lens.pixelMm;
    return [{ page, x, y, height, zone: zoneOf(height), stands, figure, lpPerMm }];
  });
  const middle: PageMiddle = { at: placed(pose, { x: piece.width / 2, y: piece.height / 2 }), sdMm };
  return { edges, lost, middle, shifts };
}

/** The middle of a page before the lens, mm, and how well its depth is known. */
interface PageMiddle {
  readonly at: readonly [number, number, number];
  readonly sdMm: number;
}

/** A page is as far away as it looks small: its corners' scatter over how far they lie from their middle. */
function depthSdMm(matches: readonly Correspondence[], { t, rms }: Pose & { readonly rms: number }): number {
  const [x, y] = [mean(matches, ({ px }) => px.x) ?? 0, mean(matches, ({ px }) => px.y) ?? 0];
  const told = sum(matches, ({ px, sdPx }) => ((px.x - x) ** 2 + (px.y - y) ** 2) / sdPx ** 2);
  // Corners that lie further off than they may are all that less sure.
  return (t[2] * Math.max(1, rms)) / Math.sqrt(told);
}

interface Wall {
  readonly tiltDeg: number;
  /** Its standard deviation: pages that are blurred tell little. */
  readonly tiltSdDeg: number;
  readonly distanceMm: number;
}

/** The plane through the pages' middles, each weighed by how well it is known: its tilt, and where it meets the axis. Fewer than three make no plane. */
function wallOf(middles: readonly PageMiddle[]): Wall {
  const weights = middles.map(({ sdMm }) => 1 / sdMm);
  const weighed = sum(middles, ({ at, sdMm }) => at[2] / sdMm ** 2) / sum(weights, (weight) => weight ** 2);
  if (middles.length < 3) return { tiltDeg: 0, tiltSdDeg: 0, distanceMm: weighed };
  const flat = new Matrix(middles.map(({ at: [x, y], sdMm }) => [1 / sdMm, x / sdMm, y / sdMm]));
  const depths = Matrix.columnVector(middles.map(({ at, sdMm }) => at[2] / sdMm));
  const found = solve(flat, depths, true);
  const [distanceMm = NaN, across = 0, down = 0] = found.to1DArray();
  const off = Matrix.sub(flat.mmul(found), depths);
  const each = Math.max(1, off.dot(off) / Math.max(1, middles.length - 3));
  const spread = inverse(flat.transpose().mmul(flat), true).mul(each);
  const tilt = Math.hypot(across, down);
  const [along, aside] = tilt > 0 ? [across / tilt, down / tilt] : [1, 0];
  const variance = along ** 2 * spread.get(1, 1) + 2 * along * aside * spread.get(1, 2) + aside ** 2 * spread.get(2, 2);
  return { tiltDeg: degrees(Math.atan(tilt)), tiltSdDeg: degrees(Math.sqrt(variance)), distanceMm };
}

function cut({ width, height, light }: Gray, x: number, y: number, w: number, h: number): Gray | null {
  const [left, top, across, down] = [x, y, w, h].map(Math.round);
  if (left === undefined || top === undefined || across === undefined || down === undefined) return null;
  if (left < 0 || top < 0 || left + across > width || top + down > height || across < 8 || down < 8) return null;
  const part = gray(across, down);
  for (let row = 0; row < down; row++)
    part.light.set(light.subarray((top + row) * width + left, (top + row) * width + left + across), row * across);
  return part;
}

/** The steps of grey of a page, as they were read. */
function stepsOf(picture: Gray, pose: Pose, lens: CameraIntrinsics, vPx: number): GreyStep[] {
  return greyStepAreas.flatMap(({ x, y, width, height }, index) => {
    const px = projected(pose, { x: x + width / 2, y: y + height / 2 }, lens, vPx);
    const side = Math.floor((0.25 * width * vPx) / pose.t[2]);
    const part = cut(picture, px.x - side, px.y - side, 2 * side, 2 * side);
    const [printed, read] = [greySteps[index], part && mean(part.light)];
    return printed !== undefined && read != null ? [{ printed, read }] : [];
  });
}

/** What undoing the tones does to the figures is told by the edges of so many pages (chosen: all are alike). */
const toldBy = 2;

const undone = (picture: Gray, { undo }: ToneCurve): Gray => ({ ...picture, light: picture.light.map(undo) });
