import jStat from 'jstat';
import { describe, expect, it } from 'vitest';
import { runs } from '../testing/runs';
import { seededNormal, seededRandom } from '../testing/random';
import { learn, learnSway, ofOneFocusing, type Observation, type Prior } from './learn';

const prior: Prior = { biasUm: 12, spreadUm: 10, frames: 8 };
const seen = (q: number, tau = 0, swayUm = 0): Observation => ({ parts: [{ q, tau, share: 1 }], swayUm });
/** On one side or the other, as likely. */
const either = (q: number, tau: number): Observation => ({
  parts: [-1, 1].map((side) => ({ q: side * q, tau, share: 0.5 })),
  swayUm: 0
});

describe('what measured frames say', () => {
  it('of no frames is the prior', () => {
    const { bias, sd, frames } = learn([], prior);
    expect(frames).toBe(0);
    expect(bias.value).toBeCloseTo(0, 6);
    // A normal's middle nine tenths reach 1.645 standard deviations (Abramowitz and Stegun, table 26.1).
    expect(bias.high).toBeCloseTo(1.6449 * 12, 2);
    // 8 s²/σ² is chi-squared with 8 degrees of freedom: 95% point 15.507, 5% point 2.733 (the same, table 26.8).
    expect(sd.low).toBeCloseTo(10 * Math.sqrt(8 / 15.507), 1);
    expect(sd.high).toBeCloseTo(10 * Math.sqrt(8 / 2.733), 1);
  });

  it('is the closed form where the measurement is exact and nothing is known of the bias', () => {
    const normal = seededNormal(3);
    const qs = Array.from({ length: 15 }, () => 6 + 9 * normal());
    const { bias, sd } = learn(
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
    expect(sd.low).toBeCloseTo(scale * Math.sqrt(freedom / jStat.chisquare.inv(0.95, freedom)), 1);
    expect(sd.high).toBeCloseTo(scale * Math.sqrt(freedom / jStat.chisquare.inv(0.05, freedom)), 1);
  });

  it('holds the truth nine times in ten, measured inexactly (300 seeded runs)', () => {
    const [random, normal] = [seededRandom(17), seededNormal(18)];
    const times = runs(300);
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
      if (learned.sd.low <= sigma && sigma <= learned.sd.high) spread++;
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
    expect(many.sd.value).toBeLessThan(few.sd.value);
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
    const sided = learn([...decided, ...Array.from({ length: 12 }, () => either(25, 2))], tight);
    const allDecided = learn([...decided, ...Array.from({ length: 12 }, () => seen(25, 2))], tight);
    expect(sided.bias.value).toBeCloseTo(allDecided.bias.value, 1);
    const neither = learn(
      Array.from({ length: 12 }, () => either(9, 2)),
      prior
    );
    expect(neither.bias.value).toBeCloseTo(0, 6);
    expect(neither.bias.low).toBeLessThan(-5);
    expect(neither.sd.value).toBeGreaterThan(5);
  });

  it('is the closed form of two normals where there is one undecided frame', () => {
    // σ and τ known as good as exactly: μ is a mixture of two normals, with the mean of neither.
    const known: Prior = { biasUm: 12, spreadUm: 5, frames: 1e4 };
    const one = { parts: [{ q: 20, tau: 3, share: 0.8 }, { q: -20, tau: 3, share: 0.2 }], swayUm: 4 }; // prettier-ignore
    const variance = 25 + 9 + 16;
    const pulled = (20 * 144) / (144 + variance);
    expect(learn([one], known).bias.value).toBeCloseTo((0.8 - 0.2) * pulled, 1);
  });

  it('counts the frames of one focusing as one, as sure as they are together', () => {
    const one = ofOneFocusing([seen(10, 3, 6), seen(14, 3, 6), seen(12, 3, 6)]);
    expect(one.parts).toHaveLength(1);
    expect(one.parts[0]?.q).toBeCloseTo(12, 9);
    expect(one.parts[0]?.tau).toBeCloseTo(3 / Math.sqrt(3), 9);
    expect(one.swayUm).toBeCloseTo(6 / Math.sqrt(3), 9);
    // One of them decides the side for all.
    const sided = ofOneFocusing([either(10, 2), seen(11, 2), either(10.5, 2)]);
    expect(sided.parts).toHaveLength(1);
    expect(sided.parts[0]?.q).toBeCloseTo(10.5, 9);
    expect(() => ofOneFocusing([])).toThrow(RangeError);
  });

  it('refuses what is no figure', () => {
    for (const wrong of [seen(NaN), seen(1, -1), seen(1, Infinity), { ...seen(1), parts: [] }])
      expect(() => learn([wrong], prior)).toThrow(RangeError);
    expect(() => learn([], { ...prior, spreadUm: 0 })).toThrow(RangeError);
  });
});

describe('what near and far frames say of sway', () => {
  it('is nothing beyond the prior without frames, or where sway is lost in the focus', () => {
    // A log-normal of 0.5: nine tenths reach e^(±0.5 × 1.645).
    const none = learnSway([]);
    expect(none.low).toBeCloseTo(Math.exp(-0.5 * 1.6449), 2);
    expect(none.high).toBeCloseTo(Math.exp(0.5 * 1.6449), 1);
    const normal = seededNormal(5);
    const far = learnSway([{ observations: Array.from({ length: 30 }, () => seen(10 * normal(), 2, 0.2)), prior }]);
    expect(far.high / far.low).toBeGreaterThan(0.8 * (none.high / none.low));
  });

  it('holds the truth nine times in ten (80 seeded runs)', () => {
    const [random, normal] = [seededRandom(7), seededNormal(8)];
    const times = runs(80);
    let held = 0;
    for (let run = 0; run < times; run++) {
      const truth = Math.exp(0.5 * normal());
      const groups = [0, 1].map(() => {
        const mu = prior.biasUm * normal();
        let chi = 0;
        for (let i = 0; i < prior.frames; i++) chi += normal() ** 2;
        const sigma = prior.spreadUm * Math.sqrt(prior.frames / chi);
        const observations = Array.from({ length: 12 }, () => {
          const sway = random() < 0.5 ? 2 : 20;
          return seen(mu + Math.hypot(sigma, 2, truth * sway) * normal(), 2, sway);
        });
        return { observations, prior };
      });
      const { low, high } = learnSway(groups);
      if (low <= truth && truth <= high) held++;
    }
    // A share of 0.9 over 200 runs has a standard deviation of 0.021.
    expect(Math.abs(held / times - 0.9)).toBeLessThanOrEqual(0.063 * Math.sqrt(200 / times));
  });
});
