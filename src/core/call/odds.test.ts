import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { runs } from '../testing/runs';
import { depthOfField } from '../optics/depthOfField';
import { seededNormal, seededRandom } from '../testing/random';
import { keeperOdds, type OddsInput } from './odds';

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
    const plane = (f * f) / Math.max(1e-9, v - perMm * input.spread * normal()) + f / P;
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
    spread: 2 + 25 * random(),
    members: Array.from({ length: people }, () => {
      const nearest = s + 60 * (random() - 0.5);
      return { nearest, furthest: nearest + 40 * random(), sway: random() < 0.15 ? 0 : 1 + 20 * random() };
    })
  };
}

describe('keeper odds', () => {
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
    const input = { f: 85, N: 2, P: 1, allowance: 0.03, s: 2000, bias: 0, spread: 5 };
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
    const still = { f: 50, N: 4, P: 1, allowance: 0.03, s: 3000, bias: 0, spread: 0 };
    expect(keeperOdds({ ...still, members: [{ nearest: 2990, furthest: 3010, sway: 0 }] })).toBe(1);
    expect(keeperOdds({ ...still, members: [{ nearest: 1000, furthest: 3010, sway: 0 }] })).toBe(0);
    expect(keeperOdds({ ...still, allowance: 0, members: [] })).toBe(0);
  });

  it('are skewed to the far side where focus is rough: the error is normal behind the lens, not in the scene', () => {
    // A spread of a tenth of the distance: as often beyond 1/(1/s − x) as nearer than 1/(1/s + x).
    const rough = { f: 50, N: 2, P: 1, allowance: 0.03, s: 3000, bias: 0, spread: 300 };
    const odds = (z: number) => keeperOdds({ ...rough, members: [{ nearest: z, furthest: z, sway: 0 }] });
    const [near, far] = [1 / (1 / 3000 + 1 / 30_000), 1 / (1 / 3000 - 1 / 30_000)];
    expect(odds(near)).toBeCloseTo(odds(far), 2);
    expect(odds(3000 + (3000 - near))).toBeGreaterThan(odds(far) * 1.05);
  });
});
