import { describe, expect, it } from 'vitest';
import { kitGroups } from '../record/groups';
import { honestyOf } from '../record/honesty';
import type { Recorded } from '../record/schema';
import { recordedFrame } from '../testing/recorded';
import {
  ownWords,
  biasWords,
  honestyTitle,
  honestyWords,
  kitWords,
  rateWords,
  recordTitle,
  differs,
  swayFactorWords
} from './record';

const asked = { nowMs: 0, halfLifeDays: null };
const shot = (count: number, um: number, changes: Partial<Recorded> = {}) =>
  Array.from({ length: count }, (_, index) =>
    recordedFrame(`${changes.lensId ?? '85'}-${index}`, {
      error: [{ q: um + (index % 2 ? 3 : -3), tau: 3, share: 1 }],
      ...changes
    })
  );
const fifty = { lensId: '50', lens: '50 mm f/1.8', focalLengthMm: 50 };

describe('the record in words', () => {
  it('says which lens misses, by how much at one distance, and that the rest does not', () => {
    const groups = kitGroups([...shot(40, 27), ...shot(30, 0, fifty)], asked);
    // 27 µm behind an 85 at 2 m: 27 / (85/1915)² = 13.7 mm, a little less for the prior.
    expect(recordTitle(groups, 'metric')).toMatch(
      /^Your 85 mm f\/1\.4 back-focuses 1\.[34] cm at 2 m\. The others are on target\.$/
    );
    expect(biasWords(groups[0] ?? never(), 'metric').detail).toMatch(/^± [\d.]+ mm · scatter [\d.]+ mm$/);
    expect(biasWords(groups[1] ?? never(), 'metric').title).toBe('on target');
    expect(kitWords(groups[0] ?? never())).toBe('Main body, AF, cross-type or mirrorless point');
    expect(recordTitle(kitGroups([...shot(41, 27), ...shot(40, -40, fifty)], asked), 'metric')).toMatch(
      /^Your 85 mm f\/1\.4 back-focuses 1\.[34] cm at 2 m\. One other lens is off too\.$/
    );
    expect(recordTitle(kitGroups(shot(30, 0), asked), 'metric')).toBe('Your 85 mm f/1.4 is on target.');
  });

  it('says nothing of few frames', () => {
    const [few] = kitGroups(shot(3, 30, { recomposed: true }), asked);
    expect(recordTitle(few ? [few] : [], 'metric')).toBe('Where does your focus land?');
    expect(biasWords(few ?? never(), 'metric')).toEqual({
      title: 'too few frames',
      detail: '5 more measurable frames needed'
    });
    expect(kitWords(few ?? never())).toBe('Main body, AF, cross-type or mirrorless point, recomposed');
  });

  it('says whether the odds were honest, and which way they were not', () => {
    const of = (sharp: number, all: number) =>
      honestyOf(
        Array.from({ length: all }, (_, index) => recordedFrame(`h${index}`, { sharp: index < sharp ? 'all' : 'some' }))
      ) ?? never();
    expect(honestyTitle(of(77, 100))).toBe('Predicted 80%, got 77% (77 of 100 sharp)');
    expect(honestyWords(of(77, 100))).toContain('right, as far as 100 frames can show');
    expect(honestyWords(of(40, 100))).toContain('too optimistic');
    expect(honestyWords(of(99, 100))).toContain('too cautious');
  });

  it('says what stands in the habits', () => {
    const own = { bodyId: 'main', lensId: '85', method: 'crossPoint', recomposed: false, biasUm: -26.6 } as const;
    const nameOf = (id: string) => ({ main: 'Main body', '85': '85 mm f/1.4' })[id] ?? id;
    expect(
      ownWords({ ...own, spreadUm: 9.7, frames: 62, learnedAt: null, focalLengthMm: null, stopShift: [] }, nameOf)
    ).toBe('85 mm f/1.4 on Main body, AF, cross-type or mirrorless point: 27 µm in front, scatter 10 µm; 62 frames');
  });

  it('says sway and rates as one speaks', () => {
    expect(
      [
        { value: 1.1, low: 0.7, high: 1.6 },
        { value: 1.8, low: 1.2, high: 2.6 }
      ].map(differs)
    ).toEqual([false, true]);
    expect(swayFactorWords({ value: 1.8, low: 1.2, high: 2.6 })).toBe('1.8 times what is assumed (1.2 to 2.6)');
    expect(['0', '2', '4'].map((key) => rateWords('distance', key, 'metric'))).toEqual([
      'under 1 m',
      '2 m to 4 m',
      'beyond 8 m'
    ]);
    expect(rateWords('stop', '2.0', 'metric')).toBe('f/2');
    expect(rateWords('mode', 'automatic', 'metric')).toBe('auto-switching AF');
  });
});

function never(): never {
  throw new Error('nothing there');
}
