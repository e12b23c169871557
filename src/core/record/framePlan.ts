/** What a frame is held against: the plan it was taken by, with all it rests on. */
import type { Plan } from '../call/plan';
import type { ExpectedFace } from '../frames/expected';
import type { Habits } from '../habits/habits';
import type { Body, Lens } from '../kit/schema';
import type { Setup } from '../setup/schema';

export interface FramePlan {
  readonly jobId: string;
  readonly setup: Setup;
  readonly plan: Plan;
  readonly body: Body;
  readonly lens: Lens;
  readonly habits: Habits;
  readonly expected: readonly ExpectedFace[];
}
