import { degrees } from '../geometry/vector';
import { eyesMidpoint, type Viewpoint } from './scene';
import type { Camera, Setup } from './schema';

/** Turn and tilt, whole degrees, that put the middle of all faces and things in the middle of the frame. */
export function aimAtPeople(setup: Setup, view: Viewpoint): Pick<Camera, 'yawDeg' | 'pitchDeg'> {
  const points = [
    ...setup.people.map(eyesMidpoint),
    ...setup.things.map((thing) => ({ x: thing.lateralMm, y: thing.heightMm, z: thing.depthMm }))
  ];
  const bearings = points.map((point) => {
    const x = point.x - view.position.x;
    const y = point.y - view.position.y;
    const z = point.z - view.position.z;
    return { yaw: degrees(Math.atan2(x, z)), pitch: degrees(Math.atan2(y, Math.hypot(x, z))) };
  });
  if (bearings.length === 0) return { yawDeg: 0, pitchDeg: 0 };
  const middle = (values: readonly number[]) => Math.round((Math.min(...values) + Math.max(...values)) / 2) + 0;
  const clamp = (angle: number) => Math.max(-80, Math.min(80, angle));
  return {
    yawDeg: clamp(middle(bearings.map((item) => item.yaw))),
    pitchDeg: clamp(middle(bearings.map((item) => item.pitch)))
  };
}
