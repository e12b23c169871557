/** How far away a face is, by the two rulers every face carries: the distance between its pupils, and the width of its irises. */
import { eyesPx } from '../frames/eyes';
import { radians } from '../maths/vector';

/** A place in the picture, pixels from its left and top. */
export interface Pixel {
  readonly x: number;
  readonly y: number;
}

/** A face as a photo shows it, the picture lying upright. */
export interface FaceSeen {
  readonly id: string;
  /** The irises, pixels; left is the person's own left. */
  readonly left: Pixel;
  readonly right: Pixel;
  /** Width of the visible iris, mean of both eyes, pixels; null where it could not be read. */
  readonly irisPx: number | null;
  /** Turn of the head from the line to the lens, degrees: positive to the picture's right; up. */
  readonly yawDeg: number;
  readonly pitchDeg: number;
}

/** How a photo shows the scene: a pinhole with its axis through the middle. */
export interface PhotoProjection {
  readonly widthPx: number;
  readonly heightPx: number;
  /** The focal length, in pixels of the picture. */
  readonly focalPx: number;
}

/**
 * Pupils of adults: mean 63.4, SD 3.8 mm (Dodgson, Variation and extrema of human interpupillary distance, 2004). Of children
 * of about eight: from memory. The visible iris hardly grows after the second year: 11.7, SD 0.42 mm (Rüfer, Schröder and Erb,
 * White-to-white corneal diameter, 2005).
 */
export const pupilsMm = { adult: { mean: 63.4, sd: 3.8 }, child: { mean: 54, sd: 3 } } as const;
export const irisMm = { mean: 11.7, sd: 0.42 } as const;

/**
 * How what the detector reads is off: each iris's place by so many pixels and a share of the eyes' distance; the iris's width,
 * which lids and a smile narrow, by a factor and a share. Held against 22 real faces of a package and the renderer's own
 * (docs/model.md): irises were read 7 % (drawn) to 20 % (real) too narrow, with a spread of a sixth.
 */
export const reading = { px: 0.8, share: 0.02, irisFactor: 0.87, irisShare: 0.16 } as const;
/** The turn of a head is read to about so much, degrees (from memory). */
export const turnSdDeg = 4;

/** One face in so many at a wedding is a child's, before anything is known (common practice, no source). */
export const childrenShare = 0.15;

/** Turned further than this the eyes are too close together to tell anything, degrees. */
export const mostTurnDeg = 55;
/** Eyes nearer to each other than this tell nothing, pixels. */
export const leastEyesPx = 10;

/** A distance with how sure it is. */
export interface Ranged {
  /** From the lens to the eyes in a straight line, mm: the median. */
  readonly mm: number;
  /** Standard deviation of its logarithm. */
  readonly sd: number;
  /** The chance that it is a child, 0 to 1. */
  readonly child: number;
}

/** The direction of a pixel: right, up, along the axis; of length 1. */
export function directionOf({ x, y }: Pixel, { widthPx, heightPx, focalPx }: PhotoProjection) {
  const right = (x - widthPx / 2) / focalPx;
  const up = (heightPx / 2 - y) / focalPx;
  const long = Math.hypot(right, up, 1);
  return { x: right / long, y: up / long, z: 1 / long };
}

/** The middle between the irises, pixels. */
export const eyesAt = ({ left, right }: Pick<FaceSeen, 'left' | 'right'>): Pixel => ({
  x: (left.x + right.x) / 2,
  y: (left.y + right.y) / 2
});

/** How much larger an angle about this pixel is drawn than in the middle: the frame is flat. */
const stretch = (at: Pixel, projection: PhotoProjection): number => 1 / directionOf(at, projection).z;

/**
 * The distance of a face.
 *
 * @param own the distance between this person's pupils where it is known, mm
 * @param children the chance that it is a child, before its eyes are looked at
 * @returns undefined where the eyes are too small in the picture, or the head is turned too far
 */
export function distanceOfFace(
  face: FaceSeen,
  projection: PhotoProjection,
  own: number | null = null,
  children = childrenShare
): Ranged | undefined {
  const { left, right, irisPx, yawDeg } = face;
  const apart = eyesPx(face);
  const turn = Math.abs(radians(yawDeg));
  if (!(apart >= leastEyesPx) || !(Math.abs(yawDeg) <= mostTurnDeg)) return undefined;
  const [a, b] = [directionOf(left, projection), directionOf(right, projection)];
  const chord = Math.hypot(a.x - b.x, a.y - b.y, a.z - b.z);
  // A chord of two unit vectors is as long as the eyes' distance, seen square on, over theirs from the lens.
  const pupils = Math.log(Math.cos(turn) / chord);
  const pupilsRead = Math.hypot(reading.px / apart, reading.share, Math.tan(turn) * radians(turnSdDeg));
  const at = eyesAt(face);
  const iris =
    irisPx === null || irisPx <= 0
      ? null
      : {
          log: Math.log((reading.irisFactor * irisMm.mean * projection.focalPx * stretch(at, projection)) / irisPx),
          sd: Math.hypot(irisMm.sd / irisMm.mean, reading.px / irisPx, reading.irisShare)
        };
  const under = (mean: number, sd: number, prior: number) => {
    const one = { log: Math.log(mean) + pupils, sd: Math.hypot(sd / mean, pupilsRead) };
    if (!iris) return { ...one, weight: prior };
    const differ = Math.hypot(one.sd, iris.sd);
    const [w1, w2] = [1 / (one.sd * one.sd), 1 / (iris.sd * iris.sd)];
    return {
      log: (one.log * w1 + iris.log * w2) / (w1 + w2),
      sd: 1 / Math.sqrt(w1 + w2),
      weight: (prior * Math.exp(-0.5 * ((one.log - iris.log) / differ) ** 2)) / differ
    };
  };
  if (own !== null) {
    const { log, sd } = under(own, 0.01 * own, 1);
    return { mm: Math.exp(log), sd, child: 0 };
  }
  return mixed(
    under(pupilsMm.adult.mean, pupilsMm.adult.sd, 1 - children),
    under(pupilsMm.child.mean, pupilsMm.child.sd, children)
  );
}

interface Component {
  readonly log: number;
  readonly sd: number;
  readonly weight: number;
}

/** Both possibilities together: their mean and spread. */
function mixed(adult: Component, child: Component): Ranged {
  const share = child.weight / (adult.weight + child.weight);
  const log = (1 - share) * adult.log + share * child.log;
  const variance =
    (1 - share) * (adult.sd ** 2 + (adult.log - log) ** 2) + share * (child.sd ** 2 + (child.log - log) ** 2);
  return { mm: Math.exp(log), sd: Math.sqrt(variance), child: share };
}
