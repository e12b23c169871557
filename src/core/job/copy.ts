/** A setup taken to another job, with its people and its place. */
import { same } from '../plain/merge';
import { renamePeople, type JobParts } from './normalise';
import type { JobPerson, JobPlace, JobSetup } from './schema';

/** What a job has of people and places. */
type JobCast = Pick<JobParts, 'people' | 'places'>;

/**
 * What has to be added to a job so that it holds a setup as it is, under an id of its own: somebody, or a place, already
 * there is used.
 */
export function copiedParts(setup: JobSetup, from: JobCast, to: JobCast, newId: () => string): JobParts {
  const alike = <T extends { readonly id: string }>(items: readonly T[], item: T) =>
    items.find((other) => same({ ...other, id: '' }, { ...item, id: '' }));
  const people: JobPerson[] = [];
  const ids = new Map<string, string>();
  const used = new Set<string>();
  for (const { id } of setup.people) {
    const person = from.people.find((item) => item.id === id);
    if (!person) continue;
    const known = alike(
      to.people.filter((item) => !used.has(item.id)),
      person
    );
    const copy = known ?? { ...person, id: newId() };
    if (!known) people.push(copy);
    used.add(copy.id);
    ids.set(id, copy.id);
  }
  const place = from.places.find((item) => item.id === setup.placeId);
  const knownPlace = place && alike(to.places, place);
  const newPlace: JobPlace | undefined = place && !knownPlace ? { ...place, id: newId() } : undefined;
  const copy = renamePeople(setup, (id) => ids.get(id) ?? id);
  return {
    people,
    places: newPlace ? [newPlace] : [],
    setups: [{ ...copy, id: newId(), placeId: knownPlace?.id ?? newPlace?.id ?? setup.placeId }]
  };
}
