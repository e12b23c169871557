/**
 * Blur discs of a thin lens, in image and in object space. Symbols: see thinLens.ts.
 * Sources: Kingslake, Optics in Photography; Merklinger, The INs and OUTs of FOCUS (1990) for object space.
 */

/**
 * Diameter, mm on the sensor, of the disc a point at depth z makes when the lens is focused at s:
 * c = A m |z − s|/z, with A m = f²/(N (s − f/P)). At z = ∞ it is A m.
 * Range: s > f/P, z > 0.
 */
export function blurDiscDiameter(f: number, N: number, s: number, z: number, P = 1): number {
  const atInfinity = (f * f) / (N * (s - f / P));
  if (z === Infinity) return atInfinity;
  return (atInfinity * Math.abs(z - s)) / z;
}

/** Diameter, mm in the scene, of the patch at depth z that one image point gathers: A |z − s|/s. */
export function blurInObjectSpace(f: number, N: number, s: number, z: number): number {
  return (f / N) * Math.abs(z / s - 1);
}

/**
 * The focus distance that makes the nearer and the further of two depths equally sharp. Blur is linear in 1/z, so it is
 * their harmonic mean, 1/s = (1/z0 + 1/z1)/2, for every f-number.
 */
export function bestFocusBetween(z0: number, z1: number): number {
  return 2 / (1 / z0 + 1 / z1);
}
