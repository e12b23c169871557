/**
 * Remedies for a picture no stop can give: each the least change of one kind that opens the window, all else equal, and
 * only what the place allows; ranked by effort. A remedy carries the setup with it applied, and that setup, planned
 * again, has a window.
 */
import { bodyOf, lensOf } from '../../kit/find';
import type { Setup } from '../../setup/schema';
import { opensWindow } from '../evaluateStop';
import type { PlanInput } from '../planInput';
import { planSetup, stopsOf } from '../planSetup';
import { prepare } from '../situation';
import { choices } from './choices';
import { families } from './families';
import type { Combination, Context, Family, Remedy, RemedyKind, RemedyPart } from './remedy';

/** Steps of the first, coarse look along a family, and halvings after it. */
const coarseSteps = 8;
const halvings = 7;

/** Told how much of the work is done, 0 to 1. */
export type OnProgress = (share: number) => void;

/** What the search works with; undefined when nothing can be planned. */
interface Search {
  readonly context: Context;
  /** Whether a changed setup has a window, in this place. */
  readonly opens: (changed: Setup) => boolean;
  readonly contextOf: (changed: Setup) => Context | undefined;
  readonly outcome: (changed: Setup) => Remedy['opens'] | undefined;
}

function searchFor(input: PlanInput): Search | undefined {
  const { setup, kit, habits, stopStep } = input;
  // The remedy speaks for the call, so a stop chosen by hand makes way for it.
  const free: Setup = { ...setup, intent: { ...setup.intent, stop: { kind: 'byStyle' } } };
  const contextOf = (changed: Setup): Context | undefined => {
    const plan = planSetup({ ...input, setup: changed });
    const body = bodyOf(kit, changed.camera);
    const lens = lensOf(kit, changed.camera);
    if (plan.kind === 'noPlan' || !body || !lens) return undefined;
    return { setup: changed, plan, body, lens, kit, habits, distance: plan.distanceMm };
  };
  const context = contextOf(free);
  return (
    context && {
      context,
      contextOf,
      opens: (changed) => {
        const prepared = prepare({ ...input, setup: changed });
        if (prepared.kind === 'noPlan') return false;
        const { situation } = prepared;
        if (!fits(setup, changed, situation.view.distance)) return false;
        return opensWindow(situation, stopsOf(situation.lens, stopStep));
      },
      outcome: (changed) => {
        const solved = planSetup({ ...input, setup: changed });
        if (solved.kind === 'noPlan' || !solved.window) return undefined;
        const label = (index: number) => solved.stops[index]?.stop.label ?? '';
        return {
          stop: label(solved.recommended),
          first: label(solved.window.first),
          last: label(solved.window.last),
          odds: solved.stops[solved.recommended]?.odds ?? 0
        };
      }
    }
  );
}

/** Every remedy that opens the window, least effort first. Empty when the window is open or nothing can be planned. */
export function findRemedies(input: PlanInput, onProgress: OnProgress = () => undefined): Remedy[] {
  const search = searchFor(input);
  if (!search || search.context.plan.conflict === null) return [];
  const found: Remedy[] = [];
  const inQuestion = families(search.context);
  const switches = choices(search.context);
  const all = inQuestion.length + switches.length;
  for (const [index, family] of inQuestion.entries()) {
    onProgress(index / all);
    const amount = leastAmount(family, search.opens);
    if (amount === undefined) continue;
    const setup = family.apply(amount);
    const opens = search.outcome(setup);
    if (opens) found.push({ ...partOf(family, amount), ...costOf(family, amount), setup, opens });
  }
  for (const [index, choice] of switches.entries()) {
    onProgress((inQuestion.length + index) / all);
    const works = choice.options.find((option) => search.opens(option.setup));
    const opens = works && search.outcome(works.setup);
    if (!works || !opens) continue;
    const { subject, effort, amount = 0, setup } = works;
    found.push({ kind: choice.kind, amount, unit: choice.unit, subject, effort, caution: null, setup, opens });
  }
  return found.sort((a, b) => a.effort - b.effort);
}

const partOf = ({ kind, unit, subject = '' }: Family, amount: number): RemedyPart => ({ kind, amount, unit, subject });
const costOf = (family: Family, amount: number) => ({
  effort: family.effort(amount),
  caution: family.caution ?? null
});

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
  const inQuestion = families(search.context).filter((family) => family.most >= family.step);
  const pairs = inQuestion.flatMap((a, index) => inQuestion.slice(index + 1).map((b) => [a, b] as const));
  const firsts = choices(search.context).flatMap(({ kind, unit, options }) =>
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
    for (const family of families(context).filter((item) => item.most >= item.step)) {
      const pair = combine(search, context, [most(family)], [done]);
      if (pair) found.push(pair);
    }
  }
  const singles = findRemedies(input);
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
  search: Search,
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
        context && families(context).find((item) => item.kind === part.kind && (item.subject ?? '') === part.subject);
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
  const opens = changed && search.outcome(changed.setup);
  if (!changed || !opens) return undefined;
  const cautions = changed.steps.map(({ family }) => family.caution ?? null);
  return {
    parts: [...done.map(({ part }) => part), ...changed.steps.map(({ family, amount }) => partOf(family, amount))],
    effort: [...done, ...changed.steps.map(({ family, amount }) => ({ effort: family.effort(amount) }))].reduce(
      (sum, { effort }) => sum + effort,
      0
    ),
    caution: cautions.find((caution) => caution !== null) ?? null,
    setup: changed.setup,
    opens
  };
}

/** Whether the place allows a change: room behind the camera, behind the people, and to either side. */
function fits(before: Setup, after: Setup, distance: number): boolean {
  const { backUpMm } = after.place;
  const { behindMm, sideMm } = before.place;
  const furthest = (setup: Setup) => Math.max(...setup.people.map((person) => person.depthMm));
  const sideways = Math.abs(after.camera.lateralMm - before.camera.lateralMm);
  return (
    (backUpMm === null || distance <= backUpMm + 1e-6) &&
    (behindMm === null || furthest(after) <= furthest(before) + behindMm + 1e-6) &&
    (sideMm === null || sideways <= sideMm + 1e-6)
  );
}

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
