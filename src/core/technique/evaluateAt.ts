/** One picture at one stop as another camera setting would have it. */
import { evaluateStop } from '../call/evaluateStop';
import { asPrint } from '../call/inPrint';
import type { StopPlan } from '../call/plan';
import type { PlanInput } from '../call/planInput';
import { prepare } from '../call/planSetup';
import type { Situation } from '../call/situation';
import type { Stop } from '../optics/stops';
import type { Setup } from '../setup/schema';

export interface TriedSetup {
  readonly setup: Setup;
  readonly situation: Situation;
  readonly entry: StopPlan;
}

/** A question whose setups are weighed by what they give in print, where only that is sharp. */
export interface Weighed extends PlanInput {
  readonly inPrint?: boolean;
}

/** The setup at a stop; null where it cannot be planned. */
export function evaluateAt(input: Weighed, setup: Setup, stop: Stop): TriedSetup | null {
  const prepared = prepare({ ...input, setup: input.inPrint ? asPrint(setup) : setup });
  if (prepared.kind === 'noPlan') return null;
  const entry = evaluateStop(prepared, stop);
  return entry ? { setup, situation: prepared, entry } : null;
}
