/** `next`, with every part that is the same in content as in `known` taken from `known`: what has not changed keeps its identity. */
export function share<T>(known: unknown, next: T): T {
  if (Object.is(known, next)) return next;
  if (typeof known !== 'object' || typeof next !== 'object' || known === null || next === null) return next;
  if (Array.isArray(known) !== Array.isArray(next)) return next;
  if (Array.isArray(next)) {
    const old = known as readonly unknown[];
    const byId = new Map(old.flatMap((item) => (hasId(item) ? [[item.id, item] as const] : [])));
    const items = next.map((item: unknown, index) => share(hasId(item) ? byId.get(item.id) : old[index], item));
    const unchanged = old.length === items.length && items.every((item, index) => Object.is(item, old[index]));
    return (unchanged ? known : items) as T;
  }
  const old = known as Record<string, unknown>;
  const entries = Object.entries(next).map(([key, value]) => [key, share(old[key], value)] as const);
  const unchanged =
    entries.length === Object.keys(old).length &&
    entries.every(([key, value]) => key in old && Object.is(value, old[key]));
  return (unchanged ? known : Object.fromEntries(entries)) as T;
}

function hasId(value: unknown): value is { readonly id: unknown } {
  return typeof value === 'object' && value !== null && 'id' in value;
}
