import { degrees } from '../maths/vector';
import { imageDistance } from '../optics/thinLens';
import type { Body } from '../kit/schema';
import { pictureSize } from './framing';
import { projector } from './projection';
import { eyesMidpoint, viewpoint, type Viewpoint } from './scene';
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

/** A setup with what takes it. */
interface Taken {
  readonly setup: Setup;
  readonly body: Body;
  /** Pupil magnification of the lens. */
  readonly P: number;
}

/** Turn and tilt are kept to so much, degrees. */
const aimStepDeg = 0.1;

/** Middle of those who should be sharp, in shares of the picture; null when nobody is in front of the lens. */
function middleOf({ setup, body, P }: Taken, camera: Camera): { readonly x: number; readonly y: number } | null {
  const view = viewpoint({ ...setup, camera }, body, P);
  const project = projector(view, camera, body, view.distance, P);
  const places = [
    ...setup.people.filter((person) => person.importance !== 'maySoft').map(eyesMidpoint),
    ...setup.things
      .filter((thing) => thing.importance !== 'maySoft')
      .map((thing) => ({ x: thing.lateralMm, y: thing.heightMm, z: thing.depthMm }))
  ].flatMap((place) => project(place) ?? []);
  if (!places.every(({ x, y }) => Number.isFinite(x + y)) || places.length === 0) return null;
  const middle = (values: readonly number[]) => (Math.min(...values) + Math.max(...values)) / 2;
  return { x: middle(places.map((place) => place.x)), y: middle(places.map((place) => place.y)) };
}

/**
 * Turn and tilt that keep the group where it was in the picture after the camera, its lens or the people have moved.
 * Unchanged when it still is there.
 */
export function keepAim(before: Taken, after: Taken): Pick<Camera, 'yawDeg' | 'pitchDeg'> {
  const { camera } = after.setup;
  const wanted = middleOf(before, before.setup.camera);
  let { yawDeg, pitchDeg } = camera;
  if (!wanted) return { yawDeg, pitchDeg };
  const picture = pictureSize(after.body, camera);
  const { distance } = viewpoint(after.setup, after.body, after.P);
  const v = imageDistance(camera.focalLengthMm, distance, after.P);
  const clamp = (angle: number) => Math.max(-80, Math.min(80, angle));
  for (let i = 0; i < 4; i++) {
    const now = middleOf(after, { ...camera, yawDeg, pitchDeg });
    if (!now) break;
    const [x, y] = [now.x - wanted.x, now.y - wanted.y];
    if (Math.abs(x) < offMiddle && Math.abs(y) < offMiddle) return { yawDeg, pitchDeg };
    yawDeg = clamp(yawDeg + degrees(Math.atan((x * picture.width) / v)));
    pitchDeg = clamp(pitchDeg - degrees(Math.atan((y * picture.height) / v)));
  }
  const tidy = (angle: number) => Number((Math.round(angle / aimStepDeg) * aimStepDeg).toFixed(1)) + 0;
  return { yawDeg: tidy(yawDeg), pitchDeg: tidy(pitchDeg) };
}

/** A group off its place by less than this share of the picture is where it was. */
const offMiddle = 0.01;
