/**
 * Where the features of a head lie. Head coordinates in mm: origin midway between the corneas, +x to the person's own left,
 * +y up, +z out of the face. Adult means, scaled by the interpupillary distance.
 */
import type { Vector } from '../maths/vector';

/** Mean adult interpupillary distance, mm (Dodgson, Variation and extrema of human interpupillary distance, 2004). */
export const adultInterpupillaryMm = 63;

/** Interpupillary distance, mm. Adult: Dodgson 2004 (63; children down to 40). Child, baby and dog: from memory. */
export const interpupillaryOf = { adult: adultInterpupillaryMm, child: 53, baby: 42, pet: 60 } as const;

type Being = keyof typeof interpupillaryOf;

export type EyeFeature = 'leftEye' | 'rightEye';

export type HeadFeature = EyeFeature | 'noseTip' | 'lashes' | 'hairline' | 'chin' | 'leftEar' | 'rightEar';

/**
 * Adult features, mm. The eyes' spacing is Dodgson's; the nose tip about 30 mm before the cornea plane and the ears
 * about 95 mm behind it, hairline, chin and lashes: from memory of anthropometric surveys.
 */
export const adultFeatures: Readonly<Record<HeadFeature, Vector>> = {
  leftEye: { x: 31.5, y: 0, z: 0 },
  rightEye: { x: -31.5, y: 0, z: 0 },
  noseTip: { x: 0, y: -42, z: 30 },
  lashes: { x: 0, y: 5, z: 9 },
  hairline: { x: 0, y: 70, z: -18 },
  chin: { x: 0, y: -112, z: 4 },
  leftEar: { x: 73, y: -12, z: -95 },
  rightEar: { x: -73, y: -12, z: -95 }
};

/** Adult head outline about the same origin, mm, for drawing (from memory). */
export const adultHead = { crownY: 113, chinY: -118, halfWidth: 76, backZ: -170 } as const;

/** Eye height over stature, standing (from memory: 0.936). */
const eyeHeightShare = 0.936;

/** Eye height of a seated person over the seat, as a share of stature, plus a seat 450 mm high (from memory). */
const seatedEyeShare = 0.455;
const seatHeightMm = 450;

/** Turned further than this from the lens, the far eye hides behind the nose, degrees (from memory). */
export const farEyeHiddenDeg = 70;

/** Turned further than this from the lens, the near eye is lost too, degrees (from memory). */
export const nearEyeHiddenDeg = 115;

/** Head scale against an adult of mean size. */
export function headScale(interpupillaryMm: number): number {
  return interpupillaryMm / adultInterpupillaryMm;
}

/** Height of the eyes above the ground they stand or sit on, mm. A pet's stature is its eye height. */
export function eyeHeight(
  statureMm: number,
  posture: 'standing' | 'seated' | 'embracing',
  being: Being = 'adult'
): number {
  if (being === 'pet') return statureMm;
  return posture === 'seated' ? seatHeightMm + statureMm * seatedEyeShare : statureMm * eyeHeightShare;
}
