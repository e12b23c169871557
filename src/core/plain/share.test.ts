import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { share } from './share';

const plain = fc.jsonValue({ maxDepth: 4 });

describe('sharing what has not changed', () => {
  it('returns what is known when the content is the same, and equal content always', () => {
    fc.assert(
      fc.property(plain, plain, (known, next) => {
        expect(share(known, next)).toEqual(next);
        expect(share(known, structuredClone(known))).toBe(known);
      })
    );
  });

  it('keeps the identity of every part that is as before, and finds things of a list by id', () => {
    const known = {
      a: { deep: [1, 2] },
      people: [
        { id: 'x', at: { mm: 1 } },
        { id: 'y', at: { mm: 2 } }
      ]
    };
    const next = structuredClone({ ...known, people: [known.people[1], { id: 'x', at: { mm: 9 } }] });
    const shared = share(known, next);
    expect(shared).toEqual(next);
    expect(shared.a).toBe(known.a);
    expect(shared.people[0]).toBe(known.people[1]);
    expect(shared.people[1]).not.toBe(known.people[0]);
  });

  it('does not take an absent field for an undefined one', () => {
    const known: Record<string, unknown> = { a: undefined };
    expect(Object.keys(share(known, { b: undefined } as Record<string, unknown>))).toEqual(['b']);
  });
});
