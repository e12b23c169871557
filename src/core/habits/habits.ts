/**
 * What the odds rest on beside the picture itself: how far focus lands from where it was meant to, how much hands and
 * people sway, how fast they move. Every default is from memory; a photographer's own measured figures replace them.
 */
import { z } from 'zod';
import { between } from '../schema/values';

const stanceFigures = (figure: z.ZodNumber) =>
  z.strictObject({ standing: figure, braced: figure, kneeling: figure, monopod: figure, tripod: figure });

const share = between(0, 10);
const sway = between(0, 1000);

export const habitsSchema = z.strictObject({
  focusShare: z
    .strictObject({ crossPoint: share, ordinaryPoint: share, magnifier: share, byEye: share })
    .describe('Spread of the focus as a share of the depth of focus wide open, by focus method'),
  lowLightFactor: between(1, 20).describe('What low light multiplies that spread by'),
  holdMm: stanceFigures(sway).describe('Fore-and-aft sway of the photographer after one second, by stance'),
  swayGrowsForS: between(0, 60).describe('Sway stops growing after so many seconds'),
  swayMm: z
    .strictObject({ standing: sway, seated: sway, embracing: sway, child: sway, pet: sway })
    .describe('Sway along the axis of people nobody has measured'),
  shakeShare: stanceFigures(between(0, 5)).describe('Share of the shake at 1/focal length that each stance leaves'),
  continuousLagS: between(0, 2).describe('How far continuous focusing trails a steady movement'),
  pivotMm: z
    .strictObject({ wrists: between(0, 3000), shoulders: between(0, 3000), waist: between(0, 3000) })
    .describe('Pivot of a turn after focusing, behind the entrance pupil'),
  walkingMmPerS: between(100, 10_000).describe('Pace of somebody walking')
});

export type Habits = z.infer<typeof habitsSchema>;

/** All from memory. */
export const defaultHabits: Habits = {
  focusShare: { crossPoint: 1 / 6, ordinaryPoint: 1 / 3, magnifier: 1 / 4, byEye: 1 },
  lowLightFactor: 2,
  holdMm: { standing: 8, braced: 5, kneeling: 4, monopod: 3, tripod: 0.5 },
  swayGrowsForS: 3,
  swayMm: { standing: 5, seated: 3, embracing: 3, child: 20, pet: 25 },
  shakeShare: { standing: 1, braced: 0.5, kneeling: 0.5, monopod: 0.25, tripod: 0 },
  continuousLagS: 0.05,
  pivotMm: { wrists: 120, shoulders: 250, waist: 600 },
  walkingMmPerS: 1200
};
