/** How sure a call is that rests on a photo: it is planned again for what the photo may as well mean. */
import { asFocusTarget } from '../call/focusTarget';
import type { Plan } from '../call/plan';
import type { PlanInput } from '../call/planInput';
import { asCalled } from '../call/inPrint';
import { planSetup } from '../call/planSetup';
import { normalFrom, type Random } from '../maths/random';
import type { GroupRead } from './readGroup';

/** A stop, and of how many of the group's possible places it holds every face. */
export interface StopHeld {
  readonly stop: string;
  /** 0 to 1. */
  readonly share: number;
}

export const meanings = 100;

/**
 * The share of what the photo may mean for which each stop holds every face with the keeper rate asked for, the focus on whom
 * the call says.
 *
 * @param input the setup made of the photo; @param plan its plan
 * @param idOf the person of each face
 */
export function howSure(
  input: PlanInput,
  plan: Plan,
  group: GroupRead,
  idOf: (faceId: string) => string,
  random: Random,
  count = meanings
): StopHeld[] {
  const normal = normalFrom(random);
  const chosen = plan.stops[plan.selected];
  if (!chosen) return [];
  const target = asFocusTarget(chosen.target, input.setup);
  // What is sharp in print only is weighed as a print.
  const asked = asCalled(input, plan);
  const held = new Map<string, number>(plan.stops.map(({ stop }) => [stop.label, 0]));
  for (let meaning = 0; meaning < count; meaning++) {
    const errors = group.rows.map(() => normal());
    const rowsOff = group.rows.map(({ off }) => off.reduce((sum, mm, index) => sum + mm * (errors[index] ?? 0), 0));
    const people = input.setup.people.map((person) => {
      const read = group.people.find(({ id }) => idOf(id) === person.id);
      if (!read) return person;
      const by = read.own * normal() + read.withRow * (rowsOff[read.row] ?? 0);
      // Along the line of sight: nearer is also nearer to the axis.
      return {
        ...person,
        depthMm: person.depthMm + by,
        lateralMm: person.lateralMm * (1 + by / read.aheadMm)
      };
    });
    const again = planSetup({ ...asked, setup: { ...asked.setup, people, intent: { ...asked.setup.intent, target } } });
    if (again.kind !== 'plan') continue;
    for (const { stop, facesHold } of again.stops) if (facesHold) held.set(stop.label, (held.get(stop.label) ?? 0) + 1);
  }
  return plan.stops.map(({ stop: { label } }) => ({ stop: label, share: (held.get(label) ?? 0) / count }));
}
