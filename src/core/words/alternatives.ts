/** Other targets, styles and row rules, with what each costs, in words. */
import type { RowRule, RowRuleResult, StyleResult, TargetResult } from '../call/alternatives';
import type { Style } from '../setup/schema';
import { oddsWords } from './call';

export const ruleWords: Readonly<Record<RowRule, string>> = {
  frontRow: 'two rows, the front one',
  middleRow: 'more rows, the middle one',
  oneThirdIn: 'a third into the depth'
};

export const styleWords: Readonly<Record<Style, string>> = {
  openAsFacesAllow: 'as open as the faces allow',
  lensBest: 'the lens’s best stop',
  deepAndSafe: 'deep and safe'
};

/** "93 %, holds from f/2.8", "costs 1.5 stops", "ferns come back": what choosing it means. */
export function alternativeWords(item: TargetResult | RowRuleResult | StyleResult): string {
  const odds = oddsWords(item.odds);
  if ('missed' in item) return item.missed.length === 0 ? odds : `${odds}, not as wished: ${item.missed.join(', ')}`;
  const holds = item.holdsFrom === null ? 'holds at no stop' : `holds from f/${item.holdsFrom}`;
  if (!('costStops' in item) || item.costStops === null || item.costStops < 0.05) return `${odds}, ${holds}`;
  const stops = item.costStops.toFixed(1).replace(/\.0$/, '');
  return `${odds}, ${holds}: costs ${stops} ${stops === '1' ? 'stop' : 'stops'}`;
}
