/** Whole setups, each with people and surroundings of its own, as one job that describes each person and place once. */
import { same } from '../plain/merge';
import type { Setup } from '../setup/schema';
import { standingOf, traitsOf } from './resolve';
import type { JobPerson, JobPlace, JobSetup } from './schema';

export interface JobParts {
  readonly people: readonly JobPerson[];
  readonly places: readonly JobPlace[];
  readonly setups: readonly JobSetup[];
}

export interface NewPlace {
  readonly id: string;
  readonly name: string;
}

/**
 * A new setup as a part of a job that has these people and places. People keep their ids, which must not be taken by
 * others. It is taken at `place`, with what differs there as its own; without one, at a new place made of it.
 */
export function asPartOfJob(setup: Setup, place: JobPlace | NewPlace): JobParts & { readonly setups: [JobSetup] } {
  const { place: surroundings, light, backgrounds, people, ...rest } = setup;
  const { scenery, ...room } = surroundings;
  const made: JobPlace = 'room' in place ? place : { ...place, scenery, room, backgrounds, light };
  return {
    people: people.map(traitsOf),
    places: 'room' in place ? [] : [made],
    setups: [
      {
        ...rest,
        placeId: made.id,
        own: {
          scenery: scenery === made.scenery ? null : scenery,
          room: same(room, made.room) ? null : room,
          backgrounds: same(backgrounds, made.backgrounds) ? null : backgrounds,
          light: same(light, made.light) ? null : light
        },
        people: people.map(standingOf)
      }
    ]
  };
}

/** The people of a setup under other ids, wherever it names them. */
export function renamePeople(setup: Setup, newId: (id: string) => string): Setup {
  const { target } = setup.intent;
  return {
    ...setup,
    people: setup.people.map((person) => ({ ...person, id: newId(person.id) })),
    intent: {
      ...setup.intent,
      target: target.kind === 'eye' ? { ...target, personId: newId(target.personId) } : target
    }
  };
}

/** The same for a stored setup. */
export function renameStandings(setup: JobSetup, newId: (id: string) => string): JobSetup {
  const { target } = setup.intent;
  return {
    ...setup,
    people: setup.people.map((standing) => ({ ...standing, id: newId(standing.id) })),
    intent: {
      ...setup.intent,
      target: target.kind === 'eye' ? { ...target, personId: newId(target.personId) } : target
    }
  };
}
