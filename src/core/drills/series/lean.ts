/** How far somebody leans while turning after focusing, from what the plane is off beyond the turn itself. */
import { mean, variance } from 'd3-array';
import jstat from 'jstat';
import type { Estimate } from '../../record/learn';

export interface Leaned {
  /** How far the camera comes nearer, mm; negative: goes back. */
  readonly lean: Estimate;
  /** From one time to the next, mm, as a standard deviation. */
  readonly spread: Estimate;
  readonly times: number;
}

/** With fewer nothing is said: the spread of two is a guess (chosen). */
export const leastTimes = 4;

/** The standard deviation of a normal of unknown mean, with nine tenths by chi-squared. @throws RangeError for fewer than two */
export function sdWithInterval(values: readonly number[]): Estimate {
  const n = values.length;
  if (n < 2) throw new RangeError('One value has no spread.');
  const square = variance(values) ?? NaN;
  const at = (share: number) => Math.sqrt(((n - 1) * square) / jstat.chisquare.inv(share, n - 1));
  return { value: Math.sqrt(square), low: at(0.95), high: at(0.05) };
}

/** @param beyond by how much the plane lay behind the target more than turning alone has it, mm, one a frame; @returns null with too few */
export function leanOf(beyond: readonly number[]): Leaned | null {
  const n = beyond.length;
  if (n < leastTimes) return null;
  const [middle, square] = [mean(beyond) ?? NaN, variance(beyond) ?? NaN];
  // A normal of unknown mean and spread: Student's t and chi-squared.
  const half = jstat.studentt.inv(0.95, n - 1) * Math.sqrt(square / n);
  return {
    lean: { value: middle, low: middle - half, high: middle + half },
    spread: sdWithInterval(beyond),
    times: n
  };
}
