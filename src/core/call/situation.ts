/** Everything about a setup that does not change from stop to stop. */
import type { Vector } from '../geometry/vector';
import { extensionStops } from '../optics/exposure';
import { circleOfConfusion, pixelPitch, sensorDiagonal } from '../optics/criterion';
import { pixelDisc, type LensSharpness } from '../optics/sharpness';
import { exactFNumber } from '../optics/stops';
import { focusFromSensor, magnification } from '../optics/thinLens';
import { gridInUse, heldPoints } from '../setup/focusPoint';
import { pictureSize, stitchFactor, type FrameSize } from '../setup/framing';
import { sightFrom } from '../setup/occlusion';
import { projector } from '../setup/projection';
import {
  backgroundDepth,
  eyesMidpoint,
  sceneSubjects,
  toCamera,
  viewpoint,
  type Subject,
  type Viewpoint
} from '../setup/scene';
import { tightestCrop } from '../setup/shapes';
import { lineOfSightFrom, type LineOfSight } from '../setup/surfaces';
import { noticedStretch, stretchAt } from '../setup/stretch';
import type { Habits } from '../habits/habits';
import { bodyOf, lensOf } from '../kit/find';
import type { Body, Lens } from '../kit/schema';
import type { Person, Setup } from '../setup/schema';
import {
  intermediateCandidates,
  decisiveSubjects,
  isIn,
  subjectCandidates,
  rowPreferenceOf,
  type Aim,
  type Candidate
} from './candidates';
import {
  lightAtStop,
  lightBehindFilter,
  lightLevel,
  onSteps,
  shutterFloor,
  type LightAtStop,
  type LightConditions
} from './light';
import { approach, recomposeShift, somebodyMoves, stabiliserStops, steadiness, stillFor, unfollowedS } from './motion';
import type { OddsMember } from './odds';
import type { NoPlan, NoPlanReason, Plan } from './plan';
import type { PlanInput } from './planInput';
import { isByHand, lowLightOf, ownFocus, focusSd, swayAfter, personSway } from './spread';

/** Nothing nearer to the lens than this can be in the picture, mm. */
const leastDepthMm = 50;

/** A decisive subject as the odds see it: its depths at release, which is nearer than at focusing when it approaches. */
export interface Member extends OddsMember {
  readonly subject: Subject;
  /** Speed across the picture, mm/s. */
  readonly across: number;
}

/** Those who must be sharp in one and the same frame, and where that frame may be focused. */
export interface FocusGroup {
  readonly members: readonly Member[];
  /** Nearest and furthest required depth at release. */
  readonly nearest: number;
  readonly furthest: number;
  /** Mean of how much nearer they have come by then. */
  readonly approach: number;
  /** Eyes and things the lens can be focused on, the gladdest first; worked out when first asked for. */
  readonly eyes: readonly Candidate[];
  /** Places beside the eyes and between the faces; likewise. */
  readonly beside: readonly Candidate[];
}

/** A setup seen from its camera, by the photographer's habits. */
interface Placed {
  readonly setup: Setup;
  readonly habits: Habits;
  readonly view: Viewpoint;
  readonly personOf: ReadonlyMap<string, Person>;
}

export interface Situation extends Placed {
  readonly body: Body;
  readonly lens: Lens;
  readonly f: number;
  /** Pupil magnification. */
  readonly P: number;
  /** Closest focus from the pupil, mm. */
  readonly closest: number;
  /** Permissible disc on the sensor, mm. */
  readonly C: number;
  readonly pixel: number;
  readonly sharpness: LensSharpness;
  readonly picture: FrameSize;
  readonly stabiliser: number;
  readonly subjects: readonly Subject[];
  /** How far off the axis each of them is drawn, as a share of half the diagonal of the lens's format; by id. */
  readonly imageHeights: ReadonlyMap<string, number>;
  /** Indices in `subjects` of those who decide. */
  readonly decisive: readonly number[];
  /** One group, or two when two frames are combined. */
  readonly groups: readonly FocusGroup[];
  readonly backgrounds: Plan['backgrounds'];
  readonly outOfFrame: readonly string[];
  readonly hidden: readonly string[];
  readonly stretched: Plan['stretched'];
  /** People whose eyes should be open. */
  readonly people: number;
  /** Who moves fastest across the picture, with their speed, mm/s; null when nobody does. */
  readonly mostAcross: { readonly subjectId: string; readonly across: number } | null;
  /** Settings at an f-number. */
  readonly light: (N: number) => LightAtStop;
  readonly aim: Aim;
  /** What the lens sees in a part of the picture. */
  readonly lineOfSight: LineOfSight;
}

type Prepared = { readonly kind: 'situation'; readonly situation: Situation } | NoPlan;

export function noPlan(reason: NoPlanReason): NoPlan {
  return { kind: 'noPlan', reason };
}

/** Finds body and lens and lays the scene out; or says why nothing can be planned. */
export function prepare({ setup, kit, habits }: PlanInput): Prepared {
  const body = bodyOf(kit, setup.camera);
  if (!body) return noPlan({ code: 'unknownBody', id: setup.camera.bodyId });
  const lens = lensOf(kit, setup.camera);
  if (!lens) return noPlan({ code: 'unknownLens', id: setup.camera.lensId });

  const { camera, intent } = setup;
  const P = lens.pupilMagnification;
  const view = viewpoint(setup, body, P, lens.fieldPerM);
  const all = sceneSubjects(setup, view);
  const inFront = (subject: Subject) => subject.points.every((point) => point.depth > leastDepthMm);
  const behind = all.find((subject) => subject.importance !== 'maySoft' && !inFront(subject));
  if (behind) return noPlan({ code: 'behindCamera', name: behind.name });
  const subjects = all.filter(inFront);
  if (subjects.length === 0) return noPlan({ code: 'nothingRequired' });

  const f = camera.focalLengthMm;
  const closest = Math.max(focusFromSensor(f, lens.closestFocusMm, P), (f / P) * 1.01);
  const level = lightLevel(setup);
  const widestN = exactFNumber(lens.widestFNumber);
  const personOf = new Map(setup.people.map((person) => [person.id, person]));
  const placed: Placed = { setup, habits, view, personOf };
  const aim = aimOf(placed, body, P, widestN);
  const framed = subjects.filter((subject) => isFramed(personOf.get(subject.id), subject, aim));
  const decisive = decisiveSubjects(framed.length > 0 ? framed : subjects);
  const groups = (intent.frames === 'two' ? splitInTwo(decisive) : [decisive]).map((members) =>
    groupOf(placed, aim, subjects, members, closest)
  );
  const runOver = groups.flatMap((group) => group.members).find((member) => member.nearest <= leastDepthMm);
  if (runOver) return noPlan({ code: 'behindCamera', name: runOver.subject.name });
  const unreachable = groups.find((group) => !reaches(group, setup, closest));
  if (unreachable) {
    const nearestMm = Math.max(...unreachable.members.map((member) => member.subject.furthest));
    return noPlan({ code: 'tooClose', closestFocusMm: closest, nearestMm });
  }

  // A stitched picture is enlarged less, so it bears a larger disc; pixels at 100 % are the same pixels.
  const enlargement = intent.viewing.kind === 'pixels' ? 1 : stitchFactor(body, camera);
  // What is cropped to an ordered shape is enlarged more, and bears a smaller one.
  const cropped = intent.viewing.kind === 'pixels' ? 1 : tightestCrop(intent.shapes, pictureSize(body, camera));
  const C = circleOfConfusion(intent.viewing, body.sensor) * enlargement * cropped;
  const stabiliser = stabiliserStops(habits, body, lens);
  const whole = kit.bodies.find((item) => item.id === camera.bodyId) ?? body;
  const sees = (subject: Subject) =>
    subject.points.some((point) => point.target && aim.sees(subject.id, point.position));
  const lighting: LightConditions = {
    setup,
    body,
    level,
    floor: shutterFloor(setup, body, steadiness(habits, camera, stabiliser)),
    wanted: stillFor(
      { habits, camera, stabiliser, C },
      decisive.map((subject) => ({
        across: personOf.get(subject.id)?.acrossMmPerS ?? 0,
        m: magnification(f, Math.max(subject.nearest, closest), P)
      }))
    ),
    extensionStops: extensionStops(magnification(f, Math.max(view.distance, closest), P), P)
  };
  let looks: LineOfSight | undefined;
  const situation: Situation = {
    ...placed,
    body,
    lens,
    f,
    P,
    closest,
    C,
    pixel: pixelDisc(pixelPitch(body.sensor)),
    sharpness: {
      character: lens.character,
      widestFNumber: widestN,
      // In a crop mode the lens still draws for the whole sensor.
      formatDiagonalMm: sensorDiagonal(whole.sensor),
      ...(lens.measured && { measured: lens.measured }),
      ...(lens.measuredCorner && { measuredCorner: lens.measuredCorner })
    },
    picture: pictureSize(body, camera),
    stabiliser,
    subjects,
    imageHeights: imageHeightsOf(placed, body, subjects, aim, sensorDiagonal(whole.sensor)),
    decisive: subjects.flatMap((subject, index) => (decisive.includes(subject) ? [index] : [])),
    groups,
    backgrounds: setup.backgrounds.map((background) => ({
      id: background.id,
      name: background.name,
      wish: background.wish,
      detailMm: background.detailMm,
      depthMm: backgroundDepth(view, background)
    })),
    outOfFrame: subjects
      .filter((subject) => subject.importance !== 'maySoft' && !framed.includes(subject))
      .map((subject) => subject.id),
    get hidden() {
      const unseen = framed.filter((subject) => subject.importance !== 'maySoft' && !sees(subject));
      return unseen.map((subject) => subject.id);
    },
    get stretched() {
      return mostStretched(placed, framed);
    },
    people: countPeople(placed, decisive),
    mostAcross: fastestAcross(groups),
    light: lightBy(lighting),
    aim,
    get lineOfSight() {
      return (looks ??= lineOfSightFrom(setup, view, body, P));
    }
  };
  return { kind: 'situation', situation };
}

/** In a stitched picture everybody is taken as on the axis: each frame is pointed at its own part of it. */
function imageHeightsOf(
  { setup, personOf }: Placed,
  body: Body,
  subjects: readonly Subject[],
  aim: Aim,
  formatDiagonalMm: number
): ReadonlyMap<string, number> {
  const { width, height } = pictureSize(body, setup.camera);
  const heightOf = ({ id, points }: Subject): number => {
    const person = personOf.get(id);
    const position = person ? eyesMidpoint(person) : points[0]?.position;
    const at = position && aim.at(position);
    return at ? Math.hypot((at.x - 0.5) * width, (at.y - 0.5) * height) / (formatDiagonalMm / 2) : 0;
  };
  return new Map(setup.camera.stitch ? [] : subjects.map((subject) => [subject.id, heightOf(subject)]));
}

/** Whose head is drawn longest among those in the picture. */
function mostStretched({ personOf, view }: Placed, framed: readonly Subject[]): Plan['stretched'] {
  const [most] = framed
    .flatMap((subject) => {
      const person = personOf.get(subject.id);
      return person ? [{ subjectId: subject.id, factor: stretchAt(view, eyesMidpoint(person)) }] : [];
    })
    .sort((a, b) => b.factor - a.factor);
  return most && most.factor >= noticedStretch ? most : null;
}

/** How many of them are people, and neither pets nor things. */
const countPeople = ({ personOf }: Placed, subjects: readonly Subject[]): number =>
  subjects.filter(({ id }) => (personOf.get(id)?.being ?? 'pet') !== 'pet').length;

/** Light at each f-number, worked out once. */
function lightBy(lighting: LightConditions): (N: number) => LightAtStop {
  const known = new Map<number, LightAtStop>();
  return (N) => {
    const found = known.get(N) ?? onSteps(lightAtStop(lighting, N), lighting.body);
    known.set(N, found);
    return found;
  };
}

function fastestAcross(groups: readonly FocusGroup[]): Situation['mostAcross'] {
  const [most] = groups
    .flatMap((group) => group.members)
    .filter((member) => member.across > 0)
    .sort((a, b) => b.across - a.across);
  return most ? { subjectId: most.subject.id, across: most.across } : null;
}

/** The same answer for the same point, worked out once, and nothing at all until first asked. */
function remembering(make: () => Aim['sees']): Aim['sees'] {
  const known = new Map<Vector, boolean>();
  let sees: Aim['sees'] | undefined;
  return (ownId, point) => {
    const found = known.get(point);
    if (found !== undefined) return found;
    sees ??= make();
    const seen = sees(ownId, point);
    known.set(point, seen);
    return seen;
  };
}

/** Whether the picture shows somebody's eyes, or the middle of a thing. */
function isFramed(person: Person | undefined, subject: Subject, aim: Aim): boolean {
  if (person) return isIn(aim.at(eyesMidpoint(person)));
  return subject.points.some((point) => isIn(aim.at(point.position)));
}

/** Areas that find their place in the picture by themselves. */
const choosing: ReadonlySet<Setup['camera']['focusArea']> = new Set(['wholeFrame', 'tracking', 'eyeDetection', 'tap']);

/** Whether autofocus is left to find its place, so that the body needs no turn to reach anybody. */
export const chooses = ({ focusMethod, focusArea }: Setup['camera']): boolean =>
  !isByHand(focusMethod) && choosing.has(focusArea);

function aimOf({ setup, habits, view }: Placed, body: Body, P: number, widestN: number): Aim {
  const { camera } = setup;
  const { points, at: pointAt } = heldPoints(gridInUse(body.focusGrid, camera), camera.orientation);
  const lowLight = lowLightOf(habits, body, lightBehindFilter(setup));
  const spread = (method: typeof camera.focusMethod) =>
    focusSd(habits, { method, stance: camera.stance, widestN, body, lowLight });
  // Continuous focusing never rests, also on what keeps still.
  const restless = !isByHand(camera.focusMethod) && camera.focusMode === 'continuous' && !somebodyMoves(setup);
  const restlessness = restless ? habits.continuousFactor : 1;
  /** As it has been measured with this kit, else as is usual. */
  const landing = (method: typeof camera.focusMethod, recomposed: boolean) => {
    const key = { bodyId: camera.bodyId, lensId: camera.lensId, method, recomposed };
    const own = ownFocus(habits, key, camera.focalLengthMm);
    return own
      ? { biasUm: own.biasUm, stopShift: own.stopShift, behindMm: (own.spreadUm / 1000) * lowLight }
      : { biasUm: 0, stopShift: [], behindMm: spread(method) * restlessness };
  };
  const usual = landing(camera.focusMethod, false);
  const lesser = camera.focusMethod === 'crossPoint' ? landing('ordinaryPoint', false) : usual;
  const turned = (position: Parameters<Aim['at']>[0], pivotMm: number, leaning: boolean, asked: boolean) => {
    const turnMm = recomposeShift(toCamera(view, position), pivotMm, view.surface);
    const leanMm = leaning ? habits.leanMm : 0;
    return {
      recomposed: { turnMm, leanMm, asked },
      biasMm: turnMm + leanMm,
      leanMm: leaning ? habits.leanSpreadMm : 0,
      point: points.find((item) => item.right === 0 && item.up === 0) ?? null,
      ...landing(camera.focusMethod, true)
    };
  };
  return {
    at: projector(view, camera, body, view.distance, P),
    sees: remembering(() => sightFrom(setup, view.position)),
    focusing: (position, at) => {
      const still = { recomposed: null, biasMm: 0, leanMm: 0, point: null, ...usual };
      if (!position || chooses(camera)) return still;
      const { recompose } = camera;
      if (recompose !== 'none') {
        const pivot = recompose === 'leaning' ? 'waist' : recompose;
        return turned(position, habits.pivotMm[pivot], recompose === 'leaning', true);
      }
      // Any place can be magnified; and in a stitched view the first frame is pointed at what it is focused on.
      if (isByHand(camera.focusMethod) || camera.stitch || !at) return still;
      const point = pointAt(at.x, at.y);
      if (!point) return turned(position, habits.pivotMm.wrists, false, false);
      return { ...still, point, ...(point.sensitive ? usual : lesser) };
    }
  };
}

function groupOf(
  placed: Placed,
  aim: Aim,
  subjects: readonly Subject[],
  decisive: readonly Subject[],
  closest: number
): FocusGroup {
  const { setup, habits, personOf } = placed;
  const things = new Map(setup.things.map((thing) => [thing.id, thing]));
  const seconds = unfollowedS(habits, setup.camera, somebodyMoves(setup));
  const members = decisive.map((subject): Member => {
    const person = subject.kind === 'person' ? personOf.get(subject.id) : undefined;
    const nearer = person ? approach(habits, person, setup.camera) : 0;
    const held = things.get(subject.id)?.held ? habits.swayMm.heldThing : 0;
    return {
      subject,
      nearest: subject.nearest - nearer,
      furthest: subject.furthest - nearer,
      sway: swayAfter(habits, person ? personSway(habits, person) : held, seconds),
      across: person?.acrossMmPerS ?? 0
    };
  });
  const depths = {
    nearest: Math.min(...decisive.map((subject) => subject.nearest)),
    furthest: Math.max(...decisive.map((subject) => subject.furthest))
  };
  const scene = {
    ...placed,
    aim,
    subjects,
    decisive,
    hasPeople: countPeople(placed, decisive) > 0,
    closest,
    rowPreference: rowPreferenceOf(decisive)
  };
  const reached = (all: readonly Candidate[]) => all.filter((candidate) => candidate.focusDistanceMm >= closest);
  let eyes: readonly Candidate[] | undefined;
  let beside: readonly Candidate[] | undefined;
  return {
    members,
    nearest: Math.min(...members.map((member) => member.nearest)),
    furthest: Math.max(...members.map((member) => member.furthest)),
    approach: members.reduce((sum, { subject, nearest }) => sum + subject.nearest - nearest, 0) / members.length,
    get eyes() {
      return (eyes ??= reached(subjectCandidates(scene)));
    },
    get beside() {
      return (beside ??= reached(intermediateCandidates(scene, depths)));
    }
  };
}

/** Whether the lens can be focused on anything at all. */
function reaches(group: FocusGroup, { intent }: Setup, closest: number): boolean {
  const onTarget = group.members.some(({ subject }) =>
    subject.points.some((point) => point.target && point.depth >= closest)
  );
  return (intent.target.kind === 'best' && onTarget) || group.eyes.length > 0 || group.beside.length > 0;
}

/** The split into a nearer and a further set that leaves the deeper of the two as shallow as it can be, in vergence. */
function splitInTwo(subjects: readonly Subject[]): readonly (readonly Subject[])[] {
  if (subjects.length < 2) return [subjects];
  const sorted = [...subjects].sort((a, b) => a.nearest + a.furthest - b.nearest - b.furthest);
  const depth = (set: readonly Subject[]) =>
    1 / Math.min(...set.map((item) => item.nearest)) - 1 / Math.max(...set.map((item) => item.furthest));
  let best = { cut: 1, deeper: Infinity };
  for (let cut = 1; cut < sorted.length; cut++) {
    const deeper = Math.max(depth(sorted.slice(0, cut)), depth(sorted.slice(cut)));
    if (deeper < best.deeper) best = { cut, deeper };
  }
  return [sorted.slice(0, best.cut), sorted.slice(best.cut)];
}
