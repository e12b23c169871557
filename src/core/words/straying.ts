/** Autofocus that strays, in words. */
import type { Plan, StopPlan } from '../call/plan';
import type { Straying } from '../call/straying';
import { worthTelling } from '../call/straying';
import { oddsWords, possessive, subjectName } from './call';
import { chanceWords, landedWords } from './ways';

/** Whether what autofocus may take instead is worth a word at this stop. */
export const strays = ({ odds, oddsOnTarget }: StopPlan): boolean => oddsOnTarget - odds >= worthTelling;

/** "97% if focus lands on Ines’s eye, 78% with this AF area: about 2 in 10 go to Corvin’s hair." */
export function strayingSentence(plan: Plan, { odds, oddsOnTarget, landings, target }: StopPlan): string {
  const most = landings.find(({ part }) => part !== 'target');
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
