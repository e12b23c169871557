/** How much there is to see where an iris should be: white, iris, pupil and catchlight differ, a lid is all alike. */

import { quantile } from 'd3-array';

/** Share of the distance between the eyes that is looked at about the iris. */
const radiusShare = 0.12;

/** Range of the light about the middle of a patch over its mean there; less under a closed lid. */
export function irisContrast(light: Float32Array, side: number, eyesPx: number): number {
  const radius = Math.max(2, radiusShare * eyesPx);
  const values: number[] = [];
  let sum = 0;
  const middle = (side - 1) / 2;
  for (let y = 0; y < side; y++)
    for (let x = 0; x < side; x++) {
      if (Math.hypot(x - middle, y - middle) > radius) continue;
      const value = light[y * side + x] ?? 0;
      values.push(value);
      sum += value;
    }
  const at = (share: number) => quantile(values, share) ?? 0;
  return values.length === 0 ? 0 : (at(0.95) - at(0.05)) / Math.max(sum / values.length, 1e-4);
}
