/** Frames to the steps they were taken for: by stop, by what is sharp in them, by where it lies, and by the order they were taken in. */
import { linearSumAssignment } from 'linear-sum-assignment';
import { isSameStop } from '../../optics/stops';
import type { DrillStep, Place } from './steps';
import { spacingOf, type FrameRead } from './series';

export interface Matched {
  readonly step: DrillStep;
  /** The frame it is judged by. */
  readonly frame: FrameRead | null;
  /** Others of the same step: retakes. */
  readonly spare: readonly FrameRead[];
}

export interface SeriesMatch {
  readonly steps: readonly Matched[];
  /** Frames of no step, and why. */
  readonly left: readonly { readonly frame: FrameRead; readonly why: LeftWhy }[];
}

export type LeftWhy =
  /** Of another lens or focal length than most. */
  | 'otherLens'
  /** At a stop no step has. */
  | 'otherStop'
  /** At a shutter time no step has, or none is known. */
  | 'otherTime'
  /** No mark could be measured in it. */
  | 'noMarks'
  /** The plane lies at nothing a step asks for. */
  | 'nothingSharp';

/** Further from the mark than this share of the spacing, something else was focused on (chosen). */
const nearEnough = 0.5;
/** What order costs against what is seen, and a plane whose likeliest place is another's (chosen). */
const costs = { order: 0.4, middle: 0.3, never: 1e3 } as const;
/** Taken from further away than this from where it was to be, as a logarithm, it is another step (chosen: steps lie half as far apart again, or more). */
const sameDistance = 0.2;
/** Shutter times closer than this, in stops, are one (bodies round them to thirds). */
const sameTime = 0.4;
/** Further from the middle than this, as a share of half the picture, the mark lies at an edge (chosen). */
const edge = 0.35;

/** Where a mark lies in the picture; null where it was not seen. */
export function placeOf({ marks, width, height }: FrameRead, index: number): Place | null {
  const mark = marks.find((one) => one.index === index);
  if (!mark) return null;
  const [x, y] = [(2 * mark.x) / width - 1, (2 * mark.y) / height - 1];
  if (Math.max(Math.abs(x), Math.abs(y)) < edge) return 'middle';
  return Math.abs(x) > Math.abs(y) ? (x < 0 ? 'left' : 'right') : y < 0 ? 'top' : 'bottom';
}

/** What it costs to take a frame for a step, without the order; null where it cannot be of it. */
function costOf(step: DrillStep, frame: FrameRead, spacing: number): number | null {
  if (!isSameStop(step.fNumber, frame.fNumber)) return null;
  // What shakes has no plane to go by: the shutter time says which step it is.
  if (step.shutterS !== null)
    return frame.shutterS !== null && Math.abs(Math.log2(frame.shutterS / step.shutterS)) < sameTime ? 0 : null;
  // Whoever waited swayed: the plane may lie anywhere about what was focused on, and the order says how long it was.
  if (step.waitS !== null) return placeOf(frame, step.focusOn) === 'middle' && frame.plane ? costs.middle : null;
  if (step.place !== 'middle' || step.turning !== null) {
    // Turned away the plane may lie anywhere: the place says which step it is.
    return placeOf(frame, step.focusOn) === step.place && step.upright === frame.height > frame.width ? 0 : null;
  }
  const mark = frame.marks.find(({ index }) => index === step.focusOn);
  if (!mark || !frame.plane) return null;
  if (step.distanceMm !== null && Math.abs(Math.log(mark.depthMm / step.distanceMm)) > sameDistance) return null;
  const { mm, low, high } = frame.plane;
  // As far as it cannot be told from lying there it does not count against it.
  const out = Math.max(0, low - mark.depthMm, mark.depthMm - high) / spacing;
  return out > nearEnough ? null : out + costs.middle * Math.min(1, Math.abs(mm - mark.depthMm) / spacing);
}

/** Why a frame of this lens fits no step. */
function whyLeft(steps: readonly DrillStep[], frame: FrameRead): LeftWhy {
  if (!steps.some((step) => isSameStop(step.fNumber, frame.fNumber))) return 'otherStop';
  if (steps.some(({ shutterS }) => shutterS !== null)) return 'otherTime';
  return frame.plane === null ? 'noMarks' : 'nothingSharp';
}

/** The steps dealt to the frames so that all together cost least; by the step's id. */
function dealt(
  open: readonly DrillStep[],
  free: readonly FrameRead[],
  cost: (step: DrillStep, frame: FrameRead) => number
): Map<string, FrameRead> {
  const taken = new Map<string, FrameRead>();
  if (open.length === 0 || free.length === 0) return taken;
  const table = open.map((step) => free.map((frame) => cost(step, frame)));
  const { rowAssignments } = linearSumAssignment(table, { maximaze: false });
  for (const [row, column] of [...rowAssignments].entries()) {
    const [step, frame] = [open[row], free[column]];
    if (step && frame && cost(step, frame) < costs.never / 2) taken.set(step.id, frame);
  }
  return taken;
}

/** @param corrected frames a person has put to a step, by the frame's id; an empty step: to none */
export function matchFrames(
  steps: readonly DrillStep[],
  frames: readonly FrameRead[],
  corrected: Readonly<Record<string, string>> = {}
): SeriesMatch {
  const spacing = spacingOf(frames) ?? 1;
  const order = [...frames].sort((a, b) => (a.takenMs ?? 0) - (b.takenMs ?? 0));
  const rank = (frame: FrameRead) => order.indexOf(frame);
  const strange = strangers(frames);
  const free = frames.filter((frame) => corrected[frame.id] === undefined && !strange.has(frame));
  const own = (step: DrillStep) => frames.filter(({ id }) => corrected[id] === step.id);
  const open = steps.filter((step) => own(step).length === 0);
  const cost = (step: DrillStep, frame: FrameRead): number => {
    const seen = costOf(step, frame, spacing);
    // Counted from the first: a series that was left half-way is the first half.
    const away = Math.abs(rank(frame) - steps.indexOf(step)) / steps.length;
    return seen === null ? costs.never : seen + costs.order * away;
  };
  const taken = dealt(open, free, cost);
  const used = new Set(taken.values());
  const spares = new Map<string, FrameRead[]>();
  const left: { frame: FrameRead; why: LeftWhy }[] = [];
  for (const frame of frames) {
    const to = corrected[frame.id];
    if (used.has(frame) || (to !== undefined && to !== '')) continue;
    if (strange.has(frame)) {
      left.push({ frame, why: 'otherLens' });
      continue;
    }
    const [nearest] = [...steps].sort((a, b) => cost(a, frame) - cost(b, frame));
    if (to === undefined && nearest && cost(nearest, frame) < costs.never / 2) {
      spares.set(nearest.id, [...(spares.get(nearest.id) ?? []), frame]);
      continue;
    }
    left.push({ frame, why: whyLeft(steps, frame) });
  }
  return {
    left,
    // Whoever takes a frame again does so because the first was none: the latest counts, of those somebody put there first of all.
    steps: steps.map((step) => {
      const put = own(step);
      const found = taken.get(step.id);
      const all = put.length > 0 ? put : [...(found ? [found] : []), ...(spares.get(step.id) ?? [])];
      const [latest = null, ...rest] = [...all].sort((a, b) => (b.takenMs ?? 0) - (a.takenMs ?? 0));
      return { step, frame: latest, spare: put.length > 0 ? [...rest, ...(spares.get(step.id) ?? [])] : rest };
    })
  };
}

/** Those taken with another lens or focal length than most of the series. */
function strangers(frames: readonly FrameRead[]): ReadonlySet<FrameRead> {
  const key = ({ lens, focalLengthMm }: FrameRead) => `${lens ?? ''} ${Math.round(focalLengthMm)}`;
  const counts = new Map<string, number>();
  for (const frame of frames) counts.set(key(frame), (counts.get(key(frame)) ?? 0) + 1);
  const [most] = [...counts].sort((a, b) => b[1] - a[1])[0] ?? [''];
  return new Set(frames.filter((frame) => key(frame) !== most));
}

export const leftWords: Readonly<Record<LeftWhy, string>> = {
  otherLens: 'another lens or focal length',
  otherStop: 'at an aperture no step asks for',
  otherTime: 'at a shutter time no step asks for, or none is known',
  noMarks: 'no marks could be measured in it',
  nothingSharp: 'focus landed on none of the objects'
};
