/** Checks of an edit: only what is not the very same as before is looked at, so that dragging one of many stays cheap. */
import { z } from 'zod';

type Fields = Readonly<Record<string, unknown>>;
type Items = readonly { readonly id: string }[];

/**
 * Why a changed value is not valid, or undefined. `before` must be valid and share with `after` whatever is the same (immer
 * does so).
 */
export function changeIssue<T>(schema: z.ZodType<T>, before: T | null, after: T): z.core.$ZodIssue | undefined {
  if (before === after) return undefined;
  if (!(schema instanceof z.ZodObject) || before === null) return issueOf(schema, after);
  const old = before as Fields;
  const now = after as Fields;
  const shape = schema.shape as Readonly<Record<string, z.ZodType>>;
  // Without lists there is nothing to spare: what holds between the fields is looked at too.
  if (!Object.values(shape).some(itemSchema)) return issueOf(schema, after);
  // A field too many or too few, or things added or taken away: the whole is looked at, with what holds between its parts.
  const keys = new Set([...Object.keys(old), ...Object.keys(now)]);
  for (const key of keys) {
    const part = shape[key];
    if (!part || !(key in old) || !(key in now)) return issueOf(schema, after);
    if (old[key] === now[key]) continue;
    const items = itemSchema(part);
    if (!items || !isItems(old[key]) || !isItems(now[key])) {
      const issue = issueOf(part, now[key]);
      if (issue) return within(issue, key);
      continue;
    }
    const [was, is] = [old[key], now[key]];
    if (was.length !== is.length || was.some((item, index) => item.id !== is[index]?.id)) return issueOf(schema, after);
    for (const [index, item] of is.entries()) {
      const issue = item === was[index] ? undefined : issueOf(items, item);
      if (issue) return within(issue, key, index);
    }
  }
  return undefined;
}

function issueOf(schema: z.ZodType, value: unknown): z.core.$ZodIssue | undefined {
  return schema.safeParse(value).error?.issues[0];
}

function within(issue: z.core.$ZodIssue, ...path: PropertyKey[]): z.core.$ZodIssue {
  return { ...issue, path: [...path, ...issue.path] };
}

function itemSchema(schema: z.ZodType): z.ZodType | undefined {
  return schema instanceof z.ZodArray ? (schema.element as z.ZodType) : undefined;
}

function isItems(value: unknown): value is Items {
  return Array.isArray(value) && value.every((item) => typeof item === 'object' && item !== null && 'id' in item);
}
