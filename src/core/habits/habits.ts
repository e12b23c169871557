/**
 * What the odds rest on beside the picture itself: how far focus lands from where it was meant to, how much hands and
 * people sway, how fast they move. Every default is from memory, with the range it may well lie in (docs/model.md); a
 * photographer's own measured figures replace them.
 */
import { z } from 'zod';
import { numberBetween, fNumber, id, limits } from '../schema/values';

const stanceFigures = (figure: z.ZodNumber) =>
  z.strictObject({ standing: figure, braced: figure, kneeling: figure, monopod: figure, tripod: figure });

const share = numberBetween(0, 10);
const sway = numberBetween(0, 1000);
const factor = numberBetween(1, 100);

/** Autofocus by a good or a lesser point; by hand magnified, by eye, or by the distance scale. */
export const focusMethods = ['crossPoint', 'ordinaryPoint', 'magnifier', 'byEye', 'scale'] as const;

/** What a body with a lens has been found to do, focused in one way: in place of the usual spread, and with a bias of its own. */
const ownFocusSchema = z.strictObject({
  bodyId: id,
  lensId: id,
  method: z.enum(focusMethods),
  recomposed: z.boolean().describe('Turned after focusing'),
  biasUm: numberBetween(-1000, 1000).describe('Where the plane falls on average, µm on the sensor; positive behind'),
  spreadUm: numberBetween(0.1, 1000),
  focalLengthMm: numberBetween(1, 2000)
    .nullable()
    .default(null)
    .describe('Measured at this end of a zoom; null for the whole lens'),
  stopShift: z
    .array(z.strictObject({ fNumber, um: numberBetween(-1000, 1000) }))
    .max(40, 'must be at most 40 entries')
    .default([])
    .describe('How stopping down moves the plane against the widest stop, µm on the sensor; ascending by f-number'),
  frames: numberBetween(0, 1e6).describe('Frames it rests on'),
  learnedAt: z.number().nullable().describe('ms since 1970')
});

export const habitsSchema = z.strictObject({
  own: z
    .array(ownFocusSchema)
    .max(limits.maxOwnFigures, `must be at most ${limits.maxOwnFigures} entries`)
    .default([])
    .describe('Measured by body, lens and way of focusing: each stands in place of what follows'),
  focusSpreadUm: z
    .strictObject({ crossPoint: numberBetween(0, 500), ordinaryPoint: numberBetween(0, 500) })
    .describe('Spread of autofocus behind the lens, µm, on full frame, where the body has none of its own'),
  focusShare: z
    .strictObject({ magnifier: share, magnifierOnTripod: share, byEye: share })
    .describe('Spread of focusing by hand as a share of the depth of focus wide open'),
  scaleShare: numberBetween(0.001, 0.5)
    .default(0.07)
    .describe('Spread of focusing by the distance scale, as a share of the distance'),
  continuousFactor: numberBetween(1, 5)
    .default(1.15)
    .describe('What continuous focusing makes of the spread on what keeps still'),
  automaticLagS: numberBetween(0, 2)
    .default(0.15)
    .describe('How far a body that switches to continuous by itself trails a movement'),
  reactionS: numberBetween(0.05, 1).default(0.22).describe('From seeing the moment to the button being down'),
  reactionSpreadS: numberBetween(0, 0.5).default(0.05).describe('Spread of that'),
  lowLightFromEv: numberBetween(-6, 12).describe('Autofocus begins to suffer under this light, EV at ISO 100'),
  lowLightFactor: numberBetween(1, 20).describe(
    'What the spread has grown to at the least light the body is rated for'
  ),
  holdMm: stanceFigures(sway).describe('Fore-and-aft sway of the photographer after one second, by stance'),
  swayGrowsForS: numberBetween(0, 60).describe('Sway stops growing after so many seconds'),
  swayMm: z
    .strictObject({ standing: sway, seated: sway, embracing: sway, child: sway, pet: sway, heldThing: sway })
    .describe('Sway along the axis after one second, of people who keep still and no one has measured'),
  restlessFactor: factor.describe('What talking or fidgeting makes of that sway'),
  livelyFactor: factor.describe('What playing or dancing makes of it'),
  shakeShare: stanceFigures(numberBetween(0, 5)).describe(
    'Camera shake at 1/focal length (full-frame equivalent), as a share of the customary disc'
  ),
  shakeAtMost: numberBetween(0.05, 1).describe(
    'Share of the circle of confusion that shake or movement may take before the ISO rises'
  ),
  stabiliserLossStops: numberBetween(0, 6).describe('Stops a stabiliser falls short of its rating'),
  continuousLagS: numberBetween(0, 2).describe('How far continuous focusing trails a movement'),
  lagSpreadS: numberBetween(0, 2)
    .default(0.03)
    .describe('Spread of that: a pace is not even, and the body foretells it with an error'),
  magnifiedS: numberBetween(0, 20)
    .default(1.5)
    .describe('Focusing magnified takes so much longer, until the whole frame is back and the shutter opens'),
  turnS: numberBetween(0, 20).default(0.5).describe('Turning after focusing takes so much longer'),
  pivotMm: z
    .strictObject({ wrists: numberBetween(0, 3000), shoulders: numberBetween(0, 3000), waist: numberBetween(0, 3000) })
    .describe('Pivot of a turn after focusing, behind the entrance pupil'),
  leanMm: numberBetween(-500, 500).describe('How far the camera comes nearer when the whole body moves after focusing'),
  leanSpreadMm: sway.describe('Spread of that'),
  walkingMmPerS: numberBetween(100, 10_000).describe('Walking pace'),
  blinkEveryS: numberBetween(0.5, 600).describe('Time between two blinks of one person'),
  blinkS: numberBetween(0.01, 2).describe('How long a blink lasts')
});

export type Habits = z.infer<typeof habitsSchema>;
export type OwnFocus = z.infer<typeof ownFocusSchema>;

/** All from memory; blinks after Svenson and Barnes (2006), see call/blinks.ts. */
export const defaultHabits: Habits = {
  own: [],
  focusSpreadUm: { crossPoint: 10, ordinaryPoint: 20 },
  focusShare: { magnifier: 1 / 4, magnifierOnTripod: 1 / 10, byEye: 1.5 },
  scaleShare: 0.07,
  continuousFactor: 1.15,
  automaticLagS: 0.15,
  reactionS: 0.22,
  reactionSpreadS: 0.05,
  lowLightFromEv: 2,
  lowLightFactor: 3,
  holdMm: { standing: 5, braced: 3.5, kneeling: 3, monopod: 2, tripod: 0.3 },
  swayGrowsForS: 3,
  swayMm: { standing: 3.5, seated: 2, embracing: 2.5, child: 14, pet: 14, heldThing: 5.5 },
  restlessFactor: 2.5,
  livelyFactor: 10,
  shakeShare: { standing: 0.65, braced: 0.4, kneeling: 0.4, monopod: 0.2, tripod: 0 },
  shakeAtMost: 0.4,
  stabiliserLossStops: 1.5,
  continuousLagS: 0.02,
  lagSpreadS: 0.03,
  magnifiedS: 1.5,
  turnS: 0.5,
  pivotMm: { wrists: 120, shoulders: 250, waist: 600 },
  leanMm: 25,
  leanSpreadMm: 10,
  walkingMmPerS: 1200,
  blinkEveryS: 6,
  blinkS: 0.25
};
