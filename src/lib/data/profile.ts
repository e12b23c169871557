/** What belongs to this profile and travels with no job. */
import { z } from 'zod';
import { defaultHabits, habitsSchema } from '$core/habits/habits';
import { schoolsSchema, usualSchools } from '$core/technique/schools';
import { shapeNames } from '$core/setup/shapes';
import { defaultPaceMm } from '$core/words/length';

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
  /** Whether the demo has been offered. */
  demoOffered: z.boolean().catch(false)
});

export type Profile = z.infer<typeof profileSchema>;

export const profileId = 'profile';
export const defaultProfile: Profile = profileSchema.parse({});
