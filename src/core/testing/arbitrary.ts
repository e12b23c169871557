/** Random data that a Zod schema allows, for property tests: all its parts, both ends of every range. */
import fc from 'fast-check';
import { z } from 'zod';

const letters = [...'abcdefghijklmnopqrstuvwxyzäéßøñжλ中 ABC 0123456789-_.,;:!?&"\'\\/%()[]{}'];

/** What the strings of the schemas may be, by what they accept. */
const strings = (schema: z.ZodType): fc.Arbitrary<string> => {
  const accepted = (arbitrary: fc.Arbitrary<string>) => arbitrary.filter((text) => schema.safeParse(text).success);
  if (schema.safeParse('2027-06-12').success && !schema.safeParse('A name').success && !schema.safeParse('ab').success)
    return fc.constantFrom('2027-06-12', '2024-02-29', '1999-12-31');
  if (schema.safeParse('14:35').success && !schema.safeParse('24:00').success)
    return fc.constantFrom('00:00', '14:35', '23:59');
  if (
    schema.safeParse('2027-06-12T14:35:00Z').success &&
    !schema.safeParse('2027-06-12').success &&
    !schema.safeParse('ab').success
  )
    return fc.constantFrom('2027-06-12T14:35:00Z', '1999-12-31T23:59:59.999Z');
  const idLike = schema.safeParse('a-1').success && !schema.safeParse('a b').success;
  if (idLike)
    return accepted(
      fc.string({ unit: fc.constantFrom(...'abcdefghijklmnopqrstuvwxyzABCXYZ0123456789'), minLength: 8, maxLength: 16 })
    );
  const lines = fc.string({ unit: fc.constantFrom(...letters), minLength: 1, maxLength: 24 });
  return accepted(fc.oneof(lines, fc.constant(''), lines).map((text) => text)).filter((text) => text.length < 80);
};

function numbers(schema: z.ZodNumber): fc.Arbitrary<number> {
  const min = schema.minValue ?? -1e6;
  const max = schema.maxValue ?? 1e6;
  if (schema.isInt) return fc.oneof(fc.constantFrom(Math.ceil(min), Math.floor(max)), fc.integer({ min, max }));
  const double = fc.double({ min, max, noNaN: true }).map((value) => value + 0);
  return fc.oneof(fc.constantFrom(min, max), double);
}

/** @throws when the schema has a part this does not know */
export function arbitraryOf<T>(schema: z.ZodType<T>): fc.Arbitrary<T> {
  return (anything(schema) as fc.Arbitrary<T>).filter((value) => schema.safeParse(value).success);
}

function anything(schema: z.ZodType): fc.Arbitrary<unknown> {
  if (schema instanceof z.ZodObject) {
    const shape = schema.shape as Record<string, z.ZodType>;
    const optional = Object.keys(shape).filter((key) => shape[key] instanceof z.ZodOptional);
    return fc.record(Object.fromEntries(Object.entries(shape).map(([key, part]) => [key, anything(part)])), {
      requiredKeys: Object.keys(shape).filter((key) => !optional.includes(key))
    } as object);
  }
  if (schema instanceof z.ZodArray) return fc.array(anything(schema.element as z.ZodType), { maxLength: 4 });
  if (schema instanceof z.ZodNullable) return fc.option(anything(schema.unwrap() as z.ZodType), { nil: null });
  if (schema instanceof z.ZodOptional || schema instanceof z.ZodDefault) return anything(schema.unwrap() as z.ZodType);
  if (schema instanceof z.ZodUnion) return fc.oneof(...schema.options.map((option) => anything(option as z.ZodType)));
  if (schema instanceof z.ZodLiteral) return fc.constantFrom(...schema.values);
  if (schema instanceof z.ZodEnum) return fc.constantFrom(...schema.options);
  if (schema instanceof z.ZodBoolean) return fc.boolean();
  if (schema instanceof z.ZodNumber) return numbers(schema);
  if (schema instanceof z.ZodString || schema instanceof z.ZodISODate || schema instanceof z.ZodISODateTime)
    return strings(schema);
  throw new Error(`No random data for ${schema.constructor.name}.`);
}
