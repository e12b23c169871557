/** Checks of an edit: only what is not the very same as before is looked at, so that dragging one of many stays cheap. */
import { backgroundSchema, personSchema, setupSchema, thingSchema, type Setup } from './schema';

const itemSchemas = { people: personSchema, things: thingSchema, backgrounds: backgroundSchema } as const;

/**
 * Why a changed setup is not valid, or null. `before` must be valid and share with `after` whatever is the same (immer
 * does so).
 */
export function changeProblem(before: Setup, after: Setup): string | null {
  for (const key of Object.keys(after) as (keyof Setup)[]) {
    if (before[key] === after[key]) continue;
    if (key === 'people' || key === 'things' || key === 'backgrounds') {
      const known = new Set<unknown>(before[key]);
      if (before[key].length === after[key].length) {
        const ids = (setup: Setup) => setup[key].map((item) => item.id).join(' ');
        if (ids(before) === ids(after)) {
          for (const item of after[key]) {
            const checked = known.has(item) ? null : itemSchemas[key].safeParse(item);
            if (checked && !checked.success) return checked.error.issues[0]?.message ?? 'not possible';
          }
          continue;
        }
      }
    }
    const checked = setupSchema.shape[key].safeParse(after[key]);
    if (!checked.success) return checked.error.issues[0]?.message ?? 'not possible';
  }
  return null;
}
