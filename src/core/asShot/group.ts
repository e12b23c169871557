/** The parts of a scene that most often turn out different. */
import type { Background, Setup } from '../setup/schema';

/** A group less deep than this from front to back has no rows to move, mm (my choice). */
const leastSpanMm = 100;

/** How deep those stand who must or should be sharp; null where they have no rows. */
export function groupDepth({
  people
}: Pick<Setup, 'people'>): { readonly frontMm: number; readonly spanMm: number } | null {
  const depths = people.filter((person) => person.importance !== 'maySoft').map((person) => person.depthMm);
  const frontMm = Math.min(...depths);
  const spanMm = Math.max(...depths) - frontMm;
  return spanMm >= leastSpanMm ? { frontMm, spanMm } : null;
}

/** A background that is to be soft, to vanish, or only to be hinted at. */
export const leadsAway = ({ depthMm, wish }: Background): boolean =>
  depthMm > 0 && (wish === 'soft' || wish === 'hide' || wish === 'hint');
