/** Whether a picture can be taken at all: for searches that ask it of many. */
import { bestFocusBetween } from '../optics/blur';
import { defocusAllowance } from '../optics/sharpness';
import type { Stop } from '../optics/stops';
import type { Candidate } from './candidates';
import { canExpose } from './exposable';
import { hintRange } from './background';
import { backgroundsAt, evaluateStop } from './evaluateStop';
import { focusAt, worstRatioOf, type Focus } from './focus';
import type { StopPlan } from './plan';
import type { LightAtStop } from './light';
import type { FocusGroup } from './aim';
import type { Situation } from './situation';

/** What is asked of a stop: everything, or the faces alone. */
export type WindowScope = 'everything' | 'faces';

/**
 * Whether some stop that can be exposed grants what is asked: what `planSetup` would find, for the price of those in question.
 * First what no focus at all could mend is left out; then the deepest stop is asked, whose odds no other's exceed.
 */
export function hasUsableWindow(situation: Situation, stops: readonly Stop[], asked: WindowScope): boolean {
  const inQuestion = stops.flatMap((stop) => possible(situation, stop, asked) ?? []).sort((a, b) => b.reach - a.reach);
  const [deepest, ...others] = inQuestion;
  if (!deepest) return false;
  const entry = evaluateStop(situation, deepest.stop);
  if (!entry) return false;
  if (meetsGoals(entry, asked)) return true;
  const { oddsWanted } = situation.setup.intent;
  if (entry.oddsOnTarget < oddsWanted - oddsMargin) return false;
  return others.some(({ stop }) => {
    const other = evaluateStop(situation, stop);
    return other !== undefined && meetsGoals(other, asked);
  });
}

/**
 * How near a situation comes at best, more for nearer, without asking where exactly one would focus: for the faces how deep
 * the lens reaches, as a share of how deep it must; for everything the stops by which the backgrounds are missed where the
 * faces could be held. −Infinity where nothing can be exposed.
 */
export function nearness(situation: Situation, stops: readonly Stop[], asked: WindowScope): number {
  const nearest = stops.map((stop) => {
    const light = situation.light(stop.fNumber);
    if (!canExpose({ light })) return -Infinity;
    const all = situation.groups.map((group) => evenly(situation, group, stop.fNumber, light));
    const ratio = Math.max(...all.map((item) => item.ratio));
    if (asked === 'faces') return -ratio;
    const [first] = all;
    if (!first || ratio > barely) return -Infinity;
    return -backgroundsAt(situation, first.focus).reduce((sum, item) => sum + item.shortfallStops, 0);
  });
  return Math.max(...nearest);
}

/** Odds of the deepest stop may lie so much under another's, whose focus is another or whose movement blurs less. */
const oddsMargin = 0.2;

export function meetsGoals(entry: StopPlan, asked: WindowScope): boolean {
  const granted = entry.facesHold && (asked === 'faces' || entry.backgrounds.every((item) => item.met));
  return granted && canExpose(entry);
}

/** A stop with how deep it reaches; undefined where no plane between the faces could hold them, or the backgrounds refuse it. */
function possible(
  situation: Situation,
  stop: Stop,
  asked: WindowScope
): { readonly stop: Stop; readonly reach: number } | undefined {
  const { fNumber: N } = stop;
  const light = situation.light(N);
  if (!canExpose({ light })) return undefined;
  let reach = Infinity;
  for (const [index, group] of situation.groups.entries()) {
    const { focus, ratio } = evenly(situation, group, N, light);
    if (ratio > barely) return undefined;
    reach = Math.min(reach, N * defocusAllowance(situation.C, focus.common));
    // The backgrounds are judged in the first frame.
    if (index > 0 || asked === 'faces') continue;
    // Where somebody chose to focus the plane may lie anywhere.
    if (situation.setup.intent.target.kind !== 'best') continue;
    if (backgroundsAt(situation, focus).every((item) => item.met)) continue;
    const planes = [focus, ...[group.nearest, group.furthest].map((at) => focusAt(situation, N, ideal(at), light))];
    if (!backgroundsAllow(situation, planes)) return undefined;
  }
  return { stop, reach };
}

/**
 * A blur ratio up to which the faces may still be held: with the plane nearer or further the picture is drawn larger or
 * smaller, which diffraction shows by a trifle.
 */
const barely = 1.002;

/** A group with the plane where it shares the blur evenly: hardly another leaves its worst point less blurred. */
function evenly(situation: Situation, group: FocusGroup, N: number, light: LightAtStop) {
  const focus = focusAt(situation, N, ideal(bestFocusBetween(group.nearest, group.furthest)), light);
  return { focus, ratio: worstRatioOf(situation, group, focus) };
}

/** A plane exactly there, whatever lies there. */
const ideal = (focusDistanceMm: number): Candidate => ({
  subjectId: null,
  feature: null,
  role: null,
  focusDistanceMm,
  position: null,
  point: null,
  recomposed: null,
  standing: 'beside',
  biasMm: 0,
  biasUm: 0,
  stopShift: [],
  leanMm: 0,
  behindMm: 0
});

/** Whether each background is as wished with the plane at one of these places, or may be between them. */
function backgroundsAllow(situation: Situation, planes: readonly Focus[]): boolean {
  const at = planes.map((focus) => backgroundsAt(situation, focus));
  return situation.backgrounds.every((background, position) => {
    const states = at.flatMap((entry) => entry[position] ?? []);
    if (states.some((state) => state.met || state.shortfallStops < nearlyStops)) return true;
    // Too plain with the plane at one end and gone at the other, a hint may lie between.
    const lost = states.map((state) => state.lostDetailMm / background.detailMm);
    return background.wish === 'hint' && Math.min(...lost) < hintRange.least && Math.max(...lost) > hintRange.most;
  });
}

/** A target may lie a little outside the faces' depths, turned or leaning; what is missed by so little is looked at, stops. */
const nearlyStops = 0.5;
