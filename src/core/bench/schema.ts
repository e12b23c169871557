/** What was measured at the Bench, as it is kept. */
import { z } from 'zod';
import { focusMethods } from '../habits/habits';
import { fNumber, id, name } from '../schema/values';

const mm = z.number().min(-1e6).max(1e6);
const positive = z.number().positive().max(1e9);

/** One frame of a focus test. */
export const focusShotSchema = z.strictObject({
  file: z.string().max(255),
  takenMs: z.number().nullable(),
  /** Where the lens had been turned to before. */
  from: z.enum(['near', 'far']),
  distanceMm: positive.describe('From the pupil to what was aimed at'),
  offsetMm: mm.describe('The plane behind what was aimed at; negative in front'),
  sdMm: positive,
  offsetUm: mm.describe('The same on the sensor'),
  sdUm: positive
});
export type FocusShot = z.infer<typeof focusShotSchema>;

const estimateSchema = z.strictObject({ value: mm, low: mm, high: mm });

/** Of which body and lens, and when. */
const tested = {
  id,
  madeAt: z.number().describe('ms since 1970'),
  simulated: z.boolean().describe('By the simulated camera'),
  bodyId: id,
  body: name,
  lensId: id,
  lens: name,
  focalLengthMm: positive
} as const;

export const focusTestSchema = z.strictObject({
  kind: z.literal('focus'),
  ...tested,
  method: z.enum(focusMethods),
  fNumber: positive,
  biasUm: estimateSchema,
  spreadUm: estimateSchema,
  shots: z.array(focusShotSchema).min(1).max(400)
});
export type FocusTest = z.infer<typeof focusTestSchema>;

export const zones = ['centre', 'middle', 'corner'] as const;
export type Zone = (typeof zones)[number];

const sharpnessSchema = z.strictObject({
  lpPerMm: positive.describe('MTF50, mean of all edges'),
  standing: positive.nullable().describe('Of edges that stand: across the picture'),
  lying: positive.nullable().describe('Of edges that lie: down the picture'),
  risePx: positive.describe('From a tenth to nine tenths of the step'),
  edges: z.number().int().positive(),
  sd: z.number().min(0).describe('Of the edges, lp/mm')
});
export type Sharpness = z.infer<typeof sharpnessSchema>;

export const stopTestSchema = z.strictObject({
  kind: z.literal('stops'),
  ...tested,
  pixelMm: positive,
  stops: z
    .array(
      z.strictObject({
        fNumber,
        frames: z.number().int().positive(),
        centre: sharpnessSchema.nullable(),
        middle: sharpnessSchema.nullable(),
        corner: sharpnessSchema.nullable(),
        overshoot: z.number().min(0).describe('The largest of its edges, as a share of the step')
      })
    )
    .min(1)
    .max(40)
});
export type StopTest = z.infer<typeof stopTestSchema>;

export const fieldTestSchema = z.strictObject({
  kind: z.literal('field'),
  ...tested,
  fNumber: positive,
  distanceMm: positive,
  by: z.enum(['moving', 'turning']),
  perM: estimateSchema.describe('Vergence added by the squared tangent off the axis, 1/m'),
  frames: z.number().int().positive()
});
export type FieldTest = z.infer<typeof fieldTestSchema>;

export const spotTestSchema = z.strictObject({
  kind: z.literal('spots'),
  ...tested,
  fNumber: positive,
  heightMm: positive.describe('Of the specks before the sensor'),
  spots: z
    .array(
      z.strictObject({
        x: z.number().min(0).max(1),
        y: z.number().min(0).max(1),
        speckMm: positive,
        showsFrom: positive
      })
    )
    .max(2000)
});
export type SpotTest = z.infer<typeof spotTestSchema>;

export const benchTestSchema = z.discriminatedUnion('kind', [
  focusTestSchema,
  stopTestSchema,
  fieldTestSchema,
  spotTestSchema
]);
export type BenchTest = z.infer<typeof benchTestSchema>;
