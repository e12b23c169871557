/**
 * What the camera takes: where autofocus lands when it looks at a part of the picture, and how likely. Ours, and a rough one:
 * among the surfaces under the area the larger, the more contrasty and (in a zone, or left to itself) the nearer one wins;
 * eye detection first finds faces. Anchored so that, left to itself, the camera is wrong a quarter to a third of the time
 * (common practice, no source). docs/model.md, "What the camera takes".
 */
import { headScale, interpupillaryOf } from '../people/anatomy';
import { areaBox, pointBox } from '../setup/focusArea';
import { eyesMidpoint, turnFromLens } from '../setup/scene';
import type { Camera, FocusArea, Person } from '../setup/schema';
import { surfacesIn, type FrameArea, type Met, type SeenSurface } from '../setup/lineOfSight';
import { isIn, type Candidate } from './candidates';
import { contrastIn } from './contrast';
import { lightBehindFilter } from './light';
import type { Landing } from './plan';
import type { Situation } from './situation';
import { isByHand } from './scatter';

/** Less likely than this is left out. */
const leastChance = 0.01;

/** Places looked at in an area, across and down. */
const samplesOf: Readonly<Record<'point' | 'zone' | 'frame', readonly [number, number]>> = {
  point: [5, 5],
  zone: [15, 13],
  frame: [24, 18]
};

/** By how much nearness counts: the chance falls with this power of the distance over the nearest one's. From memory. */
const nearnessPower = 2.5;

/** Left to itself a body that knows faces prefers them by so much. From memory. */
const faceBonus = 4;

/** A body with neighbours stays on its middle point in half of the frames where that has so much contrast. From memory. */
const middleEnough = 0.06;

/** Tracking still holds its subject when the shutter opens. From memory. */
const trackingHolds = 0.9;

/** A face found: focus lies on the nearer eye, the further one, or the brow. From memory. */
const onFace = { nearEye: 0.9, farEye: 0.06, brow: 0.04 } as const;

/** A face under the photographer's point is chosen so much more readily. From memory. */
const pointedAt = 4;

interface Weighted {
  readonly surface: SeenSurface;
  readonly weight: number;
}

type Looked = (box: FrameArea, samples: readonly [number, number]) => readonly SeenSurface[];

interface Looking {
  readonly situation: Situation;
  readonly candidate: Candidate;
  readonly at: { readonly x: number; readonly y: number };
  readonly look: Looked;
  readonly contrast: (met: Pick<Met, 'kind' | 'id' | 'part'>) => number;
}

/** Landings of surfaces by weight, those on the target itself at its depth. */
function byWeight({ candidate }: Looking, weighted: readonly Weighted[]): Landing[] {
  const all = weighted.reduce((sum, item) => sum + item.weight, 0);
  if (all <= 0) return [onTarget(candidate, 1)];
  return weighted.map(({ surface, weight }) =>
    isTarget(candidate, surface)
      ? onTarget(candidate, weight / all)
      : { kind: surface.kind, id: surface.id, part: surface.part, depth: surface.depth, chance: weight / all }
  );
}

const onTarget = ({ subjectId, role, focusDistanceMm }: Candidate, chance: number): Landing => ({
  kind: role === 'nearSide' || role === 'farSide' ? 'thing' : 'person',
  id: subjectId ?? '',
  part: 'target',
  depth: focusDistanceMm,
  chance
});

/** An eye is its lids and lashes; anything else that is focused on is hit where its owner is. */
function isTarget({ subjectId, role }: Candidate, { id, part }: SeenSurface): boolean {
  if (id !== subjectId) return false;
  return role === 'nearEye' || role === 'farEye' ? part === 'eye' : true;
}

/** Under a point: what fills most of it with contrast. */
function underPoint(looking: Looking, box: FrameArea): Landing[] {
  const surfaces = looking.look(box, samplesOf.point);
  return byWeight(
    looking,
    surfaces.map((surface) => ({ surface, weight: surface.share * looking.contrast(surface) }))
  );
}

/** Where the body may choose: large, contrasty, near. */
function chosenIn(looking: Looking, box: FrameArea, samples: readonly [number, number], face: number): Landing[] {
  const surfaces = looking.look(box, samples).filter(({ share }) => share > 0.004);
  const nearest = surfaces.reduce((least, { depth }) => Math.min(least, depth), Infinity);
  const weighted = surfaces.map((surface) => {
    const isFace = surface.kind === 'person' && surface.part !== 'body' && surface.part !== 'hair';
    const near = (nearest / surface.depth) ** nearnessPower;
    return {
      surface,
      weight: Math.sqrt(surface.share) * looking.contrast(surface) * near * (isFace ? face : 1)
    };
  });
  return byWeight(looking, weighted);
}

const times = (landings: readonly Landing[], factor: number): Landing[] =>
  landings.map((item) => ({ ...item, chance: item.chance * factor }));

/** How readily a face is found, 0 to 1. All from memory. */
export function faceFound({ setup, view, aim, picture, f }: Situation, person: Person, ev100: number | null): number {
  const eyes = eyesMidpoint(person);
  if (!isIn(aim.at(eyes)) || !aim.sees(person.id, eyes)) return 0;
  const turn = Math.abs((turnFromLens(view, person) * 180) / Math.PI);
  // Eyes apart, as a share of the long edge.
  const size =
    (interpupillaryOf[person.being] * f) / (view.distance + person.depthMm) / Math.max(picture.width, picture.height);
  const bySize = Math.min(1, Math.max(0, (size - 0.002) / 0.008));
  const byTurn = turn < 35 ? 1 : turn < 60 ? 0.95 : turn < 75 ? 0.75 : turn < 100 ? 0.4 : 0;
  const byCover = { none: 1, hat: 0.9, veil: 0.5 }[person.look.headwear] * (person.look.glasses ? 0.92 : 1);
  const byLight = (setup.light.from === 'behind' ? 0.85 : 1) * (ev100 !== null && ev100 < 0 ? 0.8 : 1);
  return 0.98 * bySize * byTurn * byCover * byLight * (person.being === 'pet' ? 0.8 : 1);
}

/** Eye detection: a face is found and chosen, or else the body does as it does without faces. */
function onFaces(looking: Looking): Landing[] {
  const { situation, candidate, at } = looking;
  const ev100 = lightBehindFilter(situation.setup);
  const faces = situation.setup.people.flatMap((person) => {
    const found = faceFound(situation, person, ev100);
    const place = situation.aim.at(eyesMidpoint(person));
    const depth = situation.view.distance + person.depthMm;
    if (found === 0 || !place) return [];
    const size = headScale(interpupillaryOf[person.being]) / depth;
    const aside = Math.hypot(place.x - at.x, place.y - at.y);
    const weight = (size ** 2 / (1 + 2 * aside)) * (person.id === candidate.subjectId ? pointedAt : 1);
    return [{ person, found, weight: weight * found }];
  });
  const none = faces.reduce((product, { found }) => product * (1 - found), 1);
  const all = faces.reduce((sum, { weight }) => sum + weight, 0);
  const landings = faces.flatMap(({ person, weight }): Landing[] => {
    const chance = ((1 - none) * weight) / all;
    const subject = situation.subjects.find((item) => item.id === person.id);
    const near = subject?.points.find((point) => point.role === 'nearEye');
    if (!near) return [];
    const far = subject?.points.find((point) => point.role === 'farEye') ?? near;
    const mine = person.id === candidate.subjectId;
    const own = { kind: 'person', id: person.id } as const;
    const eye = (depth: number, share: number): Landing =>
      mine && depth === candidate.focusDistanceMm
        ? onTarget(candidate, chance * share)
        : { ...own, part: 'eye', depth, chance: chance * share };
    return [
      eye(near.depth, onFace.nearEye),
      eye(far.depth, onFace.farEye),
      { ...own, part: 'brow', depth: near.depth - browBefore, chance: chance * onFace.brow }
    ];
  });
  return [...landings, ...times(chosenIn(looking, areaOf(looking, 'zone'), samplesOf.zone, 1), none)];
}

/** The brow lies so far before the eye, mm (people/face.ts). */
const browBefore = 6;

const areaOf = ({ situation, at }: Looking, area: FocusArea): FrameArea =>
  areaBox({ body: situation.body, camera: situation.setup.camera }, area, at);

function landingsIn(looking: Looking, area: FocusArea): Landing[] {
  const { situation, candidate, at, contrast } = looking;
  const held = { body: situation.body, camera: situation.setup.camera };
  switch (area) {
    case 'point':
    case 'tap':
      return underPoint(looking, areaOf(looking, area));
    case 'neighbours': {
      const middle = pointBox(held, at);
      const there = looking.look(middle, samplesOf.point).reduce((sum, item) => sum + item.share * contrast(item), 0);
      const stays = there / (there + middleEnough);
      return [
        ...times(underPoint(looking, middle), stays),
        ...times(chosenIn(looking, areaOf(looking, area), samplesOf.zone, 1), 1 - stays)
      ];
    }
    case 'zone':
      return chosenIn(looking, areaOf(looking, area), samplesOf.zone, 1);
    case 'wholeFrame':
      return chosenIn(looking, areaOf(looking, area), samplesOf.frame, situation.body.kind === 'slr' ? 1 : faceBonus);
    case 'tracking':
      return [
        onTarget(candidate, trackingHolds),
        ...times(chosenIn(looking, areaOf(looking, 'zone'), samplesOf.zone, 1), 1 - trackingHolds)
      ];
    case 'eyeDetection':
      return onFaces(looking);
  }
}

/** Landings in one place put together, the unlikely left out, the likeliest first; together 1. */
function tidy(landings: readonly Landing[]): Landing[] {
  const known = new Map<string, Landing>();
  for (const item of landings) {
    const key = `${item.kind} ${item.id} ${item.part} ${Math.round(item.depth)}`;
    known.set(key, { ...item, chance: item.chance + (known.get(key)?.chance ?? 0) });
  }
  const kept = [...known.values()].filter(({ chance }) => chance >= leastChance);
  const all = kept.reduce((sum, { chance }) => sum + chance, 0);
  return kept.map((item) => ({ ...item, chance: item.chance / all })).sort((a, b) => b.chance - a.chance);
}

/** Whether this way of focusing lets autofocus land elsewhere than on the target. */
const mayMiss = ({ focusMethod }: Camera, { position }: Candidate): boolean =>
  !isByHand(focusMethod) && position !== null;

/** Planes nearer together than this, over the square of the distance, are one, in their middle: a fortieth of what a fast lens holds, 1/mm. */
const samePlane = 2e-7;

/** A plane that focus may come to lie in. */
export interface PossiblePlane {
  readonly depth: number;
  readonly chance: number;
}

/** The landings by where they put the plane: what the odds need. The target's own plane stays where it is. */
function planesOf(landings: readonly Landing[], { focusDistanceMm }: Candidate): readonly PossiblePlane[] {
  const near = samePlane * focusDistanceMm ** 2;
  const planes: PossiblePlane[] = [];
  const onTarget = landings.filter(({ depth }) => depth === focusDistanceMm);
  if (onTarget.length > 0) planes.push({ depth: focusDistanceMm, chance: chanceOf(onTarget) });
  const others = landings.filter(({ depth }) => depth !== focusDistanceMm).sort((a, b) => a.depth - b.depth);
  for (let from = 0; from < others.length;) {
    const first = others[from]?.depth ?? 0;
    const past = others.findIndex(({ depth }) => depth > first + near);
    const together = others.slice(from, past < 0 ? others.length : past);
    const chance = chanceOf(together);
    planes.push({ depth: together.reduce((sum, item) => sum + item.depth * item.chance, 0) / chance, chance });
    from += together.length;
  }
  return planes;
}

const chanceOf = (landings: readonly Landing[]): number => landings.reduce((sum, { chance }) => sum + chance, 0);

interface Landed {
  readonly landings: readonly Landing[];
  readonly planes: readonly PossiblePlane[];
}

const known = new WeakMap<Situation, WeakMap<Candidate, Landed>>();

/** Where focus lands when the setup's focus area is put on a place; worked out once for each. */
export function landedOn(situation: Situation, candidate: Candidate): Landed {
  const mine = known.get(situation) ?? new WeakMap<Candidate, Landed>();
  known.set(situation, mine);
  const found = mine.get(candidate);
  if (found) return found;
  const { setup, lineOfSight, aim } = situation;
  const at = candidate.position && aim.at(candidate.position);
  const looking = at && {
    situation,
    candidate,
    at,
    look: (box: FrameArea, [across, down]: readonly [number, number]) => surfacesIn(lineOfSight(), box, across, down),
    contrast: contrastIn(setup, lightBehindFilter(setup))
  };
  const landings =
    looking && mayMiss(setup.camera, candidate)
      ? tidy(landingsIn(looking, setup.camera.focusArea))
      : [onTarget(candidate, 1)];
  const landed = { landings, planes: planesOf(landings, candidate) };
  mine.set(candidate, landed);
  return landed;
}
