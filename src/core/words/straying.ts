/** Autofocus that strays, in words. */
import type { Plan, StopPlan } from '../call/plan';
import type { FocusMethodOption } from '../technique/ways';
import { oddsWords, pointWords } from './call';
import { chanceWords, landedWords, wayName } from './ways';

/** What lies nearer to the eye in depth than this is of its face, mm (from memory: brow to ear is 10 cm). */
const ownFaceMm = 40;

/** "97% if focus lands on Ines’s near eye, 78% with this AF area: about 2 in 10 go to Corvin’s hair." */
export function strayingSentence(plan: Plan, { odds, oddsOnTarget, landings, target }: StopPlan): string {
  // A brow or a cheek of the same face lies as deep as its eye: what costs a frame lies elsewhere.
  const most = landings.find(
    ({ part, id, depth }) =>
      part !== 'target' && (id !== target.subjectId || Math.abs(depth - target.focusDistanceMm) > ownFaceMm)
  );
  const on = target.subjectId && target.role ? pointWords(plan, target.subjectId, target.role) : 'target';
  const goes = most ? `: ${chanceWords(most.chance)} go to ${landedWords(plan, most)}` : '';
  return `${oddsWords(oddsOnTarget)} if focus lands on ${on}, ${oddsWords(odds)} with this AF area${goes}.`;
}

/** The button that mends it: "Single point on Ines’s near eye: 97%". */
export const surerWords = (plan: Plan, way: FocusMethodOption): string =>
  `${wayName(plan, way)}: ${oddsWords(way.odds)}`;
