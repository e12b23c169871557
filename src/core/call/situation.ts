/** Everything about a setup that does not change from stop to stop. */
import { length } from '../geometry/vector';
import { permissibleDisc, pixelPitch } from '../optics/criterion';
import { pixelDisc, type LensSharpness } from '../optics/sharpness';
import { exactFNumber } from '../optics/stops';
import { focusFromSensor } from '../optics/thinLens';
import { pictureSize, stitchFactor, type FrameSize } from '../setup/framing';
import { backgroundDepth, sceneSubjects, toCamera, viewpoint, type Subject, type Viewpoint } from '../setup/scene';
import type { Habits } from '../habits/habits';
import { bodyOf, lensOf } from '../kit/find';
import type { Body, Lens } from '../kit/schema';
import type { Setup } from '../setup/schema';
import { candidates, decisiveSubjects, shortlist, type Candidate } from './candidates';
import { lowLightEv100, lightLevel, shutterFloor, type ShutterFloor } from './light';
import { approach, recomposeBias } from './motion';
import type { OddsMember } from './odds';
import type { NoPlan, NoPlanReason, Plan } from './plan';
import type { PlanInput } from './planInput';
import { swayOf } from './spread';

/** Nothing nearer to the lens than this can be in the picture, mm. */
const leastDepthMm = 50;

/** A decisive subject as the odds see it: its depths at release, which is nearer than at focusing when it approaches. */
export interface Member extends OddsMember {
  readonly subject: Subject;
  /** Speed across the picture, mm/s. */
  readonly across: number;
}

/** Those who must be sharp in one and the same frame, and where that frame may be focused. */
export interface Group {
  readonly members: readonly Member[];
  readonly nearest: number;
  readonly furthest: number;
  /** All places the lens can be focused on, and the few that can be best. */
  readonly candidates: readonly Candidate[];
  readonly shortlist: readonly Candidate[];
}

/** A setup seen from its camera, by the photographer's habits. */
interface Placed {
  readonly setup: Setup;
  readonly habits: Habits;
  readonly view: Viewpoint;
}

export interface Situation extends Placed {
  readonly body: Body;
  readonly lens: Lens;
  readonly f: number;
  /** Closest focus from the pupil, mm. */
  readonly closest: number;
  /** Permissible disc on the sensor, mm. */
  readonly C: number;
  readonly pixel: number;
  readonly sharpness: LensSharpness;
  readonly picture: FrameSize;
  readonly widestN: number;
  readonly subjects: readonly Subject[];
  /** Indices in `subjects` of those who decide. */
  readonly decisive: readonly number[];
  /** One group, or two when two frames are combined. */
  readonly groups: readonly Group[];
  readonly backgrounds: Plan['backgrounds'];
  /** Scene level, EV at ISO 100, or null. */
  readonly level: number | null;
  readonly lowLight: boolean;
  readonly floor: ShutterFloor;
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
  const view = viewpoint(setup, body);
  const all = sceneSubjects(setup, view);
  const inFront = (subject: Subject) => subject.points.every((point) => point.depth > leastDepthMm);
  const behind = all.find((subject) => subject.importance !== 'maySoft' && !inFront(subject));
  if (behind) return noPlan({ code: 'behindCamera', name: behind.name });
  const subjects = all.filter(inFront);
  if (subjects.length === 0) return noPlan({ code: 'nothingRequired' });

  const f = camera.focalLengthMm;
  const closest = Math.max(focusFromSensor(f, lens.closestFocusMm), f * 1.01);
  const decisive = decisiveSubjects(subjects);
  const groups = (intent.frames === 'two' ? splitInTwo(decisive) : [decisive]).map((members) =>
    groupOf({ setup, habits, view }, subjects, members, closest)
  );
  const unreachable = groups.find((group) => group.shortlist.length === 0);
  if (unreachable) {
    const nearestMm = Math.max(...unreachable.members.map((member) => member.subject.furthest));
    return noPlan({ code: 'tooClose', closestFocusMm: closest, nearestMm });
  }

  const widestN = exactFNumber(lens.widestFNumber);
  const level = lightLevel(setup);
  // A stitched picture is enlarged less, so it bears a larger disc; pixels at 100 % are the same pixels.
  const enlargement = intent.viewing.kind === 'pixels' ? 1 : stitchFactor(body, camera);
  const situation: Situation = {
    setup,
    habits,
    body,
    lens,
    view,
    f,
    closest,
    C: permissibleDisc(intent.viewing, body.sensor) * enlargement,
    pixel: pixelDisc(pixelPitch(body.sensor)),
    sharpness: { character: lens.character, widestFNumber: widestN, measured: lens.measured },
    picture: pictureSize(body, camera),
    widestN,
    subjects,
    decisive: subjects.flatMap((subject, index) => (decisive.includes(subject) ? [index] : [])),
    groups,
    backgrounds: setup.backgrounds.map((background) => ({
      id: background.id,
      name: background.name,
      wish: background.wish,
      detailMm: background.detailMm,
      depthMm: backgroundDepth(view, background)
    })),
    level,
    lowLight: level !== null && level <= lowLightEv100,
    floor: shutterFloor(setup, body)
  };
  return { kind: 'situation', situation };
}

function groupOf(place: Placed, subjects: readonly Subject[], decisive: readonly Subject[], closest: number): Group {
  const { setup, habits } = place;
  const people = new Map(setup.people.map((person) => [person.id, person]));
  const members = decisive.map((subject): Member => {
    const person = subject.kind === 'person' ? people.get(subject.id) : undefined;
    const nearer = person ? approach(habits, person, setup.camera) : 0;
    return {
      subject,
      nearest: subject.nearest - nearer,
      furthest: subject.furthest - nearer,
      sway: person ? swayOf(habits, person) : 0,
      across: person?.acrossMmPerS ?? 0
    };
  });
  const nearest = Math.min(...decisive.map((subject) => subject.nearest));
  const furthest = Math.max(...decisive.map((subject) => subject.furthest));
  const all = candidates(setup, subjects, decisive, { nearest, furthest }).map((candidate) => ({
    ...candidate,
    biasMm: biasOf(place, candidate)
  }));
  const reachable = all.filter((candidate) => candidate.focusDistanceMm >= closest);
  const meanApproach =
    members.reduce((sum, { subject, nearest }) => sum + subject.nearest - nearest, 0) / members.length;
  const bias = (reachable[0]?.biasMm ?? 0) + meanApproach;
  return {
    members,
    nearest,
    furthest,
    candidates: reachable,
    shortlist: shortlist(reachable, nearest, furthest, bias)
  };
}

/** Shift of the plane, mm, from turning the camera back after focusing on a target away from the axis. */
function biasOf({ setup, habits, view }: Placed, candidate: Candidate): number {
  const { recompose } = setup.camera;
  if (recompose === 'none' || !candidate.position) return 0;
  const local = toCamera(view, candidate.position);
  const distance = length(local);
  const angle = distance === 0 ? 0 : Math.acos(Math.min(1, Math.max(-1, local.z / distance)));
  return recomposeBias(distance, angle, habits.pivotMm[recompose]);
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
