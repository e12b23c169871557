import { describe, expect, it } from 'vitest';
import { demoSetup } from '../testing/demo';
import { arrangePeople } from './arrangements';
import { defaultStatureMm, newPerson, newSetup } from './defaults';
import { become, besideEverybody, newcomer } from './persons';
import { hideNames, withoutNames } from './withoutNames';
import { isPlainName, numbered, surfaceName } from './names';

describe('somebody new', () => {
  it('has the first number nobody in the job has, and stands to the right of everybody', () => {
    const setup = newSetup('s', 'S', {
      people: [newPerson('a', 'Adult 1', { lateralMm: -200 }), newPerson('b', 'Ines', { lateralMm: 300 })]
    });
    const person = newcomer(setup, 'c', ['Adult 2']);
    expect(person).toMatchObject({ id: 'c', name: 'Adult 3', lateralMm: 780 });
    expect(besideEverybody(newSetup('s', 'S', { people: [] }))).toBe(0);
    expect(numbered('Thing', ['Thing 1', 'Thing 3'])).toBe('Thing 2');
  });
});

describe('who somebody is', () => {
  it('changes the height only between people and pets', () => {
    const ines = newPerson('i', 'Ines', { statureMm: 1690 });
    become(ines, 'child', 'seated', []);
    expect(ines).toMatchObject({ being: 'child', posture: 'seated', statureMm: 1690 });
    become(ines, 'pet', 'seated', []);
    expect(ines.statureMm).toBe(defaultStatureMm.pet);
    expect(ines.muzzleMm).toBeGreaterThan(0);
    become(ines, 'adult', 'standing', []);
    expect(ines).toMatchObject({ statureMm: defaultStatureMm.adult, muzzleMm: 0 });
  });
});

describe('names nobody has given', () => {
  it('follow what somebody becomes, and leave a given name alone', () => {
    const somebody = newPerson('s', 'Adult 2');
    become(somebody, 'child', 'standing', ['Child 1', 'Ines']);
    expect(somebody.name).toBe('Child 2');
    become(somebody, 'child', 'seated', ['Child 1', 'Child 2']);
    expect(somebody.name).toBe('Child 2');
    const ines = newPerson('i', 'Ines');
    become(ines, 'baby', 'embracing', []);
    expect(ines.name).toBe('Ines');
  });

  it('of backgrounds are what they are drawn as, numbered where there are several', () => {
    expect(surfaceName('foliage', [])).toBe('leaves');
    expect(surfaceName('foliage', ['leaves', 'wall'])).toBe('leaves 2');
    expect([isPlainName('leaves 2'), isPlainName('Background 3'), isPlainName('ferns')]).toEqual([true, true, false]);
  });
});

describe('people arranged', () => {
  const family = demoSetup('Gran Marguerite and Pilot');

  it('are those who are there and as many new ones as are missing; nobody is taken away, pets stay', () => {
    const arranged = arrangePeople(
      family,
      { kind: 'rows', count: 4, rows: 2, spacingMm: 500, rowDepthMm: 700, riserMm: 0, staggered: true },
      (n) => `new-${n}`
    );
    const humans = family.people.filter((person) => person.being !== 'pet');
    expect(arranged.filter((person) => person.being === 'pet')).toEqual(
      family.people.filter((person) => person.being === 'pet')
    );
    expect(arranged).toHaveLength(family.people.length + 4 - humans.length);
    for (const person of family.people) expect(arranged.map((item) => item.id)).toContain(person.id);
    expect(new Set(arranged.map((person) => person.name)).size).toBe(arranged.length);
    expect(
      arranged.filter((person) => person.id.startsWith('new-')).every((item) => item.sharp === humans[0]?.sharp)
    ).toBe(true);
  });

  it('with enough of them are only moved', () => {
    const many = demoSetup('Family on the steps');
    const arranged = arrangePeople(many, { kind: 'arc', count: 3, spacingMm: 500, radiusMm: 2000 }, () => 'never');
    expect(arranged.map((person) => person.id).sort()).toEqual(many.people.map((person) => person.id).sort());
  });
});

describe('a setup without names', () => {
  it('calls nobody by name, in whatever case, and takes no part of another word for one', () => {
    const people = ['Ann', 'Ann-Marie', 'J. (Jo) O’Neil'].map((name, index) =>
      newPerson(`p${index}`, name, { role: 'aunt' })
    );
    const named = newSetup('s', 'ANN and Ann-Marie', {
      people,
      notes: 'Annexe, then J. (Jo) O’Neil, Joanna and Wren.'
    });
    const hidden = withoutNames(named, ['Wren']);
    expect(hidden.name).toBe('someone and someone');
    expect(hidden.notes).toBe('Annexe, then someone, Joanna and someone.');
    expect(hidden.people.map((person) => [person.name, person.role])).toEqual([
      ['Person 1', ''],
      ['Person 2', ''],
      ['Person 3', '']
    ]);
    expect(named.people[0]?.name).toBe('Ann');
    expect(hideNames('Ann’s wedding', ['', 'Ann'])).toBe('someone’s wedding');
  });
});
