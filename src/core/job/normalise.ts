/** Whole setups, each with people and surroundings of its own, as one job that describes each person and place once. */
import { same } from '../plain/merge';
import type { Setup } from '../setup/schema';
import { traitsOf } from '../setup/persons';
import { personInSetup } from './resolve';
import type { Job, JobPerson, JobPlace, JobSetup } from './schema';

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
        people: people.map(personInSetup)
      }
    ]
  };
}

type Rename = (id: string) => string;

/** A place to focus on that may be somebody's. */
const renamedTarget = (intent: Setup['intent'], newId: Rename): Setup['intent'] =>
  intent.target.kind === 'eye'
    ? { ...intent, target: { ...intent.target, personId: newId(intent.target.personId) } }
    : intent;

/** The people of a setup under other ids, wherever it names them. */
export function renamePeople<T extends Setup | JobSetup>(setup: T, newId: Rename): T {
  const { different } = setup.taken;
  return {
    ...setup,
    people: setup.people.map((person) => ({ ...person, id: newId(person.id) })),
    intent: renamedTarget(setup.intent, newId),
    taken: { ...setup.taken, different: { ...different, missing: different.missing.map(newId) } }
  };
}

/** The kit of a job under other ids: what is packed, and whose figures came with it. */
export function renameJobKit(job: Job, newId: Rename): Job {
  const own = job.habits?.own.map((one) => ({ ...one, bodyId: newId(one.bodyId), lensId: newId(one.lensId) }));
  return {
    ...job,
    packing: job.packing.map((item) => ({ ...item, id: newId(item.id) })),
    habits: job.habits && own ? { ...job.habits, own } : null
  };
}

/** The same for its body, lenses and adapters: of the plan, and of what turned out different. */
export function renameKit(setup: JobSetup, newId: Rename): JobSetup {
  const held = <T extends { readonly lensId: string; readonly adapterIds: readonly string[] }>(item: T) => ({
    ...item,
    lensId: newId(item.lensId),
    adapterIds: item.adapterIds.map(newId)
  });
  const { different } = setup.taken;
  return {
    ...setup,
    camera: { ...held(setup.camera), bodyId: newId(setup.camera.bodyId) },
    taken: { ...setup.taken, different: { ...different, lens: different.lens && held(different.lens) } }
  };
}
