/** Version 1 of what was stored, frozen: version 2 without the parts it brought. */
import { z } from 'zod';
import {
  backgroundSchema,
  bodySchema,
  intentSchema,
  jobFileSchema,
  kitSchema,
  personSchema,
  placeSchema,
  setupSchema,
  thingSchema
} from './schema2';

const unique = (items: readonly { readonly id: string }[]) =>
  new Set(items.map((item) => item.id)).size === items.length;

export const bodySchema1 = bodySchema.omit({ focusGrid: true });

export const setupSchema1 = z.strictObject({
  ...setupSchema.shape,
  place: placeSchema.omit({ scenery: true }),
  people: z
    .array(personSchema.omit({ bodyYawDeg: true, look: true }))
    .max(200, 'must be at most 200 people')
    .refine(unique, 'two people share an id'),
  things: z
    .array(thingSchema.omit({ form: true }))
    .max(50, 'must be at most 50 things')
    .refine(unique, 'two things share an id'),
  backgrounds: z
    .array(backgroundSchema.omit({ surface: true }))
    .max(50, 'must be at most 50 backgrounds')
    .refine(unique, 'two backgrounds share an id'),
  intent: intentSchema.omit({ picture: true })
});

export const jobFileSchema1 = z.strictObject({
  ...jobFileSchema.shape,
  version: z.literal(1),
  kit: z.strictObject({
    ...kitSchema.shape,
    bodies: z.array(bodySchema1).max(100, 'must be at most 100 bodies').refine(unique, 'two bodies share an id')
  }),
  setups: z.array(setupSchema1).max(300, 'must be at most 300 setups').refine(unique, 'two setups share an id')
});

export type Setup1 = z.infer<typeof setupSchema1>;
export type Body1 = z.infer<typeof bodySchema1>;
export type JobFile1 = z.infer<typeof jobFileSchema1>;
