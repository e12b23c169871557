import { describe, expect, it } from 'vitest';
import { defaultHabits, habitsSchema } from '../../habits/habits';
import { isInUse, latestLearned, learned, withLearned, type LearnedFromDrill } from './learned';

const of = (what: LearnedFromDrill['what'], value: number): LearnedFromDrill =>
  learned(what, { value, low: value / 2, high: value * 2 });

describe('what drills say of the hands', () => {
  it('takes the place of the usual figure, in what the habits allow', () => {
    expect(withLearned(defaultHabits, of('sway', 7.26), 'kneeling').holdMm).toEqual({
      ...defaultHabits.holdMm,
      kneeling: 7.3
    });
    // Behind a stabiliser of three stops a share of 0.05 is one of 0.4 without.
    const shake = learned('shake', { value: 0.05, low: 0.04, high: 0.07 }, 2 ** 3);
    expect(shake).toEqual({ what: 'shake', value: 0.4, low: 0.32, high: 0.56 });
    expect(withLearned(defaultHabits, shake, 'braced').shakeShare.braced).toBe(0.4);
    const turned = withLearned(withLearned(defaultHabits, of('lean', -21.4), null), of('leanSpread', 6.6), null);
    expect([turned.leanMm, turned.leanSpreadMm]).toEqual([-21, 7]);
    const wild = withLearned(withLearned(defaultHabits, of('sway', 300), 'standing'), of('shake', 640), 'standing');
    expect(habitsSchema.safeParse(withLearned(wild, of('lean', -4000), null)).success).toBe(true);
  });

  it('is in use once the habits have it', () => {
    const sway = of('sway', 7.26);
    expect(isInUse(defaultHabits, sway, 'kneeling')).toBe(false);
    const own = withLearned(defaultHabits, sway, 'kneeling');
    expect(isInUse(own, sway, 'kneeling')).toBe(true);
    expect(isInUse(own, sway, 'standing')).toBe(false);
  });

  it('is the latest of each, by how one stood', () => {
    const told = [
      { madeAt: 3, stance: 'standing' as const, learned: [of('sway', 9)] },
      { madeAt: 1, stance: 'standing' as const, learned: [of('sway', 12)] },
      { madeAt: 2, stance: 'kneeling' as const, learned: [of('sway', 6)] },
      { madeAt: 4, stance: null, learned: [of('leanSpread', 5), of('lean', 20)] },
      { madeAt: 5, stance: null, learned: [] }
    ];
    expect(latestLearned(told).map(({ what, stance, value, times }) => [what, stance, value, times])).toEqual([
      ['lean', null, 20, 1],
      ['leanSpread', null, 5, 1],
      ['sway', 'standing', 9, 2],
      ['sway', 'kneeling', 6, 1]
    ]);
  });
});
