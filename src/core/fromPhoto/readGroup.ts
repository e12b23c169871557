/** Who stands where, read from the faces of one photo. */
import { degrees, pitch, radians, type Vector } from '../maths/vector';
import { cameraStand, eyesOver, type CameraStand } from './standing';
import { directionOf, distanceOfFace, eyesAt, type FaceSeen, type PhotoProjection } from './rulers';
import { rowsOf, type Placed, type RowSeen } from './rows';

/** What is known beside the photo. */
export interface Known {
  /** Distances between pupils that were measured, mm, by face. */
  readonly pupilsMm?: ReadonlyMap<string, number>;
  /** One distance from the lens that is known: of a face, or of the front row; it scales all. */
  readonly distance?: { readonly mm: number; readonly faceId: string | null };
  /** The camera's tilt where the photo says it, degrees upwards. */
  readonly tiltDeg?: number | null;
  /** Taken off: not part of the group. */
  readonly without?: ReadonlySet<string>;
}

export interface PersonRead {
  readonly id: string;
  /** Level, straight ahead of the camera, mm: nine of ten between `low` and `high`. */
  readonly aheadMm: number;
  readonly low: number;
  readonly high: number;
  /** Standard deviations, mm: of their own, and of what everyone in their row shares. */
  readonly own: number;
  readonly shared: number;
  /** To the picture's right, mm. */
  readonly lateralMm: number;
  /** Height of the eyes over the ground the camera stands on, mm. */
  readonly eyesMm: number;
  /** The chance that it is a child. */
  readonly child: number;
  /** From 0, the nearest. */
  readonly row: number;
  readonly face: FaceSeen;
}

export interface GroupRead {
  readonly people: readonly PersonRead[];
  readonly rows: readonly RowSeen[];
  readonly stand: CameraStand;
  /** Faces that tell no distance: too small, or turned too far. */
  readonly untold: readonly string[];
}

/** Nine of ten of a normal deviate lie within so many standard deviations. */
const nineOfTen = 1.6449;
/** People of a row stand within this of its line, mm (common practice, no source). */
const withinRowMm = 90;
/** With several rows someone may stand in another than they are put in: so much more spread, mm (chosen by `scripts/groups.ts`). */
const doubtMm = 60;
/** A distance someone measured is off by about this share (common practice, no source). */
const knownSd = 0.01;

/** @returns undefined where no face tells its distance */
export function readGroup(
  faces: readonly FaceSeen[],
  projection: PhotoProjection,
  known: Known = {}
): GroupRead | undefined {
  const wanted = faces.filter(({ id }) => !known.without?.has(id));
  const ranged = wanted.flatMap((face) => {
    const range = distanceOfFace(face, projection, known.pupilsMm?.get(face.id) ?? null);
    return range ? [{ face, range }] : [];
  });
  if (ranged.length === 0) return undefined;
  const sighted = ranged.map(({ face, range }) => {
    const { y } = directionOf(eyesAt(face), projection);
    return { straightMm: range.mm, above: Math.asin(y), child: range.child };
  });
  const first = cameraStand(sighted, known.tiltDeg ?? null);
  const placed = ranged.map(({ face, range }) => {
    const direction = directionOf(eyesAt(face), projection);
    const ahead = pitch(direction, radians(first.tiltDeg));
    return {
      id: face.id,
      face,
      ahead,
      above: Math.asin(direction.y),
      x: ahead.x * range.mm,
      y: ahead.y * range.mm,
      z: ahead.z * range.mm,
      sd: ahead.z * range.mm * range.sd,
      child: range.child
    };
  });
  const rows = rowsOf(placed);
  const scale = scaleOf(placed, rows, known);
  // Whoever stands nearer than they seemed is lower or higher, too.
  const nearer = sighted.map((one) => ({ ...one, straightMm: one.straightMm * scale.by }));
  const stand = scale.by === 1 ? first : cameraStand(nearer, first.tiltDeg);
  const people = placed.map((one) => personRead(one, rows, scale, stand));
  return {
    people,
    rows: rows.map(({ ids, z, sd }) => ({ ids, z: z * scale.by, sd: sd * scale.by })),
    stand,
    untold: wanted.filter(({ id }) => !ranged.some(({ face }) => face.id === id)).map(({ id }) => id)
  };
}

/** A face as the photo ranges it. */
interface FaceRanged extends Placed {
  readonly face: FaceSeen;
  readonly ahead: Vector;
  /** Above the camera's axis, radians. */
  readonly above: number;
}

function personRead(
  one: FaceRanged,
  rows: readonly RowSeen[],
  scale: ReturnType<typeof scaleOf>,
  stand: CameraStand
): PersonRead {
  const row = rows.findIndex(({ ids }) => ids.includes(one.id));
  const at = rows[row];
  // What the row says of them, and what their own face says; a row of one says nothing.
  const inRow = at && at.ids.length > 1 ? drawn(one, at) : { mm: one.z, own: one.sd, shared: 0 };
  const aheadMm = inRow.mm * scale.by;
  const own = Math.hypot(inRow.own, rows.length > 1 ? doubtMm : 0) * scale.by;
  const shared = Math.hypot(inRow.shared * scale.by * (scale.sd > 0 ? 0 : 1), aheadMm * scale.sd);
  const sd = Math.hypot(own, shared);
  const straightMm = aheadMm / one.ahead.z;
  return {
    id: one.id,
    face: one.face,
    aheadMm,
    own,
    shared,
    low: aheadMm - nineOfTen * sd,
    high: aheadMm + nineOfTen * sd,
    lateralMm: straightMm * one.ahead.x,
    eyesMm: eyesOver({ straightMm, above: one.above }, stand),
    child: one.child,
    row
  };
}

interface Found {
  readonly id: string;
  readonly z: number;
  readonly sd: number;
}

/** Someone drawn to their row's line, as much as the row is surer than their own face. */
function drawn({ z, sd }: Found, row: RowSeen): { readonly mm: number; readonly own: number; readonly shared: number } {
  const share = withinRowMm ** 2 / (withinRowMm ** 2 + sd ** 2);
  return { mm: row.z + (z - row.z) * share, own: Math.sqrt(share) * sd, shared: (1 - share) * row.sd };
}

/** One known distance scales all: then only the shape is estimated. */
function scaleOf(
  placed: readonly Found[],
  rows: readonly RowSeen[],
  { distance }: Known
): { readonly by: number; readonly sd: number } {
  const none = { by: 1, sd: 0 };
  if (!distance) return none;
  const face = placed.find(({ id }) => id === distance.faceId);
  const row = rows.find(({ ids }) => (face ? ids.includes(face.id) : true));
  if (!row) return none;
  const own = face ? drawn(face, row).mm : row.z;
  return { by: distance.mm / own, sd: knownSd };
}

/** How far left or right the head faces, degrees in the scene: what it is turned from the line to the lens, and where that line lies. */
export const headTurnDeg = ({ face, lateralMm, aheadMm }: PersonRead): number =>
  face.yawDeg - degrees(Math.atan2(lateralMm, aheadMm));
