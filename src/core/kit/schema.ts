/** Cameras and lenses. */
import { z } from 'zod';
import { numberBetween, fNumber, id, limits, line, name, uniqueIds, wholeBetween } from '../schema/values';

export const sensorSchema = z
  .strictObject({
    widthMm: numberBetween(1, 120).describe('Long edge of the sensor'),
    heightMm: numberBetween(1, 120).describe('Short edge of the sensor'),
    pixelsWide: wholeBetween(100, 100_000)
  })
  .refine((sensor) => sensor.heightMm <= sensor.widthMm, {
    path: ['heightMm'],
    message: 'must not exceed widthMm, the long edge'
  });

/** A lens mount by its name; empty where nobody has said, and then it fits anything. */
const mount = line(limits.maxMountLength)
  .default('')
  .describe('Lens mount; empty when not said, and then it fits anything');

/** Kit that is no longer used stays for the setups that have it, and is not offered. */
const retired = z.boolean().default(false).describe('No longer offered; setups that have it keep it');

export const pointSizes = ['pinpoint', 'small', 'medium', 'large'] as const;
export const sensitivePoints = ['all', 'middleColumns', 'centre', 'none'] as const;

/** Where a body can focus: a grid of points over the middle of the frame. */
export const focusGridSchema = z.strictObject({
  columns: wholeBetween(1, 99),
  rows: wholeBetween(1, 99),
  widthShare: numberBetween(0.01, 1).describe('Share of the long edge from the first column to the last'),
  heightShare: numberBetween(0.01, 1).describe('Share of the short edge from the first row to the last'),
  fine: z
    .strictObject({ columns: wholeBetween(1, 99), rows: wholeBetween(1, 99) })
    .nullable()
    .default(null)
    .describe('A finer grid over the same area; null when there is none'),
  sensitive: z.enum(sensitivePoints).default('all').describe('Which points see lines in both directions'),
  sizes: z.array(z.enum(pointSizes)).max(pointSizes.length).default(['small']),
  anywhere: z
    .boolean()
    .default(false)
    .describe('The point can be put anywhere in the area, between the points of the grid too')
});

/** A smaller part of the sensor, as the body can be set to use. */
const cropModeSchema = z.strictObject({
  name,
  factor: numberBetween(1.01, 4).describe('Sensor edge over the edge of the part used')
});

export const bodySchema = z
  .strictObject({
    id,
    name,
    kind: z.enum(['mirrorless', 'slr', 'phone']),
    sensor: sensorSchema,
    focusGrid: focusGridSchema,
    mount,
    alsoTakes: z
      .array(line(limits.maxMountLength))
      .max(limits.maxMountsOfBody, `must be at most ${limits.maxMountsOfBody} mounts`)
      .default([])
      .describe('Other mounts whose lenses go on it directly'),
    cropModes: z
      .array(cropModeSchema)
      .max(4, 'must be at most 4 crop modes')
      .refine((modes) => new Set(modes.map((mode) => mode.name)).size === modes.length, 'two crop modes share a name')
      .default([]),
    focusSpreadUm: numberBetween(0.5, 200)
      .nullable()
      .default(null)
      .describe('Spread of autofocus behind the lens, µm; null for what the habits say'),
    focusLimitEv: numberBetween(-12, 12).default(-1).describe('Autofocus is rated down to this light, EV at ISO 100'),
    framesPerSecond: numberBetween(0.2, 240).default(8),
    releaseLagS: numberBetween(0, 2).default(0.06).describe('From pressing to the shutter opening'),
    stabiliserStops: numberBetween(0, 10),
    baseIso: numberBetween(6, 6400),
    isoLimit: numberBetween(50, 1_000_000).describe('Highest ISO the photographer accepts'),
    fastestShutterS: numberBetween(1e-6, 1),
    syncS: numberBetween(1e-4, 1).describe('Shortest shutter time with flash'),
    retired
  })
  .refine((body) => body.baseIso <= body.isoLimit, { path: ['isoLimit'], message: 'must not be under baseIso' })
  .refine((body) => body.fastestShutterS <= body.syncS, {
    path: ['syncS'],
    message: 'must not be shorter than fastestShutterS'
  });

const rims = ['soft', 'even', 'hard'] as const;
const weakEnds = ['none', 'short', 'long', 'both'] as const;

/** MTF50 of a lens by f-number. */
const sharpnessTable = z
  .array(z.strictObject({ fNumber, lpPerMm: numberBetween(1, 500) }))
  .max(40, 'must be at most 40 entries')
  .refine(
    (entries) => entries.every((entry, index) => index === 0 || entry.fNumber > (entries[index - 1]?.fNumber ?? 0)),
    'must ascend by f-number, none twice'
  )
  .optional();

export const lensSchema = z
  .strictObject({
    id,
    name,
    shortestMm: numberBetween(1, 2000),
    longestMm: numberBetween(1, 2000),
    widestFNumber: fNumber.describe('Nominal mark of the widest opening'),
    smallestFNumber: fNumber.describe('Nominal mark of the smallest opening'),
    widestAtLong: fNumber
      .nullable()
      .default(null)
      .describe('Widest opening at the longest focal length, where a zoom closes down; null for the same'),
    smallestAtLong: fNumber.nullable().default(null).describe('Smallest opening there; null for the same'),
    closestFocusMm: numberBetween(10, 20_000).describe('From the sensor, as makers write it'),
    mount,
    pupilMagnification: numberBetween(0.2, 5).default(1).describe('Exit pupil over entrance pupil'),
    weakEnds: z.enum(weakEnds).default('none').describe('Ends of a zoom that draw worse than the rest'),
    rim: z.enum(rims).default('even').describe('Edge of its blur disc: soft, even, or hard and bright'),
    stabiliserStops: numberBetween(0, 10).default(0),
    retired,
    blades: wholeBetween(3, 30),
    character: z.enum(['crisp', 'ordinary', 'weakWideOpen']),
    measured: sharpnessTable.describe('Measured MTF50 in the centre by f-number, ascending'),
    measuredCorner: sharpnessTable.describe('Likewise near the corners; without it the whole picture is as the centre'),
    fieldPerM: numberBetween(-20, 20)
      .optional()
      .describe(
        'How the surface of sharp focus bends, measured: vergence added by the squared tangent off the axis, 1/m; positive towards the lens'
      )
  })
  .refine((lens) => lens.shortestMm <= lens.longestMm, {
    path: ['longestMm'],
    message: 'must not be under shortestMm'
  })
  .refine((lens) => lens.widestFNumber <= lens.smallestFNumber, {
    path: ['smallestFNumber'],
    message: 'must not be under widestFNumber'
  })
  .refine((lens) => (lens.widestAtLong ?? lens.widestFNumber) <= (lens.smallestAtLong ?? lens.smallestFNumber), {
    path: ['smallestAtLong'],
    message: 'must not be under widestAtLong'
  });

/** What stands between a lens and a body: a ring that joins two mounts, a converter, a reducer. */
export const adapterSchema = z.strictObject({
  id,
  name,
  lensMount: mount,
  bodyMount: mount,
  factor: numberBetween(0.3, 4).default(1).describe('What it makes of the focal length'),
  stopsLost: numberBetween(-4, 4).default(0).describe('Stops the widest opening loses; a reducer gains'),
  retired
});

export const kitSchema = z.strictObject({
  bodies: z
    .array(bodySchema)
    .max(limits.maxBodies, `must be at most ${limits.maxBodies} bodies`)
    .refine((items) => uniqueIds(items), 'two bodies share an id'),
  lenses: z
    .array(lensSchema)
    .max(limits.maxLenses, `must be at most ${limits.maxLenses} lenses`)
    .refine((items) => uniqueIds(items), 'two lenses share an id'),
  adapters: z
    .array(adapterSchema)
    .max(limits.maxAdapters, `must be at most ${limits.maxAdapters} adapters`)
    .refine((items) => uniqueIds(items), 'two adapters share an id')
    .default([])
});

export type Sensor = z.infer<typeof sensorSchema>;
export type FocusGrid = z.infer<typeof focusGridSchema>;
export type Body = z.infer<typeof bodySchema>;
export type Lens = z.infer<typeof lensSchema>;
export type Adapter = z.infer<typeof adapterSchema>;
export type Kit = z.infer<typeof kitSchema>;
