/** The smallest bag: an exact search for the fewest bodies and lenses that take every picture that must be taken. */

/** One way to take a setup: everything it needs, by id. */
export interface Option {
  readonly needs: readonly string[];
  /** How much rather another would be taken: 0 for as it is planned. */
  readonly rather: number;
}

/** A setup and every way to take it. */
export interface Demand {
  readonly setupId: string;
  readonly options: readonly Option[];
}

interface SmallestBag {
  /** Ids of what is taken along. */
  readonly items: readonly string[];
  /** The way each setup is taken with it. */
  readonly ways: ReadonlyMap<string, Option>;
}

/** Steps after which the best found so far is taken, and said to be that: far beyond any bag one person carries. */
const mostSteps = 200_000;

/**
 * Fewest items; of equals what is planned. Setups without any option are left out. `exact` is false when the search was
 * cut short.
 */
export function smallestBag(demands: readonly Demand[]): SmallestBag & { readonly exact: boolean } {
  const served = demands
    .filter((demand) => demand.options.length > 0)
    .map((demand) => ({ ...demand, options: withoutNeedless(demand.options) }))
    .sort((a, b) => a.options.length - b.options.length);
  let best: { items: string[]; rather: number } | null = null;
  let steps = 0;

  const ratherOf = (items: ReadonlySet<string>) =>
    served.reduce((sum, demand) => sum + (wayWith(demand, items)?.rather ?? 0), 0);

  function search(items: ReadonlySet<string>): void {
    if (++steps > mostSteps) return;
    // What is left needs at least nothing more: as many items as the best, and only a better way can win.
    if (best && items.size > best.items.length) return;
    const open = served.filter((demand) => !wayWith(demand, items));
    if (open.length === 0) {
      const rather = ratherOf(items);
      if (!best || items.size < best.items.length || rather < best.rather) best = { items: [...items], rather };
      return;
    }
    if (best && items.size + fewestMore(open, items) > best.items.length) return;
    const [hardest] = [...open].sort((a, b) => a.options.length - b.options.length);
    const options = [...(hardest?.options ?? [])].sort(
      (a, b) => missing(a, items) - missing(b, items) || a.rather - b.rather
    );
    for (const option of options) search(new Set([...items, ...option.needs]));
  }
  search(new Set());
  const items = (best as { items: string[] } | null)?.items ?? [];
  const taken = new Set(items);
  const ways = served.flatMap((demand) => {
    const way = wayWith(demand, taken);
    return way ? [[demand.setupId, way] as const] : [];
  });
  return { items, ways: new Map(ways), exact: steps <= mostSteps };
}

const missing = (option: Option, items: ReadonlySet<string>) => option.needs.filter((id) => !items.has(id)).length;

/** Items any open setup still needs at the least. */
const fewestMore = (open: readonly Demand[], items: ReadonlySet<string>) =>
  Math.max(...open.map((demand) => Math.min(...demand.options.map((option) => missing(option, items)))));

/** The way to take it one would rather, with just these. */
export function wayWith({ options }: Demand, items: ReadonlySet<string>): Option | undefined {
  let way: Option | undefined;
  for (const option of options) {
    if ((!way || option.rather < way.rather) && option.needs.every((id) => items.has(id))) way = option;
  }
  return way;
}

/** Options that need all that another one needs, and more, and are no better. */
function withoutNeedless(options: readonly Option[]): Option[] {
  return options.filter(
    (option, index) =>
      !options.some(
        (other, at) =>
          at !== index &&
          other.rather <= option.rather &&
          other.needs.every((id) => option.needs.includes(id)) &&
          (other.needs.length < option.needs.length || other.rather < option.rather || at < index)
      )
  );
}

/** Setups that cannot be taken without an item, among these. */
export function forcedBy(demands: readonly Demand[], itemId: string): string[] {
  return demands
    .filter(({ options }) => options.length > 0 && options.every((option) => option.needs.includes(itemId)))
    .map((demand) => demand.setupId);
}

/** Setups that fall when an item is taken out of a bag. */
export function fallWithout(demands: readonly Demand[], items: readonly string[], itemId: string): string[] {
  const all = new Set(items);
  const rest = new Set(items.filter((id) => id !== itemId));
  return demands.filter((demand) => wayWith(demand, all) && !wayWith(demand, rest)).map((demand) => demand.setupId);
}
