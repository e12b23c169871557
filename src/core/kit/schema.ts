/** Cameras and lenses. */
import { z } from 'zod';
import { between, fNumber, id, limits, name, uniqueIds, wholeBetween } from '../schema/values';

export const sensorSchema = z
  .strictObject({
    widthMm: between(1, 120).describe('Long edge of the sensor'),
    heightMm: between(1, 120).describe('Short edge of the sensor'),
    pixelsWide: wholeBetween(100, 100_000)
  })
  .refine((sensor) => sensor.heightMm <= sensor.widthMm, {
    path: ['heightMm'],
    message: 'must not exceed widthMm, the long edge'
  });

/** Where a body can focus: a grid of points over the middle of the frame. */
export const focusGridSchema = z.strictObject({
  columns: wholeBetween(1, 99),
  rows: wholeBetween(1, 99),
  widthShare: between(0.01, 1).describe('Share of the long edge from the first column to the last'),
  heightShare: between(0.01, 1).describe('Share of the short edge from the first row to the last')
});

export const bodySchema = z
  .strictObject({
    id,
    name,
    kind: z.enum(['mirrorless', 'slr', 'phone']),
    sensor: sensorSchema,
    focusGrid: focusGridSchema,
    stabiliserStops: between(0, 10),
    baseIso: between(6, 6400),
    isoLimit: between(50, 1_000_000).describe('Highest ISO the photographer accepts'),
    fastestShutterS: between(1e-6, 1),
    syncS: between(1e-4, 1).describe('Shortest shutter time with flash')
  })
  .refine((body) => body.baseIso <= body.isoLimit, { path: ['isoLimit'], message: 'must not be under baseIso' })
  .refine((body) => body.fastestShutterS <= body.syncS, {
    path: ['syncS'],
    message: 'must not be shorter than fastestShutterS'
  });

export const lensSchema = z
  .strictObject({
    id,
    name,
    shortestMm: between(1, 2000),
    longestMm: between(1, 2000),
    widestFNumber: fNumber.describe('Nominal mark of the widest opening'),
    smallestFNumber: fNumber.describe('Nominal mark of the smallest opening'),
    closestFocusMm: between(10, 20_000),
    blades: wholeBetween(3, 30),
    character: z.enum(['crisp', 'ordinary', 'weakWideOpen']),
    measured: z
      .array(z.strictObject({ fNumber, lpPerMm: between(1, 500) }))
      .max(40, 'must be at most 40 entries')
      .refine(
        (entries) => entries.every((entry, index) => index === 0 || entry.fNumber > (entries[index - 1]?.fNumber ?? 0)),
        'must ascend by f-number, none twice'
      )
      .optional()
      .describe('Measured MTF50 by f-number, ascending')
  })
  .refine((lens) => lens.shortestMm <= lens.longestMm, {
    path: ['longestMm'],
    message: 'must not be under shortestMm'
  })
  .refine((lens) => lens.widestFNumber <= lens.smallestFNumber, {
    path: ['smallestFNumber'],
    message: 'must not be under widestFNumber'
  });

export const kitSchema = z.strictObject({
  bodies: z
    .array(bodySchema)
    .max(limits.maxBodies, `must be at most ${limits.maxBodies} bodies`)
    .refine((items) => uniqueIds(items), 'two bodies share an id'),
  lenses: z
    .array(lensSchema)
    .max(limits.maxLenses, `must be at most ${limits.maxLenses} lenses`)
    .refine((items) => uniqueIds(items), 'two lenses share an id')
});

export type Sensor = z.infer<typeof sensorSchema>;
export type FocusGrid = z.infer<typeof focusGridSchema>;
export type Body = z.infer<typeof bodySchema>;
export type Lens = z.infer<typeof lensSchema>;
export type Kit = z.infer<typeof kitSchema>;
