import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { resolveSetup } from '../../job/resolve';
import { jobPersonSchema, jobPlaceSchema, jobSetupSchema } from '../../job/schema';
import { castOf } from '../../testing/cast';
import { setupSchema } from '../../setup/schema';
import { arbitraryOf } from '../../testing/arbitrary';
import { readJobFile } from '../jobFile';
import { renewSetup } from '.';
import version1 from './job-v1.focalis.json';
import version2 from './job-v2.focalis.json';
import { setups2to3 } from './from2to3';
import { setupSchema as setupSchema2, type Setup } from './schema2';

function read(file: unknown) {
  const result = readJobFile(JSON.stringify(file));
  if (!result.ok) throw new Error(`${result.field}: ${result.reason}`);
  const { people, places, setups } = result.file;
  return { file: result.file, resolved: setups.map((setup) => resolveSetup(setup, castOf(people, places))) };
}

/** The light of any version; what was its scene is its level. */
const levelled = (light: object) => {
  const { scene, ...rest } = light as { scene?: unknown };
  return scene === undefined ? rest : { ...rest, level: scene };
};

/** What somebody typed into a setup of version 2, without ids, which may have changed. */
const typed = ({ id: _id, people, intent, light, ...rest }: Setup) => ({
  ...rest,
  light: levelled(light),
  intent: { ...intent, target: { ...intent.target, personId: undefined } },
  people: people.map(({ id: _person, ...person }) => person)
});

describe('a file of version 1', () => {
  it('gives the same pictures, with shoulders turned half as far as the head', () => {
    const { resolved } = read(version1);
    expect(resolved.map((setup) => setup.name)).toEqual(version1.setups.map((setup) => setup.name));
    expect(resolved).toMatchObject(
      version1.setups.map(({ people: _people, light, ...setup }) => ({ ...setup, light: levelled(light) }))
    );
    const [door, palms] = resolved;
    expect(door?.people[0]).toMatchObject({ headYawDeg: 40, bodyYawDeg: 20 });
    expect(door?.intent.picture).toBe('onePerson');
    expect(palms?.intent.picture).toBe('couple');
  });
});

describe('a file of version 2', () => {
  const setups = version2.setups as unknown as Setup[];

  it('loses nothing that was typed', () => {
    const { resolved, file } = read(version2);
    resolved.forEach((setup, index) => {
      const was = setups[index];
      if (!was) throw new Error('a setup too many');
      expect(typed(setup as unknown as Setup)).toMatchObject(typed(was));
    });
    expect(resolved).toHaveLength(setups.length);
    expect(file.kit.lenses).toMatchObject(version2.kit.lenses);
    expect(file.job).toMatchObject(version2.job);
  });

  it('names everybody once: the same Ines in all pictures, and another where the stature differs', () => {
    const { file } = read(version2);
    const ines = file.people.filter((person) => person.name === 'Ines');
    expect(ines.map((person) => person.statureMm).sort()).toEqual([1600, 1690]);
    const uses = file.setups.filter((setup) => setup.people.some((standing) => standing.id === ines[0]?.id));
    expect(uses.length).toBeGreaterThan(2);
    const chosen = file.setups.find((setup) => setup.name === 'Another Ines');
    expect(chosen?.intent.target).toMatchObject({ kind: 'eye', personId: chosen?.people[0]?.id });
  });

  it('shares a place where scenery, room and light agree, with backgrounds of its own where they differ', () => {
    const { file } = read(version2);
    const door = file.setups.find((setup) => setup.name === 'West door');
    const rings = file.setups.find((setup) => setup.name === 'Rings');
    const narrow = file.setups.find((setup) => setup.name === 'Another Ines');
    expect(rings?.placeId).toBe(door?.placeId);
    expect(door?.own.backgrounds).toBeNull();
    expect(rings?.own.backgrounds).not.toBeNull();
    expect(narrow?.placeId).not.toBe(door?.placeId);
  });

  it('keeps two people apart who look alike and stand in one picture', () => {
    const [first] = setups;
    const [person] = first?.people ?? [];
    if (!first || !person) throw new Error('the fixture has nobody');
    const twins = { ...first, people: [person, { ...person, id: 'twin', depthMm: 400 }] };
    const { people, setups: made } = setups2to3([twins, { ...twins, id: 'again' }], new Set(['twin']));
    expect(people.map((item) => item.id)).toEqual([person.id, 'twin-2']);
    expect(made.map((setup) => setup.people.map((standing) => standing.id))).toEqual([
      [person.id, 'twin-2'],
      [person.id, 'twin-2']
    ]);
  });

  it('gives people another id where a thing of the same picture has it', () => {
    const withThing = setups.find((setup) => setup.things.length > 0 && setup.people.length > 0);
    const thing = withThing?.things[0];
    const person = withThing?.people[0];
    if (!withThing || !thing || !person) throw new Error('the fixture has no thing');
    const clash = { ...withThing, people: [{ ...person, id: thing.id }] };
    const { setups: made } = setups2to3([clash], new Set());
    expect(made[0]?.people[0]?.id).toBe(`${thing.id}-person`);
  });

  it('comes through whatever it held: every picture as it was', () => {
    fc.assert(
      fc.property(fc.array(arbitraryOf(setupSchema2), { maxLength: 4 }), (held) => {
        const apart = held.map((setup, index) => ({ ...setup, id: `s${index}` }));
        const { people, places, setups: made } = setups2to3(apart, new Set());
        const cast = castOf(
          people.map((person) => jobPersonSchema.parse(person)),
          places.map((place) => jobPlaceSchema.parse(place))
        );
        const resolved = made.map((setup) => resolveSetup(jobSetupSchema.parse(setup), cast));
        resolved.forEach((setup, index) => {
          const was = apart[index];
          expect(setupSchema.safeParse(setup).error).toBeUndefined();
          if (was) expect(typed(setup as unknown as Setup)).toMatchObject(typed(was));
        });
      }),
      { numRuns: 60 }
    );
  });
});

describe('a step', () => {
  it.each([
    [{ people: [{ id: { toString: 1 } }] }, /./],
    [{}, /./],
    [null, /./],
    [[], /./],
    ['setup', /./]
  ])('refuses %j with a field, and never throws', (setup, field) => {
    for (const version of [1, 2]) {
      const result = renewSetup(setup, version);
      expect(result.ok).toBe(false);
      if (!result.ok) expect(result.issue?.message).toMatch(field);
    }
  });

  it('coerces nothing: text where a number was is refused', () => {
    const [setup] = version1.setups;
    const wrong = { ...setup, people: setup?.people.map((person) => ({ ...person, headYawDeg: '40' })) };
    const result = renewSetup(wrong, 1);
    expect(result.ok ? '' : result.issue?.path.join('.')).toBe('people.0.headYawDeg');
  });
});
