/**
 * The data a photographer types. Lengths end in Mm, angles in Deg.
 *
 * The scene hangs on the **subject line**: depth 0, where the camera's distance is measured to. People, things and
 * backgrounds lie `depthMm` behind it (negative: in front of it) and `lateralMm` to the picture's right, so that stepping
 * back changes one number. Heights are over the floor.
 */
import { z } from 'zod';
import { focusMethods } from '../habits/habits';
import { pointSizes } from '../kit/schema';
import { notTaken, scheduleSchema, takenSchema, usualSchedule } from './schedule';
import { surfaces } from './backgroundKinds';
import { shapeNames } from './shapes';
import { hairColours, hairstyles, headwears, outfitColours, outfits, seats, skinTones } from '../people/appearance';
import {
  angleDeg,
  numberBetween,
  fNumber,
  id,
  limits,
  line,
  name,
  signedDistance,
  text,
  uniqueIds,
  wholeBetween
} from '../schema/values';

export const framings = ['headAndShoulders', 'halfLength', 'threeQuarter', 'fullLength'] as const;

export const placementSchema = z.discriminatedUnion('kind', [
  z.strictObject({
    kind: z.literal('distance'),
    distanceMm: numberBetween(50, limits.maxDistanceMm).describe('Lens to subject line')
  }),
  z.strictObject({ kind: z.literal('framing'), framing: z.enum(framings) }),
  z.strictObject({
    kind: z.literal('group'),
    framing: z.enum(framings).describe('How far down each person is shown'),
    marginShare: numberBetween(0, 0.4).describe('Space left on every side, as a share of the picture')
  }),
  z.strictObject({ kind: z.literal('framedHeight'), heightMm: numberBetween(20, 200_000) })
]);

export const focusAreas = ['point', 'neighbours', 'zone', 'wholeFrame', 'tracking', 'eyeDetection', 'tap'] as const;
/** What is left to the camera's meter: time and ISO, ISO alone, nothing. */
export const exposureModes = ['aperturePriority', 'manualAutoIso', 'manual'] as const;
export const meterings = ['whole', 'centre', 'spot', 'point'] as const;

export const stances = ['standing', 'braced', 'kneeling', 'monopod', 'tripod'] as const;

export const cameraSchema = z.strictObject({
  bodyId: id,
  lensId: id,
  focalLengthMm: numberBetween(1, 2000).describe('As the body sees it: with whatever is between lens and body'),
  adapterIds: z
    .array(id)
    .max(limits.maxBetween, `must be at most ${limits.maxBetween} between lens and body`)
    .default([])
    .describe('What is between lens and body, from the lens on'),
  cropMode: name.nullable().default(null).describe("One of the body's crop modes; null for the whole sensor"),
  orientation: z.enum(['landscape', 'portrait']),
  placement: placementSchema,
  lateralMm: signedDistance,
  heightMm: numberBetween(0, 100_000).describe('Lens above the floor'),
  yawDeg: numberBetween(-80, 80).describe('Turned to the right'),
  pitchDeg: numberBetween(-80, 80).describe('Tilted up'),
  focusSurface: z.enum(['flat', 'curved', 'measured']).describe('measured: as the lens was; flat where it was not'),
  stance: z.enum(stances),
  focusMethod: z
    .enum(focusMethods)
    .describe('Autofocus by its points, or by hand: magnified, by eye, or by the distance scale'),
  focusArea: z
    .enum(focusAreas)
    .default('point')
    .describe('Where autofocus looks: one point, it with its neighbours, a zone, the whole frame, an eye it finds, …'),
  pointSize: z.enum(pointSizes).default('small').describe('Size the focus point is set to'),
  fineGrid: z.boolean().default(false).describe("Move the point on the body's finer grid, where it has one"),
  focusMode: z
    .enum(['single', 'continuous', 'automatic'])
    .describe('automatic: the body switches to continuous when it sees something move'),
  trigger: z.enum(['halfPress', 'thumb']).default('halfPress').describe('The button that focuses'),
  drive: z.enum(['one', 'burst']).default('one').describe('Frames for each press'),
  exposureMode: z
    .enum(exposureModes)
    .default('aperturePriority')
    .describe('aperturePriority: with Auto ISO and a slowest time; manualAutoIso: time by hand; manual: all by hand'),
  metering: z
    .enum(meterings)
    .default('whole')
    .describe('whole: the frame; centre: its middle; spot: a spot in the middle; point: a spot on the focus point'),
  recompose: z
    .enum(['none', 'wrists', 'shoulders', 'waist', 'leaning'])
    .describe(
      'Focus with the centre point, then turn about this, or move the whole body; none moves the point instead'
    ),
  secondsToShutter: numberBetween(0, 60).describe('Between focusing and releasing'),
  stitch: z
    .strictObject({
      columns: wholeBetween(1, 20),
      rows: wholeBetween(1, 20),
      overlap: numberBetween(0.05, 0.9).describe('Share of a frame the next one repeats')
    })
    .nullable()
    .describe('Frames stitched into one wide view; null for one frame')
});

export const importances = ['must', 'should', 'maySoft'] as const;
const importance = z.enum(importances);

export const moods = ['still', 'restless', 'lively'] as const;

export const sharpSets = ['nearEye', 'bothEyes', 'eyesToNose', 'wholeHead'] as const;

/** How somebody looks: drawn so, and what autofocus and the exposure meter see. */
export const lookSchema = z.strictObject({
  outfit: z.enum(outfits),
  outfitColour: z.enum(outfitColours),
  hair: z.enum(hairstyles),
  hairColour: z.enum(hairColours),
  skin: wholeBetween(1, skinTones),
  glasses: z.boolean(),
  headwear: z.enum(headwears).default('none').describe('A brim over the brow, or a veil before the face'),
  seat: z.enum(seats)
});

/** What belongs to somebody wherever they stand. */
export const personTraits = {
  name,
  role: line(limits.maxNameLength).describe('What they are at this job: "bride", "trombone"; may be empty'),
  statureMm: numberBetween(100, 2500).describe('Height from sole to crown; for a pet its eyes above what it stands on'),
  being: z.enum(['adult', 'child', 'baby', 'pet']),
  muzzleMm: numberBetween(0, 500).describe('Pets: nose tip before the eyes'),
  swayMm: numberBetween(0, 1000).nullable().describe('Own sway along the axis where it is known; null as usual'),
  look: lookSchema
};

/** How somebody stands in one setup. */
export const personStance = {
  depthMm: signedDistance.describe('Midpoint of the eyes behind the subject line'),
  lateralMm: signedDistance,
  floorMm: numberBetween(-100_000, 100_000).describe('Step or riser under the feet or the seat'),
  posture: z.enum(['standing', 'seated', 'embracing']),
  headYawDeg: angleDeg.describe("0 faces the camera's side; positive turns the nose to the picture's right"),
  bodyYawDeg: angleDeg.describe('The shoulders, counted like the head'),
  headPitchDeg: numberBetween(-80, 80).describe('Looks up'),
  towardsMmPerS: numberBetween(-20_000, 20_000).describe('Speed towards the camera'),
  acrossMmPerS: numberBetween(0, 20_000).describe('Speed across the picture'),
  mood: z.enum(moods).default('still').describe('still: posed; restless: talks or fidgets; lively: plays or dances'),
  sharp: z.enum(sharpSets),
  importance
};

export const personSchema = z.strictObject({ id, ...personTraits, ...personStance });

export const forms = ['box', 'rings', 'bouquet', 'tuba'] as const;

export const thingSchema = z.strictObject({
  id,
  name,
  depthMm: signedDistance.describe('Middle of the thing behind the subject line'),
  lateralMm: signedDistance,
  heightMm: numberBetween(0, 100_000).describe('Middle of the thing above the floor'),
  widthMm: numberBetween(0, 100_000),
  tallMm: numberBetween(0, 100_000),
  deepMm: numberBetween(0, 100_000),
  importance,
  held: z.boolean().default(true).describe('In a hand, and sways with it'),
  form: z.enum(forms).describe('How it is drawn')
});

export const wishes = ['soft', 'hide', 'hint', 'keep', 'free'] as const;

export const backgroundSchema = z.strictObject({
  id,
  name,
  depthMm: signedDistance.describe('Behind the subject line; negative is foreground'),
  lateralMm: signedDistance,
  detailMm: numberBetween(0.1, 100_000).describe('Size of the detail that decides whether it is recognised'),
  wish: z.enum(wishes),
  surface: z.enum(surfaces).describe('How it is drawn')
});

export const viewingSchema = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('close') }),
  z.strictObject({ kind: z.literal('traditional') }),
  z.strictObject({
    kind: z.literal('seen'),
    longEdgeMm: numberBetween(20, 20_000),
    distanceMm: numberBetween(50, 100_000),
    acuity: z.enum(['traditional', 'arcMinute'])
  }),
  z.strictObject({ kind: z.literal('pixels'), pixels: numberBetween(0.5, 50) })
]);

export const apertureStyles = ['openAsFacesAllow', 'lensBest', 'deepAndSafe'] as const;

export const targetSchema = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('best') }),
  z.strictObject({ kind: z.literal('eye'), personId: id, eye: z.enum(['leftEye', 'rightEye']) }),
  z.strictObject({ kind: z.literal('thing'), thingId: id }),
  z.strictObject({ kind: z.literal('distance'), distanceMm: numberBetween(50, limits.maxDistanceMm) })
]);

export const setupKinds = ['onePerson', 'couple', 'group', 'personAndThing', 'moving', 'pet'] as const;

export const intentSchema = z.strictObject({
  picture: z.enum(setupKinds).describe('What is photographed; the defaults follow from it'),
  viewing: viewingSchema,
  style: z.enum(apertureStyles),
  oddsWanted: numberBetween(0.05, 0.999),
  stop: z.discriminatedUnion('kind', [
    z.strictObject({ kind: z.literal('byStyle') }),
    z.strictObject({ kind: z.literal('chosen'), fNumber })
  ]),
  target: targetSchema,
  shapes: z
    .array(z.enum(shapeNames))
    .refine((shapes) => new Set(shapes).size === shapes.length, 'has a shape twice')
    .default([])
    .describe('Shapes it is ordered in; the tightest decides how sharp it must be'),
  frames: z.enum(['one', 'two']).describe('two: one focused nearer, one further, combined afterwards')
});

const shutterS = numberBetween(1e-6, 60);

export const knownLights = [
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
  level: z.discriminatedUnion('kind', [
    z.strictObject({ kind: z.literal('unknown') }),
    z.strictObject({ kind: z.literal('estimated'), as: z.enum(knownLights) }),
    z.strictObject({ kind: z.literal('ev'), ev100: numberBetween(-10, 20) }),
    z.strictObject({ kind: z.literal('metered'), fNumber, shutterS, iso: numberBetween(6, 1_000_000) })
  ]),
  from: z
    .enum(['front', 'side', 'behind'])
    .default('front')
    .describe('Where the light comes from, as the camera sees it'),
  filterStops: numberBetween(0, 20).describe('Neutral filter on the lens'),
  flash: z
    .strictObject({
      guideNumberM: numberBetween(1, 500).describe('Guide number at ISO 100 and full power, metres'),
      distanceMm: numberBetween(50, limits.maxDistanceMm).describe('Flash to subject'),
      leastPower: numberBetween(1 / 4096, 1)
        .default(1 / 128)
        .describe('Least share of full power it can be set to'),
      use: z
        .enum(['main', 'keepRoom', 'fill'])
        .default('main')
        .describe('main: the flash lights; keepRoom: the same with the room kept visible; fill: it lifts shadows only'),
      underStops: numberBetween(0, 6)
        .default(1.5)
        .describe('keepRoom: stops the room lies under the flash; fill: stops the flash lies under the light')
    })
    .nullable(),
  floors: z
    .strictObject({
      perFocalLength: z.union([z.literal(1), z.literal(2)]).describe('1: 1/focal length, 2: 1/(2 × focal length)'),
      peopleS: shutterS.default(1 / 60).describe('Anybody, however the camera is held'),
      restlessS: shutterS.default(1 / 125).describe('Somebody who talks or fidgets'),
      groupS: shutterS,
      childS: shutterS.describe('A child or a pet that does not keep still'),
      movingS: shutterS,
      livelyS: shutterS.default(1 / 500).describe('Somebody who plays or dances'),
      stabiliserCounts: z.boolean().default(true).describe('Whether a stabiliser lengthens the time by focal length')
    })
    .describe('Longest shutter times; the strictest that applies is used'),
  shutterS: shutterS.nullable().default(null).describe('Shutter time set by hand; null as the rules say')
});

export const sceneries = ['plain', 'palmHouse', 'bandstand'] as const;

/** Room round the picture. */
export const roomSchema = z.strictObject({
  backUpMm: numberBetween(50, limits.maxDistanceMm)
    .nullable()
    .describe('Furthest the lens can stand from the subject line; null when nothing is in the way'),
  behindMm: numberBetween(0, limits.maxDistanceMm)
    .nullable()
    .describe('Room behind the furthest person to move back; null when nothing is in the way'),
  sideMm: numberBetween(0, limits.maxDistanceMm)
    .nullable()
    .describe('Room to either side of the camera; null when nothing is in the way')
});

export const scenerySchema = z.enum(sceneries).describe('What is drawn round the picture');

export const placeSchema = z.strictObject({ scenery: scenerySchema, ...roomSchema.shape });

/** Lists of what stands in a picture, each refused when too long or with an id twice. */
export const listOf = <T extends z.ZodType<{ readonly id: string }>>(item: T, max: number, noun: string) =>
  z
    .array(item)
    .max(max, `must be at most ${max} ${noun}`)
    .refine((items) => uniqueIds(items), `two ${noun} share an id`);

export const thingsSchema = listOf(thingSchema, limits.maxThings, 'things');
export const backgroundsSchema = listOf(backgroundSchema, limits.maxBackgrounds, 'backgrounds');
export const notesSchema = text(limits.maxNotesLength);
export const tickedSchema = z
  .array(line(limits.maxNameLength * 2))
  .max(60)
  .default([])
  .describe('Checks that are done');

/** When it is taken and what became of it. */
export const dayFields = {
  schedule: scheduleSchema.default(usualSchedule),
  taken: takenSchema.default(notTaken)
};

/** Subjects are told apart by id alone, people and things alike. */
const subjectsApart = {
  path: ['things'],
  message: 'a person and a thing share an id'
};

export const setupSchema = z
  .strictObject({
    id,
    name,
    notes: notesSchema,
    camera: cameraSchema,
    place: placeSchema,
    light: lightSchema,
    people: listOf(personSchema, limits.maxPeople, 'people'),
    things: thingsSchema,
    backgrounds: backgroundsSchema,
    intent: intentSchema,
    ticked: tickedSchema,
    ...dayFields
  })
  .refine((setup) => uniqueIds(setup.people, setup.things), subjectsApart);

export type Framing = (typeof framings)[number];
export type Camera = z.infer<typeof cameraSchema>;
export type FocusArea = (typeof focusAreas)[number];
export type ExposureMode = (typeof exposureModes)[number];
export type Metering = (typeof meterings)[number];
export type Person = z.infer<typeof personSchema>;
export type Thing = z.infer<typeof thingSchema>;
export type Background = z.infer<typeof backgroundSchema>;
export type Form = (typeof forms)[number];
export type Scenery = (typeof sceneries)[number];
export type Wish = (typeof wishes)[number];
export type Importance = (typeof importances)[number];
export type Mood = (typeof moods)[number];
export type SharpSet = (typeof sharpSets)[number];
export type ApertureStyle = (typeof apertureStyles)[number];
export type Light = z.infer<typeof lightSchema>;
export type KnownLight = (typeof knownLights)[number];
export type SetupKind = (typeof setupKinds)[number];
export type Intent = z.infer<typeof intentSchema>;
export type Setup = z.infer<typeof setupSchema>;
