/** Whether autofocus that strays is worth a word: apart from what says so in full, which the first page does not need. */
import type { StopPlan } from './plan';

/** A keeper rate lower by less is not worth a word (no source). */
export const worthTelling = 0.05;

/** Whether what autofocus may take instead costs enough at this stop to be told. */
export const strays = ({ odds, oddsOnTarget }: StopPlan): boolean => oddsOnTarget - odds >= worthTelling;
