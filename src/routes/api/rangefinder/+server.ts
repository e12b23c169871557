import { rangeMm, simulatedReadings } from '$core/simulation/rangefinder';
import { OpenByAddress, refusal } from '$lib/server/api';
import type { RequestHandler } from './$types';

const everyMs = 200;
/** A forgotten stream ends by itself. */
const longestMs = 120_000;
/** One address may have two: a phone and a tablet behind one name. */
const open = new OpenByAddress({ each: 2, all: 20 });

/** The simulated rangefinder: server-sent events, pointed at something `mm` away. */
export const GET: RequestHandler = ({ url, getClientAddress }) => {
  const mm = Number(url.searchParams.get('mm') ?? NaN);
  if (!Number.isFinite(mm) || mm <= 0 || mm > rangeMm.most * 100) {
    return refusal(400, 'must be a distance in millimetres', { field: 'mm' });
  }
  const done = open.take(getClientAddress());
  if (!done) return refusal(503, 'All rangefinders are in use.', { headers: { 'retry-after': '10' } });
  const readings = simulatedReadings(mm, Math.random);
  let timer: ReturnType<typeof setInterval> | undefined;
  const stop = () => {
    if (timer === undefined) return;
    clearInterval(timer);
    timer = undefined;
    done();
  };
  const encoder = new TextEncoder();
  const body = new ReadableStream<Uint8Array>({
    start(controller) {
      const until = Date.now() + longestMs;
      timer = setInterval(() => {
        if (Date.now() > until) {
          stop();
          controller.close();
          return;
        }
        controller.enqueue(encoder.encode(`data: ${JSON.stringify(readings.next().value)}\n\n`));
      }, everyMs);
    },
    cancel: stop
  });
  return new Response(body, {
    headers: { 'content-type': 'text/event-stream', 'cache-control': 'no-store' }
  });
};
