/** Other targets and styles, with what each costs, in words. */
import type { StyleResult, TargetResult, ViewingResult } from '../call/alternatives';
import { oddsWords } from './call';

/** "93%, faces sharp from f/2.8"; "97%, misses: ferns": what choosing it means. */
export function alternativeWords(item: TargetResult | StyleResult | ViewingResult): string {
  const odds = oddsWords(item.odds);
  if ('facesHold' in item) return item.facesHold ? odds : `${odds}, faces sharp at no aperture`;
  if ('missed' in item) return item.missed.length === 0 ? odds : `${odds}, misses: ${item.missed.join(', ')}`;
  return `${odds}, ${item.holdsFrom === null ? 'faces sharp at no aperture' : `faces sharp from f/${item.holdsFrom}`}`;
}

/** "closely, at 100%: f/5.6", "in print: f/2.8". */
export const viewingWords = ({ viewing, stop }: ViewingResult): string =>
  `${viewing === 'close' ? 'closely, at 100%' : 'in print'}: f/${stop}`;
