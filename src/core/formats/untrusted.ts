/** Looks at JSON from elsewhere before it is trusted: cheaply, before parsing, and at its keys after it. */

/** Deepest nesting read. A job file goes eight levels deep. */
export const maxDepth = 32;

/** Most values read; a job of 300 setups with 200 people each, all different, has about three million. */
const maxValues = 6_000_000;

const quote = 0x22;
const backslash = 0x5c;
const comma = 0x2c;

/** Why a text is not worth parsing, found in one pass without parsing; null when it is. */
export function shapeProblem(text: string): string | null {
  let depth = 0;
  let values = 1;
  let inString = false;
  for (let i = 0; i < text.length; i++) {
    const code = text.charCodeAt(i);
    if (inString) {
      if (code === backslash) i++;
      else if (code === quote) inString = false;
    } else if (code === quote) inString = true;
    else if (code === comma) {
      if (++values > maxValues) return `It holds more than ${maxValues} values.`;
    } else if (code === 0x7b || code === 0x5b) {
      if (++depth > maxDepth) return `It is nested deeper than the ${maxDepth} levels allowed here.`;
    } else if (code === 0x7d || code === 0x5d) depth--;
  }
  return null;
}

const forbiddenKeys = new Set(['__proto__', 'constructor', 'prototype']);

/** The path of the first key that could reach into the program itself; null when there is none. */
export function forbiddenPath(value: unknown): string | null {
  if (typeof value !== 'object' || value === null) return null;
  if (Array.isArray(value)) {
    for (let index = 0; index < value.length; index++) {
      const inside = forbiddenPath(value[index]);
      if (inside !== null) return joined(`[${index}]`, inside);
    }
    return null;
  }
  for (const [key, item] of Object.entries(value)) {
    if (forbiddenKeys.has(key)) return key;
    const inside = forbiddenPath(item);
    if (inside !== null) return joined(key, inside);
  }
  return null;
}

function joined(outer: string, inner: string): string {
  return inner.startsWith('[') ? `${outer}${inner}` : `${outer}.${inner}`;
}
