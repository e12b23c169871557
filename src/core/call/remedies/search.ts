/** What every search for remedies works with: whether a changed setup does what the present one does not, and what it gives. */
import { withCamera } from '../../setup/moves';
import { bodyOf, lensOf } from '../../kit/find';
import { keepAim } from '../../setup/aim';
import type { Setup } from '../../setup/schema';
import { canExpose } from '../exposable';
import { meetsGoals, nearness, hasUsableWindow, type WindowScope } from '../usableWindow';
import type { Plan, StopPlan } from '../plan';
import type { PlanInput } from '../planInput';
import { planSetup, stopsOf } from '../planSetup';
import { prepare } from '../planSetup';
import type { Situation } from '../situation';
import { choices } from './choices';
import { families } from './families';
import { type RemedyChoice, type Context, type Family, type Outcome } from './remedy';

/** A picture that shows more than so much more or less of the scene is another picture (common practice, no source). */
const framingShare = 0.06;

/** What comes of a changed setup. */
export type Gives = Pick<Outcome, 'opens' | 'framing'>;

/** What the search works with; undefined when nothing can be planned. */
export interface RemedySearch {
  readonly context: Context;
  /** Changes by an amount and changes of one kind, each with the group kept where it was in the picture. */
  readonly families: (context: Context) => Family[];
  readonly choices: (context: Context) => RemedyChoice[];
  /** Whether a changed setup gives what is asked, can be exposed, fits the place and keeps everybody in the picture. */
  readonly opens: (changed: Setup) => boolean;
  readonly contextOf: (changed: Setup) => Context | undefined;
  readonly gives: (changed: Setup) => Gives | undefined;
  /** How near a change comes to what is asked, roughly; more for nearer, −Infinity where it is out of the question. */
  readonly comes: (changed: Setup) => number;
  /** What a change that does not open the window is worth, where it is worth something. */
  readonly helps: (changed: Setup) => (Gives & { readonly partial: NonNullable<Outcome['partial']> }) | undefined;
}

/** Odds better by less than this are not worth the trouble of a change that leaves the picture undecided (no source). */
const worthOdds = 0.1;
/** The same for a background's wish, and for faces that have no odds to speak of either way, stops. */
const worthStops = 0.7;

/** What is looked for: everything; or, where faces cannot be held and nothing gives everything, the faces alone. */
export function searchFor(input: PlanInput, asked: WindowScope = 'everything'): RemedySearch | undefined {
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
  if (!context) return undefined;
  const { plan } = context;
  const facesLacking = plan.conflict?.kind === 'facesUnreachable';
  /** Stops by which a picture misses what it lacks: a face's blur, like a background's, halves for every two. */
  const missed = ({ worst, backgrounds }: StopPlan) =>
    facesLacking ? 2 * Math.log2(worst.ratio) : backgrounds.reduce((sum, item) => sum + item.shortfallStops, 0);
  const held = (from: Context) => (changed: Setup) => aimed(from, changed, input);
  /** Whether the place allows it and everybody stays in the picture. */
  const allowed = (changed: Setup, distance: number, outOfFrame: readonly string[]) =>
    fits(setup, changed, distance) && outOfFrame.every((id) => plan.outOfFrame.includes(id));
  const placed = (changed: Setup): Situation | undefined => {
    const prepared = prepare({ ...input, setup: changed });
    if (prepared.kind === 'noPlan') return undefined;
    const situation = prepared;
    return allowed(changed, situation.view.distance, situation.outOfFrame) ? situation : undefined;
  };
  const solved = (changed: Setup): Plan | undefined => {
    const result = planSetup({ ...input, setup: changed });
    return result.kind === 'plan' && allowed(changed, result.distanceMm, result.outOfFrame) ? result : undefined;
  };
  return {
    context,
    contextOf,
    families: once((from) =>
      families(from).map((family) => ({ ...family, apply: (amount) => held(from)(family.apply(amount)) }))
    ),
    choices: once((from) =>
      choices(from).map((choice) => ({
        ...choice,
        options: choice.options.map((option) => ({ ...option, setup: held(from)(option.setup) }))
      }))
    ),
    opens: (changed) => {
      const situation = placed(changed);
      return situation !== undefined && hasUsableWindow(situation, stopsOf(situation.lens, stopStep), asked);
    },
    gives: (changed) => {
      const result = solved(changed);
      const granted = result?.stops.filter((entry) => meetsGoals(entry, asked)) ?? [];
      const [first] = granted;
      const last = granted[granted.length - 1];
      const picked = result?.stops[result.recommended];
      if (!result || !first || !last || !picked) return undefined;
      return {
        opens: opensAt(granted.includes(picked) ? picked : first, first, last),
        framing: framingOf(plan, result)
      };
    },
    comes: (changed) => {
      const situation = placed(changed);
      return situation
        ? nearness(situation, stopsOf(situation.lens, 'full'), facesLacking ? 'faces' : 'everything')
        : -Infinity;
    },
    helps: (changed) => {
      const result = solved(changed);
      const before = plan.stops[plan.recommended];
      const after = result?.stops[result.recommended];
      if (!result || !before || !after || !canExpose(after)) return undefined;
      const byOdds = facesLacking && after.odds >= before.odds + worthOdds;
      const stopsNearer = byOdds ? 0 : missed(before) - missed(after);
      if (!byOdds && (stopsNearer < worthStops || !(facesLacking || after.facesHold))) return undefined;
      const partial = { oddsBefore: before.odds, stopsNearer };
      return { opens: opensAt(after, after, after), framing: framingOf(plan, result), partial };
    }
  };
}

/** What was made of a context before is not made again. */
function once<T>(make: (context: Context) => T): (context: Context) => T {
  const known = new WeakMap<Context, T>();
  return (context) => {
    const found = known.get(context) ?? make(context);
    known.set(context, found);
    return found;
  };
}

function opensAt({ stop, odds, light }: StopPlan, first: StopPlan, last: StopPlan): Outcome['opens'] {
  const { shutterS, iso } = light;
  return { stop: stop.label, first: first.stop.label, last: last.stop.label, odds, shutterS, iso };
}

/** The change with the group where it was in the picture. */
function aimed(from: Context, changed: Setup, { kit }: PlanInput): Setup {
  const body = bodyOf(kit, changed.camera);
  const lens = lensOf(kit, changed.camera);
  if (!body || !lens) return changed;
  const before = { setup: from.setup, body: from.body, P: from.lens.pupilMagnification };
  return withCamera(changed, keepAim(before, { setup: changed, body, P: lens.pupilMagnification }));
}

function framingOf(before: Plan, after: Plan): Outcome['framing'] {
  const [fromMm, toMm] = [before.framedHeightMm, after.framedHeightMm];
  return Math.abs(toMm / fromMm - 1) > framingShare ? { fromMm, toMm } : null;
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
