/**
 * Remedies for a picture no stop can give: each the least change of one kind that opens the window, all else equal, and
 * only what the place and the light allow. A remedy carries the setup with it applied, and that setup, planned again, gives
 * what was asked.
 */
import type { Setup } from '../../setup/schema';
import type { PlanInput } from '../planInput';
import { searchFor, type RemedySearch } from './search';
import { costOf, partOf, type Family, type Remedy } from './remedy';

/** Steps of the first, coarse look along a family, and halvings after it. */
const coarseSteps = 8;
export const halvings = 7;

/** Told how much of the work is done, 0 to 1. */
export type OnProgress = (share: number) => void;

/**
 * Every remedy that gives everything, least effort first; where there is none and the faces cannot be held, those that hold
 * the faces; where there is none either, those that come nearest. Empty when the window is open or nothing can be planned.
 */
export function findRemedies(input: PlanInput, onProgress: OnProgress = () => undefined): Remedy[] {
  const search = searchFor(input);
  if (!search || search.context.plan.conflict === null) return [];
  const facesAlone = search.context.plan.conflict.kind === 'facesUnreachable' ? searchFor(input, 'faces') : undefined;
  const searches = facesAlone ? [search, facesAlone] : [search];
  for (const [index, asked] of searches.entries()) {
    const found = opening(asked, (share) => onProgress((index + share) / searches.length));
    if (found.length > 0) return found;
  }
  return partialRemedies(search);
}

function opening(search: RemedySearch, onProgress: OnProgress): Remedy[] {
  const found: Remedy[] = [];
  const inQuestion = search.families(search.context);
  const switches = search.choices(search.context);
  const all = inQuestion.length + switches.length;
  for (const [index, family] of inQuestion.entries()) {
    onProgress(index / all);
    const amount = leastAmount(family, search.opens);
    if (amount === undefined) continue;
    const setup = family.apply(amount);
    const gives = search.gives(setup);
    if (gives) found.push({ ...partOf(family, amount), ...costOf(family, amount), setup, ...gives, partial: null });
  }
  for (const [index, { kind, unit, options }] of switches.entries()) {
    onProgress((inQuestion.length + index) / all);
    const works = options.find((option) => search.opens(option.setup));
    const gives = works && search.gives(works.setup);
    if (!works || !gives) continue;
    const { subject, effort, amount = 0, setup } = works;
    found.push({ kind, amount, unit, subject, effort, caution: null, setup, ...gives, partial: null });
  }
  return found.sort((a, b) => a.effort - b.effort);
}

/** Options of one kind that are tried for a partial remedy, least effort first. */
const partialOptions = 4;

/** Partial remedies offered, those that help most first. */
const partialShown = 4;

/** Of all changes so many are planned in full, those that come nearest at a rough look. */
const partialPlanned = 7;

/** Where nothing opens the window: what comes nearest to it, each change as far as the place allows. */
function partialRemedies(search: RemedySearch): Remedy[] {
  const byAmount = search
    .families(search.context)
    .filter((family) => family.most >= family.step)
    .map((family) => ({
      ...partOf(family, family.most),
      ...costOf(family, family.most),
      setup: family.apply(family.most)
    }));
  const bySwitch = search.choices(search.context).flatMap(({ kind, unit, options }) =>
    options.slice(0, partialOptions).map(({ setup, subject, effort, amount = 0 }) => {
      return { kind, amount, unit, subject, effort, caution: null, setup };
    })
  );
  return [...byAmount, ...bySwitch]
    .map((item) => ({ item, comes: search.comes(item.setup) }))
    .sort((a, b) => b.comes - a.comes)
    .slice(0, partialPlanned)
    .flatMap(({ item }) => {
      const helps = search.helps(item.setup);
      return helps ? [{ ...item, ...helps }] : [];
    })
    .sort(
      (a, b) =>
        Number(byStops(a.partial)) - Number(byStops(b.partial)) ||
        b.partial.stopsNearer - a.partial.stopsNearer ||
        b.opens.odds - a.opens.odds ||
        a.effort - b.effort
    )
    .slice(0, partialShown);
}

/** Whether it leaves the odds as poor as they were: those that better them come first. */
const byStops = ({ stopsNearer }: NonNullable<Remedy['partial']>): boolean => stopsNearer > 0;

/** The least amount of a family that opens the window, rounded up to its step; undefined when none does. */
function leastAmount(family: Family, opens: (setup: Setup) => boolean): number | undefined {
  if (family.most < family.step) return undefined;
  let low = 0;
  let high: number | undefined;
  for (let i = 1; i <= coarseSteps; i++) {
    // Quadratic spacing looks closer at small changes.
    const amount = family.most * (i / coarseSteps) ** 2;
    if (opens(family.apply(amount))) {
      high = amount;
      break;
    }
    low = amount;
  }
  if (high === undefined) return undefined;
  for (let i = 0; i < halvings && high - low > family.step / 2; i++) {
    const middle: number = (low + high) / 2;
    if (opens(family.apply(middle))) high = middle;
    else low = middle;
  }
  const rounded = Math.min(family.most, Math.ceil(high / family.step - 1e-9) * family.step);
  return opens(family.apply(rounded)) ? rounded : high;
}
