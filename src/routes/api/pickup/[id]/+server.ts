/**
 * Where a sealed job waits for another device. The server holds ciphertext under a random name, and nothing that would open
 * it. PUT leaves it, POST collects it (no link preview does that), DELETE says that it has arrived, GET whether it waits.
 */
import { isPlace } from '$lib/state/transfer/sealed';
import { rateLimit, refusal } from '$lib/server/api';
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
  refusal(503, 'Pick-ups cannot be reached just now. Try again, or take it as a file.', {
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

export const PUT = guarded(async ({ params, request, getClientAddress }) => {
  const refused = await leaveTooOften(getClientAddress());
  if (refused) return refused;
  if (!isPlace(params.id)) return noPlace();
  const megabytes = pickupLimits.itemBytes / 1024 / 1024;
  const bytes = await readBody(request, pickupLimits.itemBytes).catch(() => null);
  if (bytes === null) return refusal(413, `A job to be picked up has at most ${megabytes} MB. Take it as a file.`);
  if (bytes.length === 0) return refusal(400, 'There is nothing in it.');
  switch (await shelf.put(params.id, bytes)) {
    case 'kept':
      return done();
    case 'tooLarge':
      return refusal(413, `A job to be picked up has at most ${megabytes} MB. Take it as a file.`);
    case 'full':
      return refusal(503, 'Too many jobs wait to be picked up. Try again in some minutes, or take it as a file.', {
        headers: { 'retry-after': '120' }
      });
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
