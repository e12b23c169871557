/** Pieces the schemas of kit, setups and jobs share. Lengths end in Mm, angles in Deg. */
import { z } from 'zod';

/** Bounds that keep a typing slip from becoming a picture; all generous. */
export const limits = {
  maxPeople: 200,
  maxThings: 50,
  maxBackgrounds: 50,
  maxSetups: 300,
  /** As many as 300 setups of 200 can name. */
  maxJobPeople: 60_000,
  maxJobPlaces: 300,
  maxBodies: 100,
  maxOwnFigures: 500,
  maxLenses: 200,
  maxAdapters: 50,
  maxMountLength: 40,
  maxMountsOfBody: 60,
  /** Adapters and converters between one lens and one body. */
  maxBetween: 2,
  maxDistanceMm: 2_000_000,
  maxNameLength: 80,
  maxNotesLength: 4000
} as const;

/** Refuses markup and control characters in a line of text. */
const markupOrControl = /[<>\p{Cc}]/u;

export const text = (max: number) =>
  z
    .string()
    .max(max, `must be at most ${max} characters`)
    .refine((value) => !markupOrControl.test(value.replaceAll('\n', '')), 'must not contain markup (< or >)');

export const line = (max: number) => text(max).refine((value) => !value.includes('\n'), 'must be one line');

export const name = line(limits.maxNameLength).refine((value) => value.trim().length > 0, 'must not be empty');

export const id = z.string().regex(/^[A-Za-z0-9][A-Za-z0-9-]{0,63}$/, 'must be letters, digits and hyphens');

export const numberBetween = (min: number, max: number) =>
  z.number().min(min, `must be at least ${min}`).max(max, `must be at most ${max}`);

export const wholeBetween = (min: number, max: number) =>
  z.int().min(min, `must be at least ${min}`).max(max, `must be at most ${max}`);

export const signedDistance = numberBetween(-limits.maxDistanceMm, limits.maxDistanceMm);
export const angleDeg = numberBetween(-180, 180);
export const fNumber = numberBetween(0.5, 128);

const ids = (items: readonly { readonly id: string }[]) => items.map((item) => item.id);

export const uniqueIds = (...lists: readonly (readonly { readonly id: string }[])[]) => {
  const all = lists.flatMap(ids);
  return new Set(all).size === all.length;
};

/** The least and the most a number's schema allows. */
export function boundsOf(schema: z.ZodNumber): { readonly min: number; readonly max: number } {
  return { min: schema.minValue ?? -Infinity, max: schema.maxValue ?? Infinity };
}
