/** The plan of each setup, computed once for each state of what it rests on. */
import type { NoPlan, Plan } from '$core/call/plan';
import type { PlanInput } from '$core/call/planInput';
import { planSetup } from '$core/call/planSetup';
import { bodyOf, lensOf } from '$core/kit/find';
import type { Body, Lens } from '$core/kit/schema';
import type { Setup } from '$core/setup/schema';

export interface PlannedSetup {
  readonly setup: Setup;
  readonly plan: Plan | NoPlan;
  /** Undefined when the kit no longer has it. */
  readonly body: Body | undefined;
  readonly lens: Lens | undefined;
}

interface Known extends PlannedSetup {
  readonly from: Pick<PlanInput, 'habits' | 'stopStep'>;
}

export class Plans {
  readonly #known = new WeakMap<Setup, Known>();
  /** How many were computed; for tests and benchmarks. */
  computed = 0;

  /** The one place where a setup's body, lens and plan are found. */
  of(input: PlanInput): PlannedSetup {
    const { setup, kit, habits, stopStep } = input;
    const body = bodyOf(kit, setup.camera);
    const lens = lensOf(kit, setup.camera);
    const known = this.#known.get(setup);
    const holds =
      known?.body === body &&
      known?.lens === lens &&
      known?.from.habits === habits &&
      known?.from.stopStep === stopStep;
    if (known && holds) return known;
    this.computed++;
    const planned: Known = { setup, body, lens, plan: planSetup(input), from: { habits, stopStep } };
    this.#known.set(setup, planned);
    return planned;
  }
}
