/** Other targets and styles, with what each costs, in words. */
import type { StyleResult, TargetResult } from '../call/alternatives';
import { oddsWords } from './call';

/** "93%, faces sharp from f/2.8"; "97%, misses: ferns": what choosing it means. */
export function alternativeWords(item: TargetResult | StyleResult): string {
  const odds = oddsWords(item.odds);
  if ('missed' in item) return item.missed.length === 0 ? odds : `${odds}, misses: ${item.missed.join(', ')}`;
  return `${odds}, ${item.holdsFrom === null ? 'faces sharp at no aperture' : `faces sharp from f/${item.holdsFrom}`}`;
}
