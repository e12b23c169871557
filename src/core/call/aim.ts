/** The fifth stage of a plan: where the focus may be put, and what it costs to put it there. */
import type { Habits } from '../habits/habits';
import { gridInUse, heldPoints } from '../setup/focusPoint';
import { toCamera } from '../setup/scene';
import type { Camera, FocusArea, Setup } from '../setup/schema';
import type { CameraInHand } from './camera';
import {
  intermediateCandidates,
  rowPreferenceOf,
  subjectCandidates,
  type Aim,
  type Candidate,
  type FocusScene
} from './candidates';
import type { LaidOut } from './layOut';
import { lightBehindFilter } from './light';
import { recomposeShift, somebodyMoves } from './motion';
import { countPeople, type Member, type PeopleInFrame } from './people';
import { noPlan, type NoPlan } from './plan';
import { focusSd, isByHand, lowLightOf, ownFocus } from './scatter';
import type { Sight } from './sight';

/** Those who must be sharp in one and the same frame, and where that frame may be focused. */
export interface FocusGroup {
  readonly members: readonly Member[];
  /** Nearest and furthest required depth at release. */
  readonly nearest: number;
  readonly furthest: number;
  /** Mean of how much nearer they have come by then. */
  readonly approach: number;
  /** Eyes and things the lens can be focused on, the most preferred first; worked out when first asked for. */
  readonly eyes: readonly Candidate[];
  /** Places beside the eyes and between the faces; likewise. */
  readonly beside: readonly Candidate[];
}

export interface Aimed {
  readonly aim: Aim;
  /** One group, or two when two frames are combined. */
  readonly groups: readonly FocusGroup[];
}

/** Finds where the focus may be put; or says that the lens cannot be focused so near. */
export function aimAt(scene: LaidOut, camera: CameraInHand, sight: Sight, people: PeopleInFrame): Aimed | NoPlan {
  const { closest } = camera;
  const aim = { at: sight.at, sees: sight.sees, focusing: focusingWith(scene, camera) };
  const groups = people.sets.map((members) => groupOf(scene, aim, members, closest));
  const unreachable = groups.find((group) => !reaches(group, scene.setup, closest));
  if (!unreachable) return { aim, groups };
  const nearestMm = Math.max(...unreachable.members.map((member) => member.subject.furthest));
  return noPlan({ code: 'tooClose', closestFocusMm: closest, nearestMm });
}

/** Areas that find their place in the picture by themselves. */
const choosing: ReadonlySet<FocusArea> = new Set(['wholeFrame', 'tracking', 'eyeDetection', 'tap']);

/** Whether autofocus is left to find its place, so that the body needs no turn to reach anybody. */
export const chooses = ({ focusMethod, focusArea }: Camera): boolean =>
  !isByHand(focusMethod) && choosing.has(focusArea);

/** How focus errs, by method and whether the camera is turned afterwards: as it has been measured with this kit, else as is usual. */
function errorsOf({ setup, habits }: LaidOut, { body, sharpness }: CameraInHand) {
  const { camera } = setup;
  const lowLight = lowLightOf(habits, body, lightBehindFilter(setup));
  // Continuous focusing never rests, also on what keeps still.
  const restless = !isByHand(camera.focusMethod) && camera.focusMode === 'continuous' && !somebodyMoves(setup);
  const restlessness = restless ? habits.continuousFactor : 1;
  return (method: Camera['focusMethod'], recomposed: boolean) => {
    const key = { bodyId: camera.bodyId, lensId: camera.lensId, method, recomposed };
    const own = ownFocus(habits, key, camera.focalLengthMm);
    if (own) return { biasUm: own.biasUm, stopShift: own.stopShift, behindMm: (own.spreadUm / 1000) * lowLight };
    const focusing = { method, stance: camera.stance, widestN: sharpness.widestFNumber, body, lowLight };
    return { biasUm: 0, stopShift: [], behindMm: focusSd(habits, focusing) * restlessness };
  };
}

/** How far behind the photographer's turn its pivot lies, and whether the body leans with it. */
function turnOf(habits: Habits, recompose: Exclude<Camera['recompose'], 'none'>) {
  const leaning = recompose === 'leaning';
  return { pivotMm: habits.pivotMm[leaning ? 'waist' : recompose], leaning };
}

/** The focus point on a place, what turning the camera costs where it must be, and the scatter. */
function focusingWith(scene: LaidOut, inHand: CameraInHand): Aim['focusing'] {
  const { setup, habits, view } = scene;
  const { camera } = setup;
  const { points, at: pointAt } = heldPoints(gridInUse(inHand.body.focusGrid, camera), camera.orientation);
  const errors = errorsOf(scene, inHand);
  const usual = errors(camera.focusMethod, false);
  const lesser = camera.focusMethod === 'crossPoint' ? errors('ordinaryPoint', false) : usual;
  const centre = points.find((item) => item.right === 0 && item.up === 0) ?? null;
  const turned = (position: Parameters<Aim['at']>[0], turn: ReturnType<typeof turnOf>, asked: boolean) => {
    const turnMm = recomposeShift(toCamera(view, position), turn.pivotMm, view.surface);
    const leanMm = turn.leaning ? habits.leanMm : 0;
    return {
      recomposed: { turnMm, leanMm, asked },
      biasMm: turnMm + leanMm,
      leanMm: turn.leaning ? habits.leanSpreadMm : 0,
      point: centre,
      ...errors(camera.focusMethod, true)
    };
  };
  const still = { recomposed: null, biasMm: 0, leanMm: 0, point: null, ...usual };
  return (position, at) => {
    if (!position || chooses(camera)) return still;
    if (camera.recompose !== 'none') return turned(position, turnOf(habits, camera.recompose), true);
    // Any place can be magnified; and in a stitched view the first frame is pointed at what it is focused on.
    if (isByHand(camera.focusMethod) || camera.stitch || !at) return still;
    const point = pointAt(at.x, at.y);
    if (!point) return turned(position, turnOf(habits, 'wrists'), false);
    return { ...still, point, ...(point.sensitive ? usual : lesser) };
  };
}

function groupOf(placed: LaidOut, aim: Aim, members: readonly Member[], closest: number): FocusGroup {
  const decisive = members.map(({ subject }) => subject);
  const depths = {
    nearest: Math.min(...decisive.map((subject) => subject.nearest)),
    furthest: Math.max(...decisive.map((subject) => subject.furthest))
  };
  const scene: FocusScene = {
    ...placed,
    aim,
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
