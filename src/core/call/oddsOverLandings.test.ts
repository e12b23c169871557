/** The odds of a plan against the same chances summed plainly: every place focus may land on, every sway, nothing left out. */
import jstat from 'jstat';
import { describe, expect, it } from 'vitest';
import { defaultHabits } from '../habits/habits';
import { builtInKit } from '../kit/builtInKit';
import { depthOfField } from '../optics/depthOfField';
import { arrange } from '../setup/arrangements';
import { newPerson, newSetup } from '../setup/defaults';
import type { Setup } from '../setup/schema';
import { runs } from '../testing/runs';
import { variedSetups } from '../testing/variedSetups';
import { candidateFor } from './evaluateStop';
import { focusAt, oddsInput } from './focus';
import { landedOn } from './focusLanding';
import type { OddsInput } from './odds';
import type { PlanInput } from './planInput';
import { planSituation, prepare } from './planSetup';

/** As many planes as likely as each other: the quantiles of where focus lands, in vergence. */
const quantiles = 1000;
const normals = Array.from({ length: quantiles }, (_, i) => jstat.normal.inv((i + 0.5) / quantiles, 0, 1));

/** Φ from a table of a general-purpose package, between its entries in a straight line. */
const table = Array.from({ length: 1201 }, (_, i) => jstat.normal.cdf(i / 100 - 6, 0, 1));
function cdf(z: number): number {
  const at = (z + 6) * 100;
  if (at <= 0) return 0;
  if (at >= 1200) return 1;
  const i = Math.floor(at);
  return (table[i] ?? 0) + (at - i) * ((table[i + 1] ?? 0) - (table[i] ?? 0));
}

function plainly({ f, N, P, allowance, s, bias, sd, members }: OddsInput): number {
  if (allowance <= 0) return 0;
  const mean = 1 / (s + bias);
  let kept = 0;
  for (const z of normals) {
    const w = mean + z * sd * mean * mean;
    if (w >= P / f) continue;
    let all = 1;
    for (const { nearest, furthest, sway, allowance: own = allowance } of members) {
      // Set beyond infinity it reaches to infinity, and as near as the blur allows.
      const k = (own * N) / f;
      const { near, far } =
        w > 0
          ? depthOfField(f, N, Math.max(own, 1e-9), 1 / w, P)
          : { near: 1 / ((1 - k / P) * w + k / f), far: Infinity };
      all *=
        own <= 0
          ? 0
          : sway === 0
            ? Number(nearest >= near && furthest <= far)
            : Math.max(0, cdf((far - furthest) / sway) - cdf((near - nearest) / sway));
    }
    kept += all;
  }
  return kept / quantiles;
}

/** Fifteen in front, fifteen behind, from far enough that they hardly sway against what the focus scatters. */
function crowd(index: number): Setup {
  const setup = newSetup(`crowd-${index}`, 'Crowd');
  const people = arrange(
    Array.from({ length: 30 }, (_, i) => newPerson(`p${i}`, `P${i}`)),
    { kind: 'rows', count: 30, rows: 2, spacingMm: 560, rowDepthMm: 600 + 150 * index, riserMm: 200, staggered: true }
  );
  return {
    ...setup,
    people,
    camera: {
      ...setup.camera,
      lensId: 'lens-50',
      focalLengthMm: 50,
      focusArea: index % 2 ? 'zone' : 'point',
      placement: { kind: 'distance', distanceMm: 6000 + 1200 * index }
    }
  };
}

const asked: readonly PlanInput[] = [
  ...variedSetups(runs(180)).map(({ setup, kit, habits }) => ({ setup, kit, habits, stopStep: 'full' as const })),
  ...Array.from({ length: 20 }, (_, i) => ({
    setup: crowd(i),
    kit: builtInKit,
    habits: defaultHabits,
    stopStep: 'full' as const
  }))
];

describe('the odds of a plan', () => {
  it('are within half a point of plain sums over every landing and sway, crowds of fifteen at each end among them', () => {
    const off: { id: string; said: number; plain: number }[] = [];
    let middling = 0;
    for (const input of asked) {
      const situation = prepare(input);
      const [group, other] = situation.kind === 'noPlan' ? [] : situation.groups;
      if (situation.kind === 'noPlan' || !group || other) continue;
      const plan = planSituation(situation, input.stopStep);
      // The stop in use, and one where the rate is lower.
      for (const entry of [plan.stops[plan.selected], plan.stops[Math.max(0, plan.selected - 1)]]) {
        const candidate = entry && candidateFor(group, entry.target);
        if (!entry || !candidate) continue;
        const plain = landedOn(situation, candidate).landings.reduce((sum, { depth, chance }) => {
          if (depth < situation.closest) return sum;
          const focus = focusAt(situation, entry.stop.fNumber, { ...candidate, focusDistanceMm: depth }, entry.light);
          return sum + chance * plainly(oddsInput(situation, focus, group.members));
        }, 0);
        if (plain > 0.05 && plain < 0.95) middling += 1;
        if (Math.abs(plain - entry.odds) > 0.005) off.push({ id: input.setup.id, said: entry.odds, plain });
      }
    }
    expect(off).toEqual([]);
    expect(middling).toBeGreaterThan(runs(180) / 3);
  });
});
