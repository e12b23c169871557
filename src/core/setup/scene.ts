/**
 * From typed data to points in front of the lens. Scene coordinates: origin on the floor of the subject line, +x to the
 * picture's right, +y up, +z away from the camera. Camera coordinates: the same with the origin in the entrance pupil and +z
 * along the optical axis.
 */
import { add, length, pitch, radians, scale, subtract, yaw, type Vector } from '../geometry/vector';
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
import { cameraDistance, type Framed } from './framing';
import type { Body } from '../kit/schema';
import type { Camera, Importance, Person, Setup, Thing } from './schema';

type PointFeature = HeadFeature | 'thingNear' | 'thingFar';

/** How a point is spoken of: the eyes by which is nearer the lens. */
export type PointRole = 'nearEye' | 'farEye' | 'nose' | 'hairline' | 'chin' | 'ear' | 'head' | 'nearSide' | 'farSide';

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
  readonly surface: Camera['focusSurface'];
}

export function viewpoint(setup: Framed, body: Body): Viewpoint {
  const { camera } = setup;
  const distance = cameraDistance(setup, body);
  return {
    position: { x: camera.lateralMm, y: camera.heightMm, z: -distance },
    yaw: radians(camera.yawDeg),
    pitch: radians(camera.pitchDeg),
    distance,
    surface: camera.focusSurface
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
  const local = toCamera(view, point);
  return view.surface === 'flat' || local.z <= 0 ? local.z : length(local);
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

function visibleEyes(view: Viewpoint, person: Person): { near: EyeFeature | undefined; far: EyeFeature | undefined } {
  const turn = turnFromLens(view, person);
  const near: EyeFeature = turn > 0 ? 'rightEye' : 'leftEye';
  const far: EyeFeature = turn > 0 ? 'leftEye' : 'rightEye';
  const turnDeg = Math.abs((turn * 180) / Math.PI);
  return {
    near: turnDeg <= nearEyeHiddenDeg ? near : undefined,
    far: turnDeg <= farEyeHiddenDeg ? far : undefined
  };
}

function personPoints(view: Viewpoint, person: Person): ScenePoint[] {
  const eyes = visibleEyes(view, person);
  const point = (feature: HeadFeature, role: PointRole, required: boolean, target = false): ScenePoint => {
    const position = featurePosition(person, feature);
    return { feature, role, position, depth: depthOf(view, position), required, target };
  };
  const turn = turnFromLens(view, person);
  const nearEar: HeadFeature = turn > 0 ? 'rightEar' : 'leftEar';
  if (!eyes.near) {
    // Turned away: the ear on this side stands for the head.
    return [point(nearEar, 'head', true, true)];
  }
  const { sharp } = person;
  const points = [point(eyes.near, 'nearEye', true, true)];
  if (eyes.far) points.push(point(eyes.far, 'farEye', sharp !== 'nearEye', sharp !== 'nearEye'));
  if (sharp === 'eyesToNose' || sharp === 'wholeHead') points.push(point('noseTip', 'nose', true));
  if (sharp === 'wholeHead') {
    points.push(point('hairline', 'hairline', true), point('chin', 'chin', true), point(nearEar, 'ear', true));
  }
  return points;
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

/** Depth of a background or foreground, mm from the lens, taken at the height of the lens. */
export function backgroundDepth(view: Viewpoint, background: { depthMm: number; lateralMm: number }): number {
  return depthOf(view, { x: background.lateralMm, y: view.position.y, z: background.depthMm });
}
