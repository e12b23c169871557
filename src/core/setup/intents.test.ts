import { describe, expect, it } from 'vitest';
import { planSetup } from '../call/planSetup';
import { builtInKit } from '../kit/builtInKit';
import { newBackground, newPerson, newSetup } from './defaults';
import { demoSetup } from '../testing/demo';
import { defaultHabits } from '../habits/habits';
import { asPicture, shared, sharpSubject, sharpSubjects, usualFor, withSharpSubject } from './intents';
import { setupKinds, setupSchema } from './schema';

describe('kinds of picture', () => {
  it('what is still as usual follows the kind; what was set stays', () => {
    const setup = newSetup('s', 'S', {
      people: [newPerson('a', 'A'), newPerson('b', 'B', { sharp: 'wholeHead' })],
      backgrounds: [
        newBackground('x', 'x', { wish: usualFor.onePerson.wish }),
        newBackground('y', 'y', { wish: 'keep' })
      ]
    });
    const moving = asPicture(setup, 'moving');
    expect(moving.people.map((person) => person.sharp)).toEqual(['nearEye', 'wholeHead']);
    expect(moving.people.every((person) => person.towardsMmPerS === defaultHabits.walkingMmPerS)).toBe(true);
    expect(moving.camera.focusMode).toBe('continuous');
    expect(moving.intent).toMatchObject({ picture: 'moving', oddsWanted: usualFor.moving.oddsWanted });
    const group = asPicture(setup, 'group');
    expect(group.backgrounds.map((item) => item.wish)).toEqual(['free', 'keep']);
  });

  it('there and back again is where it was', () => {
    const setup = newSetup('s', 'S');
    for (const picture of setupKinds) {
      expect(asPicture(asPicture(setup, picture), 'onePerson')).toEqual(setup);
      expect(setupSchema.safeParse(asPicture(setup, picture)).success).toBe(true);
    }
  });

  it('somebody already walking keeps their pace', () => {
    const walk = demoSetup('Walk up the nave');
    expect(asPicture(asPicture(walk, 'couple'), 'moving').people[0]?.towardsMmPerS).toBe(1200);
    const slow = { ...walk, people: walk.people.map((person) => ({ ...person, towardsMmPerS: 500 })) };
    expect(asPicture(slow, 'couple').people[0]?.towardsMmPerS).toBe(500);
  });
});

describe('person and thing', () => {
  it('thing, person or both: read back as it was put, and the focus goes there', () => {
    const rings = demoSetup('Rings');
    for (const subject of sharpSubjects) {
      const setup = withSharpSubject(rings, subject);
      expect(sharpSubject(setup)).toBe(subject);
      const plan = planSetup({ setup, kit: builtInKit, stopStep: 'half', habits: defaultHabits });
      const target = plan.kind === 'plan' ? plan.stops[plan.selected]?.target.subjectId : undefined;
      if (subject === 'thing') expect(target).toBe('rings');
      if (subject === 'person') expect(['ines', 'tobiah']).toContain(target);
    }
    expect(sharpSubject({ ...rings, people: rings.people.slice(0, 1).concat(newPerson('z', 'Z')) })).toBeNull();
  });

  it('one value for all, or none', () => {
    expect(shared([1, 1], (x) => x)).toBe(1);
    expect(shared([1, 2], (x) => x)).toBeNull();
    expect(shared([], (x) => x)).toBeNull();
  });
});
