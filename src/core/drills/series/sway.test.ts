import { describe, expect, it } from 'vitest';
import { seededNormal } from '../../testing/random';
import { runs } from '../../testing/runs';
import { leastWaited, estimateSway, type Waited } from './sway';

const waits = [0, 1, 3, 6].flatMap((waitS) => Array.from({ length: 5 }, () => waitS));
const usual = { swayMm: 5, focusMm: 4 };
const taken = (sway: number, focus: number, bias: number, normal: () => number): Waited[] =>
  waits.map((waitS) => ({
    waitS,
    offMm: bias + focus * normal() + sway * Math.sqrt(Math.min(waitS, 3)) * normal()
  }));

describe('how far somebody sways', () => {
  it('holds sway and focus in their intervals nine times in ten (300 seeded runs)', () => {
    const normal = seededNormal(5);
    const times = runs(300);
    let [sway, focus] = [0, 0];
    for (let run = 0; run < times; run++) {
      const [s, f] = [5 * Math.exp(0.9 * normal()), 4 * Math.exp(0.9 * normal())];
      const told = estimateSway(taken(s, f, 10 * normal(), normal), usual, 3);
      if (told && told.sway.low <= s && s <= told.sway.high) sway++;
      if (told && told.focus.low <= f && f <= told.focus.high) focus++;
    }
    for (const held of [sway, focus])
      expect(Math.abs(held / times - 0.9)).toBeLessThanOrEqual(0.03 * Math.sqrt(1000 / times));
  });

  it('tells sway from the focus’s own spread, which would else be counted as sway', () => {
    const normal = seededNormal(3);
    const still = estimateSway(taken(0.2, 9, 30, normal), usual, 3);
    expect(still?.sway.low).toBeLessThan(2);
    expect(still?.focus.value).toBeGreaterThan(5);
    const swaying = estimateSway(taken(12, 1, 30, normal), usual, 3);
    expect(swaying?.sway.low).toBeGreaterThan(5);
    expect(swaying?.byWait.map(({ waitS, times }) => [waitS, times])).toEqual([[0, 5], [1, 5], [3, 5], [6, 5]]); // prettier-ignore
    const [first, , , last] = swaying?.byWait ?? [];
    expect(last?.spread.value).toBeGreaterThan(first?.spread.value ?? Infinity);
  });

  it('says nothing of too few, or without a baseline', () => {
    const normal = seededNormal(1);
    const all = taken(5, 4, 0, normal);
    expect(
      estimateSway(
        all.filter(({ waitS }) => waitS > 0),
        usual,
        3
      )
    ).toBeNull();
    expect(
      estimateSway(
        all.filter(({ waitS }) => waitS === 0),
        usual,
        3
      )
    ).toBeNull();
    expect(estimateSway(all.slice(0, leastWaited - 1), usual, 3)).toBeNull();
  });
});
