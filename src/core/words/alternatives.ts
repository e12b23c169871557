/** Other targets and styles, with what each costs, in words. */
import type { StyleResult, TargetResult } from '../call/alternatives';
import type { ApertureStyle } from '../setup/schema';
import { oddsWords } from './call';

export const styleWords: Readonly<Record<ApertureStyle, string>> = {
  openAsFacesAllow: 'as open as the faces allow',
  lensBest: 'the lens’s best stop',
  deepAndSafe: 'deep and safe'
};

/** "93 %, holds from f/2.8"; "97 %, not as wished: ferns": what choosing it means. */
export function alternativeWords(item: TargetResult | StyleResult): string {
  const odds = oddsWords(item.odds);
  if ('missed' in item) return item.missed.length === 0 ? odds : `${odds}, not as wished: ${item.missed.join(', ')}`;
  return `${odds}, ${item.holdsFrom === null ? 'holds at no stop' : `holds from f/${item.holdsFrom}`}`;
}
