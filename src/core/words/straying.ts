/** Autofocus that strays, in words. */
import type { Plan, StopPlan } from '../call/plan';
import type { Straying } from '../call/straying';
import { oddsWords, possessive, subjectName } from './call';
import { chanceWords, landedWords } from './ways';

/** What lies nearer to the eye in depth than this is of its face, mm. */
const ownFaceMm = 40;

/** "97% if focus lands on Ines’s eye, 78% with this AF area: about 2 in 10 go to Corvin’s hair." */
export function strayingSentence(plan: Plan, { odds, oddsOnTarget, landings, target }: StopPlan): string {
  // A brow or a cheek of the same face lies as deep as its eye: what costs a frame lies elsewhere.
  const most = landings.find(
    ({ part, id, depth }) =>
      part !== 'target' && (id !== target.subjectId || Math.abs(depth - target.focusDistanceMm) > ownFaceMm)
  );
  const on =
    target.subjectId === null
      ? 'target'
      : target.role?.endsWith('Eye')
        ? `${possessive(subjectName(plan, target.subjectId))} eye`
        : subjectName(plan, target.subjectId);
  const goes = most ? `: ${chanceWords(most.chance)} go to ${landedWords(plan, most)}` : '';
  return `${oddsWords(oddsOnTarget)} if focus lands on ${on}, ${oddsWords(odds)} with this AF area${goes}.`;
}

/** The button that mends it: "Single point: 97%". */
export const mendWords = ({ kind, odds }: NonNullable<Straying['mend']>): string =>
  `${{ point: 'Single point', pinpoint: 'Pinpoint', tap: 'Tap and hold' }[kind]}: ${oddsWords(odds)}`;
