/** A frame read against its plan: where the plane fell, and why. */
import type { Plan, StopPlan } from '../call/plan';
import { isByHand } from '../call/scatter';
import { maxMeasurablePx } from '../measure/discs';
import { isSameStop } from '../optics/stops';
import type { Body } from '../kit/schema';
import type { Subject } from '../setup/scene';
import { pictureSize } from '../setup/framing';
import type { Setup } from '../setup/schema';
import { findCauses, type CauseFound } from './causes';
import { contradicts, distanceFromEyes } from './distance';
import type { ExpectedFace } from './expected';
import {
  chanceHeld,
  discAt,
  findPlane,
  standingSdMm,
  type PlaneAsked,
  type PlaneFeature,
  type PlaneFound
} from './plane';
import { noseMm, possibleCauses } from './possible';
import type { Frame } from './schema';
import { lyingAt, type Lying } from './sharpest';
import { eyeOf, type FrameJudged } from './eyes';

export interface FrameReading {
  readonly plane: PlaneFound;
  /** What it was found from. */
  readonly asked: PlaneAsked;
  /** Where the plane was put, mm from the lens: a bias the kit is known to have apart. */
  readonly meantMm: number;
  /** What this frame was planned as, at the stop it was shot with; the call's own stop where the plan has none so near. */
  readonly entry: StopPlan;
  /** Whether the plan has the stop it was shot with. */
  readonly asPlanned: boolean;
  /** The zone that was to be sharp, mm from the lens, at this frame's stop. */
  readonly zone: { readonly nearMm: number; readonly farMm: number };
  /** The plane lies, more likely than not, where everybody measured would still be sharp. */
  readonly within: boolean;
  readonly causes: readonly CauseFound[];
  /** Whose faces it rests on. */
  readonly features: readonly PlaneFeature[];
  /**
   * What lies where the frame is sharpest, where that is nobody who was measured: of what may, the nearest to the plane; something the
   * plan does not know where the plane would leave all of that soft.
   */
  readonly sharpest: Lying | 'unplanned' | null;
  /** No plane at all holds everybody who must be at this stop. */
  readonly tooDeep: boolean;
}

/** Depths are measured from whoever was focused on: of theirs no more is uncertain than a face is, mm. */
const targetSdMm = 4;
const leastSdPx = 0.7;
/** Nine of ten of a normal deviate lie within so many standard deviations on both sides. */
const tails = 3.29;

/** Planes further than this many times the distance are all alike: everything before them is as soft. */
const furthest = 4;
/** A focal length further from the plan's than this, as a ratio, is another lens: the plan says nothing of its plane (chosen). */
const sameLens = 1.25;

/** What a frame was planned as, by its stop; null where it was taken with another lens. */
export function plannedFor(
  frame: Pick<Frame, 'focalLengthMm' | 'fNumber'>,
  plan: Plan
): (Pick<FrameReading, 'entry' | 'asPlanned'> & { readonly focalLengthMm: number }) | null {
  const selected = plan.stops[plan.selected];
  const focalLengthMm = frame.focalLengthMm ?? plan.focalLengthMm;
  const ratio = focalLengthMm / plan.focalLengthMm;
  if (!selected || ratio > sameLens || ratio < 1 / sameLens) return null;
  const shotAt = frame.fNumber ?? selected.stop.fNumber;
  const own = plan.stops.find(({ stop }) => isSameStop(stop.fNumber, shotAt));
  return { entry: own ?? selected, asPlanned: own !== undefined, focalLengthMm };
}

/** Eyes that tell of the plane: whose depth is known, and which nothing but focus has blurred. */
function eyesIn(
  { frame, faces }: Pick<FrameJudged, 'frame' | 'faces'>,
  plan: Plan,
  byPerson: ReadonlyMap<string, ExpectedFace>,
  targetId: string | null
): PlaneFeature[] {
  return frame.faces.flatMap((face): PlaneFeature[] => {
    const own = face.personId === null ? undefined : byPerson.get(face.personId);
    const subject = plan.subjects.find(({ id }) => id === face.personId);
    const judged = faces.find(({ faceId }) => faceId === face.id);
    // What a movement blurs, or a lid covers, says nothing of the plane.
    if (!judged || judged.closed || judged.smear) return [];
    // Pets and things are never expected as faces; whoever pointed at one knows that it is there.
    const middleMm = own?.depthMm ?? (face.pointed ? subject?.nearest : undefined);
    if (middleMm === undefined) return [];
    return (['left', 'right'] as const).flatMap((side): PlaneFeature[] => {
      const eye = eyeOf(face, side);
      if (!eye.ok) return [];
      const point = subject?.points.find(({ feature }) => feature === `${side}Eye`);
      return [
        {
          of: face.id,
          depthMm: point?.depth ?? middleMm,
          depthSdMm: face.personId === targetId ? targetSdMm : standingSdMm,
          discPx: eye.discPx,
          atLeast: eye.discPx >= maxMeasurablePx,
          // Both eyes of a face are wrong together: each counts as half.
          sdPx: Math.SQRT2 * Math.max(leastSdPx, (eye.high - eye.low) / tails)
        }
      ];
    });
  });
}

/**
 * @param before the frame of the same burst before it: heads larger than there have come nearer
 * @returns null where nothing in the frame can be held against the plan: nobody measured, another lens, or a camera that stood elsewhere
 */
export function readFrame(
  { frame, faces }: FrameJudged,
  setup: Setup,
  plan: Plan,
  body: Body,
  expected: readonly ExpectedFace[],
  allowedPx: number,
  before: Frame | null = null
): FrameReading | null {
  const planned = plannedFor(frame, plan);
  if (!planned) return null;
  const stood = distanceFromEyes(frame, setup, body, expected, plan);
  if (stood && contradicts(stood, plan.distanceMm)) return null;
  const { entry, asPlanned, focalLengthMm } = planned;
  const { target } = entry;
  const byPerson = new Map(expected.map((face) => [face.personId, face]));
  const features = eyesIn({ frame, faces }, plan, byPerson, target.subjectId);
  const taken = takenAs(frame, before, planned, setup, plan, body);
  const { meantMm, onEye } = taken;
  const lying = sharpestThere(frame, setup, plan, body);
  const asked: PlaneAsked = {
    features: [...features, ...(lying.length === 1 ? featureOf(frame, lying, furthest * meantMm) : [])],
    focalLengthMm,
    fNumber: frame.fNumber ?? entry.stop.fNumber,
    pupilMagnification: plan.pupilMagnification,
    pxPerMm: taken.pxPerMm,
    meantMm,
    biasMm: taken.biasMm,
    spreadMm: taken.spread,
    elsewhereMm: [...taken.elsewhere.map(({ nearest }) => nearest), ...(onEye ? [entry.planeMm - noseMm] : [])],
    beyondMm: taken.behind.map(({ mm }) => mm)
  };
  const plane = features.length === 0 ? null : findPlane(asked);
  if (!plane) return null;
  const causes = possibleCauses({ ...taken, depthOf: (id) => byPerson.get(id)?.depthMm });
  const zone = { nearMm: entry.nearMm, farMm: entry.farMm ?? Infinity };
  const within = chanceHeld(plane, { ...asked, features }, allowedPx) > 0.5;
  const found = within ? [] : findCauses(plane, causes);
  const sharpest = sharpestOf(frame, lying, plane, asked);
  const must = setup.people.filter(({ importance }) => importance !== 'maySoft').map(({ id }) => id);
  const needed = plan.subjects.filter(({ id }) => must.includes(id) && byPerson.has(id));
  return {
    plane,
    asked,
    meantMm,
    entry,
    asPlanned,
    zone,
    within,
    causes: found,
    features,
    sharpest,
    tooDeep: !within && needed.length > 1 && !canHold(plane, asked, needed, allowedPx)
  };
}

/** What the plan says of how a frame was taken. */
function takenAs(
  frame: Frame,
  before: Frame | null,
  { entry, focalLengthMm }: NonNullable<ReturnType<typeof plannedFor>>,
  setup: Setup,
  plan: Plan,
  body: Body
): Omit<Parameters<typeof possibleCauses>[0], 'depthOf'> {
  const { target, scatter } = entry;
  const { turnMm, leanMm } = target.recomposed ?? { turnMm: 0, leanMm: 0 };
  const meantMm = target.focusDistanceMm + turnMm + leanMm;
  const isEye = target.feature === 'leftEye' || target.feature === 'rightEye';
  return {
    frame,
    before,
    entry,
    elsewhere: plan.subjects.filter(({ id }) => id !== target.subjectId),
    behind: plan.backgrounds.map(({ id, depthMm }) => ({ id, mm: Math.min(depthMm, furthest * meantMm) })),
    // Focus was to find an eye by itself, and the nose is near.
    onEye: isEye && !isByHand(setup.camera.focusMethod),
    meantMm,
    biasMm: entry.planeMm - meantMm,
    spread: Math.hypot(scatter.focusMm, scatter.holdMm, scatter.leanMm),
    focalLengthMm,
    pxPerMm: frame.widthPx / pictureSize(body, setup.camera).width
  };
}

/** What of the plan is the sharpest part of the frame; `unplanned` where all of that would be softer than what was seen. */
function sharpestOf(
  { sharpest }: Frame,
  lying: readonly Lying[],
  plane: PlaneFound,
  asked: PlaneAsked
): FrameReading['sharpest'] {
  const likeliest = lying.reduce<Lying | null>(
    (best, one) => (best === null || off(one, plane) < off(best, plane) ? one : best),
    null
  );
  const high = (sharpest?.high ?? 0) + slackPx;
  return likeliest && discAt(likeliest.depthMm, plane.mm, asked) > high ? 'unplanned' : likeliest;
}

/** Softer than measured by this, a thing of the plan is not what was seen, pixels (chosen). */
const slackPx = 2;

/** How far, in vergence, something lies from the plane. */
const off = ({ depthMm }: Lying, { mm }: PlaneFound): number => Math.abs(1 / depthMm - 1 / mm);

/** What of the plan lies where the frame is sharpest; nothing where that is somebody's, who is measured by the eyes. */
function sharpestThere(frame: Frame, setup: Setup, plan: Plan, body: Body): Lying[] {
  if (!frame.sharpest) return [];
  const lying = lyingAt(frame, frame.sharpest, setup, plan, body);
  return lying.some(({ kind }) => kind === 'person') ? [] : lying;
}

function featureOf({ sharpest }: Frame, [lying]: readonly Lying[], furthestMm: number): PlaneFeature[] {
  if (!sharpest || !lying) return [];
  const depthMm = Math.min(lying.depthMm, furthestMm);
  const sdPx = Math.max(leastSdPx, (sharpest.high - sharpest.low) / tails);
  return [
    {
      far: lying.kind === 'background',
      depthMm,
      depthSdMm: Math.max(standingSdMm, 0.1 * depthMm),
      discPx: sharpest.discPx,
      sdPx
    }
  ];
}

/** Whether some plane holds everybody: each by one eye at least. */
function canHold(plane: PlaneFound, asked: PlaneAsked, needed: readonly Subject[], allowedPx: number): boolean {
  const features = needed.flatMap(({ id, nearest, points }): PlaneFeature[] => {
    const eyes = points.filter(({ feature }) => feature === 'leftEye' || feature === 'rightEye');
    const depths = eyes.length > 0 ? eyes.map(({ depth }) => depth) : [nearest];
    return depths.map((depthMm) => ({ of: id, depthMm, depthSdMm: 0, discPx: 0, sdPx: 1 }));
  });
  const chances = plane.depths.map(() => 1);
  return chanceHeld({ ...plane, chances }, { ...asked, features }, allowedPx) > 0;
}
