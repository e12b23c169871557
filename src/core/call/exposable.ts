import type { StopPlan } from './plan';

/** Stops of light one can do without. */
const lightTolerance = 0.1;

/** Whether a stop can be exposed, within a tenth of a stop. */
export function canExpose({ light }: Pick<StopPlan, 'light'>): boolean {
  return light.missingStops <= lightTolerance && light.tooBrightStops <= lightTolerance;
}
