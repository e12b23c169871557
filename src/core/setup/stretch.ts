/** What a flat picture does to heads away from its middle. */
import type { Vector } from '../maths/vector';
import { toCamera, type Viewpoint } from './scene';

/**
 * How much longer than wide a ball is drawn θ off the axis on a flat picture: 1/cos θ, radially over tangentially
 * (central projection: 1/cos² θ along, 1/cos θ across). 1 in the middle; the point must lie in front of the lens.
 */
export function stretchAt(view: Viewpoint, point: Vector): number {
  const { x, y, z } = toCamera(view, point);
  return Math.hypot(x, y, z) / Math.max(1e-6, z);
}

/** A head longer by less than this is not noticed (common practice, no source). */
export const noticedStretch = 1.12;
