/**
 * Version 2 of what was stored, frozen: it says what version 2 was, whatever the schema of today has become. Nothing here
 * imports anything of today's.
 */
import { z } from 'zod';

/** Bounds that keep a typing slip from becoming a picture; all generous. */
const limits = {
  maxPeople: 200,
  maxThings: 50,
  maxBackgrounds: 50,
  maxSetups: 300,
  maxDistanceMm: 2_000_000,
  maxNameLength: 80,
  maxNotesLength: 4000
} as const;

/** Refuses markup and control characters in a line of text. */
const markupOrControl = /[<>\p{Cc}]/u;

const text = (max: number) =>
  z
    .string()
    .max(max, `must be at most ${max} characters`)
    .refine((value) => !markupOrControl.test(value.replaceAll('\n', '')), 'must not contain markup (< or >)');

const name = text(limits.maxNameLength)
  .refine((value) => value.trim().length > 0, 'must not be empty')
  .refine((value) => !value.includes('\n'), 'must be one line');

const id = z.string().regex(/^[A-Za-z0-9][A-Za-z0-9-]{0,63}$/, 'must be letters, digits and hyphens');

const between = (min: number, max: number) =>
  z.number().min(min, `must be at least ${min}`).max(max, `must be at most ${max}`);

const signedDistance = between(-limits.maxDistanceMm, limits.maxDistanceMm);
const angleDeg = between(-180, 180);
const fNumber = between(0.5, 128);

const sensorSchema = z.strictObject({
  widthMm: between(1, 120),
  heightMm: between(1, 120),
  pixelsWide: z.int().min(100, 'must be at least 100').max(100_000, 'must be at most 100000')
});

/** Where a body can focus: a grid of points over the middle of the frame. */
const focusGridSchema = z.strictObject({
  columns: z.int().min(1, 'must be at least 1').max(99, 'must be at most 99'),
  rows: z.int().min(1, 'must be at least 1').max(99, 'must be at most 99'),
  widthShare: between(0.01, 1),
  heightShare: between(0.01, 1)
});

export const bodySchema = z.strictObject({
  id,
  name,
  kind: z.enum(['mirrorless', 'slr', 'phone']),
  sensor: sensorSchema,
  focusGrid: focusGridSchema,
  stabiliserStops: between(0, 10),
  baseIso: between(6, 6400),
  isoLimit: between(50, 1_000_000),
  fastestShutterS: between(1e-6, 1),
  syncS: between(1e-4, 1)
});

export const lensSchema = z.strictObject({
  id,
  name,
  shortestMm: between(1, 2000),
  longestMm: between(1, 2000),
  widestFNumber: fNumber,
  smallestFNumber: fNumber,
  closestFocusMm: between(10, 20_000),
  blades: z.int().min(3, 'must be at least 3').max(30, 'must be at most 30'),
  character: z.enum(['crisp', 'ordinary', 'weakWideOpen']),
  measured: z
    .array(z.strictObject({ fNumber, lpPerMm: between(1, 500) }))
    .max(40, 'must be at most 40 entries')
    .optional()
});

const framings = ['headAndShoulders', 'halfLength', 'threeQuarter', 'fullLength'] as const;

const placementSchema = z.discriminatedUnion('kind', [
  z.strictObject({
    kind: z.literal('distance'),
    distanceMm: between(50, limits.maxDistanceMm)
  }),
  z.strictObject({ kind: z.literal('framing'), framing: z.enum(framings) }),
  z.strictObject({
    kind: z.literal('group'),
    framing: z.enum(framings),
    marginShare: between(0, 0.4)
  }),
  z.strictObject({ kind: z.literal('framedHeight'), heightMm: between(20, 200_000) })
]);

const cameraSchema = z.strictObject({
  bodyId: id,
  lensId: id,
  focalLengthMm: between(1, 2000),
  orientation: z.enum(['landscape', 'portrait']),
  placement: placementSchema,
  lateralMm: signedDistance,
  heightMm: between(0, 100_000),
  yawDeg: between(-80, 80),
  pitchDeg: between(-80, 80),
  focusSurface: z.enum(['flat', 'curved']),
  stance: z.enum(['standing', 'braced', 'kneeling', 'monopod', 'tripod']),
  focusMethod: z.enum(['crossPoint', 'ordinaryPoint', 'magnifier', 'byEye']),
  focusMode: z.enum(['single', 'continuous']),
  recompose: z.enum(['none', 'wrists', 'shoulders', 'waist']),
  secondsToShutter: between(0, 60),
  stitch: z
    .strictObject({
      columns: z.int().min(1, 'must be at least 1').max(20, 'must be at most 20'),
      rows: z.int().min(1, 'must be at least 1').max(20, 'must be at most 20'),
      overlap: between(0.05, 0.9)
    })
    .nullable()
});

const importances = ['must', 'should', 'maySoft'] as const;
const importance = z.enum(importances);

const sharpSets = ['nearEye', 'bothEyes', 'eyesToNose', 'wholeHead'] as const;

/** How somebody is drawn; nothing of it enters the computation. */
const lookSchema = z.strictObject({
  outfit: z.enum(['suit', 'dress', 'shirt', 'coat', 'uniform']),
  outfitColour: z.enum(['ivory', 'black', 'grey', 'navy', 'blue', 'green', 'red', 'sand']),
  hair: z.enum(['short', 'long', 'bun', 'curls', 'bald']),
  hairColour: z.enum(['black', 'brown', 'red', 'fair', 'grey', 'white']),
  skin: z.int().min(1, 'must be at least 1').max(6, 'must be at most 6'),
  glasses: z.boolean(),
  seat: z.enum(['chair', 'wheelchair'])
});

export const personSchema = z.strictObject({
  id,
  name,
  depthMm: signedDistance,
  lateralMm: signedDistance,
  floorMm: between(-100_000, 100_000),
  statureMm: between(100, 2500),
  being: z.enum(['adult', 'child', 'baby', 'pet']),
  posture: z.enum(['standing', 'seated', 'embracing']),
  headYawDeg: angleDeg,
  bodyYawDeg: angleDeg,
  headPitchDeg: between(-80, 80),
  muzzleMm: between(0, 500),
  towardsMmPerS: between(-20_000, 20_000),
  acrossMmPerS: between(0, 20_000),
  sharp: z.enum(sharpSets),
  importance,
  look: lookSchema
});

const forms = ['box', 'rings', 'bouquet', 'tuba'] as const;

export const thingSchema = z.strictObject({
  id,
  name,
  depthMm: signedDistance,
  lateralMm: signedDistance,
  heightMm: between(0, 100_000),
  widthMm: between(0, 100_000),
  tallMm: between(0, 100_000),
  deepMm: between(0, 100_000),
  importance,
  form: z.enum(forms)
});

const wishes = ['hide', 'hint', 'keep', 'free'] as const;

const surfaces = [
  'plain',
  'foliage',
  'trunks',
  'arch',
  'columns',
  'panes',
  'brick',
  'lettering',
  'lights',
  'candles',
  'people',
  'horizon'
] as const;

export const backgroundSchema = z.strictObject({
  id,
  name,
  depthMm: signedDistance,
  lateralMm: signedDistance,
  detailMm: between(0.1, 100_000),
  wish: z.enum(wishes),
  surface: z.enum(surfaces)
});

const viewingSchema = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('traditional') }),
  z.strictObject({
    kind: z.literal('seen'),
    longEdgeMm: between(20, 20_000),
    distanceMm: between(50, 100_000),
    acuity: z.enum(['traditional', 'arcMinute'])
  }),
  z.strictObject({ kind: z.literal('pixels'), pixels: between(0.5, 50) })
]);

const styles = ['openAsFacesAllow', 'lensBest', 'deepAndSafe'] as const;

const targetSchema = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('best') }),
  z.strictObject({ kind: z.literal('eye'), personId: id, eye: z.enum(['leftEye', 'rightEye']) }),
  z.strictObject({ kind: z.literal('thing'), thingId: id }),
  z.strictObject({ kind: z.literal('distance'), distanceMm: between(50, limits.maxDistanceMm) })
]);

const pictures = ['onePerson', 'couple', 'group', 'personAndThing', 'moving', 'pet'] as const;

export const intentSchema = z.strictObject({
  picture: z.enum(pictures),
  viewing: viewingSchema,
  style: z.enum(styles),
  oddsWanted: between(0.05, 0.999),
  stop: z.discriminatedUnion('kind', [
    z.strictObject({ kind: z.literal('byStyle') }),
    z.strictObject({ kind: z.literal('chosen'), fNumber })
  ]),
  target: targetSchema,
  frames: z.enum(['one', 'two'])
});

const shutterS = between(1e-6, 60);

const lightScenes = [
  'sun',
  'overcast',
  'openShade',
  'windowLight',
  'brightRoom',
  'livingRoom',
  'church',
  'stringBulbs',
  'candles'
] as const;

const lightSchema = z.strictObject({
  scene: z.discriminatedUnion('kind', [
    z.strictObject({ kind: z.literal('unknown') }),
    z.strictObject({ kind: z.literal('estimated'), as: z.enum(lightScenes) }),
    z.strictObject({ kind: z.literal('ev'), ev100: between(-10, 20) }),
    z.strictObject({ kind: z.literal('metered'), fNumber, shutterS, iso: between(6, 1_000_000) })
  ]),
  filterStops: between(0, 20),
  flash: z
    .strictObject({
      guideNumberM: between(1, 500),
      distanceMm: between(50, limits.maxDistanceMm)
    })
    .nullable(),
  floors: z.strictObject({
    perFocalLength: z.union([z.literal(1), z.literal(2)]),
    groupS: shutterS,
    childS: shutterS,
    movingS: shutterS
  })
});

const sceneries = ['plain', 'palmHouse', 'bandstand'] as const;

export const placeSchema = z.strictObject({
  scenery: z.enum(sceneries),
  backUpMm: between(50, limits.maxDistanceMm).nullable(),
  behindMm: between(0, limits.maxDistanceMm).nullable(),
  sideMm: between(0, limits.maxDistanceMm).nullable()
});

const uniqueIds = <T extends { readonly id: string }>(items: readonly T[]) =>
  new Set(items.map((item) => item.id)).size === items.length;

export const setupSchema = z.strictObject({
  id,
  name,
  notes: text(limits.maxNotesLength),
  camera: cameraSchema,
  place: placeSchema,
  light: lightSchema,
  people: z
    .array(personSchema)
    .max(limits.maxPeople, `must be at most ${limits.maxPeople} people`)
    .refine(uniqueIds, 'two people share an id'),
  things: z
    .array(thingSchema)
    .max(limits.maxThings, `must be at most ${limits.maxThings} things`)
    .refine(uniqueIds, 'two things share an id'),
  backgrounds: z
    .array(backgroundSchema)
    .max(limits.maxBackgrounds, `must be at most ${limits.maxBackgrounds} backgrounds`)
    .refine(uniqueIds, 'two backgrounds share an id'),
  intent: intentSchema
});

export const jobSchema = z.strictObject({
  id,
  name,
  date: z.iso.date().nullable(),
  notes: text(limits.maxNotesLength),
  stopStep: z.enum(['full', 'half', 'third'])
});

export const kitSchema = z.strictObject({
  bodies: z.array(bodySchema).max(100, 'must be at most 100 bodies').refine(uniqueIds, 'two bodies share an id'),
  lenses: z
    .array(lensSchema.refine((lens) => lens.shortestMm <= lens.longestMm, 'shortestMm must not exceed longestMm'))
    .max(200, 'must be at most 200 lenses')
    .refine(uniqueIds, 'two lenses share an id')
});

export const jobFileSchema = z.strictObject({
  format: z.literal('focalis-job'),
  version: z.literal(2),
  job: jobSchema,
  kit: kitSchema,
  setups: z
    .array(setupSchema)
    .max(limits.maxSetups, `must be at most ${limits.maxSetups} setups`)
    .refine(uniqueIds, 'two setups share an id')
});

export type Setup = z.infer<typeof setupSchema>;
export type Person = z.infer<typeof personSchema>;
export type Body = z.infer<typeof bodySchema>;
export type JobFile = z.infer<typeof jobFileSchema>;
