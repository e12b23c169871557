/** An answer belongs to its question: what was worked out from one state of a setup, done to what it has become since. */
import { merge, same } from '../plain/merge';
import type { Setup } from './schema';

/**
 * The setup with an answer's changes, or null when somebody has since changed the same values otherwise: the answer is
 * then to another question.
 *
 * @param asked the setup the answer was worked out from
 * @param answered that setup as the answer would have it
 * @param now the setup as it is
 */
export function answered(asked: Setup, answer: Setup, now: Setup): Setup | null {
  const kept = { id: now.id, name: now.name, notes: now.notes };
  const [from, to] = [asked, answer].map((setup) => ({ ...setup, ...kept })) as [Setup, Setup];
  const answerWins = merge(from, to, now);
  const presentWins = merge(from, now, to);
  return same(answerWins, presentWins) ? answerWins : null;
}
