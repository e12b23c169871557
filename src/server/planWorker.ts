/** One plan request, in a thread of its own. */
import { answerPlanRequest, type PlanAnswer } from '../core/service/planRequest';

/** Largest answer, characters. */
const maxAnswer = 8_000_000;

export default function answer(text: string): PlanAnswer {
  const found = answerPlanRequest(text);
  if (!found.ok || found.json.length <= maxAnswer) return found;
  return { ok: false, field: 'include', reason: 'The answer would be larger than 8 MB. Ask for less at once.' };
}
