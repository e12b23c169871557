/** Somebody moves across the picture: walks by, turns in a dance, swings. What the shutter makes of it. */
import type { StopPlan } from '../call/plan';
import type { Habits } from '../habits/habits';
import { markedShutter } from '../optics/cameraSteps';

export interface Across {
  readonly subjectId: string;
  /** Their blur at the shutter time in use, over the circle of confusion. */
  readonly ratio: number;
  readonly shutterS: number;
  /** The marked time at which it takes no more than its share of that disc. */
  readonly stillS: number;
}

/** Null where nobody moves across, or a flash freezes them. */
export function acrossOf({ movement, light }: StopPlan, { shakeAtMost }: Habits): Across | null {
  if (!movement || movement.ratio <= 0) return null;
  // The blur grows with the time.
  const longestS = (light.shutterS * shakeAtMost) / movement.ratio;
  return { ...movement, shutterS: light.shutterS, stillS: markedShutter(longestS, longestS).shutterS };
}
