import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { newBackground, newPerson, newSetup } from '../setup/defaults';
import { merge, same } from './merge';

const base = newSetup('s', 'S', { people: [newPerson('a', 'A'), newPerson('b', 'B')] });

describe('three-way merge', () => {
  it('keeps both tabs’ changes to one setup', () => {
    const mine = { ...base, camera: { ...base.camera, lensId: 'lens-50', focalLengthMm: 50 } };
    const theirs = { ...base, people: base.people.map((p) => (p.id === 'b' ? { ...p, headYawDeg: 30 } : p)) };
    const merged = merge(base, mine, theirs);
    expect(merged.camera.lensId).toBe('lens-50');
    expect(merged.people[1]?.headYawDeg).toBe(30);
  });

  it('keeps people added on both sides and drops those removed on one', () => {
    const mine = { ...base, people: [...base.people, newPerson('c', 'C')] };
    const theirs = { ...base, people: [newPerson('b', 'B'), newPerson('d', 'D')] };
    expect(merge(base, mine, theirs).people.map((p) => p.id)).toEqual(['b', 'd', 'c']);
  });

  it('does not remove somebody the other side has just changed', () => {
    const mine = { ...base, people: base.people.filter((p) => p.id !== 'b') };
    const theirs = { ...base, people: base.people.map((p) => (p.id === 'b' ? { ...p, name: 'Beata' } : p)) };
    expect(merge(base, mine, theirs).people.map((p) => p.name)).toEqual(['A', 'Beata']);
  });

  it('never mixes two kinds of placement', () => {
    const placed = (placement: (typeof base)['camera']['placement']) => ({
      ...base,
      camera: { ...base.camera, placement }
    });
    const start = placed({ kind: 'distance', distanceMm: 3000 });
    const mine = placed({ kind: 'framing', framing: 'halfLength' });
    const theirs = placed({ kind: 'distance', distanceMm: 4000 });
    expect(merge(start, mine, theirs).camera.placement).toEqual({ kind: 'framing', framing: 'halfLength' });
  });

  it('follows whoever reordered', () => {
    const mine = { ...base, people: [...base.people].reverse() };
    const theirs = { ...base, backgrounds: [...base.backgrounds, newBackground('x', 'X')] };
    const merged = merge(base, mine, theirs);
    expect(merged.people.map((p) => p.id)).toEqual(['b', 'a']);
    expect(merged.backgrounds).toHaveLength(2);
  });

  it('is the identity when only one side changed, and undoes what was done', () => {
    const value = fc.dictionary(fc.constantFrom('p', 'q', 'r'), fc.oneof(fc.integer(), fc.string(), fc.constant(null)));
    fc.assert(
      fc.property(value, value, (before, after) => {
        expect(merge(before, after, before)).toEqual(after);
        expect(merge(before, before, after)).toEqual(after);
        expect(merge(after, before, after)).toEqual(before);
      })
    );
  });

  it('tells equal content whatever the order of keys', () => {
    expect(same({ a: 1, b: [1, 2] }, { b: [1, 2], a: 1 })).toBe(true);
    expect(same({ a: 1 }, { a: 1, b: undefined })).toBe(false);
    expect(same([1], { 0: 1 })).toBe(false);
  });
});
