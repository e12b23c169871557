import { parse } from 'content-type';
import { maxRequestBytes } from '$core/service/limits';
import { rateLimit, refusal } from '$lib/server/api';
import { AddressBudget } from '$lib/server/addressBudget';
import { readBody } from '$lib/server/body';
import { plan } from '$lib/server/planning';
import type { RequestHandler } from './$types';

/** Requests one address may make in a minute: planning is work, and nobody needs more by hand. */
const tooOften = rateLimit('plan', 120, 60);
/** Bytes of requests on their way. */
const onTheirWay = new AddressBudget({ each: 8 * maxRequestBytes, all: 128 * maxRequestBytes });
const again = { headers: { 'retry-after': '2' } };

function isJson(header: string | null): boolean {
  try {
    return header !== null && parse(header).type === 'application/json';
  } catch {
    return false;
  }
}

export const POST: RequestHandler = async ({ request, getClientAddress }) => {
  const address = getClientAddress();
  const refused = await tooOften(address);
  if (refused) return refused;
  if (!isJson(request.headers.get('content-type'))) return refusal(415, 'Send the request as application/json.');
  // A body on its way is no work yet: it takes room, and nobody's turn.
  const body = await readBody(request, maxRequestBytes, { budget: onTheirWay, address }).catch(
    () => 'tooLarge' as const
  );
  if (body === 'tooLarge') return refusal(413, `The request is larger than ${maxRequestBytes / 1024} KB.`);
  if (body === 'noRoom') return refusal(429, 'Too many requests at once. Wait for their answers.', again);
  const answer = await plan(new TextDecoder().decode(body), address);
  if (answer.ok === null) return refusal(answer.refused ? 429 : 503, answer.reason, again);
  if (!answer.ok) return refusal(400, answer.reason, { field: answer.field });
  return new Response(answer.json, { headers: { 'content-type': 'application/json' } });
};
