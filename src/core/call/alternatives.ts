/** Where else the focus could go, what the other styles would pick, and what each would cost. */
import { apertureStyles, type Setup, type ApertureStyle } from '../setup/schema';
import type { FocusGroup } from './aim';
import type { Candidate } from './candidates';
import { tryCandidate } from './places';
import { targetOf } from './evaluateStop';
import type { Stop } from '../optics/stops';
import type { Target } from './plan';
import type { PlanInput } from './planInput';
import { asCalled, isSharpInPrintOnly } from './inPrint';
import { oddsOverLandings } from './oddsOverLandings';
import { planSetup, planSituation, prepare, stopsOf } from './planSetup';
import { isByHand } from './scatter';
import type { Situation } from './situation';

interface Alternative {
  readonly target: Target;
  /** At the stop in use. */
  readonly worstRatio: number;
  readonly odds: number;
}

/** Another style of aperture for the same picture. */
export interface StyleResult {
  readonly style: ApertureStyle;
  readonly stop: string;
  readonly odds: number;
  readonly worstRatio: number;
  /** Backgrounds that do not get their wish there. */
  readonly missed: readonly string[];
}

/** The same picture looked at in another way. */
export interface ViewingResult {
  readonly viewing: 'close' | 'traditional';
  readonly stop: string;
  readonly odds: number;
  readonly facesHold: boolean;
}

export interface TargetResult extends Alternative {
  /** The first stop at which this target holds the faces; null when none does. */
  readonly holdsFrom: string | null;
}

export interface Alternatives {
  /** Every eye and thing the focus could be put on, best first; before them a place between them that is better. */
  readonly targets: readonly TargetResult[];
  /** A place between the rows, focused by hand, magnified, where that holds the faces from a wider stop than autofocus; else null. */
  readonly between: TargetResult | null;
  /** Looked at closely and as a standard print, the one in use left out. */
  readonly viewings: readonly ViewingResult[];
  /** All three styles, in the order of the schema. */
  readonly styles: readonly StyleResult[];
}

const nothing: Alternatives = { targets: [], between: null, viewings: [], styles: [] };

/** Other targets and other styles. Nothing when nothing can be planned. */
export function alternatives(input: PlanInput): Alternatives {
  const { setup, stopStep } = input;
  // Looked at from the best eye, whatever has been chosen.
  const open: Setup = { ...setup, intent: { ...setup.intent, target: { kind: 'best' } } };
  const close = prepare({ ...input, setup: open });
  if (close.kind === 'noPlan') return nothing;
  const plan = planSituation(close, stopStep);
  // Where only a print is sharp, it is what they are weighed by.
  const weighed = asCalled({ ...input, setup: open }, plan);
  const situation = weighed.setup === open ? close : prepare(weighed);
  if (situation.kind === 'noPlan') return nothing;
  const [group] = situation.groups;
  const entry = plan.stops[plan.selected];
  if (!group || !entry) return nothing;
  const { at, holdsFrom } = triedIn(situation, group, stopStep);
  const byOdds = (a: Alternative, b: Alternative) => b.odds - a.odds || a.worstRatio - b.worstRatio;
  const tried = [...group.eyes, ...group.beside]
    .map((candidate) => ({ candidate, ...at(candidate, entry.stop) }))
    .sort(byOdds);
  const eyes = tried.filter(({ candidate }) => candidate.standing !== 'beside');
  // Of the places beside the eyes and between the faces only the best, and only where it is better than every eye.
  const beside = tried.find(({ candidate }) => candidate.standing === 'beside');
  const listed = beside && beside.odds > (eyes[0]?.odds ?? 0) ? [beside, ...eyes] : eyes;
  const targets = listed.map(({ candidate, ...rest }) => ({ ...rest, holdsFrom: holdsFrom(candidate)?.label ?? null }));
  const first = tried[0] && holdsFrom(tried[0].candidate);
  return {
    targets,
    between: betweenRows(weighed, entry.stop, first?.fNumber ?? Infinity),
    viewings: viewingsOf({ ...input, setup: open }),
    styles: stylesOf({ ...input, setup: open })
  };
}

/** What a place gives at a stop, and the first stop at which it holds the faces. */
function triedIn(situation: Situation, group: FocusGroup, stopStep: PlanInput['stopStep']) {
  const by = (candidate: Candidate, { fNumber: N }: Stop) =>
    tryCandidate(situation, group, N, situation.light(N), candidate);
  return {
    at: (candidate: Candidate, stop: Stop): Alternative => {
      const tried = by(candidate, stop);
      const odds = oddsOverLandings(situation, group, tried);
      return { target: targetOf(candidate), odds, worstRatio: tried.worstRatio };
    },
    holdsFrom: (candidate: Candidate): Stop | undefined =>
      stopsOf(situation.lens, stopStep).find((stop) => {
        const { odds, worstRatio } = by(candidate, stop);
        return worstRatio <= 1 + 1e-9 && odds >= situation.setup.intent.oddsWanted;
      })
  };
}

/** Autofocus takes faces alone; by hand the plane can lie between them. Worth saying where it holds them from a wider stop. */
function betweenRows(input: PlanInput, stop: Stop, autofocusFrom: number): TargetResult | null {
  const { camera } = input.setup;
  if (isByHand(camera.focusMethod)) return null;
  const setup: Setup = { ...input.setup, camera: { ...camera, focusMethod: 'magnifier' } };
  const situation = prepare({ ...input, setup });
  if (situation.kind === 'noPlan') return null;
  const [group] = situation.groups;
  const place = group?.beside.find(({ subjectId }) => subjectId === null);
  if (!group || !place || group.members.length < 2) return null;
  const { at, holdsFrom } = triedIn(situation, group, input.stopStep);
  const from = holdsFrom(place);
  return from && from.fNumber < autofocusFrom - 1e-9 ? { ...at(place, stop), holdsFrom: from.label } : null;
}

/** What looking closely, or at a standard print, would pick. Empty when nothing can be planned. */
function viewingsOf(input: PlanInput): ViewingResult[] {
  const { intent } = input.setup;
  return (['close', 'traditional'] as const).flatMap((viewing) => {
    if (intent.viewing.kind === viewing) return [];
    const changed: Setup['intent'] = { ...intent, viewing: { kind: viewing }, stop: { kind: 'byStyle' } };
    const plan = planSetup({ ...input, setup: { ...input.setup, intent: changed } });
    const entry = plan.kind === 'plan' ? plan.stops[plan.recommended] : undefined;
    if (plan.kind === 'noPlan' || !entry) return [];
    return [{ viewing, stop: entry.stop.label, odds: entry.odds, facesHold: entry.facesHold }];
  });
}

/** What each style would pick. Empty when nothing can be planned. */
function stylesOf(input: PlanInput): StyleResult[] {
  const { setup } = input;
  return apertureStyles.flatMap((style) => {
    const intent: Setup['intent'] = { ...setup.intent, style, stop: { kind: 'byStyle' } };
    const plan = planSetup({ ...input, setup: { ...setup, intent } });
    const entry = plan.kind === 'plan' ? plan.stops[plan.recommended] : undefined;
    if (plan.kind === 'noPlan' || !entry) return [];
    const missed = plan.backgrounds.filter((_, index) => !entry.backgrounds[index]?.met).map((item) => item.name);
    const odds = isSharpInPrintOnly(plan) ? (plan.inPrint?.odds ?? 0) : entry.odds;
    return [{ style, stop: entry.stop.label, odds, worstRatio: entry.worst.ratio, missed }];
  });
}
