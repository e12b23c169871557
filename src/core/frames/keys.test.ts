import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  frameActions,
  frameKeysSchema,
  shownKey,
  storedFrameKeysSchema,
  typedKey,
  usualFrameKeys,
  withKey
} from './keys';

describe('one’s own keys', () => {
  it('are one letter or figure each, whatever was typed before it', () => {
    expect(typedKey('K')).toBe('k');
    expect(typedKey('k5')).toBe('5');
    expect(typedKey(' ')).toBeNull();
    expect(typedKey('?')).toBeNull();
    expect(typedKey('kж')).toBe('ж');
  });

  it('once chosen stay; whoever had the former usual ones has the usual ones of now', () => {
    const former = { keep: 'k', maybe: 'm', reject: 'x', open: 'o', beside: 'c', show: 'v', flip: 'f' };
    expect(storedFrameKeysSchema.parse(former)).toEqual(usualFrameKeys);
    expect(storedFrameKeysSchema.parse({ ...former, keep: 'j' })).toEqual({ ...former, keep: 'j' });
    expect(storedFrameKeysSchema.safeParse({ ...former, keep: 'm' }).success).toBe(false);
    expect([usualFrameKeys.reject, usualFrameKeys.show].map(shownKey)).toEqual(['N', 'Shift+B']);
  });

  it('never mean two things: whatever had the key takes the one given up', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.constantFrom(...frameActions), fc.constantFrom(...'abcdefghijklmnopqrstuvwxyz12345'))),
        (changes) => {
          const keys = changes.reduce((now, [action, wanted]) => withKey(now, action, wanted), usualFrameKeys);
          expect(frameKeysSchema.safeParse(keys).success).toBe(true);
          const [action, wanted] = changes[changes.length - 1] ?? ['keep', keys.keep];
          expect(keys[action]).toBe(wanted);
        }
      )
    );
    expect(frameKeysSchema.safeParse({ ...usualFrameKeys, keep: 'm' }).success).toBe(false);
    expect(withKey(usualFrameKeys, 'keep', 'm')).toMatchObject({ keep: 'm', maybe: 'k' });
  });
});
