/** A picture that was taken, as Focalis keeps it: what it says, what was found and measured in it, and what became of it. */
import { z } from 'zod';
import { id } from '../schema/values';

const px = z.number().min(-1e6).max(1e6);
const point = z.strictObject({ x: px, y: px });
const box = z.strictObject({ x: px, y: px, width: px, height: px });
const text = z.string().max(400).nullable();
const positive = z.number().positive().nullable();

/** Why an eye was not measured. */
export const notToldReasons = ['small', 'noisy', 'notFull', 'noEdge', 'unlike', 'unseen'] as const;

export const eyeMeasuredSchema = z.discriminatedUnion('ok', [
  z.strictObject({
    ok: z.literal(true),
    discPx: z.number().min(0).max(1000).describe('Diameter of the disc of blur, pixels of the picture'),
    low: z.number().min(0).max(1000).describe('Nine of ten lie above this …'),
    high: z.number().min(0).max(1000).describe('… and below this'),
    smear: z
      .strictObject({
        px: z.number().min(0).max(1000).describe('Length of a movement while the shutter was open'),
        angle: z.number().min(-7).max(7).describe('Its direction, radians: 0 across, growing downwards'),
        gain: z.number().describe('How much better it explains the blur than a disc, as a logarithm of chances')
      })
      .nullable(),
    spectrum: z
      .string()
      .regex(/^[A-Za-z0-9+/=]{0,100}$/)
      .optional()
      .describe('Power by direction and frequency, packed (core/measure/own.ts): other frames are held against it'),
    own: z
      .strictObject({
        of: id.describe('Whose eye it was taken for'),
        frame: id.describe('The frame in which that eye is sharpest'),
        discPx: z.number().min(0).max(1000),
        low: z.number().min(0).max(1000),
        high: z.number().min(0).max(1000)
      })
      .optional()
      .describe(
        'The same against its sharpest frame: worked out, kept apart (data/ownEyes), merged where frames are read'
      )
  }),
  z.strictObject({ ok: z.literal(false), reason: z.enum(notToldReasons) })
]);

export const faceSchema = z.strictObject({
  id,
  personId: id.nullable().describe('Who it is, or which thing; null while nobody knows, or nobody of the setup'),
  box,
  left: point.describe("The person's own left iris, pixels from the picture's left and top"),
  right: point,
  yawDeg: z.number().min(-180).max(180),
  pitchDeg: z.number().min(-180).max(180),
  rollDeg: z.number().min(-180).max(180),
  lids: z
    .strictObject({ left: z.number().min(0).max(10), right: z.number().min(0).max(10) })
    .describe("Gap of the lids over the eye's width"),
  contrast: z
    .strictObject({ left: z.number().min(0), right: z.number().min(0) })
    .describe('How much there is to see where each iris should be: less under a closed lid'),
  score: z.number().min(0).max(1),
  byHand: z.boolean().describe('Somebody said who it is: matching leaves it alone'),
  pointed: z
    .enum(['eye', 'thing'])
    .optional()
    .describe('Somebody pointed at an eye no face was seen about, or at a thing: one point was measured, kept as left'),
  eyes: z.strictObject({ left: eyeMeasuredSchema, right: eyeMeasuredSchema })
});

/** Why a frame is not kept. */
export const reasons = ['softEye', 'blink', 'moved', 'framing', 'expression'] as const;

export const frameSchema = z.strictObject({
  id,
  setupId: id.nullable().describe('The setup it was taken of; null while nobody knows'),
  setupByHand: z.boolean(),
  complete: z
    .boolean()
    .nullable()
    .default(null)
    .describe(
      'Whether it came with all the frames taken of its setup, as somebody said; null: as the numbers of the files tell'
    ),
  file: z.strictObject({
    name: z.string().min(1).max(255),
    bytes: z.number().int().min(0),
    hash: z
      .string()
      .regex(/^[0-9a-f]{64}$/)
      .describe('SHA-256 of the file'),
    modifiedAt: z.number().nullable()
  }),
  widthPx: z.number().int().min(1),
  heightPx: z.number().int().min(1),
  preview: z.boolean().describe('A raw file: its preview was measured'),
  enlarged: z
    .boolean()
    .optional()
    .describe('It has more pixels than its camera gave it: other frames are not held against its eyes'),
  body: text.describe('Make and model as the file says'),
  serial: text,
  lens: text,
  focalLengthMm: positive,
  fNumber: positive,
  shutterS: positive,
  iso: positive,
  clockMs: z.number().nullable().describe("By the body's own clock, as if it were UTC, ms since 1970"),
  distanceMm: positive,
  rating: z.number().int().min(-1).max(5).nullable(),
  label: text,
  keywords: z.array(z.string().max(400)).max(200),
  orientation: z
    .enum(['mirrored', 'sideways'])
    .optional()
    .describe('How the picture lies, where its faces say that it was not taken so: nobody in it is named'),
  faces: z.array(faceSchema).max(200),
  sharpest: z
    .strictObject({
      x: z.number().min(0).max(1).describe('Shares of the width and the height'),
      y: z.number().min(0).max(1),
      discPx: z.number().min(0).max(1000),
      low: z.number().min(0).max(1000),
      high: z.number().min(0).max(1000)
    })
    .nullable()
    .optional()
    .describe('The place that is sharpest in the whole frame'),
  choice: z.enum(['keep', 'maybe', 'reject']).nullable(),
  reason: z.enum(reasons).nullable()
});

export type Frame = z.infer<typeof frameSchema>;
export type FrameFace = z.infer<typeof faceSchema>;
export type EyeFigure = z.infer<typeof eyeMeasuredSchema>;
export type OwnFigure = NonNullable<Extract<EyeFigure, { ok: true }>['own']>;
export type CullingChoice = NonNullable<Frame['choice']>;
export type Reason = (typeof reasons)[number];
