/** What belongs to this profile and travels with no job. */
import { z } from 'zod';
import { storedFrameKeysSchema, usualFrameKeys } from '$core/frames/keys';
import { defaultHabits, habitsSchema } from '$core/habits/habits';
import { schoolsSchema, usualSchools } from '$core/technique/schools';
import { viewingSchema } from '$core/setup/schema';
import { shapeNames } from '$core/setup/shapes';
import { defaultPaceMm } from '$core/units/length';

export const themes = ['studio', 'dim', 'sun'] as const;
export type Theme = (typeof themes)[number];

/** What the Finder draws over the picture. */
export const overlays = ['points', 'thirds', 'crop', 'edges', 'level'] as const;
export type Overlay = (typeof overlays)[number];

/** Whatever cannot be read of it is as usual: settings keep nobody from working. */
export const profileSchema = z.object({
  unit: z.enum(['metric', 'feet']).catch('metric'),
  theme: z.enum(themes).catch('studio'),
  paceMm: z.number().min(300).max(1500).catch(defaultPaceMm),
  overlays: z.array(z.enum(overlays)).catch(['points', 'thirds']),
  printShape: z.enum(shapeNames).catch('5:4'),
  lastSetupId: z.string().nullable().catch(null),
  /** The photographer's own figures, once there are any. */
  habits: habitsSchema.catch(defaultHabits),
  /** What the photographer answers where schools disagree. */
  schools: schoolsSchema.catch(usualSchools),
  /** Whether the kit that comes with Focalis is offered beside one's own. */
  builtInKit: z.boolean().catch(true),
  /** How a picture of a new setup will be looked at. */
  viewing: viewingSchema.catch({ kind: 'close' }),
  /** Steps of the aperture ring, for new jobs. */
  stopStep: z.enum(['full', 'half', 'third']).catch('third'),
  /** The keys one decides with on Frames, and how large eyes are shown there. */
  frameKeys: storedFrameKeysSchema.catch({ ...usualFrameKeys }),
  eyesShown: z.enum(['usual', 'large']).catch('usual'),
  /** When everything was last saved as one file, ms since 1970. */
  backedUpAt: z.number().nullable().catch(null),
  /** When to ask for that again, ms since 1970; null as long as there is nothing to save. */
  remindAt: z.number().nullable().catch(null),
  /** How far the first visit has come: nothing answered, a first setup made, shown round. */
  welcomed: z.enum(['no', 'started', 'yes']).catch('no'),
  /** The last day Focalis was used on, as its date. */
  usedOn: z.string().nullable().catch(null),
  /** For each removed job the days of use since. */
  removedFor: z.record(z.string(), z.number().int().min(0)).catch({}),
  /** What others may read in files that leave: names of people, names of places. */
  leaving: z.object({ names: z.boolean(), places: z.boolean() }).catch({ names: false, places: false }),
  /** Whether the demo has been offered. */
  demoOffered: z.boolean().catch(false)
});

export type Profile = z.infer<typeof profileSchema>;

export const profileId = 'profile';
export const defaultProfile: Profile = profileSchema.parse({});
