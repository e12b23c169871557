/**
 * The data a photographer types. Lengths end in Mm, angles in Deg.
 *
 * The scene hangs on the **subject line**: depth 0, where the camera's distance is measured to. People, things and
 * backgrounds lie `depthMm` behind it (negative: in front of it) and `lateralMm` to the picture's right, so that stepping
 * back changes one number. Heights are over the floor.
 */
import { z } from 'zod';
import { hairColours, hairstyles, outfitColours, outfits, seats, skinTones } from '../people/looks';

/** Bounds that keep a typing slip from becoming a picture; all generous. */
export const limits = {
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

export const sensorSchema = z.strictObject({
  widthMm: between(1, 120).describe('Long edge of the sensor'),
  heightMm: between(1, 120).describe('Short edge of the sensor'),
  pixelsWide: z.int().min(100, 'must be at least 100').max(100_000, 'must be at most 100000')
});

/** Where a body can focus: a grid of points over the middle of the frame. */
export const focusGridSchema = z.strictObject({
  columns: z.int().min(1, 'must be at least 1').max(99, 'must be at most 99'),
  rows: z.int().min(1, 'must be at least 1').max(99, 'must be at most 99'),
  widthShare: between(0.01, 1).describe('Share of the long edge from the first column to the last'),
  heightShare: between(0.01, 1).describe('Share of the short edge from the first row to the last')
});

export const bodySchema = z.strictObject({
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
});

export const lensSchema = z.strictObject({
  id,
  name,
  shortestMm: between(1, 2000),
  longestMm: between(1, 2000),
  widestFNumber: fNumber.describe('Nominal mark of the widest opening'),
  smallestFNumber: fNumber.describe('Nominal mark of the smallest opening'),
  closestFocusMm: between(10, 20_000),
  blades: z.int().min(3, 'must be at least 3').max(30, 'must be at most 30'),
  character: z.enum(['crisp', 'ordinary', 'weakWideOpen']),
  measured: z
    .array(z.strictObject({ fNumber, lpPerMm: between(1, 500) }))
    .max(40, 'must be at most 40 entries')
    .optional()
    .describe('Measured MTF50 by f-number, ascending')
});

export const framings = ['headAndShoulders', 'halfLength', 'threeQuarter', 'fullLength'] as const;

export const placementSchema = z.discriminatedUnion('kind', [
  z.strictObject({
    kind: z.literal('distance'),
    distanceMm: between(50, limits.maxDistanceMm).describe('Lens to subject line')
  }),
  z.strictObject({ kind: z.literal('framing'), framing: z.enum(framings) }),
  z.strictObject({
    kind: z.literal('group'),
    framing: z.enum(framings).describe('How far down each person is shown'),
    marginShare: between(0, 0.4).describe('Space left on every side, as a share of the picture')
  }),
  z.strictObject({ kind: z.literal('framedHeight'), heightMm: between(20, 200_000) })
]);

export const cameraSchema = z.strictObject({
  bodyId: id,
  lensId: id,
  focalLengthMm: between(1, 2000),
  orientation: z.enum(['landscape', 'portrait']),
  placement: placementSchema,
  lateralMm: signedDistance,
  heightMm: between(0, 100_000).describe('Lens above the floor'),
  yawDeg: between(-80, 80).describe('Turned to the right'),
  pitchDeg: between(-80, 80).describe('Tilted up'),
  focusSurface: z.enum(['flat', 'curved']),
  stance: z.enum(['standing', 'braced', 'kneeling', 'monopod', 'tripod']),
  focusMethod: z.enum(['crossPoint', 'ordinaryPoint', 'magnifier', 'byEye']),
  focusMode: z.enum(['single', 'continuous']),
  recompose: z
    .enum(['none', 'wrists', 'shoulders', 'waist'])
    .describe('Focus with the centre point, then turn about this; none moves the point instead'),
  secondsToShutter: between(0, 60).describe('Between focusing and releasing'),
  stitch: z
    .strictObject({
      columns: z.int().min(1, 'must be at least 1').max(20, 'must be at most 20'),
      rows: z.int().min(1, 'must be at least 1').max(20, 'must be at most 20'),
      overlap: between(0.05, 0.9).describe('Share of a frame the next one repeats')
    })
    .nullable()
    .describe('Frames stitched into one wide view; null for one frame')
});

export const importances = ['must', 'should', 'maySoft'] as const;
const importance = z.enum(importances);

export const sharpSets = ['nearEye', 'bothEyes', 'eyesToNose', 'wholeHead'] as const;

/** How somebody is drawn; nothing of it enters the computation. */
export const lookSchema = z.strictObject({
  outfit: z.enum(outfits),
  outfitColour: z.enum(outfitColours),
  hair: z.enum(hairstyles),
  hairColour: z.enum(hairColours),
  skin: z.int().min(1, 'must be at least 1').max(skinTones, `must be at most ${skinTones}`),
  glasses: z.boolean(),
  seat: z.enum(seats)
});

export const personSchema = z.strictObject({
  id,
  name,
  depthMm: signedDistance.describe('Midpoint of the eyes behind the subject line'),
  lateralMm: signedDistance,
  floorMm: between(-100_000, 100_000).describe('Step or riser under the feet or the seat'),
  statureMm: between(100, 2500).describe('Height from sole to crown; for a pet its eyes above what it stands on'),
  being: z.enum(['adult', 'child', 'baby', 'pet']),
  posture: z.enum(['standing', 'seated', 'embracing']),
  headYawDeg: angleDeg.describe("0 faces the camera's side; positive turns the nose to the picture's right"),
  bodyYawDeg: angleDeg.describe('The shoulders, counted like the head'),
  headPitchDeg: between(-80, 80).describe('Looks up'),
  muzzleMm: between(0, 500).describe('Pets: nose tip before the eyes'),
  towardsMmPerS: between(-20_000, 20_000).describe('Speed towards the camera'),
  acrossMmPerS: between(0, 20_000).describe('Speed across the picture'),
  sharp: z.enum(sharpSets),
  importance,
  look: lookSchema
});

export const forms = ['box', 'rings', 'bouquet', 'tuba'] as const;

export const thingSchema = z.strictObject({
  id,
  name,
  depthMm: signedDistance.describe('Middle of the thing behind the subject line'),
  lateralMm: signedDistance,
  heightMm: between(0, 100_000).describe('Middle of the thing above the floor'),
  widthMm: between(0, 100_000),
  tallMm: between(0, 100_000),
  deepMm: between(0, 100_000),
  importance,
  form: z.enum(forms).describe('How it is drawn')
});

export const wishes = ['hide', 'hint', 'keep', 'free'] as const;

export const surfaces = [
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
  depthMm: signedDistance.describe('Behind the subject line; negative is foreground'),
  lateralMm: signedDistance,
  detailMm: between(0.1, 100_000).describe('Size of the detail that decides whether it is recognised'),
  wish: z.enum(wishes),
  surface: z.enum(surfaces).describe('How it is drawn')
});

export const viewingSchema = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('traditional') }),
  z.strictObject({
    kind: z.literal('seen'),
    longEdgeMm: between(20, 20_000),
    distanceMm: between(50, 100_000),
    acuity: z.enum(['traditional', 'arcMinute'])
  }),
  z.strictObject({ kind: z.literal('pixels'), pixels: between(0.5, 50) })
]);

export const styles = ['openAsFacesAllow', 'lensBest', 'deepAndSafe'] as const;

export const targetSchema = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('best') }),
  z.strictObject({ kind: z.literal('eye'), personId: id, eye: z.enum(['leftEye', 'rightEye']) }),
  z.strictObject({ kind: z.literal('thing'), thingId: id }),
  z.strictObject({ kind: z.literal('distance'), distanceMm: between(50, limits.maxDistanceMm) })
]);

export const pictures = ['onePerson', 'couple', 'group', 'personAndThing', 'moving', 'pet'] as const;

export const intentSchema = z.strictObject({
  picture: z.enum(pictures).describe('What is photographed; the defaults follow from it'),
  viewing: viewingSchema,
  style: z.enum(styles),
  oddsWanted: between(0.05, 0.999),
  stop: z.discriminatedUnion('kind', [
    z.strictObject({ kind: z.literal('byStyle') }),
    z.strictObject({ kind: z.literal('chosen'), fNumber })
  ]),
  target: targetSchema,
  frames: z.enum(['one', 'two']).describe('two: one focused nearer, one further, combined afterwards')
});

const shutterS = between(1e-6, 60);

export const lightScenes = [
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

export const lightSchema = z.strictObject({
  scene: z.discriminatedUnion('kind', [
    z.strictObject({ kind: z.literal('unknown') }),
    z.strictObject({ kind: z.literal('estimated'), as: z.enum(lightScenes) }),
    z.strictObject({ kind: z.literal('ev'), ev100: between(-10, 20) }),
    z.strictObject({ kind: z.literal('metered'), fNumber, shutterS, iso: between(6, 1_000_000) })
  ]),
  filterStops: between(0, 20).describe('Neutral filter on the lens'),
  flash: z
    .strictObject({
      guideNumberM: between(1, 500).describe('Guide number at ISO 100 and full power, metres'),
      distanceMm: between(50, limits.maxDistanceMm).describe('Flash to subject')
    })
    .nullable(),
  floors: z
    .strictObject({
      perFocalLength: z.union([z.literal(1), z.literal(2)]).describe('1: 1/focal length, 2: 1/(2 × focal length)'),
      groupS: shutterS,
      childS: shutterS,
      movingS: shutterS
    })
    .describe('Longest shutter times; the strictest that applies is used')
});

export const sceneries = ['plain', 'palmHouse', 'bandstand'] as const;

export const placeSchema = z.strictObject({
  scenery: z.enum(sceneries).describe('What is drawn round the picture'),
  backUpMm: between(50, limits.maxDistanceMm)
    .nullable()
    .describe('Furthest the lens can stand from the subject line; null when nothing is in the way'),
  behindMm: between(0, limits.maxDistanceMm)
    .nullable()
    .describe('Room behind the furthest person to move back; null when nothing is in the way'),
  sideMm: between(0, limits.maxDistanceMm)
    .nullable()
    .describe('Room to either side of the camera; null when nothing is in the way')
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
  stopStep: z.enum(['full', 'half', 'third']).describe("The user's steps of the aperture ring")
});

export const kitSchema = z.strictObject({
  bodies: z.array(bodySchema).max(100, 'must be at most 100 bodies').refine(uniqueIds, 'two bodies share an id'),
  lenses: z
    .array(lensSchema.refine((lens) => lens.shortestMm <= lens.longestMm, 'shortestMm must not exceed longestMm'))
    .max(200, 'must be at most 200 lenses')
    .refine(uniqueIds, 'two lenses share an id')
});

export type Sensor = z.infer<typeof sensorSchema>;
export type Body = z.infer<typeof bodySchema>;
export type Lens = z.infer<typeof lensSchema>;
export type Kit = z.infer<typeof kitSchema>;
export type Framing = (typeof framings)[number];
export type Camera = z.infer<typeof cameraSchema>;
export type Person = z.infer<typeof personSchema>;
export type Thing = z.infer<typeof thingSchema>;
export type Background = z.infer<typeof backgroundSchema>;
export type Surface = (typeof surfaces)[number];
export type Form = (typeof forms)[number];
export type Scenery = (typeof sceneries)[number];
export type FocusGrid = z.infer<typeof focusGridSchema>;
export type Wish = (typeof wishes)[number];
export type Importance = (typeof importances)[number];
export type SharpSet = (typeof sharpSets)[number];
export type Style = (typeof styles)[number];
export type Light = z.infer<typeof lightSchema>;
export type LightScene = (typeof lightScenes)[number];
export type Picture = (typeof pictures)[number];
export type Intent = z.infer<typeof intentSchema>;
export type Setup = z.infer<typeof setupSchema>;
export type Job = z.infer<typeof jobSchema>;
