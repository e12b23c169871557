/** Bags: what is taken along, and which lens is on which body at the start. */
import { z } from 'zod';
import { id, limits, name } from '../schema/values';
import { canMount } from './fits';
import type { Kit } from './schema';

export const bagSchema = z.strictObject({
  id,
  name,
  bodies: z
    .array(z.strictObject({ bodyId: id, lensId: id.nullable().describe('On it at the start; null for none') }))
    .max(limits.maxBodies)
    .refine((items) => new Set(items.map((item) => item.bodyId)).size === items.length, 'two bodies share an id'),
  lensIds: z.array(id).max(limits.maxLenses),
  adapterIds: z.array(id).max(limits.maxAdapters)
});

export type Bag = z.infer<typeof bagSchema>;

/** What of the kit is in a bag. */
export function inBag(kit: Kit, bag: Bag): Kit {
  const bodies = new Set(bag.bodies.map((item) => item.bodyId));
  const lenses = new Set([...bag.lensIds, ...bag.bodies.flatMap((item) => item.lensId ?? [])]);
  return {
    bodies: kit.bodies.filter((item) => bodies.has(item.id)),
    lenses: kit.lenses.filter((item) => lenses.has(item.id)),
    adapters: kit.adapters.filter((item) => bag.adapterIds.includes(item.id))
  };
}

/** Every body in a bag with the lenses of the bag that go on none of them. */
export function lensesWithoutBody(kit: Kit, bag: Bag): string[] {
  const { bodies, lenses, adapters } = inBag(kit, bag);
  return lenses.filter((lens) => !bodies.some((body) => canMount(body, lens, adapters))).map((lens) => lens.name);
}
