/** The third stage of a plan: what the lens sees, and where in the picture. */
import type { Vector } from '../maths/vector';
import { lineOfSightFrom, type LineOfSight } from '../setup/lineOfSight';
import { sightFrom } from '../setup/occlusion';
import { projector } from '../setup/projection';
import { eyesMidpoint, type Subject } from '../setup/scene';
import type { CameraInHand } from './camera';
import type { LaidOut } from './layOut';

export interface Sight {
  /** In shares of the picture from the left and the top; undefined behind the lens. */
  readonly at: (point: Vector) => { readonly x: number; readonly y: number } | undefined;
  /** Whether the lens sees a point of somebody past everybody else. */
  readonly sees: (ownId: string, point: Vector) => boolean;
  /** How far off the axis each of them is drawn, as a share of half the diagonal of the lens's format; by id. */
  readonly imageHeights: ReadonlyMap<string, number>;
  /** What the lens sees in a part of the picture; worked out when first asked for. */
  readonly lineOfSight: () => LineOfSight;
}

export function sightOf(scene: LaidOut, camera: CameraInHand): Sight {
  const { setup, view } = scene;
  const { body, P } = camera;
  const at = projector(view, setup.camera, body, view.distance, P);
  let looked: LineOfSight | undefined;
  return {
    at,
    sees: remembering(() => sightFrom(setup, view.position)),
    imageHeights: imageHeightsOf(scene, camera, at),
    lineOfSight: () => (looked ??= lineOfSightFrom(setup, view, body, P))
  };
}

/** In a stitched picture everybody is taken as on the axis: each frame is pointed at its own part of it. */
function imageHeightsOf(
  { setup, personOf, subjects }: LaidOut,
  { picture: { width, height }, sharpness: { formatDiagonalMm } }: CameraInHand,
  at: Sight['at']
): ReadonlyMap<string, number> {
  const heightOf = ({ id, points }: Subject): number => {
    const person = personOf.get(id);
    const position = person ? eyesMidpoint(person) : points[0]?.position;
    const place = position && at(position);
    return place ? Math.hypot((place.x - 0.5) * width, (place.y - 0.5) * height) / (formatDiagonalMm / 2) : 0;
  };
  return new Map(setup.camera.stitch ? [] : subjects.map((subject) => [subject.id, heightOf(subject)]));
}

/** The same answer for the same point, worked out once, and nothing at all until first asked. */
function remembering(make: () => Sight['sees']): Sight['sees'] {
  const known = new Map<Vector, boolean>();
  let sees: Sight['sees'] | undefined;
  return (ownId, point) => {
    const found = known.get(point);
    if (found !== undefined) return found;
    sees ??= make();
    const seen = sees(ownId, point);
    known.set(point, seen);
    return seen;
  };
}
