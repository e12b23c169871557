/** What every plan, and every search that plans again, starts from. */
import type { Habits } from '../habits/habits';
import type { Kit } from '../kit/schema';
import type { StopStep } from '../optics/stops';
import type { Setup } from '../setup/schema';

export interface PlanInput {
  readonly setup: Setup;
  /** Must hold the setup's body and lens; searches also look at the rest of it. */
  readonly kit: Kit;
  readonly stopStep: StopStep;
  readonly habits: Habits;
}
