/** The people of a job over the day: who is in which setup, and groups by what they are. */
import type { JobPerson, JobSetup } from '../job/schema';

export interface CastEntry {
  readonly person: JobPerson;
  /** Places in the day's order, from 0. */
  readonly setups: readonly number[];
}

export function dayCast(people: readonly JobPerson[], setups: readonly Pick<JobSetup, 'people'>[]): CastEntry[] {
  const seen = new Map<string, number[]>();
  setups.forEach((setup, index) => {
    for (const { id } of setup.people) seen.set(id, [...(seen.get(id) ?? []), index]);
  });
  return people.map((person) => ({ person, setups: seen.get(person.id) ?? [] }));
}

/** Each role once, with how many have it, the most frequent first; people without one under ''. */
export function rolesOf(people: readonly JobPerson[]): { readonly role: string; readonly count: number }[] {
  const counts = new Map<string, number>();
  for (const { role } of people) counts.set(role.trim(), (counts.get(role.trim()) ?? 0) + 1);
  return [...counts]
    .map(([role, count]) => ({ role, count }))
    .sort((a, b) => b.count - a.count || a.role.localeCompare(b.role));
}

/** Everybody who has one of these roles: "both families, without partners" is two roles chosen and one not. */
export const withRoles = (people: readonly JobPerson[], roles: readonly string[]): JobPerson[] =>
  people.filter((person) => roles.includes(person.role.trim()));
