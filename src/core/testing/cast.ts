/** A job's people and places to resolve setups with, for tests. */
import type { Cast } from '../job/resolve';
import type { JobPerson, JobPlace } from '../job/schema';

export function castOf(people: readonly JobPerson[], places: readonly JobPlace[]): Cast {
  const byId = new Map(people.map((person) => [person.id, person]));
  const placesById = new Map(places.map((place) => [place.id, place]));
  return { person: (id) => byId.get(id), place: (id) => placesById.get(id) };
}
