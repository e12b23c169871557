/**
 * The thin lens. Symbols used in this folder, lengths in millimetres:
 *
 * | f | focal length | N | f-number | A = f/N | entrance-pupil diameter |
 * | s | focus distance from the pupil | z | depth of a point from the pupil | v | image distance |
 * | m | magnification at s | C | circle of confusion on the sensor |
 * | P | pupil magnification: exit over entrance pupil, 1 for a lens whose pupils are alike |
 *
 * Distances are measured from the entrance pupil, which lies f/P behind the front focal point, so that by Newton's form
 * m = f/(s − f/P); nothing images from s ≤ f/P.
 *
 * Sources: Kingslake, Optics in Photography (SPIE 1992); Ray, Applied Photographic Optics (3rd ed. 2002, pupil
 * magnification: ch. 5).
 */

/**
 * Size of the image over the tangent of the angle it fills, mm, at the entrance pupil: m s, for pupils alike the image
 * distance f s/(s − f). A subject at or within f/P images at infinity.
 */
export function imageDistance(f: number, s: number, P = 1): number {
  return s <= f / P ? Infinity : s === Infinity ? f : (f * s) / (s - f / P);
}

/** Magnification m = f/(s − f/P), image size over object size. Needs s > f/P. */
export function magnification(f: number, s: number, P = 1): number {
  return s <= f / P ? Infinity : f / (s - f / P);
}

/**
 * How far behind the image of s the image of z would lie nearer to the lens, mm: the error on the sensor of a plane of focus that
 * was to lie at s and lies at z, f(m(s) − m(z)); positive behind. Both from the pupil, s > f/P. Near s it is (z − s) m².
 */
export function imageShift(f: number, s: number, z: number, P = 1): number {
  return f * (magnification(f, s, P) - magnification(f, z, P));
}

/** Where the plane lies whose error on the sensor is `shift`, mm from the pupil: the inverse of `imageShift`; Infinity beyond the farthest. */
export function shiftedFocus(f: number, s: number, shift: number, P = 1): number {
  const m = magnification(f, s, P) - shift / f;
  return m <= 0 ? Infinity : f / P + f / m;
}

/** Effective (working) f-number N(1 + m/P). */
export function effectiveFNumber(N: number, m: number, P = 1): number {
  return N * (1 + m / P);
}

/** Distance at which an object of size `objectSize` fills `imageSize` on the sensor: s = f(1/P + object/image), mm. */
export function distanceForFraming(f: number, objectSize: number, imageSize: number, P = 1): number {
  return f * (1 / P + objectSize / imageSize);
}

/** Object size that fills `imageSize` on the sensor at focus distance s, mm: the inverse of `distanceForFraming`. */
export function framedSize(f: number, s: number, imageSize: number, P = 1): number {
  return imageSize * (s / f - 1 / P);
}

/** Full angle of view, radians, of a sensor side focused at s: 2 atan(side/(2 m s)). */
export function angleOfView(f: number, s: number, sensorSide: number, P = 1): number {
  return 2 * Math.atan(sensorSide / (2 * imageDistance(f, s, P)));
}

/**
 * Focus distance from the pupil at which the subject is `fromSensorMm` from the sensor. With x the distance from the
 * front focal point and principal planes together, D = x + 2f + f²/x; the larger root of it, and s = x + f/P. Makers
 * write the closest focus from the sensor. Nearer than four focal lengths a thin lens reaches no such distance (a real
 * one shortens its focal length): life size, x = f, stands for it. `fromSensorMm` ≥ 0.
 */
export function focusFromSensor(f: number, fromSensorMm: number, P = 1): number {
  const beyond = fromSensorMm - 2 * f;
  const root = beyond * beyond - 4 * f * f;
  const x = root <= 0 ? f : (beyond + Math.sqrt(root)) / 2;
  return x + f / P;
}
