import { describe, expect, it } from 'vitest';
import { apertureStyles } from '../setup/schema';
import { alternativeWords, viewingWords } from './alternatives';
import { styleWords } from '../setup/choices';

const target = {
  subjectId: 'a',
  feature: 'leftEye',
  role: 'nearEye',
  focusDistanceMm: 2000,
  position: null,
  point: null,
  recomposed: null
} as const;

describe('what another way costs, in words', () => {
  it('says the odds and from which stop it holds', () => {
    expect(alternativeWords({ target, worstRatio: 0.9, odds: 0.934, holdsFrom: '2.8' })).toBe(
      '93%, faces sharp from f/2.8'
    );
    expect(alternativeWords({ target, worstRatio: 2, odds: 0.1, holdsFrom: null })).toBe(
      '10%, faces sharp at no aperture'
    );
  });

  it('names the backgrounds a style misses', () => {
    const style = (missed: string[]) =>
      alternativeWords({ style: 'deepAndSafe', stop: '8', odds: 0.97, worstRatio: 0.4, missed });
    expect(style([])).toBe('97%');
    expect(style(['ferns', 'candles'])).toBe('97%, misses: ferns, candles');
  });

  it('says what the other way of looking takes', () => {
    const close = { viewing: 'close', stop: '5.6', odds: 0.93, facesHold: true } as const;
    expect([viewingWords(close), alternativeWords(close)]).toEqual(['closely, at 100%: f/5.6', '93%']);
    const print = { viewing: 'traditional', stop: '16', odds: 0.1, facesHold: false } as const;
    expect([viewingWords(print), alternativeWords(print)]).toEqual([
      'in print: f/16',
      '10%, faces sharp at no aperture'
    ]);
  });

  it('has words for every style', () => {
    expect(Object.keys(styleWords)).toEqual([...apertureStyles]);
  });
});
