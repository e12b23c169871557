import { describe, expect, it } from 'vitest';
import { bytesWords, spaceWords } from './space';

describe('the space it takes', () => {
  it('is said in round figures', () => {
    expect([0, 1, 999_001, 1_000_000, 12_400_000, 2_130_000_000].map(bytesWords)).toEqual([
      '0 kB',
      '1 kB',
      '1000 kB',
      '1 MB',
      '12 MB',
      '2.1 GB'
    ]);
  });

  it('is left out where the browser does not tell', () => {
    expect(spaceWords({})).toBe('');
    expect(spaceWords({ usage: 5e6, quota: 0 })).toBe('Uses 5 MB.');
    expect(spaceWords({ usage: 5e6, quota: 2e9 })).toBe('Uses 5 MB of the 2.0 GB this browser allows.');
  });
});
