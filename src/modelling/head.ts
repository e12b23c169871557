/**
 * A head like a calm clay sculpture, in head coordinates of core/people/anatomy.ts: origin midway between the corneas, +x
 * to its own left, +y up, +z out of the face, mm. Corneas, nose tip, chin, ears, hairline and crown lie where the core
 * says they do; the rest is modelled by eye.
 */
import { adultFeatures, adultHead, adultInterpupillaryMm } from '../core/people/anatomy';
import { materials } from '../render/scene/meshFile';
import type { Solid } from './polygonise';
import {
  blend,
  capsule,
  carve,
  ellipsoid,
  mirroredField,
  smoothStep,
  sphere,
  union,
  type DistanceField,
  type Point3
} from './sdf';

const eyeX = adultInterpupillaryMm / 2;
const nose = adultFeatures.noseTip;
const chin = adultFeatures.chin;
const ear = adultFeatures.leftEar;

export const eyeballRadius = 12;

/** Half the opening between the lids above and below the pupil's axis, at x mm from the eye's middle. */
export function lidCurve(x: number): { upper: number; lower: number } {
  // The outer corner lies a little higher than the inner one.
  const t = Math.max(0, 1 - (x / 14.5) ** 2);
  const tilt = x * 0.07;
  return { upper: 3.8 * t ** 0.72 + tilt, lower: -4.3 * t ** 0.85 + tilt };
}

/** The lids: a shell round the eyeball, open where the eye looks out. */
function lids(): DistanceField {
  const shell = sphere([eyeX, 0, -eyeballRadius], eyeballRadius + 1.5);
  return (x, y, z) => {
    const { upper, lower } = lidCurve(x - eyeX);
    const open = Math.max(y - upper, lower - y);
    const d = shell(x, y, z);
    if (z < -eyeballRadius) return d;
    return Math.max(d, -open);
  };
}

/** Everything of one side, mirrored. */
function sides(): DistanceField {
  return mirroredField(
    blend(
      16,
      capsule([eyeX * 1.15, 19, -8], [8, 17, -3], 7.5, 6),
      ellipsoid([37, -34, -27], [25, 24, 23]),
      capsule([52, -42, -70], [33, -92, -42], 20, 18)
    )
  );
}

function ears(): DistanceField {
  const shell = ellipsoid([ear.x - 2, ear.y + 4, ear.z + 4], [9, 30, 17]);
  const hollow = ellipsoid([ear.x + 6, ear.y + 5, ear.z + 10], [7, 19, 10]);
  const lobe = ellipsoid([ear.x - 4, ear.y - 22, ear.z + 10], [6, 10, 8]);
  return mirroredField(blend(5, carve(4, shell, hollow), lobe));
}

function noseField(): DistanceField {
  const tip = 11;
  const wings = mirroredField(ellipsoid([11.5, nose.y - 3, 11], [6.5, 6.5, 9]));
  const nostrils = mirroredField(ellipsoid([6.5, nose.y - 10, 15], [3.2, 3.5, 5]));
  const bridge = capsule([0, 10, -5], [0, nose.y + 8, nose.z - 16], 7.5, 9);
  return carve(2, blend(7, bridge, sphere([0, nose.y, nose.z - tip], tip), wings), nostrils);
}

/** How far out a surface lies at (x, y), seen from the front. */
export function outermostZ(field: DistanceField, x: number, y: number): number {
  let z = 45;
  for (let i = 0; i < 400 && field(x, y, z) > 0.02; i++) z -= Math.max(0.05, field(x, y, z) * 0.8);
  return z;
}

/** A calm mouth on a face: two lips that stand out a little, and the line between them. */
function mouth(face: DistanceField): { lips: DistanceField; line: DistanceField } {
  const on = (x: number, y: number, out: number): Point3 => [x, y, outermostZ(face, x, y) + out];
  const upper = mirroredField(
    blend(
      2,
      capsule(on(1.5, -70.6, -1.6), on(12, -71.8, -1.7), 4.4, 3.6),
      capsule(on(12, -71.8, -1.7), on(23, -75.6, -1.4), 3.6, 1.6)
    )
  );
  const lower = mirroredField(
    blend(
      2,
      capsule(on(0, -81.4, -1.6), on(10, -80.6, -1.7), 5.4, 4.6),
      capsule(on(10, -80.6, -1.7), on(20.5, -77.4, -1.2), 4.6, 1.8)
    )
  );
  const line = mirroredField(capsule(on(0, -75.6, 2.6), on(25, -76.3, 0.3), 1.5, 1.1));
  return { lips: blend(2, upper, lower), line };
}

export function headField(): DistanceField {
  const crown = ellipsoid([0, adultHead.crownY - 84, -86], [adultHead.halfWidth - 1, 84, 86]);
  const face = ellipsoid([0, -30, -54], [60, 84, 57]);
  const jaw = ellipsoid([0, -72, -46], [50, 38, 46]);
  const muzzle = ellipsoid([0, -74, -21], [27, 27, 24]);
  const chinBall = ellipsoid([0, chin.y + 9, chin.z - 14], [15, 12, 14]);
  const neck = capsule([0, -85, -88], [0, -215, -98], 50, 55);
  const bones = blend(26, crown, face, jaw, muzzle);
  const formed = blend(8, blend(20, bones, sides()), noseField());
  const chinned = blend(16, formed, chinBall);
  const necked = blend(30, chinned, neck);
  const sockets = mirroredField(ellipsoid([eyeX + 1, 1, 3], [19, 13, 11]));
  const socketed = carve(13, necked, sockets);
  const lidded = blend(4, socketed, mirroredField(lids()));
  const { lips, line } = mouth(lidded);
  const mouthed = carve(2, blend(4, lidded, lips), line);
  const philtrum = ellipsoid([0, -61, 14], [3.2, 9, 3]);
  // The eyeballs have room of their own.
  const balls = mirroredField((x: number, y: number, z: number) => {
    const { upper, lower } = lidCurve(x - eyeX);
    const d = sphere([eyeX, 0, -eyeballRadius], eyeballRadius + 0.35)(x, y, z);
    const open = Math.max(y - upper, lower - y);
    return z > -eyeballRadius ? Math.max(d, open - 0.4) : 4;
  });
  return union(carve(0.8, carve(4, mouthed, philtrum), balls), ears());
}

export function head(): Solid {
  return { field: headField(), from: [-90, -215, -190], to: [90, 125, 40], material: () => materials.skin };
}

/** The part of the face about the eyes, for looking at them from near. */
export function eyeRegion(): Solid {
  return { field: headField(), from: [-66, -36, -34], to: [66, 38, 40], material: () => materials.skin };
}

/** Skull with room for hair on it, thicker towards the crown. */
function cap(thickness: number): DistanceField {
  return ellipsoid([0, adultHead.crownY - 86, -88], [adultHead.halfWidth + thickness, 86 + thickness, 86 + thickness]);
}

/** Where the hair of the temple begins, mm behind the corneas: a recess above, and down before the ear. */
function templeLine(y: number): number {
  const recess = smoothStep(66, 30, y);
  const burn = smoothStep(34, 2, y);
  return adultFeatures.hairline.z - 14 - 16 * recess - 12 * burn;
}

/** In front of this the face is free of hair: the hairline of the core at the middle, the temples at the sides. */
function faceFree(x: number, y: number): number {
  const side = smoothStep(30, 62, Math.abs(x));
  const above = smoothStep(20, adultFeatures.hairline.y - 4, y);
  const middle = adultFeatures.hairline.z + 4 - (1 - above) * 60;
  const ragged = 1.6 * Math.sin(x * 0.9 + 0.4) + 1.1 * Math.sin(x * 2.3 + y * 0.2) + 1.2 * Math.sin(y * 0.55);
  return middle + (templeLine(y) - middle) * side + ragged;
}

/** How low cut hair reaches: before the ear, above it, and behind it down to the nape. */
function cutLine(burnY: number, aboveEarY: number, napeY: number): (x: number, z: number) => number {
  const ear = adultFeatures.leftEar.z;
  return (_, z) => {
    const front = burnY + (aboveEarY - burnY) * smoothStep(ear + 34, ear + 24, z);
    return front + (napeY - front) * smoothStep(ear - 6, ear - 20, z);
  };
}

/** Fine relief along the hair's own way, so that its outline and light are not those of a cap. */
const locks = (x: number, y: number, z: number, depth: number) =>
  depth *
  (Math.sin(x * 0.33 + Math.sin(y * 0.07) * 2) +
    0.6 * Math.sin(z * 0.41 + y * 0.11) +
    0.4 * Math.sin(x * 0.9 - z * 0.7));

function trimmed(base: DistanceField, lowest: (x: number, z: number) => number, relief: number): DistanceField {
  return (x, y, z) => {
    const d = base(x, y, z) + locks(x, y, z, relief);
    const face = z - faceFree(x, y);
    return Math.max(d, -smoothMinOf(-face, y - lowest(x, z), 10));
  };
}

/** Smooth "and": inside only where both are negative. */
function smoothMinOf(a: number, b: number, k: number): number {
  const h = Math.max(k - Math.abs(a - b), 0) / k;
  return Math.min(a, b) - h * h * k * 0.25;
}

export const hairSolids = {
  short: (): Solid => hairSolid(trimmed(cap(11), cutLine(-6, 20, -56), 0.9)),
  curls: (): Solid =>
    hairSolid((x, y, z) => {
      const curl = 5.5 * Math.sin(x * 0.23) * Math.sin(y * 0.25 + 1) * Math.sin(z * 0.22 + 2);
      return trimmed(cap(19), cutLine(-2, 16, -56), 0.8)(x, y, z) + curl;
    }),
  long: (): Solid =>
    hairSolid((x, y, z) => {
      const fall = blend(
        24,
        cap(9),
        mirroredField(capsule([64, 10, -88], [74, -190, -84], 22, 26)),
        capsule([0, 0, -150], [0, -200, -140], 44, 48)
      );
      const inside = ellipsoid([0, -60, -46], [64, 150, 72])(x, y, z);
      return Math.max(trimmed(fall, () => -230, 1.2)(x, y, z), -inside);
    }, -245),
  bun: (): Solid =>
    hairSolid(
      blend(
        6,
        trimmed(cap(10), cutLine(2, 8, -48), 1.2),
        (x, y, z) => sphere([0, 62, -176], 38)(x, y, z) + 1.4 * Math.sin(Math.atan2(y - 62, x) * 9 + z * 0.12)
      )
    )
} as const;

function hairSolid(field: DistanceField, lowest = -75): Solid {
  return { field, from: [-112, lowest, -226], to: [112, 146, 34], material: () => materials.hair };
}
