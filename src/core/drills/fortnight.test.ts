import { describe, expect, it } from 'vitest';
import { recordedFrame } from '../testing/recorded';
import { weaknesses } from './kinds/kind';
import { fortnightOf, practisedBy, weaknessOf } from './fortnight';
import { drillIds } from './kinds/ids';
import type { DrillResult } from './schema';

const soft = (changes: Parameters<typeof recordedFrame>[1] = {}) =>
  recordedFrame('soft', { sharp: 'some', ...changes });
const far = [{ q: 60, tau: 4, share: 1 }];
const done = (drill: DrillResult['drill'], madeAt: number, simulated = false): DrillResult => ({
  kind: 'result',
  id: `${drill}${madeAt}`,
  madeAt,
  simulated,
  drill,
  bodyId: 'b',
  body: 'b',
  lensId: 'l',
  lens: 'l',
  focalLengthMm: 85,
  asked: null,
  stance: null,
  learned: [],
  figure: 1,
  low: null,
  high: null,
  steps: []
});

describe('two weeks of practice', () => {
  it('know what a soft frame was lost to', () => {
    expect(weaknessOf(soft({ landedElsewhere: true, error: null }))).toBe('elsewhere');
    expect(weaknessOf(soft({ error: far, recomposed: true }))).toBe('turning');
    expect(weaknessOf(soft({ reason: 'moved' }))).toBe('moving');
    expect(weaknessOf(soft({ error: far, secondsToShutter: 3 }))).toBe('waiting');
    expect(weaknessOf(soft({ error: far, secondsToShutter: 3, stance: 'tripod' }))).toBe('focus');
    expect(
      weaknessOf(
        soft({
          error: [
            { q: -60, tau: 4, share: 0.9 },
            { q: 0, tau: 4, share: 0.1 }
          ]
        })
      )
    ).toBe('focus');
    // In the zone, and still somebody soft.
    expect(weaknessOf(soft())).toBe('depth');
  });

  it('are fourteen days, none like the day before, the last like the first', () => {
    const frames = [
      ...Array.from({ length: 12 }, () => soft({ error: far, recomposed: true })),
      recordedFrame('sharp')
    ];
    const { days, weak, frames: told } = fortnightOf(frames, []);
    expect(weak).toEqual([{ weakness: 'turning', lost: 12, of: 13 }]);
    expect(told).toBe(13);
    expect(days.map(({ day }) => day)).toEqual(Array.from({ length: 14 }, (_, index) => index + 1));
    for (const [index, { drill }] of days.entries()) if (index > 0) expect(drill).not.toBe(days[index - 1]?.drill);
    expect(days[0]).toMatchObject({ drill: 'edges', because: 'turning' });
    expect(days[13]?.drill).toBe('edges');
    // Most of it goes to what is weakest, and nothing is left out.
    const count = (drill: string) => days.filter((one) => one.drill === drill).length;
    for (const drill of drillIds) expect(count(drill)).toBeGreaterThan(0);
    expect(Math.max(...drillIds.map(count))).toBe(count('edges'));
  });

  it('without soft frames begin with what was never done', () => {
    const results = drillIds.filter((id) => id !== 'guess').map((id) => done(id, 5));
    const { days, weak } = fortnightOf([recordedFrame('sharp')], results);
    expect(weak).toEqual([]);
    expect(days[0]).toEqual({ day: 1, drill: 'guess', because: null });
    // A try-out by the simulated camera is none.
    expect(fortnightOf([], [...results, done('guess', 9, true)]).days[0]?.drill).toBe('guess');
  });

  it('have a drill for every weakness', () => {
    for (const weakness of weaknesses) expect(practisedBy(weakness).length, weakness).toBeGreaterThan(0);
  });
});
