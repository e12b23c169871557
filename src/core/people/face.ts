/**
 * The front of a head as ellipsoids in head coordinates (anatomy.ts), mm: enough to say what lies under a focus point and how
 * far before or behind the eye. Modelled round the landmarks from memory; held against the drawn head in a test.
 */
import type { Vector } from '../maths/vector';
import { adultInterpupillaryMm } from './anatomy';

export type FacePart =
  'eye' | 'brow' | 'nose' | 'mouth' | 'chin' | 'cheek' | 'hair' | 'forehead' | 'brim' | 'veil' | 'muzzle';

export interface FaceSolid {
  readonly part: FacePart;
  readonly at: Vector;
  readonly radii: Vector;
  /** What it takes of the light that comes through it, 0 to 1: less than 1 for a veil. */
  readonly cover: number;
}

const solid = (
  part: FacePart,
  at: readonly [number, number, number],
  radii: readonly [number, number, number],
  cover = 1
): FaceSolid => ({
  part,
  at: { x: at[0], y: at[1], z: at[2] },
  radii: { x: radii[0], y: radii[1], z: radii[2] },
  cover
});

const both = (
  part: FacePart,
  [x, y, z]: readonly [number, number, number],
  radii: readonly [number, number, number]
): FaceSolid[] => [solid(part, [x, y, z], radii), solid(part, [-x, y, z], radii)];

/** An eye's middle to the side of the head's, mm. */
const eyeX = adultInterpupillaryMm / 2;

const face: readonly FaceSolid[] = [
  solid('cheek', [0, -8, -78], [68, 108, 76]),
  solid('cheek', [0, 38, -60], [64, 47, 62]),
  solid('cheek', [0, -55, -42], [56, 56, 51]),
  solid('nose', [0, 0, -8], [8, 22, 17]),
  solid('hair', [0, 3, -92], [77, 111, 84]),
  ...both('eye', [eyeX, 0, -12], [12, 12, 12]),
  ...both('brow', [24, 18, -9], [24, 8, 13]),
  solid('nose', [0, -38, 0], [13, 30, 30]),
  solid('mouth', [0, -70, -6], [26, 13, 17]),
  solid('chin', [0, -103, -14], [26, 16, 18]),
  ...both('cheek', [37, -34, -25], [25, 24, 24])
];

/** A brim reaches 80 mm before the eyes; a veil hangs some 30 mm before the face and lets two thirds of it through (from memory). */
const brim: readonly FaceSolid[] = [
  solid('brim', [0, 62, -60], [130, 9, 140]),
  solid('hair', [0, 95, -78], [86, 60, 96])
];
const veil: readonly FaceSolid[] = [solid('veil', [0, -20, -72], [95, 150, 130], 1 / 3)];

/** Solids of somebody's head. `muzzle` is a pet's, in adult head coordinates. */
export function faceSolids(headwear: 'none' | 'hat' | 'veil', muzzle: number): readonly FaceSolid[] {
  const own =
    muzzle > 0 ? [...face, solid('muzzle', [0, -0.18 * muzzle - 12, muzzle / 2], [24, 24, muzzle / 2])] : face;
  return { none: own, hat: [...own, ...brim], veil: [...own, ...veil] }[headwear];
}

/** Half the width and height about an eye that belongs to it, with lids and lashes, mm (from memory). */
const eyeHalf = { x: 17, y: 10 } as const;

/** What a place on the head's surface is called, whichever solid it lies on. */
export function partAt(solidPart: FacePart, { x, y, z }: Vector): FacePart {
  if (solidPart === 'brim' || solidPart === 'veil' || solidPart === 'muzzle') return solidPart;
  const onEye = Math.abs(Math.abs(x) - eyeX) <= eyeHalf.x && Math.abs(y) <= eyeHalf.y && z > -25;
  if (onEye && solidPart !== 'nose') return 'eye';
  if (solidPart !== 'cheek') return solidPart;
  if (y > 62) return 'hair';
  return y > 26 ? 'forehead' : 'cheek';
}
