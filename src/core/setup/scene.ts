/**
 * From typed data to points in front of the lens. Scene coordinates: origin on the floor of the subject line, +x to the
 * picture's right, +y up, +z away from the camera. Camera coordinates: the same with the origin in the entrance pupil and +z
 * along the optical axis.
 */
import { add, pitch, radians, scale, subtract, yaw, type Vector } from '../maths/vector';
import {
  adultFeatures,
  eyeHeight,
  farEyeHiddenDeg,
  headScale,
  interpupillaryOf,
  nearEyeHiddenDeg,
  type EyeFeature,
  type HeadFeature
} from '../people/anatomy';
import { surfaceDepth, type FocusSurface } from '../optics/focusSurface';
import { cameraDistance, type Framed } from './framing';
import type { Body } from '../kit/schema';
import type { Camera, Importance, Person, Setup, Thing } from './schema';

type PointFeature = HeadFeature | 'temple' | 'collar' | 'thingNear' | 'thingFar';

/** How a point is spoken of: the eyes by which is nearer, as the surface of focus counts it. */
export type PointRole =
  'nearEye' | 'farEye' | 'nose' | 'hairline' | 'chin' | 'ear' | 'temple' | 'collar' | 'head' | 'nearSide' | 'farSide';

/** One point that somebody may want sharp. */
export interface ScenePoint {
  readonly feature: PointFeature;
  readonly role: PointRole;
  /** Scene coordinates, mm. */
  readonly position: Vector;
  /** mm from the lens: along the axis (flat surface of focus) or straight (curved). */
  readonly depth: number;
  /** Whether the setup asks for it to be sharp. */
  readonly required: boolean;
  /** Whether the focus may be set on it. */
  readonly target: boolean;
}

export interface Subject {
  readonly kind: 'person' | 'thing';
  readonly id: string;
  readonly name: string;
  readonly importance: Importance;
  readonly points: readonly ScenePoint[];
  /** Nearest and furthest required depth, mm. */
  readonly nearest: number;
  readonly furthest: number;
}

export interface Viewpoint {
  /** Entrance pupil, scene coordinates, mm. */
  readonly position: Vector;
  readonly yaw: number;
  readonly pitch: number;
  /** Lens to subject line, mm. */
  readonly distance: number;
  readonly surface: FocusSurface;
}

/** @param fieldPerM how the surface of sharp focus of the lens was measured to bend, 1/m; @returns as chosen, flat where it was not measured */
function surfaceOf({ focusSurface }: Camera, fieldPerM: number | null): FocusSurface {
  if (focusSurface !== 'measured') return focusSurface;
  return fieldPerM === null || fieldPerM === 0 ? 'flat' : { bendPerMm: fieldPerM / 1000 };
}

/** Where the camera stands with a lens of pupil magnification P, where it points, and how its surface of sharp focus lies. */
export function viewpoint(setup: Framed, body: Body, P = 1, fieldPerM: number | null = null): Viewpoint {
  const { camera } = setup;
  const distance = cameraDistance(setup, body, P);
  return {
    position: { x: camera.lateralMm, y: camera.heightMm, z: -distance },
    yaw: radians(camera.yawDeg),
    pitch: radians(camera.pitchDeg),
    distance,
    surface: surfaceOf(camera, fieldPerM)
  };
}

/** Scene point in camera coordinates, mm. */
export function toCamera(view: Viewpoint, point: Vector): Vector {
  return pitch(yaw(subtract(point, view.position), -view.yaw), -view.pitch);
}

/** Point in camera coordinates as one of the scene, mm: the inverse of `toCamera`. */
export function toScene(view: Viewpoint, point: Vector): Vector {
  return add(yaw(pitch(point, view.pitch), view.yaw), view.position);
}

/** Depth of a scene point as the surface of focus counts it, mm; negative behind the camera. */
export function depthOf(view: Viewpoint, point: Vector): number {
  return surfaceDepth(view.surface, toCamera(view, point));
}

/** Midpoint of a person's eyes, scene coordinates, mm. */
export function eyesMidpoint(person: Person): Vector {
  return {
    x: person.lateralMm,
    y: person.floorMm + eyeHeight(person.statureMm, person.posture, person.being),
    z: person.depthMm
  };
}

/** Where a feature of a person's head lies, scene coordinates, mm. */
export function featurePosition(person: Person, feature: HeadFeature): Vector {
  if (feature === 'noseTip' && person.being === 'pet') {
    // A muzzle reaches forward and a little down; its length is given at full size.
    const size = headScale(interpupillaryOf.pet);
    return headPoint(person, { x: 0, y: (-0.35 * person.muzzleMm) / size, z: person.muzzleMm / size });
  }
  return headPoint(person, adultFeatures[feature]);
}

/** A point of the adult head coordinates (anatomy.ts) placed on this person, scene coordinates, mm. */
export function headPoint(person: Person, point: Vector): Vector {
  const sized = scale(point, headScale(interpupillaryOf[person.being]));
  // Head coordinates look along +z, the person towards the camera (−z).
  const facing = { x: sized.x, y: sized.y, z: -sized.z };
  return add(eyesMidpoint(person), yaw(pitch(facing, -radians(person.headPitchDeg)), -radians(person.headYawDeg)));
}

/** How far the face is turned from the line to the lens, radians, 0 (straight on) to π; with the sign of the turn. */
export function turnFromLens(view: Viewpoint, person: Person): number {
  const toLens = subtract(view.position, eyesMidpoint(person));
  // Bearing of the lens from the person, measured like headYawDeg: 0 along −z, positive to the picture's right.
  const bearing = Math.atan2(toLens.x, -toLens.z);
  const turn = radians(person.headYawDeg) - bearing;
  return Math.atan2(Math.sin(turn), Math.cos(turn));
}

/**
 * The eyes the lens sees: nearest first, as the surface of focus counts it, since that is what a stop has to reach between.
 * Turned away, the eye that lies behind the nose is lost first.
 */
function visibleEyes(view: Viewpoint, person: Person): EyeFeature[] {
  const turn = turnFromLens(view, person);
  const turnDeg = Math.abs((turn * 180) / Math.PI);
  const [near, far]: EyeFeature[] = turn > 0 ? ['rightEye', 'leftEye'] : ['leftEye', 'rightEye'];
  if (turnDeg > nearEyeHiddenDeg || !near || !far) return [];
  if (turnDeg > farEyeHiddenDeg) return [near];
  const depth = (eye: EyeFeature) => depthOf(view, featurePosition(person, eye));
  return depth(far) < depth(near) ? [far, near] : [near, far];
}

/** The ear on the side turned to the lens. */
function nearEarOf(view: Viewpoint, person: Person): HeadFeature {
  return turnFromLens(view, person) > 0 ? 'rightEar' : 'leftEar';
}

function personPoints(view: Viewpoint, person: Person): ScenePoint[] {
  const [nearEye, farEye] = visibleEyes(view, person);
  const point = (feature: HeadFeature, role: PointRole, required: boolean, target = false): ScenePoint => {
    const position = featurePosition(person, feature);
    return { feature, role, position, depth: depthOf(view, position), required, target };
  };
  const nearEar = nearEarOf(view, person);
  if (!nearEye) {
    // Turned away: the ear on this side stands for the head.
    return [point(nearEar, 'head', true, true)];
  }
  const { sharp } = person;
  const points = [point(nearEye, 'nearEye', true, true)];
  if (farEye) points.push(point(farEye, 'farEye', sharp !== 'nearEye', sharp !== 'nearEye'));
  if (sharp === 'eyesToNose' || sharp === 'wholeHead') points.push(point('noseTip', 'nose', true));
  if (sharp === 'wholeHead') {
    points.push(point('hairline', 'hairline', true), point('chin', 'chin', true), point(nearEar, 'ear', true));
  }
  return points;
}

/** Places beside the eyes that focus can be put on, in adult head coordinates, mm: from memory; the temple mirrored as seen. */
const beside = { temple: { x: 66, y: 8, z: -38 }, collar: { x: 0, y: -165, z: -45 } } as const;

/** Where the focus can be put between two faces: temple, ear and collar of somebody seen from the front. */
export function besideEyes(view: Viewpoint, person: Person): ScenePoint[] {
  if (visibleEyes(view, person).length === 0 || person.being === 'pet') return [];
  const nearEar = nearEarOf(view, person);
  const side = nearEar === 'leftEar' ? 1 : -1;
  const at = (feature: PointFeature, role: PointRole, position: Vector): ScenePoint => {
    return { feature, role, position, depth: depthOf(view, position), required: false, target: true };
  };
  return [
    at('temple', 'temple', headPoint(person, { ...beside.temple, x: side * beside.temple.x })),
    at(nearEar, 'ear', featurePosition(person, nearEar)),
    at('collar', 'collar', headPoint(person, beside.collar))
  ];
}

function thingPoints(view: Viewpoint, thing: Thing): ScenePoint[] {
  const point = (feature: PointFeature, role: PointRole, z: number): ScenePoint => {
    const position = { x: thing.lateralMm, y: thing.heightMm, z };
    return { feature, role, position, depth: depthOf(view, position), required: true, target: true };
  };
  const half = thing.deepMm / 2;
  const near = point('thingNear', 'nearSide', thing.depthMm - half);
  return half > 0 ? [near, point('thingFar', 'farSide', thing.depthMm + half)] : [near];
}

function subjectOf(kind: Subject['kind'], from: Person | Thing, points: ScenePoint[]): Subject {
  const depths = points.filter((point) => point.required).map((point) => point.depth);
  return {
    kind,
    id: from.id,
    name: from.name,
    importance: from.importance,
    points,
    nearest: Math.min(...depths),
    furthest: Math.max(...depths)
  };
}

/** Everybody and everything in the setup with the depth of each point that matters. */
export function sceneSubjects(setup: Setup, view: Viewpoint): readonly Subject[] {
  return [
    ...setup.people.map((person) => subjectOf('person', person, personPoints(view, person))),
    ...setup.things.map((thing) => subjectOf('thing', thing, thingPoints(view, thing)))
  ];
}

/**
 * Depth of a background, mm from the lens, where it is seen beside a face: where the ray through the face meets its plane, or its
 * foot at the floor. A thing that stands aside has its own place there; a wall is wherever it is looked at.
 *
 * @param face scene coordinates, mm
 */
export function backgroundDepth(
  view: Viewpoint,
  { depthMm: z, lateralMm }: { readonly depthMm: number; readonly lateralMm: number },
  face: Vector
): number {
  const { position } = view;
  const ahead = face.z - position.z;
  const along = (z - position.z) / ahead;
  // Behind the lens there is nothing to see: it is taken at the lens's height.
  if (ahead < 1 || along <= 0) return depthOf(view, { x: lateralMm, y: position.y, z });
  const x = lateralMm === 0 ? position.x + along * (face.x - position.x) : lateralMm;
  return depthOf(view, { x, y: Math.max(0, position.y + along * (face.y - position.y)), z });
}
