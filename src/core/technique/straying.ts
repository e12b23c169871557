/** Autofocus that strays: the surer way of aiming that mends it in one press. */
import type { PlanInput } from '../call/planInput';
import { planSetup } from '../call/planSetup';
import { strays, worthTelling } from '../call/strays';
import { waysToFocus, type FocusMethodOption, type WayKind } from './ways';

/** Ways of aiming autofocus, the plainest first; by hand, or turning after focusing, is another way of working. */
const aiming: readonly WayKind[] = ['onePoint', 'tap', 'continuous', 'automatic', 'pinpoint', 'eyeDetection'];

/** The plainest surer way of aiming at the stop in use; null where straying costs next to nothing or none is surer. */
export function surerAim(input: PlanInput): FocusMethodOption | null {
  const plan = planSetup(input);
  const entry = plan.kind === 'plan' ? plan.stops[plan.selected] : undefined;
  if (!entry || !strays(entry)) return null;
  const surer = waysToFocus(input, entry.stop).filter(
    ({ kind, odds }) => aiming.includes(kind) && odds >= entry.odds + worthTelling
  );
  const most = Math.max(...surer.map(({ odds }) => odds));
  return (
    surer
      .filter(({ odds }) => odds >= most - worthTelling)
      .sort((a, b) => aiming.indexOf(a.kind) - aiming.indexOf(b.kind))[0] ?? null
  );
}
