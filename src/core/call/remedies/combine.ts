/** Several changes done together, each less than it would take alone. */
import type { PlanInput } from '../planInput';
import { findRemedies, halvings, type OnProgress } from './findRemedies';
import { searchFor, type RemedySearch } from './search';
import {
  partOf,
  type Combination,
  type Context,
  type Family,
  type Remedy,
  type RemedyKind,
  type RemedyPart
} from './remedy';

/**
 * Several changes done together, each by the same share of its given amount, the least share that opens the window.
 * Undefined when even all of them in full do not, or when one of them is not a change by an amount.
 */
export function combineRemedies(input: PlanInput, parts: readonly RemedyPart[]): Combination | undefined {
  const search = searchFor(input);
  return search && combine(search, search.context, parts, []);
}

/** Pairs that open the window together, least effort first; for setups that one change alone cannot save. */
export function findCombinations(input: PlanInput, onProgress: OnProgress = () => undefined): Combination[] {
  const search = searchFor(input);
  if (!search || search.context.plan.conflict === null) return [];
  const found: Combination[] = [];
  const most = (family: Family) => partOf(family, family.most);
  const inQuestion = search.families(search.context).filter((family) => family.most >= family.step);
  const pairs = inQuestion.flatMap((a, index) => inQuestion.slice(index + 1).map((b) => [a, b] as const));
  const firsts = search
    .choices(search.context)
    .flatMap(({ kind, unit, options }) =>
      pairedChoices.has(kind) ? options.slice(0, 2).map((option) => ({ kind, unit, ...option })) : []
    );
  const all = pairs.length + firsts.length;
  for (const [index, [a, b]] of pairs.entries()) {
    onProgress(index / all);
    const pair = combine(search, search.context, [most(a), most(b)], []);
    if (pair) found.push(pair);
  }
  for (const [index, { kind, unit, subject, amount = 0, effort, setup }] of firsts.entries()) {
    onProgress((pairs.length + index) / all);
    const context = search.contextOf(setup);
    if (!context || search.opens(setup)) continue;
    const done: Done = { part: { kind, amount, unit, subject }, effort };
    for (const family of search.families(context).filter((item) => item.most >= item.step)) {
      const pair = combine(search, context, [most(family)], [done]);
      if (pair) found.push(pair);
    }
  }
  const singles = findRemedies(input).filter((single) => single.partial === null);
  return found
    .filter((pair) => isWorthwhile(pair, singles))
    .sort((a, b) => a.effort - b.effort)
    .slice(0, combinationsShown);
}

/** A pair is worth its trouble only when it spares a good part of what one of the changes would take alone. */
function isWorthwhile({ parts }: Combination, singles: readonly Remedy[]): boolean {
  return parts.every((part) => {
    const alone = singles.find((single) => single.kind === part.kind && single.subject === part.subject);
    return !alone || part.unit === 'none' || part.amount <= sparing * alone.amount;
  });
}

/** In a pair, each part does at most this share of what it would alone; else the pair spares nothing (common practice, no source). */
const sparing = 0.75;

/** Switches worth making on the way to something else. */
const pairedChoices: ReadonlySet<RemedyKind> = new Set([
  'movePoint',
  'continuousFocus',
  'focusMethod',
  'steadier',
  'changeLens'
]);

/** Pairs offered, least effort first. */
const combinationsShown = 5;

interface Done {
  readonly part: RemedyPart;
  readonly effort: number;
}

function combine(
  search: RemedySearch,
  from: Context,
  parts: readonly RemedyPart[],
  done: readonly Done[]
): Combination | undefined {
  /** The setup after each part by a share of its amount, and what each then is. */
  const at = (share: number) => {
    let context: Context | undefined = from;
    const steps: { readonly family: Family; readonly amount: number }[] = [];
    for (const part of parts) {
      const family: Family | undefined =
        context &&
        search.families(context).find((item) => item.kind === part.kind && (item.subject ?? '') === part.subject);
      if (!context || !family) return undefined;
      const amount = Math.min(family.most, Math.ceil((part.amount * share) / family.step - 1e-9) * family.step);
      steps.push({ family, amount });
      context = search.contextOf(family.apply(amount));
    }
    return context && { setup: context.setup, steps };
  };
  const opensAt = (share: number) => {
    const changed = at(share);
    return changed !== undefined && search.opens(changed.setup);
  };
  if (!opensAt(1)) return undefined;
  let low = 0;
  let high = 1;
  for (let i = 0; i < halvings; i++) {
    const middle = (low + high) / 2;
    if (opensAt(middle)) high = middle;
    else low = middle;
  }
  const changed = at(high);
  const gives = changed && search.gives(changed.setup);
  if (!changed || !gives) return undefined;
  const cautions = changed.steps.map(({ family }) => family.caution ?? null);
  return {
    parts: [...done.map(({ part }) => part), ...changed.steps.map(({ family, amount }) => partOf(family, amount))],
    effort: [...done, ...changed.steps.map(({ family, amount }) => ({ effort: family.effort(amount) }))].reduce(
      (sum, { effort }) => sum + effort,
      0
    ),
    caution: cautions.find((caution) => caution !== null) ?? null,
    setup: changed.setup,
    ...gives,
    partial: null
  };
}
