/** The Floor's scale and the shapes that depend on it. Floor px: depth to the right, the picture's right downwards. */
import { scaleLinear } from 'd3-scale';
import type { Plan } from '$core/call/plan';
import { angleOfView } from '$core/optics/thinLens';
import { frameSize } from '$core/setup/framing';
import { toSceneFrame, type Viewpoint } from '$core/setup/scene';
import type { Body, Setup } from '$core/setup/schema';
import { mmPerFoot, type LengthUnit } from '$core/words/length';

export interface FloorScale {
  readonly width: number;
  readonly height: number;
  readonly pxPerMm: number;
  /** px of depth 0 in the scene (the subject line). */
  readonly originX: number;
  readonly originY: number;
  /** Deepest scene depth still drawn in place, mm from the lens. */
  readonly extentMm: number;
}

const leftPad = 34;
const rightPad = 26;
const axisHeight = 26;
const topPad = 34;

/** A scale that shows everybody in place, and backgrounds in place as far as that leaves the people room. */
export function floorScale(setup: Setup, distanceMm: number, width: number, height: number): FloorScale {
  const people = [...setup.people, ...setup.things];
  const depths = people.map((item) => item.depthMm + distanceMm);
  const furthest = Math.max(distanceMm, ...depths);
  const backgrounds = setup.backgrounds.map((item) => item.depthMm + distanceMm);
  const extentMm = Math.max(furthest * 1.25, Math.min(Math.max(0, ...backgrounds) * 1.06, furthest * 4));
  const halfWidthMm = Math.max(450, ...people.map((item) => Math.abs(item.lateralMm) + 420));
  const usableHeight = height - axisHeight - topPad;
  const pxPerMm = Math.min((width - leftPad - rightPad) / extentMm, usableHeight / (2 * halfWidthMm));
  return {
    width,
    height,
    pxPerMm,
    originX: leftPad + distanceMm * pxPerMm,
    originY: topPad + usableHeight / 2,
    extentMm: (width - leftPad - rightPad) / pxPerMm
  };
}

export function toPx(scale: FloorScale, depthMm: number, lateralMm: number): { x: number; y: number } {
  return { x: scale.originX + depthMm * scale.pxPerMm, y: scale.originY + lateralMm * scale.pxPerMm };
}

/** Distances from the lens for the axis. */
export function axisTicks(scale: FloorScale, distanceMm: number, unit: LengthUnit): { x: number; label: string }[] {
  const unitMm = unit === 'feet' ? mmPerFoot : 1000;
  const ticks = scaleLinear()
    .domain([0, scale.extentMm / unitMm])
    .ticks(Math.min(10, scale.width / 60));
  return ticks.map((value) => ({
    x: scale.originX + (value * unitMm - distanceMm) * scale.pxPerMm,
    label: unit === 'feet' ? `${value}′` : `${value} m`
  }));
}

interface Placed {
  readonly scale: FloorScale;
  readonly view: Viewpoint;
}

/** A camera-frame point (mm) on the Floor. The Floor is flat: tilt is left out. */
function fromCamera({ scale, view }: Placed, x: number, z: number): string {
  const point = toSceneFrame({ ...view, pitch: 0 }, { x, y: 0, z });
  const at = toPx(scale, point.z, point.x);
  return `${at.x.toFixed(2)} ${at.y.toFixed(2)}`;
}

/** A line of equal sharpness at a depth: straight, or an arc about the lens for a curved surface of focus. */
function front(placed: Placed, depth: number, backwards: boolean): string[] {
  const reach = (placed.scale.height / placed.scale.pxPerMm) * 1.5;
  const steps = placed.view.surface === 'flat' ? 1 : 32;
  const halfAngle = Math.min(1.2, Math.atan(reach / depth));
  const points = Array.from({ length: steps + 1 }, (_, i) => {
    const t = (i / steps) * 2 - 1;
    return placed.view.surface === 'flat'
      ? fromCamera(placed, t * reach, depth)
      : fromCamera(placed, depth * Math.sin(t * halfAngle), depth * Math.cos(t * halfAngle));
  });
  return backwards ? points.reverse() : points;
}

export function planePath(placed: Placed, depth: number): string {
  return `M${front(placed, depth, false).join('L')}`;
}

export function zonePath(placed: Placed, near: number, far: number): string {
  const furthest = Math.min(far, placed.scale.extentMm * 3);
  return `M${[...front(placed, near, false), ...front(placed, furthest, true)].join('L')}Z`;
}

/** The edges of the frame. */
export function framePath(placed: Placed, setup: Setup, body: Body, plan: Plan): string {
  const frame = frameSize(body, setup.camera.orientation);
  const half = angleOfView(plan.focalLengthMm, placed.view.distance, frame.width) / 2;
  const reach = placed.scale.extentMm * 1.6;
  const edge = reach * Math.tan(half);
  return `M${fromCamera(placed, 0, 0)}L${fromCamera(placed, -edge, reach)}L${fromCamera(placed, edge, reach)}Z`;
}
