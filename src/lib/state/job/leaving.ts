/** What leaves the browser as a file: names of people and of places only where that is ticked, one rule for all of it. */
import type { Plan } from '$core/call/plan';
import { planSetup } from '$core/call/planSetup';
import { hideNames, withoutNames } from '$core/setup/withoutNames';
import type { Setup } from '$core/setup/schema';
import type { App } from '$lib/state/app.svelte';

/** What may be read by others. */
export interface Leaving {
  readonly names: boolean;
  readonly places: boolean;
}

type Source = Pick<App, 'open' | 'settings'>;

const peopleOf = ({ open }: Source): string[] => open.people.map((person) => person.name);

/** A text of the open job, its people's names taken out where they are not ticked. */
export const textLeaving = (app: Source, text: string): string =>
  app.settings.now.leaving.names ? text : hideNames(text, peopleOf(app));

/** A setup and its plan as they may be read by others. */
export function setupLeaving(
  app: Source,
  { setup, plan }: { readonly setup: Setup; readonly plan: Plan }
): { readonly setup: Setup; readonly plan: Plan } {
  if (app.settings.now.leaving.names) return { setup, plan };
  const hidden = withoutNames(setup, peopleOf(app));
  const result = planSetup(app.open.input(hidden));
  return { setup: hidden, plan: result.kind === 'plan' ? result : plan };
}

/** What somebody of the open job is called there: their name, or their number among all. */
export function nameLeaving(app: Source, nameOf: (subjectId: string) => string): (subjectId: string) => string {
  if (app.settings.now.leaving.names) return nameOf;
  const numbers = new Map(app.open.people.map(({ id }, index) => [id, `Person ${index + 1}`]));
  return (subjectId) => numbers.get(subjectId) ?? nameOf(subjectId);
}
