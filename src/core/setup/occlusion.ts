/**
 * Who stands before whom: whether the line from the lens to a point meets somebody's head or body, or a thing. Heads are
 * ellipsoids, bodies upright elliptic columns, things boxes square to the scene, sized as the drawn figures are.
 */
import { pitch, radians, yaw, type Vector } from '../maths/vector';
import { adultHead, headScale, interpupillaryOf } from '../people/anatomy';
import { eyesMidpoint, headPoint } from './scene';
import type { Person, Setup, Thing } from './schema';

/**
 * Half width and half depth of a body as shares of stature, how far its shoulders lie under the eyes, and half the neck
 * above them: as the figures are drawn (`render/scene/occlusion.test.ts`).
 */
const bodyShare = { halfWidth: 0.125, halfDepth: 0.07, shouldersUnderEyes: 0.135, halfNeck: 0.04 } as const;

/** The head as an ellipsoid in adult head coordinates, mm: about its hair, a little within the outline. */
const headMiddle: Vector = { x: 0, y: (adultHead.crownY + adultHead.chinY) / 2, z: -72 };
const headRadii: Vector = { x: adultHead.halfWidth, y: (adultHead.crownY - adultHead.chinY) / 2, z: 96 };

/** Where the line between two points, scene coordinates, first meets it, as a share of the line; null where it does not. */
export type Meets = (from: Vector, to: Vector) => number | null;

/** Somebody's head or body, or a thing, as solid. */
export interface Occluder {
  readonly id: string;
  readonly kind: 'head' | 'body' | 'thing';
  /** A circle about it on the floor, mm. */
  readonly at: { readonly x: number; readonly z: number };
  readonly reach: number;
  readonly meets: Meets;
}

/** Nearer to the point than this share of the line, what it meets is what it belongs to. */
const almostThere = 0.999;

/** From the scene to somebody's head coordinates (anatomy.ts), adult size, mm. */
export function headFrame(person: Person): (point: Vector) => Vector {
  const size = headScale(interpupillaryOf[person.being]);
  const eyes = eyesMidpoint(person);
  const [turn, tilt] = [radians(person.headYawDeg), radians(person.headPitchDeg)];
  const rows = [
    { x: 1, y: 0, z: 0 },
    { x: 0, y: 1, z: 0 },
    { x: 0, y: 0, z: 1 }
  ].map((axis) => pitch(yaw(axis, turn), tilt));
  const [ex, ey, ez] = rows as [Vector, Vector, Vector];
  return (point) => {
    const x = (point.x - eyes.x) / size;
    const y = (point.y - eyes.y) / size;
    const z = (point.z - eyes.z) / size;
    return {
      x: x * ex.x + y * ey.x + z * ez.x,
      y: x * ex.y + y * ey.y + z * ez.y,
      z: -(x * ex.z + y * ey.z + z * ez.z)
    };
  };
}

/** An ellipsoid by its middle and radii. */
export interface Ellipsoid {
  readonly at: Vector;
  readonly radii: Vector;
}

/** Where a line first meets an ellipsoid, as `Meets`. */
export function meetsEllipsoid({ at, radii }: Ellipsoid, from: Vector, to: Vector): number | null {
  // Scaled to the unit sphere about the origin; written out, since it is asked thousands of times for a picture.
  const x = (from.x - at.x) / radii.x;
  const y = (from.y - at.y) / radii.y;
  const z = (from.z - at.z) / radii.z;
  const dx = (to.x - from.x) / radii.x;
  const dy = (to.y - from.y) / radii.y;
  const dz = (to.z - from.z) / radii.z;
  const a = dx * dx + dy * dy + dz * dz;
  const b = x * dx + y * dy + z * dz;
  const root = b * b - a * (x * x + y * y + z * z - 1);
  if (a === 0 || root <= 0) return null;
  const half = Math.sqrt(root);
  const first = (-b - half) / a;
  return first >= almostThere || (-b + half) / a <= 0 ? null : Math.max(0, first);
}

function headOf(person: Person): Meets {
  const toHead = headFrame(person);
  return (from, to) => meetsEllipsoid({ at: headMiddle, radii: headRadii }, toHead(from), toHead(to));
}

/** An upright elliptic column about a body's axis, from the floor or the shoulders up. */
function columnOf(person: Person, half: { readonly x: number; readonly z: number }, from: number, to: number): Meets {
  const axis = headPoint(person, { x: 0, y: 0, z: -80 });
  const cos = Math.cos(radians(person.bodyYawDeg));
  const sin = Math.sin(radians(person.bodyYawDeg));
  return (start, end) => {
    // Turned with the shoulders and scaled to the unit circle; written out, as the ellipsoids are.
    const x = ((start.x - axis.x) * cos + (start.z - axis.z) * sin) / half.x;
    const z = ((start.z - axis.z) * cos - (start.x - axis.x) * sin) / half.z;
    const dx = ((end.x - start.x) * cos + (end.z - start.z) * sin) / half.x;
    const dz = ((end.z - start.z) * cos - (end.x - start.x) * sin) / half.z;
    const q = dx * dx + dz * dz;
    if (q === 0) return null;
    const middle = -(x * dx + z * dz) / q;
    const root = middle * middle - (x * x + z * z - 1) / q;
    if (root <= 0) return null;
    const reach = Math.sqrt(root);
    let first = Math.max(0, middle - reach);
    let last = Math.min(almostThere, middle + reach);
    // Within the column's heights too.
    const rise = end.y - start.y;
    if (rise === 0) return start.y > from && start.y < to && first < last ? first : null;
    const low = (from - start.y) / rise;
    const high = (to - start.y) / rise;
    first = Math.max(first, Math.min(low, high));
    last = Math.min(last, Math.max(low, high));
    return first < last ? first : null;
  };
}

function bodyOf(person: Person): Meets {
  const eyes = eyesMidpoint(person).y;
  const { statureMm, floorMm } = person;
  const shoulders = eyes - statureMm * bodyShare.shouldersUnderEyes;
  const half = (share: number) => statureMm * share;
  const trunk = columnOf(person, { x: half(bodyShare.halfWidth), z: half(bodyShare.halfDepth) }, floorMm, shoulders);
  const neck = columnOf(person, { x: half(bodyShare.halfNeck), z: half(bodyShare.halfNeck) }, shoulders, eyes);
  return (from, to) => {
    const first = trunk(from, to);
    const second = neck(from, to);
    return first === null || second === null ? (first ?? second) : Math.min(first, second);
  };
}

function thingOf(thing: Thing): Meets {
  const middle = { x: thing.lateralMm, y: thing.heightMm, z: thing.depthMm };
  const half = { x: thing.widthMm / 2, y: thing.tallMm / 2, z: thing.deepMm / 2 };
  return (from, to) => {
    let first = 0;
    let last = almostThere;
    for (const axis of ['x', 'y', 'z'] as const) {
      const start = from[axis] - middle[axis];
      const d = to[axis] - from[axis];
      if (d === 0) {
        if (Math.abs(start) >= half[axis]) return null;
        continue;
      }
      const [a, b] = [(-half[axis] - start) / d, (half[axis] - start) / d];
      first = Math.max(first, Math.min(a, b));
      last = Math.min(last, Math.max(a, b));
    }
    return first < last ? first : null;
  };
}

/** Everybody and everything of a setup as solid. Pets are taken by their heads alone. */
export function solidsOf(setup: Pick<Setup, 'people' | 'things'>): readonly Occluder[] {
  const about = (person: Person) => {
    const { x, z } = eyesMidpoint(person);
    // Head and body lie behind the eyes, turned whichever way.
    const head = 2 * headRadii.z * headScale(interpupillaryOf[person.being]);
    return { id: person.id, at: { x, z }, reach: Math.max(head, 90 + person.statureMm * bodyShare.halfWidth) };
  };
  return [
    ...setup.people.map((person): Occluder => {
      return { ...about(person), kind: 'head', meets: headOf(person) };
    }),
    ...setup.people
      .filter((person) => person.being !== 'pet')
      .map((person): Occluder => ({ ...about(person), kind: 'body', meets: bodyOf(person) })),
    ...setup.things.map((thing): Occluder => ({
      id: thing.id,
      kind: 'thing',
      at: { x: thing.lateralMm, z: thing.depthMm },
      reach: Math.hypot(thing.widthMm, thing.deepMm) / 2,
      meets: thingOf(thing)
    }))
  ];
}

/**
 * Says of a point of somebody or something whether the lens sees it past everybody and everything else. What hides a face
 * from itself (a turned far eye) is not asked here.
 */
export function sightFrom(
  setup: Pick<Setup, 'people' | 'things'>,
  lens: Vector
): (ownId: string, point: Vector) => boolean {
  const solids = solidsOf(setup);
  return (ownId, point) =>
    !solids.some((item) => item.id !== ownId && comesNear(lens, point, item) && item.meets(lens, point) !== null);
}

/** Whether the line, seen from above, comes as near to a solid as it reaches: most are passed by far. */
export function comesNear(from: Vector, to: Vector, { at, reach }: Pick<Occluder, 'at' | 'reach'>): boolean {
  const d = { x: to.x - from.x, z: to.z - from.z };
  const a = { x: at.x - from.x, z: at.z - from.z };
  const q = d.x * d.x + d.z * d.z;
  const t = q === 0 ? 0 : Math.min(1, Math.max(0, (a.x * d.x + a.z * d.z) / q));
  return (a.x - d.x * t) ** 2 + (a.z - d.z * t) ** 2 <= reach * reach;
}
