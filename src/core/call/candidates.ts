/** Where the focus may be put, and which of those places one would rather focus on. */
import { bestFocusBetween } from '../optics/blur';
import type { Vector } from '../maths/vector';
import type { Importance, Person, Setup } from '../setup/schema';
import type { OwnFocus } from '../habits/habits';
import { rowsByDepth } from '../people/rows';
import { besideEyes, type ScenePoint, type Subject, type Viewpoint } from '../setup/scene';
import type { Target } from './plan';
import { isByHand } from './scatter';

/**
 * How readily the focus is put there: on what everybody focuses on; on a far eye, the edge of the picture, a pet, the far
 * side of a thing; beside the eyes or between the faces.
 */
export type TargetPreference = 'ordinary' | 'reluctant' | 'beside';

/** A place for the focus with what it costs and what breaks ties. */
export interface Candidate extends Target {
  readonly standing: TargetPreference;
  /** Systematic shift of the plane when focusing there, mm behind it. */
  readonly biasMm: number;
  /** Systematic error of the focus behind the lens, µm: what has been measured of this kit. */
  readonly biasUm: number;
  /** What stopping down adds to it, measured. */
  readonly stopShift: OwnFocus['stopShift'];
  /** Standard deviation of the shift from leaning, mm. */
  readonly leanMm: number;
  /** Spread of the focus behind the lens there, mm. */
  readonly behindMm: number;
}

/** What a place in the picture means for focusing on it. */
export interface Aim {
  /** In shares of the picture from the left and the top; undefined behind the lens. */
  readonly at: (point: Vector) => { readonly x: number; readonly y: number } | undefined;
  /** Whether the lens sees a point of somebody past everybody else. */
  readonly sees: (ownId: string, point: Vector) => boolean;
  /** The focus point there, what turning the camera costs where it must be, and the spread. */
  readonly focusing: (
    position: Vector | null,
    at: { readonly x: number; readonly y: number } | undefined
  ) => Pick<Candidate, 'point' | 'recomposed' | 'biasMm' | 'biasUm' | 'stopShift' | 'leanMm' | 'behindMm'>;
}

/** Nearer to an edge of the picture than this share of it, focus and lens are at their worst (common practice, no source). */
const edgeShare = 0.08;

/** Distances from the middle of the picture are told apart by so much of its half diagonal. */
const middleStep = 0.15;

/** Whether a place lies in the picture. */
export const isIn = (at: { readonly x: number; readonly y: number } | undefined): boolean =>
  at !== undefined && at.x >= 0 && at.x <= 1 && at.y >= 0 && at.y <= 1;

/** Those that must be sharp; when nobody must, those that should; when nobody should, everybody. */
export function decisiveSubjects(subjects: readonly Subject[]): readonly Subject[] {
  for (const importance of ['must', 'should'] as const) {
    const found = subjects.filter((subject) => subject.importance === importance);
    if (found.length > 0) return found;
  }
  return subjects;
}

export interface FocusScene {
  readonly setup: Setup;
  readonly view: Viewpoint;
  readonly aim: Aim;
  readonly subjects: readonly Subject[];
  readonly decisive: readonly Subject[];
  readonly personOf: ReadonlyMap<string, Person>;
  /** Whether people who are no pets decide. */
  readonly hasPeople: boolean;
  /** Closest focus from the pupil, mm. */
  readonly closest: number;
  /** Which row one would rather focus on, by depth: smaller first. */
  readonly rowPreference: (depth: number) => number;
}

/** Every eye and thing the setup allows the focus to be put on, the chosen one alone if the photographer chose; the most preferred first. */
export function subjectCandidates(scene: FocusScene): Candidate[] {
  const { setup, aim, subjects, decisive, closest } = scene;
  const chosen = setup.intent.target;
  // A distance somebody chose is no lesser place.
  if (chosen.kind === 'distance') return [{ ...distanceCandidate(aim, chosen.distanceMm), standing: 'ordinary' }];
  if (chosen.kind === 'eye' || chosen.kind === 'thing') {
    const id = chosen.kind === 'eye' ? chosen.personId : chosen.thingId;
    // With two frames, only the one that holds the chosen eye is focused there.
    const held = decisive.some((subject) => subject.id === id) || setup.intent.frames === 'one';
    const found = (held ? subjects : [])
      .filter((subject) => subject.id === id)
      // An eye chosen by hand is taken even where the setup does not ask for it to be sharp.
      .flatMap((subject) =>
        subject.points
          .filter((point) => (chosen.kind === 'eye' ? point.feature === chosen.eye : canAimAt(scene, point)))
          .map((point) => candidateOf(scene, subject, point))
      );
    if (found.length > 0) return found.sort(byPreference).map(({ candidate }) => candidate);
    // The eye is hidden or its owner is gone: the best eye stands in.
  }
  const onTargets = (those: readonly Subject[]) =>
    those.flatMap((subject) =>
      subject.points.filter((point) => canAimAt(scene, point)).map((point) => candidateOf(scene, subject, point))
    );
  const all = onTargets(decisive);
  // Nobody aims through a guest or a post: where their eyes are hidden, at what else is seen of them, then at whoever is seen.
  const isSeen = ({ hidden }: Ranked) => !hidden;
  const inQuestion = [() => all, () => besideDecisive(scene), () => onTargets(subjects)];
  const places =
    inQuestion
      .find((those) => those().some(isSeen))?.()
      .filter(isSeen) ?? all;
  const near = places.filter(({ candidate }) => candidate.focusDistanceMm >= closest);
  return (near.length > 0 ? near : places).sort(byPreference).map(({ candidate }) => candidate);
}

/** Autofocus takes the front of a thing, never its far side through it; a ring is turned to either. */
const canAimAt = ({ setup }: FocusScene, { target, role }: ScenePoint): boolean =>
  target && (role !== 'farSide' || isByHand(setup.camera.focusMethod));

/** What can be seen of those who decide beside their eyes. */
const besideDecisive = (scene: FocusScene): Ranked[] =>
  scene.decisive.flatMap((subject) => {
    const person = scene.personOf.get(subject.id);
    return person ? besideEyes(scene.view, person).map((point) => candidateOf(scene, subject, point)) : [];
  });

/** Beside the eyes of those who decide, and between their depths: by hand, where more than one must be sharp and nobody chose. */
export function intermediateCandidates(
  scene: FocusScene,
  { nearest, furthest }: { readonly nearest: number; readonly furthest: number }
): Candidate[] {
  const { setup, aim, decisive } = scene;
  // Only by hand can the plane lie where nothing is; autofocus wants an eye.
  if (!isByHand(setup.camera.focusMethod)) return [];
  if (setup.intent.target.kind !== 'best' || (decisive.length < 2 && nearest === furthest)) return [];
  const places = decisive.length < 2 ? [] : besideDecisive(scene);
  return [
    ...places
      .filter(
        ({ hidden, candidate }) =>
          !hidden && candidate.focusDistanceMm > nearest && candidate.focusDistanceMm < furthest
      )
      .sort(byPreference)
      .map(({ candidate }) => ({ ...candidate, standing: 'beside' as const })),
    distanceCandidate(aim, bestFocusBetween(nearest, furthest))
  ];
}

/** A focus set by distance: nobody's eye. */
export function distanceCandidate(aim: Aim, focusDistanceMm: number): Candidate {
  return {
    subjectId: null,
    feature: null,
    role: null,
    focusDistanceMm,
    position: null,
    standing: 'beside',
    ...aim.focusing(null, undefined)
  };
}

interface Ranked {
  readonly candidate: Candidate;
  readonly hidden: boolean;
  /** Smaller first, one after the other. */
  readonly preference: readonly number[];
}

function candidateOf(scene: FocusScene, subject: Subject, point: ScenePoint): Ranked {
  const { aim, subjects, hasPeople, personOf, rowPreference } = scene;
  const at = aim.at(point.position);
  const person = personOf.get(subject.id);
  const focusing = aim.focusing(point.position, at);
  const edge = at !== undefined && Math.min(at.x, 1 - at.x, at.y, 1 - at.y) < edgeShare;
  const petAmongPeople = person?.being === 'pet' && hasPeople;
  const reluctant = point.role === 'farEye' || point.role === 'farSide' || edge || petAmongPeople;
  const candidate: Candidate = {
    subjectId: subject.id,
    feature: point.feature,
    role: point.role,
    focusDistanceMm: point.depth,
    position: point.position,
    standing: reluctant ? 'reluctant' : 'ordinary',
    ...focusing
  };
  const aside = at ? Math.hypot(at.x - 0.5, at.y - 0.5) / Math.SQRT1_2 : 1;
  const moves = person ? Math.hypot(person.towardsMmPerS, person.acrossMmPerS) : 0;
  const mood = person ? { still: 0, restless: 1, lively: 2 }[person.mood] : 0;
  return {
    candidate,
    hidden: !aim.sees(subject.id, point.position),
    preference: [
      reluctant ? 1 : 0,
      point.role === 'nearEye' || point.role === 'nearSide' ? 0 : 1,
      focusing.recomposed && !focusing.recomposed.asked ? 1 : 0,
      rowPreference(point.depth),
      focusing.point && !focusing.point.sensitive ? 1 : 0,
      Math.round(aside / middleStep),
      rank[subject.importance],
      mood,
      moves,
      point.depth,
      subjects.indexOf(subject)
    ]
  };
}

const rank: Record<Importance, number> = { must: 0, should: 1, maySoft: 2 };

/** Rows are told apart by so much depth, mm. */
export const rowStepMm = 300;

/** Of two rows the front one; of three or more the one in the middle (common practice, no source). */
export function rowPreferenceOf(decisive: readonly Subject[]): (depth: number) => number {
  const rows = rowsByDepth(decisive, (subject) => subject.nearest);
  const depths = decisive.flatMap((subject) => [subject.nearest, subject.furthest]);
  const middle = bestFocusBetween(Math.min(...depths), Math.max(...depths));
  if (rows.length < 2) return () => 0;
  return rows.length > 2
    ? (depth) => Math.round(Math.abs(depth - middle) / rowStepMm)
    : (depth) => Math.round(depth / rowStepMm);
}

function byPreference(a: Ranked, b: Ranked): number {
  for (const [index, value] of a.preference.entries()) {
    const difference = value - (b.preference[index] ?? 0);
    if (difference !== 0) return difference;
  }
  return 0;
}
