/** Where else the focus could go, what the other styles would pick, and what each would cost. */
import { apertureStyles, type Setup, type ApertureStyle } from '../setup/schema';
import type { Candidate } from './candidates';
import { tryCandidate } from './places';
import { targetOf } from './evaluateStop';
import type { Target } from './plan';
import type { PlanInput } from './planInput';
import { oddsOverLandings } from './oddsOverLandings';
import { planSetup, planSituation, stopsOf } from './planSetup';
import { prepare } from './planSetup';

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

export interface TargetResult extends Alternative {
  /** The first stop at which this target holds the faces; null when none does. */
  readonly holdsFrom: string | null;
}

export interface Alternatives {
  /** Every eye and thing the focus could be put on, best first; before them a place between them that is better. */
  readonly targets: readonly TargetResult[];
  /** All three styles, in the order of the schema. */
  readonly styles: readonly StyleResult[];
}

/** Other targets and other styles. Nothing when nothing can be planned. */
export function alternatives(input: PlanInput): Alternatives {
  const { setup, stopStep } = input;
  // Looked at from the best eye, whatever has been chosen.
  const open: Setup = { ...setup, intent: { ...setup.intent, target: { kind: 'best' } } };
  const prepared = prepare({ ...input, setup: open });
  if (prepared.kind === 'noPlan') return { targets: [], styles: [] };
  const situation = prepared;
  const plan = planSituation(situation, stopStep);
  const [group] = situation.groups;
  const entry = plan.stops[plan.selected];
  if (!group || !entry) return { targets: [], styles: [] };
  const at = (candidate: Candidate, N: number): Alternative => {
    const tried = tryCandidate(situation, group, N, situation.light(N), candidate);
    return {
      target: targetOf(candidate),
      odds: oddsOverLandings(situation, group, tried),
      worstRatio: tried.worstRatio
    };
  };
  const { fNumber } = entry.stop;
  const holds = (candidate: Candidate): number => {
    const stops = stopsOf(situation.lens, stopStep);
    return stops.findIndex((stop) => {
      const N = stop.fNumber;
      const { odds, worstRatio } = tryCandidate(situation, group, N, situation.light(N), candidate);
      return worstRatio <= 1 + 1e-9 && odds >= situation.setup.intent.oddsWanted;
    });
  };
  const labelOf = (index: number) => (index < 0 ? null : (plan.stops[index]?.stop.label ?? null));
  const byOdds = (a: Alternative, b: Alternative) => b.odds - a.odds || a.worstRatio - b.worstRatio;
  const tried = [...group.eyes, ...group.beside]
    .map((candidate) => ({ candidate, ...at(candidate, fNumber) }))
    .sort(byOdds);
  const eyes = tried.filter(({ candidate }) => candidate.standing !== 'beside');
  // Of the places beside the eyes and between the faces only the best, and only where it is better than every eye.
  const beside = tried.find(({ candidate }) => candidate.standing === 'beside');
  const listed = beside && beside.odds > (eyes[0]?.odds ?? 0) ? [beside, ...eyes] : eyes;
  const targets = listed.map(({ candidate, ...rest }) => ({ ...rest, holdsFrom: labelOf(holds(candidate)) }));
  return { targets, styles: stylesOf({ ...input, setup: open }) };
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
    return [{ style, stop: entry.stop.label, odds: entry.odds, worstRatio: entry.worst.ratio, missed }];
  });
}
