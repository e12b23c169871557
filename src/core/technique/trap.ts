/**
 * Somebody walks towards the camera: follow them, or focus on a mark and press as they come to it. The mark lies where they
 * stand in the setup.
 */
import type { PlanInput } from '../call/planInput';
import type { Stop } from '../optics/stops';
import { normalCdf } from '../maths/normal';
import type { Person, Setup } from '../setup/schema';
import { withCamera } from '../setup/moves';
import { evaluateAt } from './evaluateAt';

export interface Trap {
  readonly person: Person;
  readonly speedMmPerS: number;
  /** How far they walk while they are sharp, mm, and how long that is, seconds. */
  readonly sharpForMm: number;
  readonly sharpForS: number;
  /** Press when they are so far before the mark: reaction and release lag at their pace, mm. */
  readonly pressBeforeMm: number;
  /** One frame pressed so: reaction varies. */
  readonly oneFrame: number;
  /** Frames of a burst inside the zone, on average, and the chance of at least one. */
  readonly framesInside: number;
  readonly burst: number;
  /** So many frames a second put one inside for certain. */
  readonly framesPerSecondNeeded: number;
  /** Continuous focusing instead. */
  readonly following: number;
  /** Where they are at each frame of a burst about the mark, mm before it (negative: past it). */
  readonly framesAtMm: readonly number[];
}

/** Frames of a burst drawn to either side of the mark. */
const framesDrawn = 4;

/** Null where nobody walks towards the camera. */
export function trapFor(input: PlanInput, stop: Stop): Trap | null {
  const { setup, habits } = input;
  // At the mark they are where the setup has them: nobody has moved since the focus was set.
  const still: Setup = { ...setup, people: setup.people.map((person) => ({ ...person, towardsMmPerS: 0 })) };
  const person = [...setup.people]
    .filter(({ towardsMmPerS, importance }) => towardsMmPerS > 0 && importance !== 'maySoft')
    .sort((a, b) => b.towardsMmPerS - a.towardsMmPerS)[0];
  if (!person) return null;
  const marked = evaluateAt(input, withCamera(still, { focusMode: 'single', secondsToShutter: 0 }), stop);
  const followed = evaluateAt(input, withCamera(setup, { focusMode: 'continuous' }), stop);
  if (!marked || !followed) return null;
  const { entry, situation } = marked;
  const { body } = situation;
  const member = situation.groups.flatMap((group) => group.members).find(({ subject }) => subject.id === person.id);
  if (!member) return null;
  const speed = person.towardsMmPerS;
  // Room before the plane and behind it for all of their required features.
  const before = Math.max(0, member.nearest - entry.nearMm);
  const behind = Math.max(0, (entry.farMm ?? Infinity) - member.furthest);
  const sharpForMm = Math.min(before + behind, member.nearest);
  const sharpForS = sharpForMm / speed;
  const spread = Math.hypot(speed * habits.reactionSpreadS, entry.scatter.focusMm);
  const oneFrame = spread === 0 ? 1 : normalCdf(before / spread) - normalCdf(-behind / spread);
  const step = speed / body.framesPerSecond;
  return {
    person,
    speedMmPerS: speed,
    sharpForMm,
    sharpForS,
    pressBeforeMm: speed * (habits.reactionS + body.releaseLagS),
    oneFrame,
    framesInside: sharpForMm / step,
    burst: Math.min(1, sharpForMm / step),
    framesPerSecondNeeded: sharpForMm > 0 ? speed / sharpForMm : Infinity,
    following: followed.entry.odds,
    framesAtMm: Array.from({ length: 2 * framesDrawn + 1 }, (_, index) => (framesDrawn - index) * step)
  };
}
