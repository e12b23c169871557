/** What every search for remedies works with: whether a changed setup does what the present one does not, and what it gives. */
import { withCamera } from '../../setup/moves';
import { bodyOf, lensOf } from '../../kit/find';
import { keepAim } from '../../setup/aim';
import type { Setup } from '../../setup/schema';
import { canExpose } from '../exposable';
import { meetsGoals, nearness, hasUsableWindow, type WindowScope } from '../usableWindow';
import type { Plan, StopPlan } from '../plan';
import type { PlanInput } from '../planInput';
import { planSetup, prepare, stopsOf } from '../planSetup';
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
  const { setup, stopStep } = input;
  // The remedy speaks for the call, so a stop chosen by hand makes way for it.
  const free: Setup = { ...setup, intent: { ...setup.intent, stop: { kind: 'byStyle' } } };
  const context = contextOf(input, free);
  if (!context) return undefined;
  const { plan } = context;
  const scope = plan.conflict?.kind === 'facesUnreachable' ? 'faces' : 'everything';
  const { placed, solved } = placing(input, plan);
  const held = (from: Context) => (changed: Setup) => aimed(from, changed, input);
  return {
    context,
    contextOf: (changed) => contextOf(input, changed),
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
    gives: (changed) => givenBy(solved(changed), plan, asked),
    comes: (changed) => {
      const situation = placed(changed);
      return situation ? nearness(situation, stopsOf(situation.lens, 'full'), scope) : -Infinity;
    },
    helps: (changed) => helpedBy(solved(changed), plan)
  };
}

function contextOf(input: PlanInput, setup: Setup): Context | undefined {
  const { kit, habits } = input;
  const plan = planSetup({ ...input, setup });
  const body = bodyOf(kit, setup.camera);
  const lens = lensOf(kit, setup.camera);
  if (plan.kind === 'noPlan' || !body || !lens) return undefined;
  return { setup, plan, body, lens, kit, habits, distance: plan.distanceMm };
}

/** A changed setup laid out, or planned; undefined where the place does not allow it or somebody leaves the picture. */
function placing(input: PlanInput, before: Plan) {
  const isAllowed = (changed: Setup, distance: number, outOfFrame: readonly string[]) =>
    fits(input.setup, changed, distance) && outOfFrame.every((id) => before.outOfFrame.includes(id));
  return {
    placed: (changed: Setup): Situation | undefined => {
      const prepared = prepare({ ...input, setup: changed });
      if (prepared.kind === 'noPlan') return undefined;
      return isAllowed(changed, prepared.view.distance, prepared.outOfFrame) ? prepared : undefined;
    },
    solved: (changed: Setup): Plan | undefined => {
      const plan = planSetup({ ...input, setup: changed });
      return plan.kind === 'plan' && isAllowed(changed, plan.distanceMm, plan.outOfFrame) ? plan : undefined;
    }
  };
}

/** The window a change opens. */
function givenBy(after: Plan | undefined, before: Plan, asked: WindowScope): Gives | undefined {
  const granted = after?.stops.filter((entry) => meetsGoals(entry, asked)) ?? [];
  const [first] = granted;
  const last = granted[granted.length - 1];
  const picked = after?.stops[after.recommended];
  if (!after || !first || !last || !picked) return undefined;
  const stop = granted.includes(picked) ? picked : first;
  return { opens: opensAt(stop, first, last), framing: framingOf(before, after) };
}

/** What a change is worth that opens none. */
function helpedBy(after: Plan | undefined, before: Plan): ReturnType<RemedySearch['helps']> {
  const facesLacking = before.conflict?.kind === 'facesUnreachable';
  /** Stops by which a picture misses what it lacks: a face's blur, like a background's, halves for every two. */
  const missed = ({ worst, backgrounds }: StopPlan) =>
    facesLacking ? 2 * Math.log2(worst.ratio) : backgrounds.reduce((sum, item) => sum + item.shortfallStops, 0);
  const was = before.stops[before.recommended];
  const is = after?.stops[after.recommended];
  if (!after || !was || !is || !canExpose(is)) return undefined;
  const byOdds = facesLacking && is.oddsOnTarget >= was.oddsOnTarget + worthOdds;
  const stopsNearer = byOdds ? 0 : missed(was) - missed(is);
  if (!byOdds && (stopsNearer < worthStops || !(facesLacking || is.facesHold))) return undefined;
  return {
    opens: opensAt(is, is, is),
    framing: framingOf(before, after),
    partial: { oddsBefore: was.oddsOnTarget, stopsNearer }
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

function opensAt({ stop, oddsOnTarget: odds, light }: StopPlan, first: StopPlan, last: StopPlan): Outcome['opens'] {
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
