import fc from 'fast-check';
import { produce } from 'immer';
import { describe, expect, it } from 'vitest';
import { share } from '../plain/share';
import { setupSchema, type Setup } from '../setup/schema';
import { arbitraryOf } from '../testing/arbitrary';
import { demoJobs, demoParts } from './demo';
import { asPartOfJob } from './normalise';
import { resolveSetup, splitEdit } from './resolve';
import { castOf } from '../testing/cast';
import { jobPersonSchema, jobPlaceSchema, jobSetupSchema } from './schema';

const [wedding] = demoJobs();
const parts = demoParts(wedding);
const cast = castOf(parts.people, parts.places);

/** A setup of the wedding, stored and resolved. */
function stored(name: string) {
  const setup = parts.setups.find((item) => item.name === name);
  if (!setup) throw new Error(name);
  return { setup, resolved: resolveSetup(setup, cast), place: cast.place(setup.placeId) };
}

describe('a job that describes each person and place once', () => {
  it('is valid and gives the very pictures it was made of', () => {
    for (const demo of demoJobs()) {
      const made = demoParts(demo);
      for (const person of made.people) expect(jobPersonSchema.parse(person)).toEqual(person);
      for (const place of made.places) expect(jobPlaceSchema.parse(place)).toEqual(place);
      for (const setup of made.setups) expect(jobSetupSchema.parse(setup)).toEqual(setup);
      const whole = castOf(made.people, made.places);
      expect(made.setups.map((setup) => resolveSetup(setup, whole))).toEqual(demo.setups);
    }
  });

  it('holds for whatever a setup may be', () => {
    fc.assert(
      fc.property(arbitraryOf(setupSchema), arbitraryOf(setupSchema), (setup, elsewhere) => {
        const there = asPartOfJob(elsewhere, { id: 'place', name: 'Place' }).places[0];
        if (!there) throw new Error('no place was made');
        for (const place of [there, { id: 'place', name: 'Place' }]) {
          const made = asPartOfJob(setup, place);
          const [first] = made.setups;
          expect(resolveSetup(first, castOf(made.people, made.places.length > 0 ? made.places : [there]))).toEqual(
            setup
          );
        }
      }),
      { numRuns: 100 }
    );
  });

  it('leaves somebody it does not know out of the picture, and a place it does not know plain', () => {
    const { setup } = stored('Under the palms');
    const resolved = resolveSetup(setup, castOf(parts.people.slice(0, 1), []));
    expect(resolved.people).toHaveLength(1);
    expect(resolved.place).toEqual({ scenery: 'plain', backUpMm: null, behindMm: null, sideMm: null });
    expect(setupSchema.safeParse(resolved).success).toBe(true);
  });
});

describe('an edit of a resolved setup', () => {
  const edited = (name: string, recipe: (draft: Setup) => void) => {
    const { setup, resolved, place } = stored(name);
    return { ...splitEdit(setup, resolved, produce(resolved, recipe), place), from: setup };
  };

  it('changes what stands in the setup, and nothing else', () => {
    const { setup, people, from } = edited('Under the palms', (draft) => {
      const [first] = draft.people;
      if (first) first.headYawDeg = 12;
    });
    expect(people).toEqual([]);
    expect(setup.people[0]?.headYawDeg).toBe(12);
    expect(setup.people[1]).toBe(from.people[1]);
    expect(setup.own).toBe(from.own);
    expect(setup.camera).toEqual(from.camera);
  });

  it('changes somebody for the whole job when it is a trait of theirs', () => {
    const { people, setup, from } = edited('Under the palms', (draft) => {
      const [first] = draft.people;
      if (first) first.statureMm = 1700;
    });
    expect(people).toMatchObject([{ name: 'Ines', statureMm: 1700 }]);
    expect(setup.people).toBe(from.people);
  });

  it('makes a part of the place the setup’s own, until it is as the place again', () => {
    const { setup, resolved, place } = stored('West door');
    if (!place) throw new Error('no place');
    const darker = produce(resolved, (draft) => void (draft.light.level = { kind: 'ev', ev100: 1 }));
    const own = splitEdit(setup, resolved, darker, place).setup;
    expect(own.own.light?.level).toEqual({ kind: 'ev', ev100: 1 });
    expect(own.own.backgrounds).toBe(setup.own.backgrounds);
    const back = splitEdit(
      own,
      darker,
      produce(darker, (draft) => void (draft.light = place.light)),
      place
    ).setup;
    expect(back.own.light).toBeNull();
  });

  it('brings new people into the job and takes nobody out of it', () => {
    const { resolved } = stored('West door');
    const other = stored('Under the palms').resolved.people[1];
    const { setup, people } = edited('West door', (draft) => {
      if (other) draft.people.push({ ...other, id: 'new', name: 'Somebody' });
    });
    expect(people).toMatchObject([{ id: 'new', name: 'Somebody' }]);
    expect(setup.people).toHaveLength(resolved.people.length + 1);
    const removed = edited('West door', (draft) => void (draft.people = []));
    expect(removed.people).toEqual([]);
    expect(removed.setup.people).toEqual([]);
  });

  it('keeps whoever could not be resolved', () => {
    const { setup, place } = stored('Under the palms');
    const partial = resolveSetup(setup, castOf(parts.people.slice(0, 1), parts.places));
    const turned = produce(partial, (draft) => void (draft.camera.heightMm = 1000));
    expect(splitEdit(setup, partial, turned, place).setup.people).toEqual(setup.people);
  });

  it('comes out as it was edited, whatever the edit', () => {
    fc.assert(
      fc.property(arbitraryOf(setupSchema), (anything) => {
        const { setup, resolved, place } = stored('Family on the steps');
        const after = share(resolved, { ...anything, id: resolved.id });
        const split = splitEdit(setup, resolved, after, place);
        const people = [...parts.people.filter((person) => !split.people.some((item) => item.id === person.id))];
        expect(resolveSetup(split.setup, castOf([...people, ...split.people], parts.places))).toEqual(after);
      }),
      { numRuns: 100 }
    );
  });
});
