/**
 * The Floor's scale and the shapes that depend on it. Seen from above: depth to the right, the picture's right
 * downwards. Seen from the side: depth to the right, height upwards.
 */
import { scaleLinear } from 'd3-scale';
import type { Plan } from '../core/call/plan';
import { axialDepth } from '../core/optics/focusSurface';
import { angleOfView } from '../core/optics/thinLens';
import { eyeHeight } from '../core/people/anatomy';
import { pictureSize } from '../core/setup/framing';
import { toScene, type Viewpoint } from '../core/setup/scene';
import type { Body } from '../core/kit/schema';
import type { Setup } from '../core/setup/schema';
import { mmPerFoot, type LengthUnit } from '../core/units/length';

export type FloorSide = 'above' | 'side';

export interface FloorScale {
  readonly side: FloorSide;
  readonly width: number;
  readonly height: number;
  readonly pxPerMm: number;
  /** px of depth 0 in the scene (the subject line). */
  readonly originX: number;
  /** px of the middle of the picture (above) or of the floor (side). */
  readonly originY: number;
  /** Deepest scene depth still drawn in place, mm from the lens. */
  readonly extentMm: number;
}

const leftPad = 34;
const rightPad = 26;
const axisHeight = 22;
const topPad = 34;

/** Depth worth showing, mm from the lens: everybody in place, backgrounds as far as that leaves the people room. */
function shownDepth(setup: Setup, distanceMm: number): number {
  const depths = [...setup.people, ...setup.things].map((item) => item.depthMm + distanceMm);
  const furthest = Math.max(distanceMm, ...depths);
  const backgrounds = setup.backgrounds.map((item) => item.depthMm + distanceMm);
  return Math.max(furthest * 1.25, Math.min(Math.max(0, ...backgrounds) * 1.06, furthest * 4));
}

/** Room behind the lens worth showing: as far as the wall there, when it is not out of all proportion, mm. */
function shownBehindLens(setup: Setup, distanceMm: number): number {
  const { backUpMm } = setup.place;
  return backUpMm === null ? 0 : Math.max(0, Math.min(backUpMm - distanceMm, distanceMm * 0.8)) * 1.05;
}

function scaleOf(side: FloorSide, size: { width: number; height: number }, fit: Fit): FloorScale {
  const { width, height } = size;
  const usableHeight = height - axisHeight - topPad;
  const usableWidth = width - leftPad - rightPad;
  const pxPerMm = Math.min(usableWidth / (fit.depthMm + fit.behindLensMm), usableHeight / fit.acrossMm);
  return {
    side,
    width,
    height,
    pxPerMm,
    originX: leftPad + (fit.distanceMm + fit.behindLensMm) * pxPerMm,
    originY: side === 'above' ? topPad + usableHeight / 2 : height - axisHeight - 6 + fit.lowestMm * pxPerMm,
    extentMm: usableWidth / pxPerMm - fit.behindLensMm
  };
}

interface Fit {
  readonly distanceMm: number;
  readonly depthMm: number;
  readonly behindLensMm: number;
  readonly acrossMm: number;
  readonly lowestMm: number;
}

/** A scale that shows everybody in place from above. */
export function floorScale(setup: Setup, distanceMm: number, width: number, height: number): FloorScale {
  const sides = [...setup.people, ...setup.things].map((item) => Math.abs(item.lateralMm) + 420);
  return scaleOf(
    'above',
    { width, height },
    {
      distanceMm,
      depthMm: shownDepth(setup, distanceMm),
      behindLensMm: shownBehindLens(setup, distanceMm),
      acrossMm: 2 * Math.max(450, ...sides, Math.abs(setup.camera.lateralMm) + 200),
      lowestMm: 0
    }
  );
}

/** A scale that shows everybody from the sole to the crown, and the camera. */
export function sideScale(setup: Setup, distanceMm: number, width: number, height: number): FloorScale {
  const crowns = setup.people.map(
    (person) => person.floorMm + eyeHeight(person.statureMm, person.posture, person.being) + 220
  );
  const things = setup.things.map((thing) => thing.heightMm + thing.tallMm / 2 + 100);
  const lowestMm = Math.min(0, ...setup.people.map((person) => person.floorMm));
  const highest = Math.max(1200, ...crowns, ...things, setup.camera.heightMm + 250);
  return scaleOf(
    'side',
    { width, height },
    {
      distanceMm,
      depthMm: shownDepth(setup, distanceMm),
      behindLensMm: shownBehindLens(setup, distanceMm),
      acrossMm: highest - lowestMm,
      lowestMm
    }
  );
}

/** A pan and zoom as d3-zoom tells it. */
export interface Pan {
  readonly k: number;
  readonly x: number;
  readonly y: number;
}

/** The scale after going from one pan and zoom to another. */
export function panned(scale: FloorScale, from: Pan, to: Pan): FloorScale {
  const factor = to.k / from.k;
  const moved = (px: number, a: number, b: number) => (px - a) * factor + b;
  return {
    ...scale,
    pxPerMm: scale.pxPerMm * factor,
    originX: moved(scale.originX, from.x, to.x),
    originY: moved(scale.originY, from.y, to.y)
  };
}

/** Depth and the picture's right (from above), or depth and height (from the side), mm, in px. */
export function toPx(scale: FloorScale, depthMm: number, acrossMm: number): { x: number; y: number } {
  const down = scale.side === 'above' ? 1 : -1;
  return { x: scale.originX + depthMm * scale.pxPerMm, y: scale.originY + down * acrossMm * scale.pxPerMm };
}

/** Depth behind the subject line at a px, mm. */
export function depthAtPx(scale: FloorScale, x: number): number {
  return (x - scale.originX) / scale.pxPerMm;
}

/** Distances from the lens for the axis. */
export function axisTicks(scale: FloorScale, distanceMm: number, unit: LengthUnit): { x: number; label: string }[] {
  const unitMm = unit === 'feet' ? mmPerFoot : 1000;
  const from = Math.max(0, depthAtPx(scale, 0) + distanceMm);
  const to = depthAtPx(scale, scale.width) + distanceMm;
  const ticks = scaleLinear()
    .domain([from / unitMm, Math.max(from + 1, to) / unitMm])
    .ticks(Math.min(10, scale.width / 60));
  return ticks
    .map((value) => ({
      x: scale.originX + (value * unitMm - distanceMm) * scale.pxPerMm,
      label: unit === 'feet' ? `${value}′` : `${value} m`
    }))
    .filter((tick) => tick.x > 8 && tick.x < scale.width - 8);
}

export interface FloorPlacement {
  readonly scale: FloorScale;
  readonly view: Viewpoint;
}

/** A point in camera coordinates (mm) on the Floor: across and depth from above, up and depth from the side. */
function fromCamera({ scale, view }: FloorPlacement, across: number, z: number): string {
  const above = scale.side === 'above';
  const flat: Viewpoint = above ? { ...view, pitch: 0 } : { ...view, yaw: 0 };
  const point = toScene(flat, above ? { x: across, y: 0, z } : { x: 0, y: across, z });
  const at = toPx(scale, point.z, above ? point.x : point.y);
  return `${at.x.toFixed(2)} ${at.y.toFixed(2)}`;
}

/** A line of equal sharpness at a depth: straight, an arc about the lens for a curved surface of focus, or as it was measured to bend. */
function front(placed: FloorPlacement, depth: number, backwards: boolean): string[] {
  const reach = (placed.scale.height / placed.scale.pxPerMm) * 1.5;
  const { surface } = placed.view;
  const steps = surface === 'flat' ? 1 : 32;
  const halfAngle = surface === 'flat' ? Math.atan(reach / depth) : Math.min(1.2, Math.atan(reach / depth));
  const points = Array.from({ length: steps + 1 }, (_, i) => {
    const tangent = Math.tan(((i / steps) * 2 - 1) * halfAngle);
    const z = Math.min(axialDepth(surface, tangent, depth), reach * 2);
    return fromCamera(placed, tangent * z, z);
  });
  return backwards ? points.reverse() : points;
}

export function planePath(placed: FloorPlacement, depth: number): string {
  return `M${front(placed, depth, false).join('L')}`;
}

export function zonePath(placed: FloorPlacement, near: number, far: number): string {
  const furthest = Math.min(far, placed.scale.extentMm * 3);
  return `M${[...front(placed, near, false), ...front(placed, furthest, true)].join('L')}Z`;
}

/** The edges of the frame. */
export function framePath(placed: FloorPlacement, setup: Setup, body: Body, plan: Plan): string {
  const frame = pictureSize(body, setup.camera);
  const across = placed.scale.side === 'above' ? frame.width : frame.height;
  const half = angleOfView(plan.focalLengthMm, placed.view.distance, across, plan.pupilMagnification) / 2;
  const reach = placed.scale.extentMm * 1.6;
  const edge = reach * Math.tan(half);
  return `M${fromCamera(placed, 0, 0)}L${fromCamera(placed, -edge, reach)}L${fromCamera(placed, edge, reach)}Z`;
}
