/** What is kept of drills: what is ticked, and what came of each time. */
import { z } from 'zod';
import { id, name } from '../schema/values';
import { drillIds } from './kinds/ids';
import { stances } from '../setup/schema';
import { judgeModes } from './desk/judgeModes';
import { learnedSchema } from './series/learned';

const figure = z.number().min(-1e9).max(1e9);

/** One time a drill was done. */
export const drillResultSchema = z.strictObject({
  kind: z.literal('result'),
  id,
  madeAt: z.number().describe('ms since 1970'),
  simulated: z.boolean().describe('By the simulated camera'),
  drill: z.enum(drillIds),
  bodyId: id,
  body: name,
  lensId: id,
  lens: name,
  focalLengthMm: z.number().positive().max(1e4),
  stance: z.enum(stances).nullable().default(null).describe('How one stood, where that was measured'),
  asked: z.enum(judgeModes).nullable().default(null).describe('What was asked where one judges by eye'),
  /** What progress is read by: mm off (diagonal), share from theory (stop ladder), mm leaned (edges), mm swayed in a second (sway), s held (steady), share kept (mode), blur over what is allowed (judge), stops (guess). */
  figure: figure.nullable(),
  low: figure.nullable(),
  high: figure.nullable(),
  learned: z.array(learnedSchema).max(4).default([]).describe("What it says of one's own hands"),
  steps: z
    .array(z.strictObject({ step: z.string().max(60), file: z.string().max(255).nullable(), mm: figure.nullable() }))
    .max(400)
});
export type DrillResult = z.infer<typeof drillResultSchema>;

/** Which steps are ticked. */
export const drillTicksSchema = z.strictObject({
  kind: z.literal('ticks'),
  id,
  ticked: z.array(z.string().max(60)).max(400)
});

export const drillRowSchema = z.discriminatedUnion('kind', [drillResultSchema, drillTicksSchema]);
export type DrillRow = z.infer<typeof drillRowSchema>;
