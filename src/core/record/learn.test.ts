import jStat from 'jstat';
import { describe, expect, it } from 'vitest';
import { runs } from '../testing/runs';
import { seededNormal, seededRandom } from '../testing/random';
import { densityOf, learn, ofOneFocusing, type Observation, type Prior } from './learn';

const prior: Prior = { biasUm: 12, spreadUm: 10, frames: 8 };
const seen = (q: number, tau = 0): Observation => ({ q, tau, decided: true });

describe('what measured frames say', () => {
  it('of no frames is the prior', () => {
    const { bias, spread, frames } = learn([], prior);
    expect(frames).toBe(0);
    expect(bias.value).toBeCloseTo(0, 6);
    // A normal's middle nine tenths reach 1.645 standard deviations (Abramowitz and Stegun, table 26.1).
    expect(bias.high).toBeCloseTo(1.6449 * 12, 2);
    // 8 s²/σ² is chi-squared with 8 degrees of freedom: 95 % point 15.507, 5 % point 2.733 (the same, table 26.8).
    expect(spread.low).toBeCloseTo(10 * Math.sqrt(8 / 15.507), 1);
    expect(spread.high).toBeCloseTo(10 * Math.sqrt(8 / 2.733), 1);
  });

  it('is the closed form where the measurement is exact and nothing is known of the bias', () => {
    const normal = seededNormal(3);
    const qs = Array.from({ length: 15 }, () => 6 + 9 * normal());
    const { bias, spread } = learn(
      qs.map((q) => seen(q)),
      { ...prior, biasUm: 1e5 }
    );
    const n = qs.length;
    const mean = qs.reduce((sum, q) => sum + q, 0) / n;
    const squares = qs.reduce((sum, q) => sum + (q - mean) ** 2, 0);
    // Normal with a scaled inverse chi-squared prior: μ is Student's t, σ² again scaled inverse chi-squared.
    const freedom = 8 + n - 1;
    const scale = Math.sqrt((8 * 100 + squares) / freedom);
    const t = jStat.studentt.inv(0.95, freedom);
    expect(bias.value).toBeCloseTo(mean, 3);
    expect(bias.high).toBeCloseTo(mean + (t * scale) / Math.sqrt(n), 2);
    expect(bias.low).toBeCloseTo(mean - (t * scale) / Math.sqrt(n), 2);
    expect(spread.low).toBeCloseTo(scale * Math.sqrt(freedom / jStat.chisquare.inv(0.95, freedom)), 1);
    expect(spread.high).toBeCloseTo(scale * Math.sqrt(freedom / jStat.chisquare.inv(0.05, freedom)), 1);
  });

  it('holds the truth nine times in ten, measured inexactly (1,000 seeded runs)', () => {
    const [random, normal] = [seededRandom(17), seededNormal(18)];
    const times = runs(1000);
    let [bias, spread] = [0, 0];
    for (let run = 0; run < times; run++) {
      const mu = prior.biasUm * normal();
      let chi = 0;
      for (let i = 0; i < prior.frames; i++) chi += normal() ** 2;
      const sigma = prior.spreadUm * Math.sqrt(prior.frames / chi);
      const frames = Array.from({ length: 3 + Math.floor(20 * random()) }, () => {
        const tau = 1 + 8 * random();
        return seen(mu + Math.hypot(sigma, tau) * normal(), tau);
      });
      const learned = learn(frames, prior);
      if (learned.bias.low <= mu && mu <= learned.bias.high) bias++;
      if (learned.spread.low <= sigma && sigma <= learned.spread.high) spread++;
    }
    // The bounds the record has to keep, in proportion where fewer runs are made.
    const slack = Math.sqrt(1000 / times);
    for (const held of [bias, spread]) expect(Math.abs((held / times) * 1000 - 900)).toBeLessThanOrEqual(30 * slack);
  });

  it('comes nearer to the frames the more there are, and nearer to the prior the less they say', () => {
    const many = learn(
      Array.from({ length: 40 }, (_, i) => seen(14 + (i % 2 ? 3 : -3))),
      prior
    );
    const few = learn([seen(17), seen(11)], prior);
    const blurred = learn(
      Array.from({ length: 40 }, (_, i) => seen(14 + (i % 2 ? 3 : -3), 60)),
      prior
    );
    expect(many.bias.value).toBeGreaterThan(few.bias.value);
    expect(many.bias.value).toBeCloseTo(14, 0);
    expect(many.spread.value).toBeLessThan(few.spread.value);
    expect(blurred.bias.value).toBeLessThan(many.bias.value);
    expect(blurred.bias.high - blurred.bias.low).toBeGreaterThan(many.bias.high - many.bias.low);
    const old = learn(
      Array.from({ length: 40 }, (_, i) => ({ ...seen(14 + (i % 2 ? 3 : -3)), weight: 0.1 })),
      prior
    );
    expect(old.frames).toBeCloseTo(4, 9);
    expect(old.bias.high - old.bias.low).toBeGreaterThan(many.bias.high - many.bias.low);
  });

  it('takes the side the others make likely where a frame has none, and no side where none does', () => {
    const decided = Array.from({ length: 12 }, (_, i) => seen(25 + (i % 3) - 1, 2));
    const tight: Prior = { ...prior, spreadUm: 4 };
    const sided = learn([...decided, ...Array.from({ length: 12 }, () => ({ q: 25, tau: 2, decided: false }))], tight);
    const allDecided = learn([...decided, ...Array.from({ length: 12 }, () => seen(25, 2))], tight);
    expect(sided.bias.value).toBeCloseTo(allDecided.bias.value, 1);
    const neither = learn(
      Array.from({ length: 12 }, () => ({ q: 9, tau: 2, decided: false })),
      prior
    );
    expect(neither.bias.value).toBeCloseTo(0, 6);
    expect(neither.spread.value).toBeGreaterThan(5);
  });

  it('counts the frames of one focusing as one, as sure as they are together', () => {
    const burst = [seen(10, 3), seen(14, 3), seen(12, 3)];
    const one = ofOneFocusing(burst);
    expect(one.q).toBeCloseTo(12, 9);
    expect(one.tau).toBeCloseTo(3 / Math.sqrt(3), 9);
    expect(one.weight).toBe(1);
    expect(() => ofOneFocusing([])).toThrow(RangeError);
  });

  it('tells what does not fit, and refuses what is no figure', () => {
    const learned = learn([seen(5), seen(7), seen(6)], prior);
    expect(densityOf(learned, seen(6))).toBeGreaterThan(densityOf(learned, seen(60)) * 1e3);
    for (const wrong of [seen(NaN), seen(1, -1), seen(1, Infinity)])
      expect(() => learn([wrong], prior)).toThrow(RangeError);
    expect(() => learn([], { ...prior, spreadUm: 0 })).toThrow(RangeError);
  });
});
