/** Settings of this profile. They travel with no job. */
import { z } from 'zod';
import { defaultPaceMm } from '$core/words/length';
import type { FocalisDatabase } from './database';

export const themes = ['studio', 'dim', 'sun'] as const;
export type Theme = (typeof themes)[number];

/** What the Finder draws over the picture. */
export const overlays = ['points', 'thirds', 'crop', 'edges', 'level'] as const;
export type Overlay = (typeof overlays)[number];

/** Shapes of prints, long side over short. */
export const printShapes = { '5:4': 5 / 4, '4:3': 4 / 3, '7:5': 7 / 5, '16:9': 16 / 9, '1:1': 1 } as const;
export type PrintShape = keyof typeof printShapes;

export const settingsSchema = z.object({
  unit: z.enum(['metric', 'feet']).catch('metric'),
  theme: z.enum(themes).catch('studio'),
  paceMm: z.number().min(300).max(1500).catch(defaultPaceMm),
  overlays: z.array(z.enum(overlays)).catch(['points', 'thirds']),
  printShape: z.enum(Object.keys(printShapes) as [PrintShape, ...PrintShape[]]).catch('5:4'),
  lastSetupId: z.string().nullable().catch(null)
});

export type Settings = z.infer<typeof settingsSchema>;

export const defaultSettings: Settings = settingsSchema.parse({});

const key = 'profile';

export async function readSettings(database: FocalisDatabase): Promise<Settings> {
  const row = await database.settings.get(key);
  return settingsSchema.parse(row?.value ?? {});
}

/** Changes some settings; what another tab has set stays. */
export async function changeSettings(database: FocalisDatabase, changes: Partial<Settings>): Promise<void> {
  await database.transaction('rw', database.settings, async () => {
    const row = await database.settings.get(key);
    await database.settings.put({ key, value: { ...settingsSchema.parse(row?.value ?? {}), ...changes } });
  });
}
