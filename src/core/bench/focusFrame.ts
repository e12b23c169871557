/** One frame of the focus sheet: where its plane of focus lies against what was aimed at. */
import { cross, quantile, range } from 'd3-array';
import { errorUm } from '../record/observe';
import type { Gray } from './gray';
import { findMarkers, mirrorImage, type FoundMarker } from './markers';
import {
  completed,
  distortionOf,
  isWhole,
  matchesOf,
  placed,
  poseFrom,
  projected,
  projectionPx,
  maxTiltDeg,
  tiltOf,
  turnOf,
  type CameraIntrinsics,
  type Pose
} from './pose';
import { rasterOf } from './raster';
import { isRefused, refused, type RefusedFrame } from './refused';
import { aim, focusHalves, texture, type SheetArea, type SheetPiece } from './sheets';
import { windowsOf, type Printed } from './texture';
import { fitThroughFocus, type ThroughFocus } from './throughFocus';

export interface FocusFrame extends ThroughFocus {
  /** To what was aimed at, mm from the pupil. */
  readonly distanceMm: number;
  /** The plane behind it; negative in front. */
  readonly offsetMm: number;
  /** The same on the sensor, and its standard deviation, µm. */
  readonly offsetUm: number;
  readonly sdUm: number;
  /** How far the upright half is turned out of the plane of the sensor, degrees. */
  readonly tiltDeg: number;
  /** How the upright half is turned about its standing and its lying axis against the sensor, and in the picture, degrees. */
  readonly turnDeg: { readonly aside: number; readonly back: number; readonly roll: number };
  /** What was aimed at lies so far from the middle of the picture, mm at the sheet: to the right, and down. */
  readonly aimFrom: { readonly x: number; readonly y: number };
  /** How far the leaning half reaches before what was aimed at, and behind, mm. */
  readonly wings: { readonly frontMm: number; readonly behindMm: number };
  /** Where the sheet lies in the picture, for showing it straight. */
  readonly poses: { readonly upright: Pose; readonly leaning: Pose; readonly vPx: number; readonly distortion: number };
  /** Where on the leaning half it is sharpest, and where it is as far as what was aimed at; mm from its top; null off the sheet. */
  readonly sharpestAtMm: number | null;
  readonly aimedAtMm: number | null;
}

export type FocusProblem =
  | 'noSheet'
  | 'half'
  | 'two'
  | 'mirrored'
  | 'small'
  | 'askew'
  | 'blown'
  | 'dark'
  | 'shortFront'
  | 'shortBehind'
  | 'flat'
  | 'notSharp'
  | 'unclear';

/** Pixels a mm of sheet: with fewer the texture cannot be seen (chosen). */
const leastPxPerMm = 3;
/** From its nearest place to its furthest the leaning half must reach so far, mm, and make a disc so large, pixels; beyond the plane half of that (chosen). */
const leastReach = { mm: 4, discPx: 4, endMm: 1 } as const;
/** The worst a corner may lie off where the sheet says, in its deviations: else the paper is bent, or the focal length another (chosen). */
const maxResidualSd = 12;
/** The most blur of its own with which anything is sharp, pixels as a standard deviation (chosen). */
const softestOwnPx = 2.5;
/** Discs that grow otherwise than optics say by more than these: another stop or focal length, or glare (chosen). */
const slopes = { least: 0.6, most: 1.5 } as const;
/** How far a half of the sheet is known to be turned, degrees (chosen on simulated sheets, scripts/sheets.ts). */
const tiltSdDeg = 0.4;
/** Light of the paper between which it is neither dark nor cut off (chosen). */
const lights = { dark: 0.06, wished: 0.6, blown: 0.97 } as const;
/** The two halves' distances are known to this share of themselves (chosen on simulated sheets). */
const distanceShare = 1.2e-4;
/** Where the upright half is bare, mm from its upper left: between its markers and above the lashes. */
const bare: SheetArea = { x: 30, y: 28, width: 60, height: 16 };

let printed: Printed | undefined;
const printedTexture = (): Printed => (printed ??= { raster: rasterOf(focusHalves().leaning, 10), perMm: 10 });

/** How many of a piece's markers were read. */
const readIn = ({ markers }: SheetPiece, ids: readonly number[]): number =>
  markers.filter(({ id }) => ids.includes(id)).length;
const readOf = (piece: SheetPiece, found: readonly FoundMarker[]): number =>
  readIn(
    piece,
    found.map(({ id }) => id)
  );

/** @param scale what a millimetre of the sheet really measures, mm: printers shrink */
export function measureFocusFrame(
  picture: Gray,
  lens: CameraIntrinsics,
  fNumber: number,
  scale = 1
): FocusFrame | RefusedFrame<FocusProblem> {
  // In millimetres of the sheet everything is as it should be, the lens and its pixels too.
  const told = measured(
    picture,
    { ...lens, focalLengthMm: lens.focalLengthMm / scale, pixelMm: lens.pixelMm / scale },
    fNumber
  );
  if (isRefused(told)) return told;
  const { frontMm, behindMm } = told.wings;
  return {
    ...told,
    planeMm: told.planeMm * scale,
    sdMm: told.sdMm * scale,
    distanceMm: told.distanceMm * scale,
    offsetMm: told.offsetMm * scale,
    offsetUm: told.offsetUm * scale,
    sdUm: told.sdUm * scale,
    wings: { frontMm: frontMm * scale, behindMm: behindMm * scale },
    aimFrom: { x: told.aimFrom.x * scale, y: told.aimFrom.y * scale },
    poses: told.poses
  };
}

/** Both halves of a sheet before the lens. */
interface PlacedSheet {
  readonly lens: CameraIntrinsics;
  readonly vPx: number;
  readonly front: Residual;
  readonly back: Residual;
  /** To what is aimed at, mm from the pupil. */
  readonly aimedMm: number;
}
type Residual = Pose & { readonly rms: number };

function measured(picture: Gray, straight: CameraIntrinsics, fNumber: number): FocusFrame | RefusedFrame<FocusProblem> {
  const sheet = sheetIn(picture, straight);
  if (isRefused(sheet)) return sheet;
  const standsWrong = whyUnfit(picture, sheet);
  if (standsWrong) return standsWrong;
  const { lens, vPx, front, back, aimedMm } = sheet;
  const { x, y, width, height } = texture;
  const depths = [y, y + height].map((at) => placed(back, { x: x + width / 2, y: at })[2]);
  const fit = planeIn(picture, sheet, fNumber, depths);
  if (isRefused(fit)) return fit;
  const [nearest, furthest] = [Math.min(...depths), Math.max(...depths)];
  const optics = { focalLengthMm: lens.focalLengthMm, pupilMagnification: 1, meantMm: aimedMm };
  const offsetMm = fit.planeMm - aimedMm;
  const sdMm = Math.hypot(fit.sdMm, distanceShare * aimedMm);
  const offsetUm = errorUm(optics, fit.planeMm);
  const perMm = (errorUm(optics, aimedMm + 1) - errorUm(optics, aimedMm - 1)) / 2;
  const atDepth = (mm: number): number | null => {
    const [top = 0, bottom = 0] = depths;
    const share = (mm - top) / (bottom - top);
    return share >= 0 && share <= 1 ? y + share * height : null;
  };
  return {
    ...fit,
    sdMm,
    offsetMm,
    offsetUm,
    sdUm: sdMm * perMm,
    distanceMm: aimedMm,
    tiltDeg: tiltOf(front),
    wings: { frontMm: aimedMm - nearest, behindMm: furthest - aimedMm },
    turnDeg: turnOf(front),
    aimFrom: { x: placed(front, aim)[0], y: placed(front, aim)[1] },
    poses: { upright: front, leaning: back, vPx, distortion: lens.distortion ?? 0 },
    sharpestAtMm: atDepth(fit.planeMm),
    aimedAtMm: atDepth(aimedMm)
  };
}

/** Both halves found by their markers, and how the lens bends lines. */
function sheetIn(picture: Gray, straight: CameraIntrinsics): PlacedSheet | RefusedFrame<FocusProblem> {
  const { upright, leaning } = focusHalves();
  const { markers: found, twice } = findMarkers(
    picture,
    (ids) => readIn(upright, ids) + readIn(leaning, ids) === upright.markers.length + leaning.markers.length
  );
  const own = [...upright.markers, ...leaning.markers].map(({ id }) => id);
  if (twice.some((id) => own.includes(id))) return refused('two');
  if (readOf(upright, found) + readOf(leaning, found) === 0)
    return refused(found.length === 0 && findMarkers(mirrorImage(picture)).markers.length > 0 ? 'mirrored' : 'noSheet');
  const standing = completed(picture, upright, found, straight);
  const first = poseFrom(matchesOf(upright, standing), straight);
  if (!first || standing.length < 3) return refused('half');
  const vPx = projectionPx(straight, placed(first, aim)[2]);
  const behind = completed(picture, leaning, found, straight, vPx);
  const seen = [matchesOf(upright, standing), matchesOf(leaning, behind)] as const;
  const lens: CameraIntrinsics = { ...straight, distortion: distortionOf(seen, straight, vPx) };
  const [front, back] = seen.map((matches) => poseFrom(matches, lens, vPx));
  if (!front || !back || !isWhole(upright, front, lens, vPx) || !isWhole(leaning, back, lens, vPx))
    return refused('half');
  return { lens, vPx, front, back, aimedMm: placed(front, aim)[2] };
}

/** What is wrong with how it stands or is lit; null where nothing is. */
function whyUnfit(picture: Gray, { lens, vPx, front, back, aimedMm }: PlacedSheet): RefusedFrame<FocusProblem> | null {
  if (vPx / aimedMm < leastPxPerMm) return refused('small', vPx / leastPxPerMm);
  if (front.rms > maxResidualSd || back.rms > maxResidualSd) return refused('unclear');
  const tiltDeg = tiltOf(front);
  if (tiltDeg > maxTiltDeg + tiltSdDeg) return refused('askew', tiltDeg);
  const light = lightOf(picture, front, lens, vPx);
  if (light > lights.blown) return refused('blown', 1);
  if (light < lights.dark) return refused('dark', Math.log2(lights.wished / Math.max(light, 1e-3)));
  return null;
}

/** Where the plane lies among the depths of the leaning half's texture. @param depths of its top and its bottom, mm */
function planeIn(
  picture: Gray,
  { lens, vPx, back, aimedMm }: PlacedSheet,
  fNumber: number,
  depths: readonly number[]
): ThroughFocus | RefusedFrame<FocusProblem> {
  const [nearest, furthest] = [Math.min(...depths), Math.max(...depths)];
  const perVergence = (lens.focalLengthMm / fNumber) * vPx;
  const discOf = (one: number, other: number) => perVergence * Math.abs(1 / one - 1 / other);
  const reachMm = furthest - nearest;
  if (reachMm < leastReach.mm || discOf(aimedMm, aimedMm + reachMm) < leastReach.discPx)
    return refused('flat', tiltOf(back));
  const fit = fitThroughFocus(windowsOf(picture, back, printedTexture(), lens, vPx), perVergence);
  if (!fit) return refused('unclear');
  if (fit.ownPx > softestOwnPx) return refused('notSharp');
  // Both sides must be there: a plane at the end of the paper may lie anywhere beyond.
  const isAtEnd = (end: number) =>
    Math.abs(fit.planeMm - end) <= leastReach.endMm || discOf(fit.planeMm, end) < leastReach.discPx / 2;
  if (fit.planeMm < nearest || isAtEnd(nearest)) return refused('shortFront', reachMm / 2);
  if (fit.planeMm > furthest || isAtEnd(furthest)) return refused('shortBehind', reachMm / 2);
  if (fit.slope < slopes.least || fit.slope > slopes.most) return refused('unclear');
  return fit;
}

/** How bright its white is, where nothing is printed. */
function lightOf({ width, height, light }: Gray, pose: Pose, lens: CameraIntrinsics, vPx: number): number {
  const places = cross(range(bare.x, bare.x + bare.width), range(bare.y, bare.y + bare.height));
  const values = places.flatMap(([x, y]) => {
    const px = projected(pose, { x, y }, lens, vPx);
    const [column, row] = [Math.round(px.x), Math.round(px.y)];
    return column >= 0 && row >= 0 && column < width && row < height ? [light[row * width + column] ?? 0] : [];
  });
  return quantile(values, 0.9) ?? 0;
}

/**
 * How far the leaning half is to be moved away from the lens (negative: towards it) so that both its wings reach alike, mm; null where both
 * reach `depthMm` or more already.
 */
export const wingShift = (
  { wings: { frontMm, behindMm } }: Pick<FocusFrame, 'wings'>,
  depthMm: number
): number | null => (Math.min(frontMm, behindMm) >= depthMm ? null : (frontMm - behindMm) / 2);
