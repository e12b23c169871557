import { describe, expect, it } from 'vitest';
import { newPerson, newThing } from './defaults';
import { sightFrom } from './occlusion';
import { eyesMidpoint, headPoint } from './scene';
import type { Person, Thing } from './schema';

const lens = { x: 0, y: 1560, z: -4000 };
const sees = (person: Person, others: { people?: Person[]; things?: Thing[] }) =>
  sightFrom({ people: [person, ...(others.people ?? [])], things: others.things ?? [] }, lens)(
    person.id,
    eyesMidpoint(person)
  );
const ada = newPerson('ada', 'Ada', { depthMm: 800 });
const before = (changes: Partial<Person>) => newPerson('bo', 'Bo', { depthMm: 0, ...changes });

describe('who stands before whom', () => {
  it('somebody is hidden by a head as tall before them, not by one beside, behind or below', () => {
    expect(sees(ada, {})).toBe(true);
    expect(sees(ada, { people: [before({})] })).toBe(false);
    // The line passes Bo's head by a head's width: 160 mm at his place is enough, 60 is not.
    expect(sees(ada, { people: [before({ lateralMm: 60 })] })).toBe(false);
    expect(sees(ada, { people: [before({ lateralMm: 160 })] })).toBe(true);
    expect(sees(ada, { people: [before({ depthMm: 1600 })] })).toBe(true);
    // A child reaches to the shoulders of who stands behind.
    expect(sees(ada, { people: [before({ being: 'child', statureMm: 1250 })] })).toBe(true);
    expect(sees(ada, { people: [before({ posture: 'seated' })] })).toBe(true);
  });

  it('a body hides whoever crouches or sits behind it, wider across than along', () => {
    const child = newPerson('cleo', 'Cleo', { being: 'child', statureMm: 1150, depthMm: 900 });
    expect(sees(child, { people: [before({})] })).toBe(false);
    const aside = { lateralMm: 165 };
    expect(sees(child, { people: [before(aside)] })).toBe(false);
    expect(sees(child, { people: [before({ ...aside, bodyYawDeg: 90 })] })).toBe(true);
    // A pet is taken by its head alone.
    expect(sees(child, { people: [before({ being: 'pet', statureMm: 500 })] })).toBe(true);
  });

  it('a turned head is as deep as it is long', () => {
    const aside = { lateralMm: 88 };
    expect(sees(ada, { people: [before(aside)] })).toBe(true);
    expect(sees(ada, { people: [before({ ...aside, headYawDeg: 90 })] })).toBe(false);
  });

  it('a thing held before a face hides it, one held lower does not', () => {
    const bouquet = newThing('bouquet', 'bouquet', {
      depthMm: 500,
      heightMm: 1560,
      widthMm: 200,
      tallMm: 250,
      deepMm: 150
    });
    expect(sees(ada, { things: [bouquet] })).toBe(false);
    expect(sees(ada, { things: [{ ...bouquet, heightMm: 1200 }] })).toBe(true);
    expect(sees(ada, { things: [{ ...bouquet, lateralMm: 150 }] })).toBe(true);
  });

  it('nobody hides themselves, nor a thing itself', () => {
    const sight = sightFrom({ people: [ada], things: [] }, lens);
    expect(sight('ada', headPoint(ada, { x: 0, y: 0, z: -100 }))).toBe(true);
    expect(sight('someone', headPoint(ada, { x: 0, y: 0, z: -100 }))).toBe(false);
  });
});
