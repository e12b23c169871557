import { describe, expect, it } from 'vitest';
import { rowRules } from '../call/alternatives';
import { styles } from '../setup/schema';
import { alternativeWords, ruleWords, styleWords } from './alternatives';

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
    expect(alternativeWords({ target, worstRatio: 0.9, odds: 0.934, holdsFrom: '2.8' })).toBe('93 %, holds from f/2.8');
    expect(alternativeWords({ target, worstRatio: 2, odds: 0.1, holdsFrom: null })).toBe('10 %, holds at no stop');
  });

  it('counts the stops a rule costs, one of them in the singular, none unsaid', () => {
    const rule = (costStops: number | null) =>
      alternativeWords({ target, worstRatio: 1, odds: 0.9, holdsFrom: '4', rule: 'frontRow', rows: 2, costStops });
    expect(rule(1.5)).toMatch(/holds from f\/4: costs 1\.5 stops$/);
    expect(rule(1)).toMatch(/costs 1 stop$/);
    expect(rule(2)).toMatch(/costs 2 stops$/);
    expect(rule(0)).not.toContain('costs');
    expect(rule(null)).not.toContain('costs');
  });

  it('names the backgrounds a style misses', () => {
    const style = (missed: string[]) =>
      alternativeWords({ style: 'deepAndSafe', stop: '8', odds: 0.97, worstRatio: 0.4, missed });
    expect(style([])).toBe('97 %');
    expect(style(['ferns', 'candles'])).toBe('97 %, not as wished: ferns, candles');
  });

  it('has words for every rule and style', () => {
    expect(Object.keys(ruleWords)).toEqual([...rowRules]);
    expect(Object.keys(styleWords)).toEqual([...styles]);
  });
});
