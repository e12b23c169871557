import { json } from '@sveltejs/kit';
import { RateLimiterMemory, RateLimiterRes } from 'rate-limiter-flexible';
import { answerPlanRequest } from '$core/service/planRequest';
import type { RequestHandler } from './$types';

/** Requests one address may make in a minute: planning is work, and nobody needs more by hand. */
const limiter = new RateLimiterMemory({ points: 120, duration: 60 });

export const POST: RequestHandler = async ({ request, getClientAddress }) => {
  try {
    await limiter.consume(getClientAddress());
  } catch (refused) {
    const waitMs = refused instanceof RateLimiterRes ? refused.msBeforeNext : 60_000;
    const headers = { 'retry-after': String(Math.ceil(waitMs / 1000)) };
    return json({ field: '', reason: 'Too many requests. Wait a moment and try again.' }, { status: 429, headers });
  }
  if (!request.headers.get('content-type')?.startsWith('application/json')) {
    return json({ field: '', reason: 'Send the request as application/json.' }, { status: 415 });
  }
  const answer = answerPlanRequest(await request.text());
  if (!answer.ok) return json({ field: answer.field, reason: answer.reason }, { status: 400 });
  return new Response(answer.json, { headers: { 'content-type': 'application/json' } });
};
