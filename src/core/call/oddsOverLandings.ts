/** Odds over everything autofocus may land on. */
import type { Candidate } from './candidates';
import { focusAt, oddsInput, type Focus } from './focus';
import { landedOn, type PossiblePlane } from './focusLanding';
import { keeperOdds } from './odds';
import type { FocusGroup } from './aim';
import type { Situation } from './situation';

/** Odds of one frame whose focus lands where a landing has it; none where the lens cannot be focused so near. */
export function oddsAt(
  situation: Situation,
  group: FocusGroup,
  { candidate, focus }: { readonly candidate: Candidate; readonly focus: Focus },
  { depth }: PossiblePlane
): number {
  if (depth < situation.closest) return 0;
  const landed =
    depth === candidate.focusDistanceMm
      ? focus
      : focusAt(situation, focus.N, { ...candidate, focusDistanceMm: depth }, focus.light);
  return keeperOdds(oddsInput(situation, landed, group.members));
}

interface Aimed {
  readonly candidate: Candidate;
  readonly focus: Focus;
  /** Odds where focus lands on the candidate itself. */
  readonly odds: number;
}

/** Σ chance × odds over the landings of a candidate: the odds of one frame. */
export function oddsOverLandings(situation: Situation, group: FocusGroup, aimed: Aimed): number {
  return landedOn(situation, aimed.candidate).planes.reduce((sum, plane) => {
    const here = plane.depth === aimed.candidate.focusDistanceMm;
    return sum + plane.chance * (here ? aimed.odds : oddsAt(situation, group, aimed, plane));
  }, 0);
}
