import type { StopPlan } from './plan';

/** Stops of light one can do without: a third of a stop is brought up in the file (common practice, no source). */
const lightTolerance = 0.34;

/** Whether a stop can be exposed, within a third of a stop. */
export function canExpose({ light }: Pick<StopPlan, 'light'>): boolean {
  return light.missingStops <= lightTolerance && light.tooBrightStops <= lightTolerance;
}

/** What it lacks of light or has too much, stops. */
const lack = ({ light }: StopPlan): number => Math.max(light.missingStops, light.tooBrightStops);

/** Those stops that can be exposed; where none can be, those that come nearest to it. */
export function exposableOf(stops: readonly StopPlan[]): number[] {
  const least = Math.min(...stops.map(lack));
  return stops.flatMap((entry, index) => (lack(entry) <= Math.max(0, least) + lightTolerance ? [index] : []));
}
