/**
 * Three-way merge of plain data, so that two tabs and undo can change the same setup without losing each other's work:
 * what changed from `base` to `mine` is done to `theirs`. Objects merge by key, arrays of things with an id by id, all
 * else as a whole. Where both changed the same value, mine wins.
 */
type Plain = string | number | boolean | null | undefined | readonly Plain[] | { readonly [key: string]: Plain };
type Identified = { readonly id: string } & { readonly [key: string]: Plain };

export function merge<T>(base: T, mine: T, theirs: T): T {
  return mergePlain(base as Plain, mine as Plain, theirs as Plain) as T;
}

function mergePlain(base: Plain, mine: Plain, theirs: Plain): Plain {
  if (base === mine || same(base, mine)) return theirs;
  if (base === theirs || same(base, theirs)) return mine;
  if (isList(base) && isList(mine) && isList(theirs)) return mergeLists(base, mine, theirs);
  if (isRecord(base) && isRecord(mine) && isRecord(theirs) && sameKind(base, mine, theirs)) {
    return mergeRecords(base, mine, theirs);
  }
  return mine;
}

/** Records with a `kind` are alternatives: fields of one kind make no sense in another. */
function sameKind(...records: readonly { readonly [key: string]: Plain }[]): boolean {
  return records.every((record) => record['kind'] === records[0]?.['kind']);
}

function mergeRecords(
  base: { readonly [key: string]: Plain },
  mine: { readonly [key: string]: Plain },
  theirs: { readonly [key: string]: Plain }
): Plain {
  const merged: Record<string, Plain> = {};
  for (const key of new Set([...Object.keys(theirs), ...Object.keys(mine)])) {
    const value = mergePlain(base[key], mine[key], theirs[key]);
    if (value !== undefined) merged[key] = value;
  }
  return merged;
}

function mergeLists(base: readonly Identified[], mine: readonly Identified[], theirs: readonly Identified[]): Plain {
  const find = (list: readonly Identified[], id: string) => list.find((item) => item.id === id);
  const reordered = !same(
    base.map((item) => item.id).filter((id) => find(mine, id)),
    mine.map((item) => item.id).filter((id) => find(base, id))
  );
  const leading = reordered ? mine : theirs;
  const trailing = reordered ? theirs : mine;
  const ids = [...new Set([...leading, ...trailing].map((item) => item.id))];
  const items = ids.flatMap((id) => {
    const before = find(base, id);
    const own = find(mine, id);
    const other = find(theirs, id);
    if (before && (!own || !other)) {
      // Removed on one side: gone, unless the other side has changed it meanwhile.
      const left = own ?? other;
      return left && !same(before, left) ? [left] : [];
    }
    if (own && other && before) return [mergePlain(before, own, other)];
    return [own ?? other ?? null];
  });
  return items;
}

function isRecord(value: Plain): value is { readonly [key: string]: Plain } {
  return typeof value === 'object' && value !== null && !Array.isArray(value);
}

function isList(value: Plain): value is readonly Identified[] {
  return Array.isArray(value) && value.every((item) => isRecord(item) && typeof item['id'] === 'string');
}

/** Equal in content, whatever the order of keys. */
export function same(a: unknown, b: unknown): boolean {
  if (Object.is(a, b)) return true;
  if (typeof a !== 'object' || typeof b !== 'object' || a === null || b === null) return false;
  if (Array.isArray(a) !== Array.isArray(b)) return false;
  const left = a as Record<string, unknown>;
  const right = b as Record<string, unknown>;
  const keys = Object.keys(left);
  return keys.length === Object.keys(right).length && keys.every((key) => key in right && same(left[key], right[key]));
}
