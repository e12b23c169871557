import { parse } from 'content-type';
import { maxRequestBytes } from '$core/service/limits';
import { OpenByAddress, rateLimit, refusal } from '$lib/server/api';
import { readBody } from '$lib/server/body';
import { plan } from '$lib/server/planning';
import type { RequestHandler } from './$types';

/** Requests one address may make in a minute: planning is work, and nobody needs more by hand. */
const tooOften = rateLimit('plan', 120, 60);
const open = new OpenByAddress({ each: 4, all: 24 });

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
  const done = open.take(address);
  if (!done)
    return refusal(429, 'Too many requests at once. Wait for their answers.', { headers: { 'retry-after': '2' } });
  try {
    const body = await readBody(request, maxRequestBytes).catch(() => null);
    if (body === null) return refusal(413, `The request is larger than ${maxRequestBytes / 1024} KB.`);
    const answer = await plan(new TextDecoder().decode(body));
    if (answer.ok === null) return refusal(503, answer.reason, { headers: { 'retry-after': '2' } });
    if (!answer.ok) return refusal(400, answer.reason, { field: answer.field });
    return new Response(answer.json, { headers: { 'content-type': 'application/json' } });
  } finally {
    done();
  }
};
