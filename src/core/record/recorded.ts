/** Frames of one setup as the record keeps them. */
import { group } from 'd3-array';
import type { StopPlan } from '../call/plan';
import { focusedForS } from '../call/motion';
import { isByHand, focusSd, swayAfter, personSway } from '../call/scatter';
import { standIn } from '../simulation/metadata';
import type { Cause } from '../frames/causes';
import { clockKey } from '../frames/clocks';
import type { FrameJudged } from '../frames/eyes';
import { beforeInBurst } from '../frames/match';
import { plannedFor, readFrame, type FrameReading } from '../frames/reading';
import type { Frame } from '../frames/schema';
import { exactFNumber } from '../optics/stops';
import { magnification } from '../optics/thinLens';
import type { Setup } from '../setup/schema';
import { errorUm, partsOf } from './observe';
import type { FramePlan } from './framePlan';
import { personsOf } from './personsOf';
import type { Recorded } from './schema';

/** A frame so soon after the one before was not focused anew, ms, where the body does not go on focusing (common practice, no source). */
const sameFocusingMs = 400;
/** The likeliest cause decides when it is likelier than not. */
const likely = 0.5;
/** Focus took something else, or whoever it was on moved. */
const noErrorOfTheLens: ReadonlySet<Cause['kind']> = new Set(['landedOn', 'background', 'theyMoved']);

/**
 * @param setupFrames all frames of that setup, in the order of the clock: they say which came together, and whether any are missing
 * @returns null where the frame cannot be held against the plan
 */
export function recordedOf(
  judged: FrameJudged,
  planned: FramePlan,
  allowedPx: number,
  setupFrames: readonly Frame[],
  complete: boolean
): Recorded | null {
  const { jobId, setup, plan, body, lens, expected } = planned;
  const { frame } = judged;
  const before = beforeInBurst(frame, setupFrames);
  const reading = readFrame(judged, setup, plan, body, expected, allowedPx, before);
  const must = new Set(setup.people.filter(({ importance }) => importance !== 'maySoft').map(({ id }) => id));
  const sharp = sharpness(judged, must);
  // Nobody of the plan was found, or it was taken with another lens.
  if (!reading && !judged.faces.some(({ personId }) => personId !== null && must.has(personId))) return null;
  const shot = plannedFor(frame, plan);
  if (!shot) return null;
  const { entry, asPlanned, focalLengthMm } = shot;
  const { camera } = setup;
  const meantMm = reading?.meantMm ?? entry.target.focusDistanceMm;
  const optics = { focalLengthMm, pupilMagnification: plan.pupilMagnification, meantMm };
  const m = magnification(focalLengthMm, meantMm, plan.pupilMagnification);
  const { method, usualMm } = usualFocus(planned, entry);
  const [cause] = reading?.causes ?? [];
  return {
    id: frame.id,
    jobId,
    setupId: setup.id,
    setup: setup.name,
    file: frame.file.name,
    takenMs: frame.clockMs,
    simulated: frame.body === `${standIn.make} ${standIn.model}`,
    complete,
    bodyId: body.id,
    body: body.name,
    lensId: lens.id,
    lens: lens.name,
    focalLengthMm,
    fNumber: frame.fNumber ?? entry.stop.fNumber,
    method,
    recomposed: entry.target.recomposed !== null,
    mode: camera.focusMode,
    area: camera.focusArea,
    stance: camera.stance,
    secondsToShutter: camera.secondsToShutter,
    distanceMm: meantMm,
    odds: asPlanned ? entry.odds : null,
    usualUm: 1000 * usualMm,
    swayUm: 1000 * m * m * swayMm(planned, entry),
    frontUm: errorUm(optics, Math.min(entry.nearMm, meantMm)),
    behindUm: Math.min(errorUm(optics, entry.farMm ?? Infinity), 1e5),
    focusing: focusingOf(frame, setupFrames, camera),
    error: reading && errorOf(judged, reading, camera, optics),
    landedElsewhere: cause !== undefined && noErrorOfTheLens.has(cause.cause.kind) && cause.likely > likely,
    sharp,
    people: personsOf(judged, reading, planned, entry),
    choice: frame.choice,
    reason: frame.reason
  };
}

/** How far the photographer and whoever was focused on sway before the frame is taken, as one standard deviation, mm. */
function swayMm({ setup, habits }: FramePlan, { target, scatter }: StopPlan): number {
  const person = setup.people.find(({ id }) => id === target.subjectId);
  const theirs = person ? swayAfter(habits, personSway(habits, person), focusedForS(habits, setup.camera)) : 0;
  return Math.hypot(scatter.holdMm, scatter.leanMm, theirs);
}

/** By what it was focused, and how that scatters, mm. */
function usualFocus({ setup: { camera }, habits, lens, body }: FramePlan, { target }: StopPlan) {
  const { focusMethod, stance } = camera;
  const isLesser = focusMethod === 'crossPoint' && target.point?.sensitive === false && target.recomposed === null;
  const method = isLesser ? 'ordinaryPoint' : focusMethod;
  const widestN = exactFNumber(lens.widestFNumber);
  return { method, usualMm: focusSd(habits, { method, stance, widestN, body, lowLight: 1 }) } as const;
}

/**
 * How far off the plane lay, without what stopping down moves: that is known of the lens and counted apart. Null by the scale, where there is no
 * error behind the lens to speak of, and where it was shaken: that says nothing of the plane.
 */
function errorOf(
  judged: FrameJudged,
  { plane, entry }: FrameReading,
  camera: Setup['camera'],
  optics: Parameters<typeof partsOf>[1]
): Recorded['error'] {
  if (judged.shake !== null || camera.focusMethod === 'scale') return null;
  return partsOf(plane, optics).map((part) => ({ ...part, q: part.q - entry.shiftUm }));
}

/** The odds are of being sharp: who blinks is neither, and everybody else decides. */
function sharpness({ missed, held, faces }: FrameJudged, must: ReadonlySet<string>): Recorded['sharp'] {
  if (missed.some(({ closed }) => !closed)) return 'some';
  const blinking = faces.filter(({ closed, personId }) => closed && personId !== null && must.has(personId)).length;
  return held > 0 && held + blinking === must.size ? 'all' : 'unknown';
}

/** The first of the frames that were focused together with this one; null where it was focused on its own. */
function focusingOf(frame: Frame, frames: readonly Frame[], camera: Setup['camera']): string | null {
  if (camera.drive !== 'burst' || (camera.focusMode === 'continuous' && !isByHand(camera.focusMethod))) return null;
  const own = frames.filter((one) => clockKey(one) === clockKey(frame) && one.clockMs !== null);
  const at = own.findIndex(({ id }) => id === frame.id);
  if (at < 0) return null;
  const joined = (index: number) =>
    index > 0 && (own[index]?.clockMs ?? 0) - (own[index - 1]?.clockMs ?? 0) <= sameFocusingMs;
  let first = at;
  while (joined(first)) first--;
  return first === at && !joined(at + 1) ? null : (own[first]?.id ?? null);
}

/** Whether all frames of a setup are there, body by body, as far as the numbers of the files tell. */
export const areComplete = (frames: readonly Frame[]): boolean =>
  [...group(frames, clockKey).values()].every(withoutHoles);

/** Whether all of a body's frames are there: the numbers their names end in run on without a hole. One frame tells nothing. */
export function withoutHoles(frames: readonly Frame[]): boolean {
  const numbers = frames.map(({ file }) => /(\d+)\D*$/.exec(file.name.replace(/\.[^.]*$/, ''))?.[1]);
  if (frames.length < 2 || numbers.some((number) => number === undefined)) return false;
  const all = new Set(numbers.map(Number));
  return all.size === frames.length && Math.max(...all) - Math.min(...all) === frames.length - 1;
}
