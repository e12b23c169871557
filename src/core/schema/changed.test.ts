import { describe, expect, it } from 'vitest';
import { newLens } from '../kit/defaults';
import { lensSchema } from '../kit/schema';
import { demoSetup } from '../testing/demo';
import { newThing } from '../setup/defaults';
import { setupSchema, type Setup } from '../setup/schema';
import { changeIssue } from './changed';

describe('the check of a change', () => {
  const before = demoSetup('Forty years');
  const withFirst = (changes: object): Setup => ({
    ...before,
    people: before.people.map((person, index) => (index === 0 ? { ...person, ...changes } : person))
  });

  it.each([
    ['a distance out of bounds', withFirst({ depthMm: 9e9 })],
    ['a name with markup', withFirst({ name: '<b>' })],
    ['not a number', withFirst({ headYawDeg: NaN })],
    ['two with one id', { ...before, people: [...before.people.slice(1), before.people[1]] as Setup['people'] }],
    ['a camera under the floor', { ...before, camera: { ...before.camera, heightMm: -5 } }],
    ['an empty name', { ...before, name: ' ' }],
    ['a field too many', { ...before, colour: 'red' } as Setup],
    ['a thing with a person’s id', { ...before, things: [{ ...newThing('x', 'X'), id: before.people[0]?.id ?? '' }] }]
  ])('refuses %s, as the whole schema does', (_, after) => {
    expect(setupSchema.safeParse(after).success).toBe(false);
    expect(changeIssue(setupSchema, before, after)?.message).toMatch(/./);
  });

  it('names the field', () => {
    const issue = changeIssue(setupSchema, before, withFirst({ depthMm: 9e9 }));
    expect(issue?.path).toEqual(['people', 0, 'depthMm']);
    expect(changeIssue(setupSchema, null, { ...before, name: '' })?.path).toEqual(['name']);
  });

  it('lets through what the whole schema lets through', () => {
    for (const after of [before, withFirst({ depthMm: 120 }), { ...before, people: before.people.slice(2) }]) {
      expect(setupSchema.safeParse(after).success).toBe(true);
      expect(changeIssue(setupSchema, before, after)).toBeUndefined();
    }
  });

  it('looks at what holds between fields, where one of them was changed', () => {
    const lens = newLens('l', 'L', { shortestMm: 24, longestMm: 70 });
    expect(changeIssue(lensSchema, lens, { ...lens, widestFNumber: 22 })?.path).toEqual(['smallestFNumber']);
    expect(changeIssue(lensSchema, lens, { ...lens, widestFNumber: 4 })).toBeUndefined();
  });
});
