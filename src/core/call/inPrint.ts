import type { Setup } from '../setup/schema';
import type { NoPlan, Plan, StopPlan } from './plan';
import type { PlanInput } from './planInput';

/** Whether no stop is sharp looked at closely, but the one in use is in a standard print, at the keeper rate wanted. */
export const isSharpInPrintOnly = ({ conflict, inPrint, oddsWanted }: Plan): boolean =>
  conflict?.kind === 'facesUnreachable' && inPrint !== null && inPrint.odds >= oddsWanted;

/** Whether a plan can be taken as it is wanted: every goal met, sharp looked at closely or, where nothing is, in print. */
export function isTakeable(plan: Plan): boolean {
  const { window, backgrounds, stops, selected } = plan;
  const met = () => backgrounds.every((_, index) => stops[selected]?.backgrounds[index]?.met);
  return window !== null || (isSharpInPrintOnly(plan) && met());
}

/** From where to where a stop is sharp, mm from the lens, by the standard it is called by: of a print, where only that is. */
export const sharpFromTo = (plan: Plan, entry: StopPlan): { readonly nearMm: number; readonly farMm: number | null } =>
  plan.inPrint && isSharpInPrintOnly(plan) && entry === plan.stops[plan.selected] ? plan.inPrint.zone : entry;

/** A setup looked at as a standard print. */
export const asPrint = (setup: Setup): Setup => ({
  ...setup,
  intent: { ...setup.intent, viewing: { kind: 'traditional' } }
});

/** What is to be weighed by the standard it is called by: in print, where only that is sharp. */
export const asCalled = (input: PlanInput, plan: Plan | NoPlan): PlanInput =>
  plan.kind === 'plan' && isSharpInPrintOnly(plan) ? { ...input, setup: asPrint(input.setup) } : input;
