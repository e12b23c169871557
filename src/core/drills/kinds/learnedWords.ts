/** What drills say of one's own hands, in words. */
import type { LengthUnit } from '../../units/length';
import { shortLength } from '../../words/bench';
import type { LearnedAt } from '../series/learned';

/** "You sway 6 mm in a second, kneeling (4 to 9 mm)". */
export function learnedWords(
  { what, stance, value, low, high }: Pick<LearnedAt, 'what' | 'stance' | 'value' | 'low' | 'high'>,
  unit: LengthUnit
): string {
  const mm = (one: number) => shortLength(Math.abs(one), unit);
  /** "17 to 23 mm": what both ends say last is said once. */
  const between = (say: (one: number) => string) => {
    const [from, to] = [say(low).split(' '), say(high)];
    if (from.length > 1 && to.endsWith(` ${from.slice(1).join(' ')}`)) from.splice(1);
    return `${from.join(' ')} to ${to}`;
  };
  // Where the interval holds nought it reaches both ways.
  const sided = (one: number) => `${mm(one)} ${one < 0 ? 'back' : 'nearer'}`;
  const how = stance === null ? '' : stance === 'monopod' || stance === 'tripod' ? `on a ${stance}` : stance;
  switch (what) {
    case 'lean':
      return `You come ${sided(value)} while turning (${between(sided)})`;
    case 'leanSpread':
      return `From one turn to the next that differs by ${mm(value)} (${between(mm)})`;
    case 'sway':
      return `You sway ${mm(value)} in a second, ${how} (${between(mm)})`;
    case 'shake':
      return `At 1/focal length you shake by ${value.toFixed(2)} of the usual disc, ${how} (${low.toFixed(2)} to ${high.toFixed(2)})`;
  }
}
