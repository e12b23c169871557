/** Rules of thumb, judged: what each would have done in this picture, with its odds. */
import { distanceCandidate, type Candidate } from '../call/candidates';
import { tryCandidate } from '../call/places';
import { targetOf } from '../call/evaluateStop';
import { asFocusTarget } from '../call/focusTarget';
import { oddsOverLandings } from '../call/oddsOverLandings';
import type { Plan, Target } from '../call/plan';
import type { PlanInput } from '../call/planInput';
import { asCalled } from '../call/inPrint';
import { planSetup, stopsOf } from '../call/planSetup';
import { prepare } from '../call/planSetup';
import type { FocusGroup } from '../call/aim';
import type { Situation } from '../call/situation';
import { isByHand } from '../call/scatter';
import { stopsBetween, type Stop } from '../optics/stops';
import { rowsByDepth } from '../people/rows';
import type { Setup } from '../setup/schema';
import { withCamera } from '../setup/moves';
import { evaluateAt } from './evaluateAt';

export type RuleKind =
  | 'frontOfTwo'
  | 'middleRow'
  | 'thirdIn'
  | 'nearestFace'
  | 'wholeFrame'
  | 'wideOpen'
  | 'twoStopsDown'
  | 'alwaysEight'
  | 'stopPerRow';

export interface Ruled {
  readonly rule: RuleKind;
  readonly stop: Stop;
  readonly target: Target;
  readonly planeMm: number;
  readonly odds: number;
  readonly worstRatio: number;
  /** For rules of where to focus: the first stop at which it holds the faces; null when none does. */
  readonly holdsFrom: string | null;
  /** Stops further closed than the call needs for the faces; null when it never holds them, or for rules of the stop. */
  readonly costStops: number | null;
  /** Backgrounds that do not get their wish. */
  readonly missed: readonly string[];
  /** The setup done by the rule. */
  readonly setup: Setup;
  /** Whether the setup already does so. */
  readonly inUse: boolean;
}

/** Within this of a rule's f-number, in stops, a lens has it. */
const hasIt = 0.34;

/** The stop of a rule, where the lens has it. */
function stopNear(stops: readonly Stop[], N: number): Stop | undefined {
  const [nearest] = [...stops].sort(
    (a, b) => Math.abs(stopsBetween(a.fNumber, N)) - Math.abs(stopsBetween(b.fNumber, N))
  );
  return nearest && Math.abs(stopsBetween(nearest.fNumber, N)) <= hasIt ? nearest : undefined;
}

interface Scene {
  readonly input: PlanInput;
  readonly plan: Plan;
  readonly situation: Situation;
  readonly group: FocusGroup;
  readonly stop: Stop;
  readonly rows: number;
}

/** Rules of where to focus, at the stop in use. */
function byPlace({ input, plan, situation, group, stop, rows }: Scene): Ruled[] {
  const { setup, stopStep } = input;
  const ordered = rowsByDepth(group.members, (member) => member.subject.nearest);
  const inRow = (row: FocusGroup['members'] | undefined): Candidate | undefined => {
    const ids = new Set(row?.map((member) => member.subject.id));
    const aside = (candidate: Candidate) => Math.abs((candidate.position?.x ?? 0) - situation.view.position.x);
    return group.eyes
      .filter(({ subjectId }) => subjectId !== null && ids.has(subjectId))
      .sort((a, b) => aside(a) - aside(b))[0];
  };
  const nearest = [...group.eyes].sort((a, b) => a.focusDistanceMm - b.focusDistanceMm)[0];
  const third = distanceCandidate(situation.aim, group.nearest + (group.furthest - group.nearest) / 3);
  const places: readonly (readonly [RuleKind, Candidate | undefined])[] = [
    ['frontOfTwo', rows === 2 ? inRow(ordered[0]) : undefined],
    ['middleRow', rows > 2 ? inRow(ordered[Math.floor((rows - 1) / 2)]) : undefined],
    ['thirdIn', rows > 1 ? third : undefined],
    ['nearestFace', group.members.length > 1 ? nearest : undefined]
  ];
  const needed = plan.stops.find(({ facesHold }) => facesHold);
  const at = (candidate: Candidate, N: number) => tryCandidate(situation, group, N, situation.light(N), candidate);
  return places.flatMap(([rule, candidate]): Ruled[] => {
    if (!candidate || candidate.focusDistanceMm < situation.closest) return [];
    const tried = at(candidate, stop.fNumber);
    const holds = stopsOf(situation.lens, stopStep).find((item) => {
      const { odds, worstRatio } = at(candidate, item.fNumber);
      return worstRatio <= 1 + 1e-9 && odds >= setup.intent.oddsWanted;
    });
    const target = targetOf(candidate);
    const wish = asFocusTarget(target, setup);
    const entry = plan.stops[plan.selected];
    return [
      {
        rule,
        stop,
        target,
        planeMm: tried.focus.plane,
        odds: oddsOverLandings(situation, group, tried),
        worstRatio: tried.worstRatio,
        holdsFrom: holds?.label ?? null,
        costStops: holds && needed ? stopsBetween(needed.stop.fNumber, holds.fNumber) : null,
        missed: [],
        setup: { ...setup, intent: { ...setup.intent, target: wish } },
        inUse:
          target.subjectId !== null &&
          target.subjectId === entry?.target.subjectId &&
          target.feature === entry?.target.feature
      }
    ];
  });
}

/** Rules of the stop, focused as the call would there; and the camera left to itself. */
function byStop({ input, plan, situation, stop, rows }: Scene): Ruled[] {
  const { setup, stopStep } = input;
  const stops = stopsOf(situation.lens, stopStep);
  const widest = stops[0];
  const entry = plan.stops[plan.selected];
  if (!widest || !entry) return [];
  const perRow = rows > 1 ? stopNear(stops, widest.fNumber * 2 ** (rows / 2)) : undefined;
  const byHand = isByHand(setup.camera.focusMethod);
  const method = byHand ? 'crossPoint' : setup.camera.focusMethod;
  const asked: readonly (readonly [RuleKind, Stop | undefined, Setup])[] = [
    ['wholeFrame', stop, withCamera(setup, { focusArea: 'wholeFrame', recompose: 'none', focusMethod: method })],
    ['wideOpen', widest, setup],
    ['twoStopsDown', stopNear(stops, widest.fNumber * 2), setup],
    ['alwaysEight', stopNear(stops, 8), setup],
    ['stopPerRow', perRow, setup]
  ];
  return asked.flatMap(([rule, at, changed]): Ruled[] => {
    const tried = at && evaluateAt(input, changed, at);
    if (!at || !tried) return [];
    const chosen = { kind: 'chosen', fNumber: Number(at.label) } as const;
    const ofStop = rule !== 'wholeFrame';
    return [
      {
        rule,
        stop: at,
        target: tried.entry.target,
        planeMm: tried.entry.planeMm,
        odds: tried.entry.odds,
        worstRatio: tried.entry.worst.ratio,
        holdsFrom: null,
        costStops: null,
        missed: situation.backgrounds
          .filter((_, index) => !tried.entry.backgrounds[index]?.met)
          .map((background) => background.name),
        setup: ofStop ? { ...changed, intent: { ...changed.intent, stop: chosen } } : changed,
        inUse: ofStop ? at.label === entry.stop.label : !byHand && setup.camera.focusArea === 'wholeFrame'
      }
    ];
  });
}

/** Every rule that says something of this picture. Empty where nothing can be planned. */
export function judgedRules(input: PlanInput): readonly Ruled[] {
  const plan = planSetup(input);
  // Places are looked at whatever target has been chosen.
  const open: Setup = { ...input.setup, intent: { ...input.setup.intent, target: { kind: 'best' } } };
  const prepared = prepare(asCalled({ ...input, setup: open }, plan));
  if (plan.kind === 'noPlan' || prepared.kind === 'noPlan') return [];
  const situation = prepared;
  const [group] = situation.groups;
  const stop = plan.stops[plan.selected]?.stop;
  if (!group || !stop) return [];
  const rows = rowsByDepth(group.members, (member) => member.subject.nearest).length;
  const scene: Scene = { input, plan, situation, group, stop, rows };
  return [...byPlace(scene), ...byStop(scene)];
}
