/**
 * What lies under a place of the picture: the surfaces that a line from the lens meets, with their distances. People and
 * things are solid; backgrounds and foregrounds are planes that take their share of the line, as the drawn ones do.
 */
import { scale, subtract, type Vector } from '../maths/vector';
import type { Body } from '../kit/schema';
import { surfaceDepth } from '../optics/focusSurface';
import { imageDistance } from '../optics/thinLens';
import { headScale, interpupillaryOf } from '../people/anatomy';
import { faceSolids, partAt, type FacePart, type FaceSolid } from '../people/face';
import { pictureSize } from './framing';
import { comesNear, headFrame, meetsEllipsoid, solidsOf, type Occluder } from './occlusion';
import { toScene, type Viewpoint } from './scene';
import { coverAt } from './backgroundKinds';
import type { Background, Person, Setup, Thing } from './schema';

export type SurfacePart = FacePart | 'body' | 'thing' | 'ground';

/** A surface that a line meets. */
export interface Met {
  readonly kind: 'person' | 'thing' | 'background';
  /** Empty for what lies behind everything that was described. */
  readonly id: string;
  readonly part: SurfacePart;
  /** Depth as the surface of focus counts it, mm. */
  readonly depth: number;
  /** What it takes of the line, 0 to 1; all of a line together at most 1. */
  readonly share: number;
}

/** A part of the picture, in shares of it from the left and the top. */
export interface FrameArea {
  readonly left: number;
  readonly right: number;
  readonly top: number;
  readonly bottom: number;
}

/** Further away than anything, mm. */
const farMm = 1e7;

/** What was not described lies so far behind everything that was, mm: as it is drawn. */
const behindAllMm = 2600;

/** Less of a line than this is not worth following. */
const leastShare = 0.02;

interface Crossing {
  readonly t: number;
  readonly cover: number;
  readonly kind: Met['kind'];
  readonly id: string;
  readonly part: SurfacePart;
}

/** Somebody's head, made when the first line comes near it. */
interface Head {
  readonly toHead: (point: Vector) => Vector;
  /** The lens in its coordinates. */
  readonly lens: Vector;
  readonly solids: readonly FaceSolid[];
}

function headOf(person: Person, lens: Vector): Head {
  const size = headScale(interpupillaryOf[person.being]);
  const muzzle = person.being === 'pet' ? person.muzzleMm / size : 0;
  const toHead = headFrame(person);
  return { toHead, lens: toHead(lens), solids: faceSolids(person.look.headwear, muzzle) };
}

/** Where a line from the lens meets somebody's head: its first solid part, and a veil before it. */
function crossHead(crossings: Crossing[], id: string, { toHead, lens, solids }: Head, to: Vector): void {
  const end = toHead(to);
  let first: FaceSolid | null = null;
  let at = Infinity;
  for (const item of solids) {
    const t = meetsEllipsoid(item, lens, end);
    if (t === null) continue;
    if (item.cover < 1) crossings.push({ t, cover: item.cover, kind: 'person', id, part: item.part });
    else if (t < at) {
      first = item;
      at = t;
    }
  }
  if (!first) return;
  const place = {
    x: lens.x + (end.x - lens.x) * at,
    y: lens.y + (end.y - lens.y) * at,
    z: lens.z + (end.z - lens.z) * at
  };
  crossings.push({ t: at, cover: 1, kind: 'person', id, part: partAt(first.part, place) });
}

/** Says what the lens sees in a place of the picture, nearest first. */
export type Sees = (x: number, y: number) => readonly Met[];

/** What is seen from a place, and what of it has been looked at already. */
export interface LineOfSight {
  /** Looks at a part of the picture: only what comes near it is asked for in each of its places. */
  readonly at: (box: FrameArea) => Sees;
  readonly known: Map<string, readonly SeenSurface[]>;
}

/** The last look at some people, and from where: another stop or another way of focusing sees the same. */
const lastLooks = new WeakMap<
  Setup['people'],
  { readonly from: string; readonly setup: Setup; readonly looks: LineOfSight }
>();

/** Looks from a camera with a lens of pupil magnification P. */
export function lineOfSightFrom(setup: Setup, view: Viewpoint, body: Body, P: number): LineOfSight {
  const { camera, people, things, backgrounds } = setup;
  const { width, height } = pictureSize(body, camera);
  const { position, yaw, pitch, surface } = view;
  const from = [position.x, position.y, position.z, yaw, pitch, surface, camera.focalLengthMm, P, width, height].join(
    ' '
  );
  const last = lastLooks.get(people);
  if (last?.from === from && last.setup.things === things && last.setup.backgrounds === backgrounds) return last.looks;
  const looks: LineOfSight = { at: looking(setup, view, body, P), known: new Map() };
  lastLooks.set(people, { from, setup, looks });
  return looks;
}

/** Lines of sight through places of the picture, in the scene. */
function linesThrough({ camera }: Setup, view: Viewpoint, body: Body, P: number) {
  const frame = pictureSize(body, camera);
  const v = imageDistance(camera.focalLengthMm, view.distance, P);
  const from = view.position;
  // A place of the picture lies along right · x + up · y + ahead.
  const along = (ray: Vector) => subtract(toScene(view, scale(ray, farMm)), from);
  const [right, up, ahead] = [along({ x: 1, y: 0, z: 0 }), along({ x: 0, y: 1, z: 0 }), along({ x: 0, y: 0, z: 1 })];
  const rayAt = (x: number, y: number) => {
    return { x: ((x - 0.5) * frame.width) / v, y: ((0.5 - y) * frame.height) / v };
  };
  return {
    from,
    /** Where a line ends, far away. */
    towards: (x: number, y: number): Vector => {
      const ray = rayAt(x, y);
      return {
        x: from.x + right.x * ray.x + up.x * ray.y + ahead.x,
        y: from.y + right.y * ray.x + up.y * ray.y + ahead.y,
        z: from.z + right.z * ray.x + up.z * ray.y + ahead.z
      };
    },
    /** How far along a line, as the surface of focus counts it; t is a share of its length. */
    depthAt: (x: number, y: number, t: number): number => {
      const ray = rayAt(x, y);
      return surfaceDepth(view.surface, { x: ray.x * farMm * t, y: ray.y * farMm * t, z: farMm * t });
    },
    /** Half of what is seen at a depth of the scene, mm. */
    halfAt: (depthMm: number) => {
      const depth = Math.max(1, depthMm - from.z);
      return { width: (depth * frame.width) / (2 * v), height: (depth * frame.height) / (2 * v) };
    },
    /** What a part of the picture spans, over its distance. */
    spanOf: ({ left, right: end }: FrameArea): number => ((end - left) * frame.width) / (2 * v)
  };
}

/** Finds where a line meets somebody or something; each head is worked out once. */
function solidCrosser(setup: Setup, from: Vector) {
  const people = new Map(setup.people.map((person) => [person.id, person]));
  const heads = new Map<string, Head>();
  const head = (id: string): Head | undefined => {
    const person = people.get(id);
    const found = heads.get(id) ?? (person && headOf(person, from));
    if (found) heads.set(id, found);
    return found;
  };
  return (crossings: Crossing[], item: Occluder, to: Vector): void => {
    if (!comesNear(from, to, item)) return;
    if (item.kind === 'head') {
      const found = head(item.id);
      if (found) crossHead(crossings, item.id, found, to);
      return;
    }
    const t = item.meets(from, to);
    const kind = item.kind === 'thing' ? 'thing' : 'person';
    if (t !== null) crossings.push({ t, cover: 1, kind, id: item.id, part: item.kind });
  };
}

function looking(setup: Setup, view: Viewpoint, body: Body, P: number): (box: FrameArea) => Sees {
  const { from, towards, depthAt, halfAt, spanOf } = linesThrough(setup, view, body, P);
  const solids = solidsOf(setup);
  const crossSolid = solidCrosser(setup, from);
  const backmost =
    Math.max(0, ...setup.backgrounds.map((item) => item.depthMm), ...setup.people.map((item) => item.depthMm)) +
    behindAllMm;
  const planeAt = (depthMm: number, to: Vector): number => (depthMm - from.z) / (to.z - from.z);
  const seenIn = (near: readonly Occluder[], x: number, y: number): readonly Met[] => {
    const to = towards(x, y);
    const crossings: Crossing[] = [];
    for (const item of near) crossSolid(crossings, item, to);
    for (const background of setup.backgrounds) {
      const t = planeAt(background.depthMm, to);
      if (t <= 0 || t >= 1) continue;
      const place = { x: from.x + (to.x - from.x) * t, y: from.y + (to.y - from.y) * t, z: background.depthMm };
      const cover = coverAt(background, place, from, halfAt(background.depthMm));
      if (cover > 0) crossings.push({ t, cover, kind: 'background', id: background.id, part: 'ground' });
    }
    if (crossings.length > 1) crossings.sort((a, b) => a.t - b.t);
    const met: Met[] = [];
    let left = 1;
    for (const { t, cover, kind, id, part } of crossings) {
      met.push({ kind, id, part, depth: depthAt(x, y, t), share: left * cover });
      left *= 1 - cover;
      if (left < leastShare) return met;
    }
    const t = planeAt(backmost, to);
    const depth = depthAt(x, y, t > 0 && t < 1 ? t : 1);
    met.push({ kind: 'background', id: '', part: 'ground', depth, share: left });
    return met;
  };
  return (box) => {
    const middle = towards((box.left + box.right) / 2, (box.top + box.bottom) / 2);
    const widest = spanOf(box);
    const near = solids.filter(({ at, reach }) => {
      const away = Math.hypot(at.x - from.x, at.z - from.z);
      return comesNear(from, middle, { at, reach: reach + away * widest });
    });
    return (x, y) => seenIn(near, x, y);
  };
}

/** One thing that lies in a part of the picture. */
export interface SeenSurface {
  readonly kind: Met['kind'];
  readonly id: string;
  readonly part: SurfacePart;
  /** What it takes of that part, 0 to 1. */
  readonly share: number;
  readonly nearest: number;
  readonly furthest: number;
  /** Mean depth, in vergence, mm. */
  readonly depth: number;
}

/** Everything in a part of the picture, looked at in so many places across and down; the largest first. */
export function surfacesIn(looks: LineOfSight, box: FrameArea, across: number, down: number): readonly SeenSurface[] {
  const key = `${box.left} ${box.right} ${box.top} ${box.bottom} ${across} ${down}`;
  const known = looks.known.get(key) ?? summed(looks.at(box), box, across, down);
  looks.known.set(key, known);
  return known;
}

function summed(sees: Sees, box: FrameArea, across: number, down: number): readonly SeenSurface[] {
  const found: { met: Met; share: number; nearest: number; furthest: number; vergence: number }[] = [];
  const each = 1 / (across * down);
  for (let row = 0; row < down; row++) {
    for (let column = 0; column < across; column++) {
      const x = box.left + ((column + 0.5) / across) * (box.right - box.left);
      const y = box.top + ((row + 0.5) / down) * (box.bottom - box.top);
      if (x < 0 || x > 1 || y < 0 || y > 1) continue;
      for (const met of sees(x, y)) {
        if (!(met.depth > 0)) continue;
        let known = found.find(
          (item) => item.met.id === met.id && item.met.part === met.part && item.met.kind === met.kind
        );
        if (!known) found.push((known = { met, share: 0, nearest: Infinity, furthest: 0, vergence: 0 }));
        const share = met.share * each;
        known.share += share;
        known.nearest = Math.min(known.nearest, met.depth);
        known.furthest = Math.max(known.furthest, met.depth);
        known.vergence += share / met.depth;
      }
    }
  }
  return found
    .map(({ met: { kind, id, part }, share, nearest, furthest, vergence }) => ({
      kind,
      id,
      part,
      share,
      nearest,
      furthest,
      depth: share / vergence
    }))
    .sort((a, b) => b.share - a.share);
}

/** What a surface belongs to, as the setup describes it; a background of `null` lies behind everything described. */
export type Owner =
  | { readonly kind: 'person'; readonly person: Person }
  | { readonly kind: 'thing'; readonly thing: Thing }
  | { readonly kind: 'background'; readonly background: Background | null };

/** Finds it. */
export function ownersIn({ people, things, backgrounds }: Setup): (met: Pick<Met, 'kind' | 'id'>) => Owner {
  const personOf = new Map(people.map((person) => [person.id, person]));
  const thingOf = new Map(things.map((thing) => [thing.id, thing]));
  const groundOf = new Map(backgrounds.map((background) => [background.id, background]));
  return ({ kind, id }) => {
    const person = kind === 'person' ? personOf.get(id) : undefined;
    if (person) return { kind: 'person', person };
    const thing = kind === 'thing' ? thingOf.get(id) : undefined;
    if (thing) return { kind: 'thing', thing };
    return { kind: 'background', background: groundOf.get(id) ?? null };
  };
}
