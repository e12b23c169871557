/** How to get the plane onto the eye: everything the Technique tab says of one picture. */
import { isSharpInPrintOnly } from '../call/inPrint';
import type { PlanInput } from '../call/planInput';
import { planSetup } from '../call/planSetup';
import { acrossOf, type Across } from './across';
import { oddsOverTime, type Hold } from './hold';
import { pointAdvice, type PointAdvice } from './point';
import { recomposing, type Recomposing } from './recomposing';
import type { Weighed } from './evaluateAt';
import { judgedRules, type Ruled } from './rules';
import { trapFor, type Trap } from './trap';
import { muzzlesOf, phoneFacts, subjectWays, type Muzzle, type PhoneFacts, type SubjectWay } from './specialCases';
import { waysToReach, type ReachWay } from './reach';
import { waysToFocus, type FocusMethodOption } from './ways';

export interface Technique {
  /** Rates are those of a standard print: nothing is sharp looked at closely. */
  readonly inPrint: boolean;
  readonly ways: readonly FocusMethodOption[];
  readonly rules: readonly Ruled[];
  readonly point: PointAdvice | null;
  readonly recomposing: Recomposing | null;
  readonly hold: Hold | null;
  readonly trap: Trap | null;
  readonly across: Across | null;
  /** What to do where no point reaches the target. */
  readonly reach: readonly ReachWay[];
  readonly subjects: readonly SubjectWay[];
  readonly muzzles: readonly Muzzle[];
  readonly phone: PhoneFacts | null;
}

/** Null where nothing can be planned. Everything is at the stop in use. */
export function techniqueOf(asked: PlanInput): Technique | null {
  const plan = planSetup(asked);
  const entry = plan.kind === 'plan' ? plan.stops[plan.selected] : undefined;
  if (!entry) return null;
  const { stop } = entry;
  const inPrint = plan.kind === 'plan' && isSharpInPrintOnly(plan);
  const input: Weighed = { ...asked, inPrint };
  return {
    inPrint,
    ways: waysToFocus(input, stop),
    rules: judgedRules(input),
    point: pointAdvice(input, stop),
    recomposing: recomposing(input, stop),
    hold: oddsOverTime(input, stop),
    trap: trapFor(input, stop),
    across: acrossOf(entry, input.habits),
    reach: waysToReach(input, stop),
    subjects: subjectWays(input),
    muzzles: muzzlesOf(input),
    phone: phoneFacts(input)
  };
}
