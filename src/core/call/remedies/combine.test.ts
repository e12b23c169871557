/** Several changes done together: each by the same share, the least that is enough. */
import { describe, expect, it } from 'vitest';
import { variedSetup } from '../../testing/variedSetups';
import type { PlanInput } from '../planInput';
import { planSetup } from '../planSetup';
import { combineRemedies, findCombinations } from './combine';
import { findRemedies } from './findRemedies';
import type { Combination, RemedyPart } from './remedy';

const calm = (seed: number): PlanInput => ({ ...variedSetup(seed, true), stopStep: 'half' });
const opens = (input: PlanInput, setup = input.setup) => {
  const plan = planSetup({ ...input, setup });
  return plan.kind === 'plan' && plan.window !== null;
};
/** What each of them does alone. */
const alone = (input: PlanInput) =>
  findRemedies(input).filter(({ partial, unit }) => partial === null && unit !== 'none');
const partOf = ({ kind, amount, unit, subject }: RemedyPart): RemedyPart => ({ kind, amount, unit, subject });
const full = (kind: RemedyPart['kind'], amount: number, subject = '', unit: RemedyPart['unit'] = 'mm'): RemedyPart => ({
  kind,
  amount,
  unit,
  subject
});
/** Steps of the changes tried here. */
const stepOf = (kind: RemedyPart['kind']) =>
  kind === 'raiseCamera' ? 50 : kind === 'turnFace' || kind === 'turnRow' ? 1 : 10;

/** Each by the same share, rounded up to its step. @returns the share, from the largest amount */
function sharesOf(asked: readonly RemedyPart[], found: Combination): number[] {
  return found.parts.map((part, i) => part.amount / (asked[i]?.amount ?? NaN));
}

describe('changes ticked together', () => {
  // Each of these alone is enough in these setups, so less of each is enough together.
  const both = [
    [11, ['bringForward', 'stepBack']],
    [6, ['stepBack', 'raiseCamera']],
    [33, ['stepBack', 'raiseCamera']]
  ] as const;

  it.each(both)('are enough by less than each alone, and by hardly less they are not: setup %d', (seed, kinds) => {
    const input = calm(seed);
    const singles = alone(input);
    const asked = kinds.flatMap((kind) => singles.filter((single) => single.kind === kind).map(partOf));
    if (asked.length < 2) throw new Error(singles.map(({ kind }) => kind).join(', '));
    const found = combineRemedies(input, asked);
    if (!found) throw new Error('not together');
    expect(opens(input, found.setup)).toBe(true);
    expect(found.parts.map(({ kind, subject, unit }) => [kind, subject, unit])).toEqual(
      asked.map(({ kind, subject, unit }) => [kind, subject, unit])
    );
    found.parts.forEach(({ amount, kind }, i) => {
      expect(amount).toBeLessThanOrEqual(asked[i]?.amount ?? 0);
      expect(amount % stepOf(kind)).toBeCloseTo(0, 6);
    });
    const shares = sharesOf(asked, found);
    const share = Math.min(...shares);
    // The same share, but for the rounding.
    found.parts.forEach(({ amount, kind }, i) =>
      expect(amount - share * (asked[i]?.amount ?? 0)).toBeLessThanOrEqual(stepOf(kind) + 1e-6)
    );
    // Asked for a little less of each in full, they are not enough.
    const less = asked.map((part, i) => ({
      ...part,
      amount: (found.parts[i]?.amount ?? 0) - 1.02 * stepOf(part.kind)
    }));
    expect(combineRemedies(input, less)).toBeUndefined();
    // The trouble is that of both.
    const plan = planSetup({ ...input, setup: found.setup });
    if (plan.kind !== 'plan') throw new Error('no plan');
    expect(plan.stops.find(({ stop }) => stop.label === found.opens.stop)?.odds).toBe(found.opens.odds);
    expect(found.caution).toBe(kinds.some((kind) => kind === 'raiseCamera') ? 'ladder' : null);
    expect(found.partial).toBeNull();
  });

  it('add up their trouble', () => {
    const input = calm(11);
    const asked = alone(input).filter(({ kind }) => kind === 'bringForward' || kind === 'stepBack');
    const found = combineRemedies(input, asked.map(partOf));
    if (!found) throw new Error('not together');
    const effort = found.parts.reduce(
      (sum, { kind, amount }) => sum + (kind === 'bringForward' ? 0.4 : 0.3) + amount / 5000,
      0
    );
    expect(found.effort).toBeCloseTo(effort, 9);
  });

  it('are nothing where they are not enough in full, or one of them is no change by an amount', () => {
    const input = calm(11);
    const [first] = alone(input);
    if (!first) throw new Error('nothing');
    expect(combineRemedies(input, [full('stepBack', 10), full('raiseCamera', 50)])).toBeUndefined();
    expect(combineRemedies(input, [partOf(first), full('focusMethod', 0, 'magnifier', 'none')])).toBeUndefined();
    expect(combineRemedies(input, [partOf(first), full('bringThing', 50, 'nothing of that name')])).toBeUndefined();
    // Alone it takes as much as it did: a step less at most, where what opens does not grow evenly.
    const [alike] = combineRemedies(input, [partOf(first)])?.parts ?? [];
    expect(alike).toMatchObject({ kind: first.kind, subject: first.subject });
    expect(Math.abs((alike?.amount ?? 0) - first.amount)).toBeLessThanOrEqual(10);
  });
});

describe('pairs worth their trouble', () => {
  const seeds = [3, 11, 13, 33, 35, 46];

  it.each(seeds)(
    'open the window, spare a quarter of each at least, and come least trouble first: setup %d',
    (seed) => {
      const input = calm(seed);
      const shares: number[] = [];
      const pairs = findCombinations(input, (share) => shares.push(share));
      const singles = findRemedies(input).filter(({ partial }) => partial === null);
      expect(pairs.length).toBeGreaterThan(0);
      expect(pairs.length).toBeLessThanOrEqual(5);
      expect(pairs.map(({ effort }) => effort)).toEqual(pairs.map(({ effort }) => effort).sort((a, b) => a - b));
      for (const pair of pairs) {
        expect(opens(input, pair.setup)).toBe(true);
        expect(pair.parts).toHaveLength(2);
        for (const part of pair.parts) {
          const single = singles.find(({ kind, subject }) => kind === part.kind && subject === part.subject);
          if (single && part.unit !== 'none') expect(part.amount).toBeLessThanOrEqual(0.75 * single.amount);
          if (part.unit !== 'none') expect(part.amount).toBeGreaterThan(0);
        }
      }
      // None twice, the other way round.
      const names = pairs.map(({ parts }) =>
        parts
          .map(({ kind, subject }) => `${kind} ${subject}`)
          .sort()
          .join(' and ')
      );
      expect(new Set(names).size).toBe(names.length);
      expect(shares).toEqual([...shares].sort((a, b) => a - b));
      expect(shares[0]).toBe(0);
      expect(Math.max(...shares)).toBeLessThan(1);
      shares.forEach((share, i) => expect(share).toBeCloseTo(i / shares.length, 9));
    }
  );

  it('are not looked for where the window is open', () => {
    const open = Array.from({ length: 20 }, (_, i) => calm(i + 1)).find((input) => opens(input));
    if (!open) throw new Error('all shut');
    const told: number[] = [];
    expect(findCombinations(open, (share) => told.push(share))).toEqual([]);
    expect(told).toEqual([]);
  });
});
