/** One measured frame in the photographer's record: what was planned, how it was shot, what was measured, and what became of it. */
import { z } from 'zod';
import { id } from '../schema/values';
import { reasons } from '../frames/schema';
import { focusMethods } from '../habits/habits';
import { focusAreas } from '../setup/schema';

const text = z.string().max(400);
const um = z.number().min(-1e5).max(1e5);
const least = z.number().min(0).max(1e6);

/** Where the plane fell on the sensor, against where it was put; positive behind, µm. */
const partSchema = z.strictObject({ q: um, tau: least, share: z.number().min(0).max(1) });

/** Where somebody stood against the plan, the plane being where it is likeliest; null where that cannot be told. */
const placedSchema = z.strictObject({
  mm: z.number().min(-1e7).max(1e7).describe('Further away than planned, mm'),
  otherMm: z
    .number()
    .min(-1e7)
    .max(1e7)
    .nullable()
    .describe('The same on the other side of the plane, where that is open'),
  sdMm: least,
  scale: z.number().positive().max(1e3).describe('What mood and time make of their sway after one second'),
  usualMm: z.number().positive().max(1000).describe('That sway, as the habits have it for them, mm')
});

/** How fast somebody who was to keep still moved across; null where the shutter time is not known. */
const movementSchema = z.strictObject({
  mmPerS: z.number().positive().max(1e6).nullable().describe('Null where no movement was to be seen'),
  leastMmPerS: z.number().positive().max(1e9).describe('Slower would not have shown')
});

export const recordedSchema = z.strictObject({
  id: id.describe("The frame's"),
  jobId: id,
  setupId: id,
  setup: text,
  file: text,
  takenMs: z.number().nullable().describe("By the body's clock, as if it were UTC, ms since 1970"),
  simulated: z.boolean().describe('Shot by the simulated camera'),
  complete: z
    .boolean()
    .describe('It came with all the frames of its setup: only then it may say how the plane scatters'),
  bodyId: id,
  body: text,
  lensId: id,
  lens: text,
  focalLengthMm: z.number().positive(),
  fNumber: z.number().positive(),
  method: z.enum(focusMethods),
  recomposed: z.boolean(),
  mode: z.enum(['single', 'continuous', 'automatic']),
  area: z.enum(focusAreas),
  stance: z.enum(['standing', 'braced', 'kneeling', 'monopod', 'tripod']),
  secondsToShutter: z.number().min(0).max(60),
  distanceMm: z.number().positive().describe('From the lens to where the plane was put'),
  odds: z.number().min(0).max(1).nullable().describe('As planned for its stop; null where nothing was'),
  usualUm: least.describe('Spread of the focus as the habits have it, µm'),
  swayUm: least.describe('What the planned sway alone scatters, µm'),
  frontUm: um.describe('How far the plane may err before the nearest that must be sharp is not …'),
  behindUm: um.describe('… and behind, before the furthest is not, µm'),
  focusing: id.nullable().describe('Frames that share it were focused once; null for a focusing of its own'),
  error: z.array(partSchema).min(1).max(4).nullable().describe('Null where the frame says nothing of its plane'),
  landedElsewhere: z
    .boolean()
    .describe('Focus took somebody or something else, or whoever it was on moved: no error of the lens'),
  sharp: z.enum(['all', 'some', 'unknown']).describe('Whether everybody who must be was sharp; who blinks is left out'),
  people: z
    .array(
      z.strictObject({
        id,
        name: text,
        sharp: z.boolean().nullable().describe('Null where it could not be told, and for closed eyes'),
        placed: placedSchema.nullable().default(null),
        movement: movementSchema.nullable().default(null)
      })
    )
    .max(200),
  choice: z.enum(['keep', 'maybe', 'reject']).nullable(),
  reason: z.enum(reasons).nullable()
});

export type Recorded = z.infer<typeof recordedSchema>;
