/** Who stands where, read from the faces of one photo. */
import { nineOfTenSd } from '../maths/normal';
import { degrees, pitch, radians, type Vector } from '../maths/vector';
import { cameraStand, childBy, eyesOver, type CameraStand, type Sighted } from './standing';
import { childrenShare, directionOf, distanceOfFace, eyesAt, type FaceSeen, type PhotoProjection } from './rulers';
import { rowsOf, withinRowMm, type Placed, type RowSeen } from './rows';

/** What is known beside the photo. */
export interface Known {
  /** Distances between pupils that were measured, mm, by face. */
  readonly pupilsMm?: ReadonlyMap<string, number>;
  /** One distance from the lens that is known: of a face, or of the front row; it scales all. */
  readonly distance?: { readonly mm: number; readonly faceId: string | null };
  /** The camera's tilt where the photo says it, degrees upwards. */
  readonly tiltDeg?: number | null;
  /** Taken off: not part of the group. */
  readonly without?: readonly string[];
}

export interface PersonRead {
  readonly id: string;
  /** Level, straight ahead of the camera, mm: nine of ten between `low` and `high`. */
  readonly aheadMm: number;
  readonly low: number;
  readonly high: number;
  /** Standard deviation of their own, mm, beside the row's; and the share of the row's error that is theirs. */
  readonly own: number;
  readonly withRow: number;
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

/** With several rows someone may stand in another than they are put in: the less their own face tells, the likelier (chosen by `scripts/groups.ts`). */
const doubtShare = 0.3;
/** A distance someone measured is off by about this share (common practice, no source). */
const knownSd = 0.01;

/** @returns undefined where no face tells its distance */
export function readGroup(
  faces: readonly FaceSeen[],
  projection: PhotoProjection,
  known: Known = {}
): GroupRead | undefined {
  const wanted = faces.filter(({ id }) => !known.without?.includes(id));
  const look = (face: FaceSeen, children?: number) =>
    distanceOfFace(face, projection, known.pupilsMm?.get(face.id) ?? null, children);
  const seen = wanted.flatMap((face) => {
    const range = look(face);
    return range ? [{ face, range }] : [];
  });
  if (seen.length === 0) return undefined;
  const sightedOf = ({ face, range }: (typeof seen)[number]): Sighted => {
    const { y } = directionOf(eyesAt(face), projection);
    return { straightMm: range.mm, above: Math.asin(y), child: range.child };
  };
  const atFirst = cameraStand(seen.map(sightedOf), known.tiltDeg ?? null);
  // Whose eyes are as low as a child's is more likely one, and nearer than an adult with such pupils.
  const ranged = seen.map((one) => {
    const range = look(one.face, childBy(eyesOver(sightedOf(one), atFirst), childrenShare));
    return range ? { face: one.face, range } : one;
  });
  const sighted = ranged.map(sightedOf);
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
  // Where one distance is known, rows are off from that row alone.
  const from = scale.row?.off ?? [];
  const scaled = rows.map((row): RowSeen => {
    const off = row.off.map((mm, index) => (mm - (from[index] ?? 0)) * scale.by);
    return { ...row, z: row.z * scale.by, sd: Math.hypot(...off), off };
  });
  const people = placed.map((one) => personRead(one, rows, scaled, scale, stand));
  return {
    people,
    rows: scaled,
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
  scaled: readonly RowSeen[],
  scale: Scale,
  stand: CameraStand
): PersonRead {
  const row = rows.findIndex(({ ids }) => ids.includes(one.id));
  const at = rows[row];
  // What the row says of them, and what their own face says; a row of one says nothing.
  const inRow = at && at.ids.length > 1 ? drawn(one, at) : { mm: one.z, own: one.sd, withRow: 0 };
  const aheadMm = inRow.mm * scale.by;
  const own = Math.hypot(inRow.own, rows.length > 1 ? doubtShare * one.sd : 0) * scale.by;
  const sd = Math.hypot(own, inRow.withRow * (scaled[row]?.sd ?? 0), aheadMm * scale.sd);
  const straightMm = aheadMm / one.ahead.z;
  return {
    id: one.id,
    face: one.face,
    aheadMm,
    own,
    withRow: inRow.withRow,
    low: aheadMm - nineOfTenSd * sd,
    high: aheadMm + nineOfTenSd * sd,
    lateralMm: straightMm * one.ahead.x,
    eyesMm: eyesOver({ straightMm, above: one.above }, stand),
    child: one.child,
    row
  };
}

/** Someone drawn to their row's line, as much as the row is surer than their own face. */
function drawn(
  { z, sd }: Placed,
  row: RowSeen
): { readonly mm: number; readonly own: number; readonly withRow: number } {
  const share = withinRowMm ** 2 / (withinRowMm ** 2 + sd ** 2);
  return { mm: row.z + (z - row.z) * share, own: Math.sqrt(share) * sd, withRow: 1 - share };
}

interface Scale {
  readonly by: number;
  readonly sd: number;
  /** The row that was measured. */
  readonly row: RowSeen | null;
}

/** One known distance scales all: then only the shape is estimated. */
function scaleOf(placed: readonly Placed[], rows: readonly RowSeen[], { distance }: Known): Scale {
  const none = { by: 1, sd: 0, row: null };
  if (!distance) return none;
  const face = placed.find(({ id }) => id === distance.faceId);
  const row = rows.find(({ ids }) => (face ? ids.includes(face.id) : true));
  if (!row) return none;
  const own = face ? drawn(face, row).mm : row.z;
  return { by: distance.mm / own, sd: knownSd, row };
}

/** How far left or right the head faces, degrees in the scene: what it is turned from the line to the lens, and where that line lies. */
export const headTurnDeg = ({ face, lateralMm, aheadMm }: PersonRead): number =>
  face.yawDeg - degrees(Math.atan2(lateralMm, aheadMm));
