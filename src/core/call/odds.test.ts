import fc from 'fast-check';
import jstat from 'jstat';
import { describe, expect, it } from 'vitest';
import { runs } from '../testing/runs';
import { depthOfField } from '../optics/depthOfField';
import { seededNormal, seededRandom } from '../testing/random';
import { keeperOdds, type OddsInput, type OddsMember } from './odds';

/** The same experiment by throwing dice. */
function monteCarlo(input: OddsInput, throws: number, seed: number): number {
  const normal = seededNormal(seed);
  let kept = 0;
  for (let i = 0; i < throws; i++) {
    // The lens is off by an error that is normal on the sensor: in image distance v, behind its exit pupil (Newton's form).
    const { f, P } = input;
    const beyond = (s: number) => s - f / P;
    const v = (f * f) / beyond(input.s + input.bias);
    const perMm = (f / beyond(input.s + input.bias)) ** 2;
    const plane = (f * f) / Math.max(1e-9, v - perMm * input.sd * normal()) + f / P;
    const { near, far } = depthOfField(f, input.N, input.allowance, plane, P);
    const all = input.members.map((member) => ({ member, shift: member.sway * normal() }));
    if (all.every(({ member, shift }) => member.nearest + shift >= near && member.furthest + shift <= far)) kept += 1;
  }
  return kept / throws;
}

function randomInput(random: () => number): OddsInput {
  const s = 1200 + 6000 * random();
  const people = 1 + Math.floor(random() * 8);
  return {
    f: 35 + 100 * random(),
    N: 1.4 * 2 ** (2.5 * random()),
    P: 0.6 + 0.9 * random(),
    allowance: 0.015 + 0.02 * random(),
    s,
    bias: 30 * (random() - 0.3),
    sd: 2 + 25 * random(),
    members: Array.from({ length: people }, () => {
      const nearest = s + 60 * (random() - 0.5);
      return { nearest, furthest: nearest + 40 * random(), sway: random() < 0.15 ? 0 : 1 + 20 * random() };
    })
  };
}

/** The integral of the file's head by the midpoint rule, the normals by a general-purpose statistics package. */
function plainly({ f, N, P, allowance, s, bias, sd, members }: OddsInput): number {
  const mean = 1 / (s + bias);
  const sigma = sd * mean ** 2;
  const limits = (k: number, w: number) => {
    const [near, far] = [(1 - k / P) * w + k / f, (1 + k / P) * w - k / f];
    return { near: near <= 0 ? Infinity : 1 / near, far: far <= 0 ? Infinity : 1 / far };
  };
  const cdf = (z: number) => (z === Infinity ? 1 : z === -Infinity ? 0 : jstat.normal.cdf(z, 0, 1));
  const inside = (member: OddsMember, w: number): number => {
    const { near, far } = limits(((member.allowance ?? allowance) * N) / f, w);
    const { nearest, furthest, sway } = member;
    if (sway === 0) return nearest >= near && furthest <= far ? 1 : 0;
    return Math.max(0, cdf((far - furthest) / sway) - cdf((near - nearest) / sway));
  };
  const all = (w: number) => (w >= P / f ? 0 : members.reduce((product, member) => product * inside(member, w), 1));
  if (sigma === 0) return all(mean);
  // Whoever keeps still is in or out: their ends are found by halving, so that what is summed is smooth.
  const still = members.filter(({ sway }) => sway === 0);
  const holds = (w: number) => w < P / f && still.every((member) => inside(member, w) === 1);
  const [from, to] = [mean - 7 * sigma, mean + 7 * sigma];
  const grid = Array.from({ length: 1401 }, (_, i) => from + ((to - from) * i) / 1400);
  const held = grid.filter(holds);
  const [first, last] = [held[0], held[held.length - 1]];
  if (first === undefined || last === undefined) return 0;
  const end = (inn: number, out: number) => {
    let [a, b] = [inn, out];
    for (let i = 0; i < 50; i++) {
      const middle = (a + b) / 2;
      if (holds(middle)) a = middle;
      else b = middle;
    }
    return a;
  };
  const [low, high] = [holds(from) ? from : end(first, first - (to - from) / 1400), holds(to) ? to : end(last, last + (to - from) / 1400)]; // prettier-ignore
  const steps = 1500;
  let sum = 0;
  for (let i = 0; i < steps; i++) {
    const w = low + ((high - low) * (i + 0.5)) / steps;
    const weight = jstat.normal.pdf((w - mean) / sigma, 0, 1) / sigma;
    sum += weight * members.reduce((product, member) => product * (member.sway === 0 ? 1 : inside(member, w)), 1);
  }
  return (sum * (high - low)) / steps;
}

describe('keeper odds', () => {
  it('agree with plain summation wherever they may be asked: near, far, beyond infinity, rough, each by their own disc', () => {
    const random = seededRandom(9);
    const oneOf = (...all: readonly number[]) => all[Math.floor(random() * all.length)] ?? 0;
    let middling = 0;
    for (let i = 0; i < runs(150); i++) {
      const f = oneOf(4, 24, 50, 85, 200);
      const P = oneOf(0.3, 0.7, 1, 1.4);
      const s = (f / P) * (1.02 + oneOf(0.1, 3, 30, 80) * random());
      const depth = s * oneOf(0.002, 0.02, 0.3);
      const input: OddsInput = {
        f,
        P,
        s,
        N: oneOf(1.4, 4, 16),
        bias: s * oneOf(0, 0, 0.01, -0.02),
        allowance: oneOf(0.01, 0.03, 0.15),
        sd: s * oneOf(0, 0.003, 0.02, 0.25),
        members: Array.from({ length: oneOf(1, 2, 5) }, () => {
          const nearest = s + depth * (random() - 0.5);
          const sway = s * oneOf(0, 0.0005, 0.003, 0.0101, 0.02, 0.04) * (1 + random());
          const own = random() < 0.3 ? { allowance: oneOf(0.01, 0.05) } : {};
          return { nearest, furthest: nearest + depth * random(), sway, ...own };
        })
      };
      const expected = plainly(input);
      if (expected > 0.05 && expected < 0.95) middling += 1;
      expect(Math.abs(keeperOdds(input) - expected), JSON.stringify(input)).toBeLessThan(2e-4);
    }
    expect(middling).toBeGreaterThan(runs(150) / 12 - 1);
  });

  it('are nil where the plane falls on the lens or behind it, or somebody’s own disc is used up', () => {
    const at = { f: 50, N: 4, P: 1, allowance: 0.03, s: 3000, sd: 5 };
    const member = { nearest: 3000, furthest: 3000, sway: 3 };
    expect(keeperOdds({ ...at, bias: -3000, members: [member] })).toBe(0);
    expect(keeperOdds({ ...at, bias: -3100, members: [member] })).toBe(0);
    expect(keeperOdds({ ...at, bias: 0, members: [{ ...member, allowance: 0 }] })).toBe(0);
    expect(keeperOdds({ ...at, bias: 0, members: [] })).toBeCloseTo(1, 5);
  });

  it('count a small sway too: of fifteen at each end somebody is always further out than meant', () => {
    const rough = { f: 85, N: 2.8, P: 1, allowance: 0.03, s: 3000, bias: 0, sd: 50 };
    const of = (sway: number, count: number) =>
      keeperOdds({
        ...rough,
        members: Array.from({ length: 2 * count }, (_, i) => {
          const depth = i % 2 ? 2960 : 3040;
          return { nearest: depth, furthest: depth, sway };
        })
      });
    // The first of fifteen normals lies 1.74 of their sigmas out on average (handbook value, Harter 1961).
    const out = 1.736;
    const shifted = { ...rough, members: [{ nearest: 2960 - out, furthest: 3040 + out, sway: 0 }] };
    expect(of(1, 15)).toBeCloseTo(keeperOdds(shifted), 3);
    expect(of(0, 15) - of(1, 15)).toBeGreaterThan(0.01);
    expect(of(0.01, 15)).toBeCloseTo(of(0, 15), 3);
  });

  it('without any spread are whether everybody is in, and how likely whoever sways', () => {
    const exact = { f: 50, N: 4, P: 1, allowance: 0.03, s: 3000, bias: 0, sd: 0 };
    const odds = (nearest: number, furthest: number, sway: number) =>
      keeperOdds({ ...exact, members: [{ nearest, furthest, sway }] });
    expect([odds(3000, 3600, 0), odds(2400, 3000, 0), odds(2900, 3100, 0)]).toEqual([0, 0, 1]);
    const { near, far } = depthOfField(50, 4, 0.03, 3000);
    expect(odds(far, far, 20)).toBeCloseTo(0.5, 6);
    expect(odds(near, near, 20)).toBeCloseTo(0.5, 6);
    expect(odds(far + 20, far + 20, 20)).toBeCloseTo(jstat.normal.cdf(-1, 0, 1), 6);
  });

  it('agree with Monte Carlo on 60 random setups within four standard errors', () => {
    const random = seededRandom(20261123);
    const throws = 20_000;
    for (let i = 0; i < runs(60); i++) {
      const input = randomInput(random);
      const odds = keeperOdds(input);
      const error = Math.sqrt((odds * (1 - odds)) / throws);
      expect(Math.abs(odds - monteCarlo(input, throws, i + 1)), JSON.stringify(input)).toBeLessThan(4 * error + 5e-4);
    }
  });

  it('of one still thing are the chance that the plane lands where it is sharp', () => {
    const input = { f: 85, N: 2, P: 1, allowance: 0.03, s: 2000, bias: 0, sd: 5 };
    const { near, far } = depthOfField(85, 2, 0.03, 2000);
    // The limits seen from the thing are a little uneven; half the depth over the spread brackets the truth.
    const odds = keeperOdds({ ...input, members: [{ nearest: 2000, furthest: 2000, sway: 0 }] });
    expect((far - near) / 2 / 5).toBeGreaterThan(4);
    expect(odds).toBeGreaterThan(0.9999);
  });

  it('never rise when somebody joins, sways more, or the disc shrinks', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 1e6 }), (seed) => {
        const input = randomInput(seededRandom(seed));
        const odds = keeperOdds(input);
        expect(odds).toBeGreaterThanOrEqual(0);
        expect(odds).toBeLessThanOrEqual(1);
        const joined = { ...input, members: [...input.members, { nearest: input.s, furthest: input.s + 30, sway: 6 }] };
        expect(keeperOdds(joined)).toBeLessThanOrEqual(odds + 1e-4);
        expect(keeperOdds({ ...input, allowance: input.allowance * 0.8 })).toBeLessThanOrEqual(odds + 1e-4);
      }),
      { numRuns: runs(60) }
    );
  });

  it('are certain or nil without any spread', () => {
    const still = { f: 50, N: 4, P: 1, allowance: 0.03, s: 3000, bias: 0, sd: 0 };
    expect(keeperOdds({ ...still, members: [{ nearest: 2990, furthest: 3010, sway: 0 }] })).toBe(1);
    expect(keeperOdds({ ...still, members: [{ nearest: 1000, furthest: 3010, sway: 0 }] })).toBe(0);
    expect(keeperOdds({ ...still, allowance: 0, members: [] })).toBe(0);
  });

  it('are skewed to the far side where focus is rough: the error is normal behind the lens, not in the scene', () => {
    // A spread of a tenth of the distance: as often beyond 1/(1/s − x) as nearer than 1/(1/s + x).
    const rough = { f: 50, N: 2, P: 1, allowance: 0.03, s: 3000, bias: 0, sd: 300 };
    const odds = (z: number) => keeperOdds({ ...rough, members: [{ nearest: z, furthest: z, sway: 0 }] });
    const [near, far] = [1 / (1 / 3000 + 1 / 30_000), 1 / (1 / 3000 - 1 / 30_000)];
    expect(odds(near)).toBeCloseTo(odds(far), 2);
    expect(odds(3000 + (3000 - near))).toBeGreaterThan(odds(far) * 1.05);
  });
});
