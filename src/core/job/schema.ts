/**
 * A job as it is stored. People and places are described once and stand in its setups by reference, with what is
 * particular there; `resolve.ts` puts them together into the setups that are planned.
 */
import { z } from 'zod';
import { habitsSchema } from '../habits/habits';
import { numberBetween, id, limits, name, uniqueIds } from '../schema/values';
import {
  backgroundsSchema,
  cameraSchema,
  dayFields,
  intentSchema,
  lightSchema,
  listOf,
  notesSchema,
  personStance,
  personTraits,
  roomSchema,
  scenerySchema,
  thingsSchema,
  tickedSchema
} from '../setup/schema';

export const jobSchema = z.strictObject({
  id,
  name,
  date: z.iso.date().nullable(),
  notes: notesSchema,
  stopStep: z.enum(['full', 'half', 'third']).describe("The user's steps of the aperture ring"),
  bagId: id.nullable().default(null).describe('The bag it is taken with; null for everything there is'),
  state: z
    .enum(['open', 'archived', 'template'])
    .default('open')
    .describe('archived: done with, and out of the way; template: to start others from'),
  packing: z
    .array(z.strictObject({ id, name, packed: z.boolean() }))
    .max(200)
    .refine((items) => uniqueIds(items), 'two items share an id')
    .default([])
    .describe('What is packed: bodies, lenses and adapters by their id, and other things'),
  clocks: z
    .array(z.strictObject({ body: z.string().min(1).max(900), offsetMs: numberBetween(-3.2e11, 3.2e11) }))
    .max(50)
    .refine((clocks) => new Set(clocks.map(({ body }) => body)).size === clocks.length, 'two clocks are of one body')
    .default([])
    .describe("What is to be added to each body's clock, ms"),
  habits: habitsSchema.nullable().describe("Figures that came with this job; null for the photographer's own")
});

/** Somebody at this job. */
export const jobPersonSchema = z.strictObject({ id, ...personTraits });

/** Where setups of this job are taken. */
export const jobPlaceSchema = z.strictObject({
  id,
  name,
  scenery: scenerySchema,
  room: roomSchema,
  backgrounds: backgroundsSchema,
  light: lightSchema
});

/** How one of the job's people stands in a setup; the id is that person's. */
const standingSchema = z.strictObject({ id, ...personStance });

/** What a setup has of its own where it differs from its place; null for as the place. */
const ownPlaceSchema = z.strictObject({
  scenery: scenerySchema.nullable(),
  room: roomSchema.nullable(),
  backgrounds: backgroundsSchema.nullable(),
  light: lightSchema.nullable()
});

export const jobSetupSchema = z
  .strictObject({
    id,
    name,
    notes: notesSchema,
    camera: cameraSchema,
    placeId: id,
    own: ownPlaceSchema,
    people: listOf(standingSchema, limits.maxPeople, 'people'),
    things: thingsSchema,
    intent: intentSchema,
    ticked: tickedSchema,
    ...dayFields
  })
  .refine((setup) => uniqueIds(setup.people, setup.things), {
    path: ['things'],
    message: 'a person and a thing share an id'
  });

export type Job = z.infer<typeof jobSchema>;
export type JobPerson = z.infer<typeof jobPersonSchema>;
export type JobPlace = z.infer<typeof jobPlaceSchema>;
export type PersonInSetup = z.infer<typeof standingSchema>;
export type OwnPlace = z.infer<typeof ownPlaceSchema>;
export type JobSetup = z.infer<typeof jobSetupSchema>;
