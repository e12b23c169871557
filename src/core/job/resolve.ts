/** A job's setups, with the people and places they refer to, as the setups that are planned; and back again. */
import { same } from '../plain/merge';
import { defaultLight } from '../setup/defaults';
import { traitsOf } from '../setup/persons';
import type { Person, Setup } from '../setup/schema';
import type { JobPerson, JobPlace, JobSetup, OwnPlace, PersonInSetup } from './schema';

/** Where people and places are looked up. A setup whose person or place is missing is still a setup. */
export interface Cast {
  readonly person: (id: string) => JobPerson | undefined;
  readonly place: (id: string) => JobPlace | undefined;
}

const nowhere: Omit<JobPlace, 'id' | 'name'> = {
  scenery: 'plain',
  room: { backUpMm: null, behindMm: null, sideMm: null },
  backgrounds: [],
  light: defaultLight
};

/** The setup to plan. Somebody who is not among the job's people stands in no picture. */
export function resolveSetup(setup: JobSetup, cast: Cast): Setup {
  const { placeId, own, people, ...rest } = setup;
  const place = cast.place(placeId) ?? nowhere;
  return {
    ...rest,
    place: { scenery: own.scenery ?? place.scenery, ...(own.room ?? place.room) },
    light: own.light ?? place.light,
    backgrounds: own.backgrounds ?? place.backgrounds,
    people: people.flatMap((standing) => {
      const person = cast.person(standing.id);
      return person ? [{ ...person, ...standing }] : [];
    })
  };
}

export function personInSetup(person: Person): PersonInSetup {
  const { id, depthMm, lateralMm, floorMm, posture, headYawDeg, bodyYawDeg, headPitchDeg } = person;
  const { towardsMmPerS, acrossMmPerS, mood, sharp, importance } = person;
  return {
    id,
    depthMm,
    lateralMm,
    floorMm,
    posture,
    headYawDeg,
    bodyYawDeg,
    headPitchDeg,
    towardsMmPerS,
    acrossMmPerS,
    mood,
    sharp,
    importance
  };
}

/** What an edit of a resolved setup means for what is stored. */
interface SplitEdit {
  readonly setup: JobSetup;
  /** People whose traits have changed or who are new to the job. */
  readonly people: readonly JobPerson[];
}

/**
 * Takes an edited setup apart. `before` is what `stored` resolved to; what is the same in both keeps its identity in the
 * result. A part of the place that was changed becomes the setup's own; one that again is as the place is not.
 */
export function splitEdit(stored: JobSetup, before: Setup, after: Setup, place: JobPlace | undefined): SplitEdit {
  const keep = <T>(old: T, now: T): T => (same(old, now) ? old : now);
  const { scenery, ...room } = after.place;
  const part = <K extends keyof OwnPlace>(key: K, was: NonNullable<OwnPlace[K]>, now: NonNullable<OwnPlace[K]>) => {
    if (same(was, now)) return stored.own[key];
    return place && same(place[key], now) ? null : (now as OwnPlace[K]);
  };
  const { scenery: sceneryBefore, ...roomBefore } = before.place;
  const own: OwnPlace = {
    scenery: part('scenery', sceneryBefore, scenery),
    room: part('room', roomBefore, room),
    backgrounds: part('backgrounds', before.backgrounds, after.backgrounds),
    light: part('light', before.light, after.light)
  };
  const known = new Map(before.people.map((person) => [person.id, person]));
  const standings = new Map(stored.people.map((standing) => [standing.id, standing]));
  const people = after.people.map((person): PersonInSetup => {
    const standing = standings.get(person.id);
    if (known.get(person.id) === person && standing) return standing;
    return standing ? keep(standing, personInSetup(person)) : personInSetup(person);
  });
  // Whoever could not be resolved stays where they are.
  const unseen = stored.people.filter((standing) => !known.has(standing.id));
  return {
    setup: {
      id: stored.id,
      name: after.name,
      notes: after.notes,
      camera: after.camera,
      placeId: stored.placeId,
      own: keep(stored.own, own),
      people: keep(stored.people, [...people, ...unseen]),
      things: after.things,
      intent: after.intent,
      ticked: after.ticked,
      schedule: after.schedule,
      taken: after.taken
    },
    people: after.people.flatMap((person) => {
      const old = known.get(person.id);
      if (old === person) return [];
      const traits = traitsOf(person);
      return old && same(traitsOf(old), traits) ? [] : [traits];
    })
  };
}
