/** The straightforward way to the odds of a whole plan: throw dice for every stop. */
import type { PlanInput } from '../src/core/call/planInput';
import { planSetup, prepare } from '../src/core/call/planSetup';
import { depthOfField } from '../src/core/optics/depthOfField';
import { seededNormal } from '../src/core/testing/random';

/**
 * Throws per stop for the accuracy the quadrature is held to in tests (1e−4, standard error): √(P(1 − P)/n) at P = 1/2 is
 * 1e−4 for n = 25 million. That takes minutes, so fewer are thrown and the time scaled: it is exactly in proportion.
 */
export const throwsForEqualAccuracy = 25_000_000;

/** Times `throws` per stop over all stops of a plan. */
export function monteCarloPlan(input: PlanInput, throws: number): number[] {
  const prepared = prepare(input);
  const plan = planSetup(input);
  if (prepared.kind === 'noPlan' || plan.kind === 'noPlan') throw new Error('no plan');
  const situation = prepared;
  const members = situation.groups[0]?.members ?? [];
  const normal = seededNormal(1);
  return plan.stops.map((entry) => {
    const s = entry.planeMm;
    const spread = Math.hypot(entry.scatter.focusMm, entry.scatter.holdMm, entry.scatter.leanMm);
    let kept = 0;
    for (let i = 0; i < throws; i++) {
      // The error is normal behind the lens, so in vergence.
      const plane = 1 / (1 / s + (spread / (s * s)) * normal());
      const { near, far } = depthOfField(situation.f, entry.stop.fNumber, entry.allowanceMm, plane, situation.P);
      let all = true;
      for (const member of members) {
        const shift = member.sway * normal();
        if (member.nearest + shift < near || member.furthest + shift > far) {
          all = false;
          break;
        }
      }
      if (all) kept += 1;
    }
    return kept / throws;
  });
}
