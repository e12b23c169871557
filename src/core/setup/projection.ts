/** Where scene points fall in the picture. */
import type { Vector } from '../maths/vector';
import { imageDistance } from '../optics/thinLens';
import { pictureSize } from './framing';
import { toCamera, type Viewpoint } from './scene';
import type { Body } from '../kit/schema';
import type { Camera } from './schema';

export interface Projected {
  /** From the left edge of the frame, 0 to 1 inside it. */
  readonly x: number;
  /** From the top edge, 0 to 1 inside it. */
  readonly y: number;
  /** Frame widths per mm at this depth. */
  readonly scale: number;
}

/** Central projection through the pupil onto the frame, focused at `focusMm`. Undefined behind the lens. */
export function projector(
  view: Viewpoint,
  camera: Camera,
  body: Body,
  focusMm: number,
  P = 1
): (point: Vector) => Projected | undefined {
  const frame = pictureSize(body, camera);
  const v = imageDistance(camera.focalLengthMm, focusMm, P);
  return (point) => {
    const local = toCamera(view, point);
    if (local.z <= camera.focalLengthMm) return undefined;
    const onSensor = v / local.z;
    return {
      x: 0.5 + (local.x * onSensor) / frame.width,
      y: 0.5 - (local.y * onSensor) / frame.height,
      scale: onSensor / frame.width
    };
  };
}
