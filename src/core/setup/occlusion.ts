/**
 * Who stands before whom: whether the line from the lens to a point meets somebody's head or body, or a thing. Heads are
 * ellipsoids, bodies upright elliptic columns, things boxes square to the scene, sized as the drawn figures are.
 */
import { pitch, radians, scale, subtract, yaw, type Vector } from '../geometry/vector';
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

/** Whether the line between two points, scene coordinates, is cut. */
type Blocks = (from: Vector, to: Vector) => boolean;

interface Obstacle {
  readonly id: string;
  /** A circle about it on the floor, mm. */
  readonly at: { readonly x: number; readonly z: number };
  readonly reach: number;
  readonly blocks: Blocks;
}

/** Nearer to the point than this share of the line, what it meets is what it belongs to. */
const almostThere = 0.999;

/** Whether a segment meets the unit sphere about the origin. */
function meetsSphere(from: Vector, to: Vector): boolean {
  const d = subtract(to, from);
  const a = d.x * d.x + d.y * d.y + d.z * d.z;
  const b = from.x * d.x + from.y * d.y + from.z * d.z;
  const t = a === 0 ? 0 : Math.min(almostThere, Math.max(0, -b / a));
  return (from.x + d.x * t) ** 2 + (from.y + d.y * t) ** 2 + (from.z + d.z * t) ** 2 < 1;
}

function headOf(person: Person): Blocks {
  const size = headScale(interpupillaryOf[person.being]);
  const middle = headPoint(person, headMiddle);
  const toUnit = (point: Vector): Vector => {
    const turned = pitch(yaw(subtract(point, middle), radians(person.headYawDeg)), radians(person.headPitchDeg));
    const own = scale(turned, 1 / size);
    return { x: own.x / headRadii.x, y: own.y / headRadii.y, z: own.z / headRadii.z };
  };
  return (from, to) => meetsSphere(toUnit(from), toUnit(to));
}

/** An upright elliptic column about a body's axis, from the floor or the shoulders up. */
function columnOf(person: Person, half: { readonly x: number; readonly z: number }, from: number, to: number): Blocks {
  const axis = headPoint(person, { x: 0, y: 0, z: -80 });
  const turn = radians(person.bodyYawDeg);
  const flat = (point: Vector) => {
    const { x, z } = yaw({ x: point.x - axis.x, y: 0, z: point.z - axis.z }, turn);
    return { x: x / half.x, z: z / half.z };
  };
  return (start, end) => {
    const a = flat(start);
    const b = flat(end);
    const d = { x: b.x - a.x, z: b.z - a.z };
    const q = d.x * d.x + d.z * d.z;
    if (q === 0) return false;
    const middle = -(a.x * d.x + a.z * d.z) / q;
    const inside = a.x * a.x + a.z * a.z - 1;
    const root = middle * middle - inside / q;
    if (root <= 0) return false;
    const first = Math.max(0, middle - Math.sqrt(root));
    const last = Math.min(almostThere, middle + Math.sqrt(root));
    if (first >= last) return false;
    const heights = [first, last].map((t) => start.y + (end.y - start.y) * t);
    return Math.min(...heights) < to && Math.max(...heights) > from;
  };
}

function bodyOf(person: Person): Blocks {
  const eyes = eyesMidpoint(person).y;
  const { statureMm, floorMm } = person;
  const shoulders = eyes - statureMm * bodyShare.shouldersUnderEyes;
  const half = (share: number) => statureMm * share;
  const trunk = columnOf(person, { x: half(bodyShare.halfWidth), z: half(bodyShare.halfDepth) }, floorMm, shoulders);
  const neck = columnOf(person, { x: half(bodyShare.halfNeck), z: half(bodyShare.halfNeck) }, shoulders, eyes);
  return (from, to) => trunk(from, to) || neck(from, to);
}

function thingOf(thing: Thing): Blocks {
  const middle = { x: thing.lateralMm, y: thing.heightMm, z: thing.depthMm };
  const half = { x: thing.widthMm / 2, y: thing.tallMm / 2, z: thing.deepMm / 2 };
  return (from, to) => {
    let first = 0;
    let last = almostThere;
    for (const axis of ['x', 'y', 'z'] as const) {
      const start = from[axis] - middle[axis];
      const d = to[axis] - from[axis];
      if (d === 0) {
        if (Math.abs(start) >= half[axis]) return false;
        continue;
      }
      const [a, b] = [(-half[axis] - start) / d, (half[axis] - start) / d];
      first = Math.max(first, Math.min(a, b));
      last = Math.min(last, Math.max(a, b));
    }
    return first < last;
  };
}

/**
 * Says of a point of somebody or something whether the lens sees it past everybody and everything else. What hides a face
 * from itself (a turned far eye) is not asked here. Pets are taken by their heads alone.
 */
export function sightFrom(
  setup: Pick<Setup, 'people' | 'things'>,
  lens: Vector
): (ownId: string, point: Vector) => boolean {
  const about = (person: Person) => {
    const { x, z } = eyesMidpoint(person);
    // Head and body lie behind the eyes, turned whichever way.
    const head = 2 * headRadii.z * headScale(interpupillaryOf[person.being]);
    return { id: person.id, at: { x, z }, reach: Math.max(head, 90 + person.statureMm * bodyShare.halfWidth) };
  };
  const obstacles: Obstacle[] = [
    ...setup.people.map((person) => ({ ...about(person), blocks: headOf(person) })),
    ...setup.people
      .filter((person) => person.being !== 'pet')
      .map((person) => ({ ...about(person), blocks: bodyOf(person) })),
    ...setup.things.map((thing) => ({
      id: thing.id,
      at: { x: thing.lateralMm, z: thing.depthMm },
      reach: Math.hypot(thing.widthMm, thing.deepMm) / 2,
      blocks: thingOf(thing)
    }))
  ];
  return (ownId, point) =>
    !obstacles.some((item) => item.id !== ownId && comesNear(lens, point, item) && item.blocks(lens, point));
}

/** Whether the line, seen from above, comes as near to an obstacle as it reaches: most are passed by far. */
function comesNear(from: Vector, to: Vector, { at, reach }: Obstacle): boolean {
  const d = { x: to.x - from.x, z: to.z - from.z };
  const a = { x: at.x - from.x, z: at.z - from.z };
  const q = d.x * d.x + d.z * d.z;
  const t = q === 0 ? 0 : Math.min(1, Math.max(0, (a.x * d.x + a.z * d.z) / q));
  return (a.x - d.x * t) ** 2 + (a.z - d.z * t) ** 2 <= reach * reach;
}
