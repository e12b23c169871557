/** Autofocus that strays: how much of the keeper rate it costs, and the one press that mends it. */
import { withCamera } from '../setup/moves';
import type { Setup } from '../setup/schema';
import type { Body } from '../kit/schema';
import type { PlanInput } from './planInput';
import { planSetup } from './planSetup';
import { isByHand } from './scatter';
import { strays, worthTelling } from './strays';

export interface Straying {
  /** Keeper rates where focus lands as meant, and with the area in use. */
  readonly onTarget: number;
  readonly odds: number;
  /** A surer way of aiming, with the keeper rate it gives; null where none is better. */
  readonly mend: { readonly kind: 'point' | 'pinpoint' | 'tap'; readonly setup: Setup; readonly odds: number } | null;
}

/** Ways of aiming more surely: one point on the eye (on a phone a tap); where the point covers too much, the smallest. */
function surer(
  { camera }: Setup,
  body: Body
): readonly { kind: 'point' | 'pinpoint' | 'tap'; changes: Partial<Setup['camera']> }[] {
  const own = body.kind === 'phone' ? 'tap' : 'point';
  const alone = camera.focusArea === own ? [] : [{ kind: own, changes: { focusArea: own } } as const];
  const smallest =
    own === 'point' && camera.pointSize !== 'pinpoint' && body.focusGrid.sizes.includes('pinpoint')
      ? [{ kind: 'pinpoint', changes: { focusArea: own, pointSize: 'pinpoint' } } as const]
      : [];
  return [...alone, ...smallest];
}

/** What straying costs at the stop in use; null where it costs next to nothing. */
export function strayingOf(input: PlanInput): Straying | null {
  const { setup, kit } = input;
  const plan = planSetup(input);
  const entry = plan.kind === 'plan' ? plan.stops[plan.selected] : undefined;
  const body = kit.bodies.find(({ id }) => id === setup.camera.bodyId);
  if (!entry || !body || isByHand(setup.camera.focusMethod)) return null;
  const { odds, oddsOnTarget: onTarget, stop } = entry;
  if (!strays(entry)) return null;
  const tried = surer(setup, body).flatMap(({ kind, changes }) => {
    const changed = withCamera(setup, changes);
    const then = planSetup({ ...input, setup: changed });
    const same = then.kind === 'plan' ? then.stops.find((other) => other.stop.fNumber === stop.fNumber) : undefined;
    return same && same.odds >= odds + worthTelling ? [{ kind, setup: changed, odds: same.odds }] : [];
  });
  // The plainer of two that do as well.
  const [first, second] = tried;
  const mend = first && (!second || second.odds < first.odds + worthTelling) ? first : (second ?? null);
  return { onTarget, odds, mend };
}
