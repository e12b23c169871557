/**
 * The surface of sharp focus before the lens: a plane square to the axis, a ball about the lens, or bent as this lens was measured.
 * A flat wall is drawn sag·(h/H)² nearer to the lens at height h; with h = v·tan θ that is, before the lens and for any v, a
 * difference in vergence of (sag/H²)·tan²θ, by the Gaussian lens equation to first order.
 */
import type { Vector } from '../maths/vector';

export type FocusSurface =
  | 'flat'
  | 'curved'
  /** Vergence added by the squared tangent off the axis, 1/mm; positive where it comes towards the lens at the edges. */
  | { readonly bendPerMm: number };

/** Nothing counts as further than this, mm: what lies behind everything the bent surface reaches. */
const furthestMm = 1e7;

const fromVergence = (vergence: number): number => 1 / Math.max(vergence, 1 / furthestMm);

/** Depth of a place as the surface counts it, mm: alike for all places that are sharp together; negative behind the lens. */
export function surfaceDepth(surface: FocusSurface, { x, y, z }: Vector): number {
  if (surface === 'flat' || z <= 0) return z;
  if (surface === 'curved') return Math.hypot(x, y, z);
  return fromVergence(1 / z - surface.bendPerMm * (Math.hypot(x, y) / z) ** 2);
}

/** How far along the axis the surface lies in a direction, mm. @param tangent of the angle off the axis; @param depth as the surface counts it */
export function axialDepth(surface: FocusSurface, tangent: number, depth: number): number {
  if (surface === 'flat') return depth;
  if (surface === 'curved') return depth / Math.hypot(1, tangent);
  return fromVergence(1 / depth + surface.bendPerMm * tangent * tangent);
}
