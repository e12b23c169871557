/** Searches off the main thread. */
import { expose } from 'comlink';
import { alternatives } from '../core/call/alternatives';
import { lineUp } from '../core/call/lineUp';
import type { PlanInput } from '../core/call/planInput';
import { combineRemedies, findCombinations } from '../core/call/remedies/combine';
import { findRemedies, type OnProgress } from '../core/call/remedies/findRemedies';
import { findBag } from '../core/day/findBag';
import { answerPhoto } from '../core/fromPhoto/answer';
import { guessScene } from '../core/drills/desk/guess';
import { tryScene } from '../core/drills/desk/mode';
import { distanceSensitivity } from '../core/call/sensitivity';
import { surerAim } from '../core/technique/straying';
import { whatIfSteadier } from '../core/call/whatIf';
import { kitGroups, personFigures, swayByStance, type RecordAsked } from '../core/record/groups';
import type { Recorded } from '../core/record/schema';
import { techniqueOf } from '../core/technique/technique';

/** With fewer single fixes than this, pairs are looked for too. */
const fewRemedies = 3;

/** Share of the whole search that the single fixes take. */
const firstShare = 0.25;

function findFixes(input: PlanInput, onProgress: OnProgress) {
  const remedies = findRemedies(input, (share) => onProgress(share * firstShare));
  const combinations =
    remedies.length < fewRemedies
      ? findCombinations(input, (share) => onProgress(firstShare + share * (1 - firstShare)))
      : [];
  return { remedies, combinations };
}

/** What the record says of each kit, of sway, and of each person. */
const learnFrom = (frames: readonly Recorded[], asked: RecordAsked) => ({
  groups: kitGroups(frames, asked),
  sways: swayByStance(frames, asked),
  persons: personFigures(frames, asked)
});

const planner = {
  learnFrom,
  findBag,
  findFixes,
  combineRemedies,
  lineUp,
  alternatives,
  distanceSensitivity,
  whatIfSteadier,
  surerAim,
  techniqueOf,
  guessScene,
  tryScene,
  answerPhoto
};
export type Planner = typeof planner;

expose(planner);
