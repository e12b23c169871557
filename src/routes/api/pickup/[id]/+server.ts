/**
 * Where a sealed job waits for another device. The server holds ciphertext under a random name, and nothing that would open
 * it. PUT leaves it, POST collects it (no link preview does that), DELETE says that it has arrived, GET whether it waits.
 */
import { isPlace } from '$lib/state/transfer/sealed';
import { rateLimit, refusal } from '$lib/server/api';
import { AddressBudget } from '$lib/server/addressBudget';
import { readBody } from '$lib/server/body';
import { sharedStorage } from '$lib/server/shared';
import { PickupRepository, pickupLimits } from '$lib/server/pickupRepository';
import type { RequestHandler } from './$types';

const shelf = new PickupRepository(pickupLimits, Date.now, sharedStorage('pickup'));
/** What one address may do: leave a few jobs, and try for a broken connection. */
const leaveTooOften = rateLimit('leave', 20, 600);
const collectTooOften = rateLimit('collect', 60, 600);
const askTooOften = rateLimit('ask', 600, 600);

const never = { 'cache-control': 'no-store' };
const noPlace = () => refusal(400, 'This is no address of a pick-up.', { headers: never });
const gone = () =>
  refusal(404, 'Nothing waits here. It has been collected, or its ten minutes are over.', { headers: never });
/** What waits is in a store that several servers share, and it does not answer. */
const unreached = () =>
  refusal(503, 'Can’t reach the pick-ups just now. Try again, or export the job as a file.', {
    headers: { ...never, 'retry-after': '10' }
  });
const guarded =
  (handler: RequestHandler): RequestHandler =>
  async (event) => {
    try {
      return await handler(event);
    } catch {
      return unreached();
    }
  };
const done = () => new Response(null, { status: 204, headers: never });

/** Bytes of jobs on their way: one address sends two at once, and all together no more than memory has room for. */
const onTheirWay = new AddressBudget({ each: 2 * pickupLimits.itemBytes, all: 8 * pickupLimits.itemBytes });

const tooLarge = () =>
  refusal(413, `A job to be picked up has at most ${pickupLimits.itemBytes / 1024 / 1024} MB. Export it as a file.`);
const full = (retryAfterS: number) =>
  refusal(503, 'Too many jobs are waiting. Try again in a few minutes, or export the job as a file.', {
    headers: { 'retry-after': String(retryAfterS) }
  });

export const PUT = guarded(async ({ params, request, getClientAddress }) => {
  const address = getClientAddress();
  const refused = await leaveTooOften(address);
  if (refused) return refused;
  if (!isPlace(params.id)) return noPlace();
  const bytes = await readBody(request, pickupLimits.itemBytes, { budget: onTheirWay, address }).catch(
    () => 'tooLarge' as const
  );
  if (bytes === 'tooLarge') return tooLarge();
  if (bytes === 'noRoom') return full(10);
  if (bytes.length === 0) return refusal(400, 'There is nothing in it.');
  switch (await shelf.put(params.id, bytes, address)) {
    case 'kept':
      return done();
    case 'tooLarge':
      return tooLarge();
    case 'enough':
      return refusal(429, 'Enough jobs of this address wait to be picked up. Collect them, or wait some minutes.', {
        headers: { 'retry-after': '120' }
      });
    case 'full':
      return full(120);
  }
});

export const POST = guarded(async ({ params, getClientAddress }) => {
  const refused = await collectTooOften(getClientAddress());
  if (refused) return refused;
  if (!isPlace(params.id)) return noPlace();
  const bytes = await shelf.get(params.id);
  if (!bytes) return gone();
  return new Response(bytes, { headers: { ...never, 'content-type': 'application/octet-stream' } });
});

export const DELETE = guarded(async ({ params, getClientAddress }) => {
  const refused = await collectTooOften(getClientAddress());
  if (refused) return refused;
  if (!isPlace(params.id)) return noPlace();
  return (await shelf.remove(params.id)) ? done() : gone();
});

export const GET = guarded(async ({ params, getClientAddress }) => {
  const refused = await askTooOften(getClientAddress());
  if (refused) return refused;
  if (!isPlace(params.id)) return noPlace();
  return Response.json({ waits: await shelf.has(params.id) }, { headers: never });
});
