/**
 * The thin lens. Symbols used in this folder, lengths in millimetres:
 *
 * | f | focal length | N | f-number | A = f/N | entrance-pupil diameter |
 * | s | focus distance from the pupil | z | depth of a point from the pupil | v | image distance |
 * | m | magnification at s | C | permissible blur-disc diameter on the sensor |
 *
 * Sources: Kingslake, Optics in Photography (SPIE 1992); Ray, Applied Photographic Optics (3rd ed. 2002).
 */

/** Image distance v = f s/(s − f), mm. Needs s > f; a subject at the focal length images at infinity. */
export function imageDistance(f: number, s: number): number {
  return s <= f ? Infinity : s === Infinity ? f : (f * s) / (s - f);
}

/** Magnification m = f/(s − f), image size over object size. Needs s > f. */
export function magnification(f: number, s: number): number {
  return s <= f ? Infinity : f / (s - f);
}

/** Effective (working) f-number N(1 + m), for a lens whose pupils are alike. */
export function effectiveFNumber(N: number, m: number): number {
  return N * (1 + m);
}

/** Distance at which an object of size `objectSize` fills `imageSize` on the sensor: s = f(1 + object/image), mm. */
export function distanceForFraming(f: number, objectSize: number, imageSize: number): number {
  return f * (1 + objectSize / imageSize);
}

/** Object size that fills `imageSize` on the sensor at focus distance s, mm: the inverse of `distanceForFraming`. */
export function framedSize(f: number, s: number, imageSize: number): number {
  return imageSize * (s / f - 1);
}

/** Full angle of view, radians, of a sensor side focused at s: 2 atan(side/(2v)). */
export function angleOfView(f: number, s: number, sensorSide: number): number {
  return 2 * Math.atan(sensorSide / (2 * imageDistance(f, s)));
}

/**
 * Focus distance from the pupil at which the subject is `fromSensorMm` from the sensor: the larger root of
 * s + f s/(s − f) = D. Makers write the closest focus from the sensor. Nearer than four focal lengths a thin lens reaches
 * no such distance (a real one shortens its focal length): life size, s = 2f, stands for it.
 */
export function focusFromSensor(f: number, fromSensorMm: number): number {
  const root = fromSensorMm * fromSensorMm - 4 * f * fromSensorMm;
  return root <= 0 ? 2 * f : (fromSensorMm + Math.sqrt(root)) / 2;
}
