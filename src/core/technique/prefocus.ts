/**
 * Somebody will pass between two distances, towards the camera or across: where the ring is set beforehand, and which stop covers
 * all of the way. Focus is set on a mark and left; nobody waits for it.
 */
import { canExpose } from '../call/exposable';
import type { StopPlan } from '../call/plan';
import type { PlanInput } from '../call/planInput';
import { planSetup } from '../call/planSetup';
import { bestFocusBetween } from '../optics/blur';
import type { Stop } from '../optics/stops';
import { withCamera } from '../setup/moves';
import type { Person, Setup } from '../setup/schema';

/** A way to pass, distances from the lens to the eyes, mm, the nearer first. */
export interface Way {
  readonly fromMm: number;
  readonly toMm: number;
}

export interface Prefocus {
  readonly name: string;
  /** Where to set the ring, mm. */
  readonly focusMm: number;
  /** The widest stop that covers the way and can be exposed; the one that comes nearest where none does. */
  readonly stop: Stop;
  readonly covers: boolean;
  /** Where their eyes may be and all of them that must be sharp is, mm; `farMm` null without end. */
  readonly nearMm: number;
  readonly farMm: number | null;
  /** How far the ring may be off by the way it is set, as one standard deviation there, mm. */
  readonly ringMm: number;
}

/** Of the distance, so much is looked at to either side of whoever crosses (no source). */
const crossingShare = 0.05;

/** Whoever comes is looked at over so much of the way before them, mm, and no more than this share of it (no source). */
const comingMm = 1500;
const comingShare = 0.3;

/** Who moves most, towards the camera before across; undefined where nobody goes anywhere. */
export const whoPasses = ({ people }: Setup): Person | undefined =>
  [...people]
    .filter(
      ({ towardsMmPerS, acrossMmPerS, importance }) =>
        (towardsMmPerS !== 0 || acrossMmPerS !== 0) && importance !== 'maySoft'
    )
    .sort((a, b) => Math.abs(b.towardsMmPerS) - Math.abs(a.towardsMmPerS) || b.acrossMmPerS - a.acrossMmPerS)[0];

/** The way to begin with: what lies before whoever comes, a little to either side of whoever crosses. */
export function usualWay(person: Person, eyesMm: number): Way {
  if (person.towardsMmPerS === 0) return { fromMm: eyesMm * (1 - crossingShare), toMm: eyesMm * (1 + crossingShare) };
  return { fromMm: eyesMm - Math.min(comingMm, comingShare * eyesMm), toMm: eyesMm };
}

/**
 * Null where nothing can be planned or nobody moves.
 *
 * @param way both positive; either may be the nearer
 */
export function prefocus(input: PlanInput, way: Way): Prefocus | null {
  const person = whoPasses(input.setup);
  if (!person) return null;
  const near = Math.min(way.fromMm, way.toMm);
  const far = Math.max(way.fromMm, way.toMm);
  // They are where they are when the shutter opens; movement across still shows.
  const people = input.setup.people.map((item) => ({ ...item, towardsMmPerS: 0 }));
  const still = withCamera(
    { ...input.setup, people },
    { focusMethod: 'magnifier', focusMode: 'single', secondsToShutter: 0 }
  );
  const at = (distanceMm: number) => {
    const target = { kind: 'distance', distanceMm } as const;
    return planSetup({ ...input, setup: { ...still, intent: { ...still.intent, target } } });
  };
  const there = at(bestFocusBetween(near, far));
  if (there.kind === 'noPlan') return null;
  const subject = there.subjects.find(({ id }) => id === person.id);
  if (!subject) return null;
  // What of them must be sharp lies nearer than their eyes, and further.
  const eyes = eyesOf(subject.points);
  const before = eyes - subject.nearest;
  const behind = subject.furthest - eyes;
  const focusMm = bestFocusBetween(Math.max(1, near - before), far + behind);
  const plan = at(focusMm);
  if (plan.kind === 'noPlan') return null;
  const covers = ({ nearMm, farMm }: StopPlan) => nearMm <= near - before && (farMm ?? Infinity) >= far + behind;
  const exposable = plan.stops.filter(canExpose);
  // Where none covers it, the one that is sharp for longest: far stopped down diffraction leaves nothing.
  const reach = ({ nearMm, farMm }: StopPlan) => Math.min(farMm ?? Infinity, far + behind) - nearMm;
  const longest = exposable.reduce<StopPlan | undefined>((a, b) => (a && reach(a) >= reach(b) ? a : b), undefined);
  const entry = exposable.find(covers) ?? longest ?? plan.stops.at(-1);
  if (!entry) return null;
  return {
    name: person.name,
    focusMm,
    stop: entry.stop,
    covers: covers(entry),
    nearMm: entry.nearMm + before,
    farMm: entry.farMm === null ? null : entry.farMm - behind,
    ringMm: entry.scatter.focusMm
  };
}

/** Mean depth of what is aimed at, mm. */
export function eyesOf(points: readonly { readonly target: boolean; readonly depth: number }[]): number {
  const eyes = points.filter(({ target }) => target);
  return eyes.reduce((sum, { depth }) => sum + depth, 0) / Math.max(1, eyes.length);
}
