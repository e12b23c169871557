/** A person as a group of meshes, every landmark where the core says it is. */
import {
  BoxGeometry,
  BufferAttribute,
  Color,
  CylinderGeometry,
  Group,
  Matrix4,
  Mesh,
  SphereGeometry,
  TorusGeometry,
  Vector3,
  type BufferGeometry,
  type ShaderMaterial
} from 'three';
import { radians, yaw, type Vector } from '../../core/maths/vector';
import { adultInterpupillaryMm, headScale, interpupillaryOf } from '../../core/people/anatomy';
import { textHash, type Appearance } from '../../core/people/appearance';
import { faceSolids, type FaceSolid } from '../../core/people/face';
import { headPoint, toCamera, type Viewpoint } from '../../core/setup/scene';
import type { Person } from '../../core/setup/schema';
import { eyeMaterial, figureMaterial, type FigureSurface, type FigureLighting, type Weave } from './figureShader';
import { toThree } from '../lens/lensRenderer';
import { mesh } from './meshes';

/** Length the dog's muzzle was modelled with, mm, and the height of the bodies' necks (src/modelling). */
const modelledMuzzleMm = 130;
const neckBaseMm = { standing: 1416, seated: 1048, walking: 1416, embracing: 1416 } as const;
const modelledStatureMm = 1700;

/** Base of the neck in head coordinates, mm. */
const neckInHead: Vector = { x: 0, y: -172, z: -93 };

const eyeRadius = 12;
const ball = (radius: number, wide: number) => new SphereGeometry(radius, wide, Math.round(wide * 0.75));
const eyeballs = [ball(eyeRadius, 44), ball(eyeRadius, 20), ball(eyeRadius, 9)] as const;
const petEyeballs = [ball(9.4, 32), ball(9.4, 16), ball(9.4, 8)] as const;

const skinTones = ['#f0cdb6', '#e2b293', '#cc9670', '#a97350', '#7f5238', '#573625'];
const lipTones = ['#c98278', '#bd766a', '#a8604f', '#8b4b41', '#6b3932', '#4b2a27'];
const hairTones: Readonly<Record<Appearance['hairColour'], string>> = {
  black: '#1b1715',
  brown: '#48301f',
  red: '#7d3d20',
  fair: '#b08d58',
  grey: '#8e8b88',
  white: '#d9d6d0'
};
const cloths: Readonly<Record<Appearance['outfitColour'], string>> = {
  ivory: '#e9e2d4',
  black: '#222226',
  grey: '#6d7075',
  navy: '#27324d',
  blue: '#5c7ea6',
  green: '#48604c',
  red: '#84313a',
  sand: '#b79c78'
};
const irises = ['#5b3a20', '#6b4a2b', '#3f5a6e', '#55694a', '#47637c', '#4a3220'];
const weaves: Readonly<Record<Appearance['outfit'], Weave>> = { suit: 0, uniform: 0, dress: 1, shirt: 2, coat: 3 };

/** How finely somebody is drawn: their eyes from near, then coarser and coarser. */
export type Level = 'eyes' | 0 | 1 | 2;

export type FigurePose = keyof typeof neckBaseMm;

export function poseOf(person: Person): FigurePose {
  if (person.posture === 'seated') return 'seated';
  if (person.posture === 'embracing') return 'embracing';
  return person.towardsMmPerS !== 0 ? 'walking' : 'standing';
}

const cutIndex = { suit: 0, dress: 1, shirt: 2, coat: 3 } as const;
const cutOf = (look: Appearance) => (look.outfit === 'uniform' ? 'suit' : look.outfit);

const number = (level: Level) => (level === 'eyes' ? 0 : level);
const detailsOf = (level: Level) => (number(level) === 2 ? 'details-1' : 'details-0');
const headOf = (level: Level) => (level === 'eyes' ? 'eyes-0' : `head-${level}`);

/** The meshes a person needs at a level of detail. */
export function meshNames(person: Person, level: Level): string[] {
  if (person.being === 'pet') return [`dog-${number(level)}`];
  return [headOf(level), detailsOf(level), ...(level === 'eyes' ? [] : bulkOf(person, level))];
}

/** Hair and body: what is not seen when one looks into the eyes. */
function bulkOf(person: Person, level: 0 | 1 | 2): string[] {
  const { look } = person;
  return [
    ...(look.hair === 'bald' ? [] : [`hair-${look.hair}-${level}`]),
    ...(person.being === 'baby' ? [] : [`body-${cutOf(look)}-${poseOf(person)}-${level}`])
  ];
}

function surfaceOf(person: Person): FigureSurface {
  const { look } = person;
  const hash = textHash(person.id);
  const share = (shift: number) => ((hash >>> shift) & 255) / 255;
  const cloth = new Color(cloths[look.outfitColour]);
  const trousers =
    look.outfit === 'shirt' ? new Color('#2e3038') : look.outfit === 'coat' ? new Color('#3a3a40') : cloth.clone();
  const accents = ['#7a2f36', '#2f4a63', '#50603f', '#6b5a86'];
  return {
    palette: [
      new Color(skinTones[look.skin - 1]),
      new Color(lipTones[look.skin - 1]),
      cloth,
      new Color('#efece6'),
      trousers,
      new Color('#1d1a19'),
      new Color(hairTones[look.hairColour]),
      new Color(look.outfit === 'uniform' ? '#b08b3a' : accents[hash % accents.length]),
      new Color('#120e0d')
    ],
    weave: weaves[look.outfit],
    cut: cutIndex[cutOf(look)],
    seated: person.posture === 'seated',
    seed: new Vector3(share(0) * 40, share(8) * 40, share(16) * 40),
    age: look.hairColour === 'white' ? 1 : look.hairColour === 'grey' ? 0.55 : person.being === 'adult' ? 0.12 : 0,
    jaw: (share(4) - 0.5) * 0.1 + (look.outfit === 'suit' ? 0.03 : -0.035) - (person.being === 'adult' ? 0 : 0.06),
    cheeks: (share(12) - 0.5) * 3 + (person.being === 'adult' ? 0 : 2.5)
  };
}

interface Materials {
  readonly skin: ShaderMaterial;
  readonly other: ShaderMaterial;
  readonly details: ShaderMaterial;
}

const known = new WeakMap<FigureLighting, Map<string, Materials>>();

/** Materials are kept for as long as their lighting: somebody who only moves needs no new ones. */
function materialsOf(person: Person, lighting: FigureLighting, coarse: boolean): Materials {
  const kept = known.get(lighting) ?? new Map<string, Materials>();
  known.set(lighting, kept);
  const key = JSON.stringify([person.id, person.look, person.being, person.posture, coarse]);
  const before = kept.get(key);
  if (before) return before;
  const surface = surfaceOf(person);
  const made: Materials = {
    skin: figureMaterial(surface, lighting, 0, coarse),
    other: figureMaterial(surface, lighting, 1, coarse),
    details: figureMaterial(surface, lighting, 1, true, true)
  };
  kept.set(key, made);
  return made;
}

/** What a face does in the moment of a frame that no plan knows of. */
export interface Moment {
  readonly eyesOpen: boolean;
  /** Tilt of the head to a shoulder, degrees, clockwise in the picture. */
  readonly rollDeg: number;
  /** What is before one eye. */
  readonly covered: 'hand' | 'hair' | null;
}

const still: Moment = { eyesOpen: true, rollDeg: 0, covered: null };

/** Head coordinates of a person as a matrix, scaled as the core scales it; tilted about the middle between the eyes. */
export function headMatrix(person: Person, rollDeg = 0): Matrix4 {
  const origin = toThree(headPoint(person, { x: 0, y: 0, z: 0 }));
  const along = (x: number, y: number, z: number) => toThree(headPoint(person, { x, y, z })).sub(origin);
  return new Matrix4()
    .makeBasis(along(1, 0, 0), along(0, 1, 0), along(0, 0, 1))
    .setPosition(origin)
    .multiply(new Matrix4().makeRotationZ(-radians(rollDeg)));
}

/** Where somebody's irises are seen, in scene coordinates of three: the balls turn towards the lens. */
export function irisPlaces(person: Person, view: Viewpoint, rollDeg = 0): { left: Vector3; right: Vector3 } {
  const head = headMatrix(person, rollDeg);
  const gaze = gazeOf(head, view);
  const place = (side: -1 | 1) =>
    new Vector3((side * adultInterpupillaryMm) / 2, 0, -eyeRadius).addScaledVector(gaze, eyeRadius).applyMatrix4(head);
  return { left: place(1), right: place(-1) };
}

/** The body under the head: its neck meets the head's, its soles stand on the floor. */
function bodyMatrix(person: Person): Matrix4 {
  const neck = headPoint(person, neckInHead);
  const facing = (x: number, z: number) => toThree(yaw({ x, y: 0, z: -z }, -radians(person.bodyYawDeg)));
  const tall = (neck.y - person.floorMm) / neckBaseMm[poseOf(person)];
  const hash = textHash(person.id);
  const build = 0.95 + (0.1 * ((hash >>> 9) % 8)) / 7;
  // A child's body is slighter than an adult's made small.
  const wide = (person.statureMm / modelledStatureMm) * build * (person.being === 'child' ? 1.04 : 1);
  return new Matrix4()
    .makeBasis(facing(1, 0).multiplyScalar(wide), new Vector3(0, tall, 0), facing(0, 1).multiplyScalar(wide))
    .setPosition(neck.x, person.floorMm, -neck.z);
}

function placed(geometry: BufferGeometry, material: ShaderMaterial, matrix: Matrix4): Mesh {
  const item = new Mesh(geometry, material);
  item.matrixAutoUpdate = false;
  item.matrix.copy(matrix);
  return item;
}

/** Where the eyes look: at the lens when it is not too far aside, in head coordinates. */
function gazeOf(head: Matrix4, view: Viewpoint): Vector3 {
  const lens = toThree(view.position).applyMatrix4(head.clone().invert());
  const towards = lens.normalize();
  const most = 0.5;
  const aside = Math.hypot(towards.x, towards.y);
  if (towards.z > 0.2 && aside < most) return towards;
  const share = towards.z > 0 ? (most * 0.8) / Math.max(aside, 1e-6) : 0;
  return new Vector3(towards.x * share, towards.y * share, 1).normalize();
}

export function figure(
  person: Person,
  level: Level,
  view: Viewpoint,
  lighting: FigureLighting,
  moment: Moment = still
): Group {
  const group = new Group();
  const head = headMatrix(person, moment.rollDeg);
  const hash = textHash(person.id);
  const iris = new Color(irises[(hash >>> 5) % irises.length]);
  if (person.being === 'pet') return pet(person, level, lighting, head);
  const { look } = person;
  const materials = materialsOf(person, lighting, level === 2);
  const { skin, other } = materials;
  group.add(placed(mesh(headOf(level)), skin, head));
  group.add(placed(mesh(detailsOf(level)), materials.details, head));
  const gaze = gazeOf(head, view);
  for (const side of [-1, 1]) {
    const at = head.clone().multiply(new Matrix4().makeTranslation((side * adultInterpupillaryMm) / 2, 0, -eyeRadius));
    const lid = moment.eyesOpen ? null : new Color(skinTones[look.skin - 1]);
    group.add(placed(eyeballs[number(level)], eyeMaterial(iris, gaze, eyeRadius, lighting, lid), at));
  }
  if (moment.covered) group.add(...cover(head, moment.covered, other));
  if (level === 'eyes') {
    if (look.glasses) group.add(...glasses(head, other));
    if (look.headwear === 'veil') group.add(...veil(head, other));
    return group;
  }
  if (look.hair !== 'bald') group.add(placed(mesh(`hair-${look.hair}-${level}`), other, head));
  if (look.glasses) group.add(...glasses(head, other));
  if (look.headwear === 'hat') group.add(...hat(head, other));
  if (look.headwear === 'veil') group.add(...veil(head, other));
  if (person.being === 'baby') {
    const bundle = head
      .clone()
      .multiply(new Matrix4().makeTranslation(0, -260, -110))
      .scale(new Vector3(150, 190, 120));
    group.add(placed(swaddled, other, bundle));
  } else {
    const body = bodyMatrix(person);
    group.add(placed(mesh(`body-${cutOf(look)}-${poseOf(person)}-${level}`), other, body));
    if (person.posture === 'seated') group.add(...seat(body, look.seat, lighting));
  }
  return group;
}

function pet(person: Person, level: Level, lighting: FigureLighting, head: Matrix4): Group {
  const group = new Group();
  const hash = textHash(person.id);
  const coats = ['#6b4a2e', '#8a6a45', '#3a3330', '#9a8a78'];
  const surface: FigureSurface = {
    ...surfaceOf(person),
    palette: Array.from(
      { length: 9 },
      (_, index) => new Color(index === 6 ? coats[hash % coats.length] : index === 3 ? '#e4dccd' : '#15110f')
    ),
    muzzle: person.muzzleMm / modelledMuzzleMm
  };
  const size = headScale(interpupillaryOf.pet);
  const full = head.clone().scale(new Vector3(1 / size, 1 / size, 1 / size));
  group.add(placed(mesh(`dog-${number(level)}`), figureMaterial(surface, lighting, 1, level === 2), full));
  for (const side of [-1, 1]) {
    const at = full.clone().multiply(new Matrix4().makeTranslation(side * 30, 0, -9.4));
    const brown = new Color('#4a2d16');
    group.add(
      placed(
        petEyeballs[number(level)],
        eyeMaterial(brown, new Vector3(side * 0.25, 0, 1).normalize(), 9.4, lighting),
        at
      )
    );
  }
  return group;
}

/** Gives plain geometry the attributes of the figures' meshes. */
export function withMaterial(geometry: BufferGeometry, made: number): BufferGeometry {
  const count = geometry.getAttribute('position').count;
  const fill = (value: number) => new BufferAttribute(new Float32Array(count).fill(value), 1);
  geometry.setAttribute('openness', fill(1));
  geometry.setAttribute('made', fill(made));
  return geometry;
}

/** A baby in its cloth. */
const swaddled = withMaterial(new SphereGeometry(1, 32, 24), 2);
const frame = withMaterial(new TorusGeometry(22.5, 1.1, 8, 40), 8);
const bar = withMaterial(new CylinderGeometry(1, 1, 1, 8), 8);

function stick(from: Vector3, to: Vector3, thick: number): Matrix4 {
  const along = to.clone().sub(from);
  const length = along.length();
  const up = along.normalize();
  const aside = new Vector3(0, 0, 1).cross(up).normalize();
  const front = up.clone().cross(aside);
  return new Matrix4()
    .makeBasis(aside.multiplyScalar(thick), up.clone().multiplyScalar(length), front.multiplyScalar(thick))
    .setPosition(from.clone().add(to).multiplyScalar(0.5));
}

/** Thin round frames: what lies before the eyes shows how shallow the sharp zone is. */
function glasses(head: Matrix4, material: ShaderMaterial): Mesh[] {
  const sides = [-1, 1].flatMap((side) => [
    placed(frame, material, head.clone().multiply(new Matrix4().makeTranslation(side * 32, -3, 15))),
    placed(
      bar,
      material,
      head.clone().multiply(stick(new Vector3(side * 54, 2, 13), new Vector3(side * 76, 4, -88), 1.1))
    )
  ]);
  const bridge = head.clone().multiply(stick(new Vector3(-9.5, 3, 16), new Vector3(9.5, 3, 16), 1));
  return [...sides, placed(bar, material, bridge)];
}

const felt = withMaterial(new SphereGeometry(1, 40, 24), 2);
const thread = withMaterial(new TorusGeometry(1, 0.005, 6, 96), 2);

/** Where a solid of the face lies, as the core has it. */
const solidAt = (head: Matrix4, { at, radii }: FaceSolid): Matrix4 =>
  head.clone().multiply(new Matrix4().makeTranslation(at.x, at.y, at.z).scale(new Vector3(radii.x, radii.y, radii.z)));

/** A brim and a crown. */
function hat(head: Matrix4, material: ShaderMaterial): Mesh[] {
  const bare = new Set(faceSolids('none', 0));
  return faceSolids('hat', 0)
    .filter((solid) => !bare.has(solid))
    .map((solid) => placed(felt, material, solidAt(head, solid)));
}

/** A net of threads: what lies before the face, and how much of it can be seen through. */
function veil(head: Matrix4, material: ShaderMaterial): Mesh[] {
  const cloth = faceSolids('veil', 0).find(({ part }) => part === 'veil');
  if (!cloth) return [];
  const whole = solidAt(head, cloth);
  const along = Array.from({ length: 20 }, (_, index) => new Matrix4().makeRotationY((index * Math.PI) / 20));
  const round = Array.from({ length: 21 }, (_, index) => {
    const y = -0.95 + index * 0.095;
    const r = Math.sqrt(1 - y * y);
    return new Matrix4()
      .makeTranslation(0, y, 0)
      .scale(new Vector3(r, 1, r))
      .multiply(new Matrix4().makeRotationX(Math.PI / 2));
  });
  return [...along, ...round].map((turn) => placed(thread, material, whole.clone().multiply(turn)));
}

const finger = withMaterial(new SphereGeometry(1, 20, 14), 0);
const strand = withMaterial(new SphereGeometry(1, 12, 10), 6);

/** Fingers, or a lock of hair, before the left eye. */
function cover(head: Matrix4, by: 'hand' | 'hair', material: ShaderMaterial): Mesh[] {
  const count = by === 'hand' ? 4 : 9;
  return Array.from({ length: count }, (_, index) => {
    const at =
      by === 'hand'
        ? new Matrix4().makeTranslation(31, 24 - index * 17, 26).scale(new Vector3(44, 8.5, 8))
        : new Matrix4()
            .makeTranslation(14 + index * 4, 18, 22)
            .multiply(new Matrix4().makeRotationZ(0.12 - index * 0.03))
            .scale(new Vector3(1.6, 62, 1.6));
    return placed(by === 'hand' ? finger : strand, material, head.clone().multiply(at));
  });
}

const box = withMaterial(new BoxGeometry(1, 1, 1), 4);
const wheel = withMaterial(new TorusGeometry(1, 0.045, 10, 56), 8);
const spoke = withMaterial(new CylinderGeometry(0.008, 0.008, 2, 6), 5);

/** A plain chair, or a wheelchair, in the body's frame. */
function seat(body: Matrix4, kind: Appearance['seat'], lighting: FigureLighting): Mesh[] {
  const surface: FigureSurface = {
    palette: Array.from(
      { length: 9 },
      (_, index) => new Color(index === 4 ? '#4d3a2b' : index === 5 ? '#9a9a9a' : '#1a1a1a')
    ),
    weave: 3,
    cut: 3,
    seated: false,
    seed: new Vector3(),
    age: 0,
    jaw: 0,
    cheeks: 0
  };
  const material = figureMaterial(surface, lighting, 1, true);
  const at = (x: number, y: number, z: number, sx: number, sy: number, sz: number) =>
    placed(box, material, body.clone().multiply(new Matrix4().makeTranslation(x, y, z).scale(new Vector3(sx, sy, sz))));
  const parts = [at(0, 424, 70, 470, 34, 460), at(0, 760, -185, 440, 420, 28)];
  if (kind === 'chair') {
    const legs = [-1, 1].flatMap((x) => [-1, 1].map((z) => at(x * 205, 208, 70 + z * 205, 32, 416, 32)));
    return [...parts, ...legs];
  }
  const turned = new Matrix4().makeRotationY(Math.PI / 2);
  const wheels = [-1, 1].flatMap((side) => {
    const big = new Matrix4()
      .makeTranslation(side * 292, 305, 0)
      .multiply(turned)
      .scale(new Vector3(300, 300, 300));
    const small = new Matrix4()
      .makeTranslation(side * 240, 85, 400)
      .multiply(turned)
      .scale(new Vector3(82, 82, 200));
    const spokes = Array.from({ length: 8 }, (_, n) =>
      placed(
        spoke,
        material,
        body
          .clone()
          .multiply(big)
          .multiply(new Matrix4().makeRotationZ((n * Math.PI) / 8))
      )
    );
    return [
      placed(wheel, material, body.clone().multiply(big)),
      placed(wheel, material, body.clone().multiply(small)),
      ...spokes
    ];
  });
  const arms = [-1, 1].map((side) => at(side * 262, 660, 10, 40, 26, 330));
  const rest = at(0, 60, 430, 330, 20, 150);
  return [...parts, ...wheels, ...arms, rest];
}

/** Height of a head in the picture decides how finely it is drawn. */
export function levelFor(person: Person, view: Viewpoint, pxPerMmAt: (depth: number) => number): 0 | 1 | 2 {
  const { z } = toCamera(view, headPoint(person, { x: 0, y: 0, z: 0 }));
  const px = z > 0 ? 230 * pxPerMmAt(z) : 0;
  return px > finePx ? 0 : px > coarsePx ? 1 : 2;
}

const finePx = 240;
const coarsePx = 62;
