/** Somebody new in a setup, and somebody becoming somebody else. */
import { defaultMuzzleMm, defaultStatureMm, newPerson } from './defaults';
import { beingNames, numbered, unnamed } from './names';
import type { Person, Setup } from './schema';

/** Shoulder to shoulder with room to breathe, mm (common practice, no source). */
const besideMm = 480;

/** Where somebody who comes to a setup stands: to the right of everybody. */
export function besideEverybody({ people }: Setup): number {
  return people.length === 0 ? 0 : Math.max(...people.map((person) => person.lateralMm)) + besideMm;
}

/** Somebody new, to the right of everybody else. `taken` are names in use elsewhere in the job. */
export function newcomer(setup: Setup, id: string, taken: Iterable<string>): Person {
  const name = numbered(beingNames.adult, [...taken, ...setup.people.map((person) => person.name)]);
  return newPerson(id, name, { lateralMm: besideEverybody(setup) });
}

/** What belongs to somebody wherever they stand. */
export function traitsOf(person: Person) {
  const { id, name, role, statureMm, being, muzzleMm, swayMm, look } = person;
  return { id, name, role, statureMm, being, muzzleMm, swayMm, look };
}

/**
 * Makes somebody an adult, a child, a baby or a pet in a posture. A pet is measured to its eyes, so a person's height
 * would not fit it, nor the other way round; whoever is called by what they are is called so anew. `taken`: names in use.
 */
export function become(
  draft: Person,
  being: Person['being'],
  posture: Person['posture'],
  taken: Iterable<string>
): void {
  if (being !== draft.being && unnamed.test(draft.name)) draft.name = numbered(beingNames[being], taken);
  if ((being === 'pet') !== (draft.being === 'pet')) {
    draft.statureMm = defaultStatureMm[being];
    draft.muzzleMm = being === 'pet' ? defaultMuzzleMm : 0;
  }
  draft.being = being;
  draft.posture = posture;
}
