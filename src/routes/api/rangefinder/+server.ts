import { error } from '@sveltejs/kit';
import { rangeMm, simulatedReadings } from '$core/devices/rangefinder';
import type { RequestHandler } from './$types';

const everyMs = 200;
/** A forgotten stream ends by itself. */
const longestMs = 120_000;
const mostAtOnce = 20;
let open = 0;

/** The simulated rangefinder: server-sent events, pointed at something `mm` away. */
export const GET: RequestHandler = ({ url }) => {
  const mm = Number(url.searchParams.get('mm') ?? NaN);
  if (!Number.isFinite(mm) || mm <= 0 || mm > rangeMm.most * 100) error(400, 'mm must be a distance in millimetres.');
  if (open >= mostAtOnce) error(503, 'All rangefinders are in use.');
  open += 1;
  const readings = simulatedReadings(mm, Math.random);
  let timer: ReturnType<typeof setInterval> | undefined;
  const stop = () => {
    if (timer === undefined) return;
    clearInterval(timer);
    timer = undefined;
    open -= 1;
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
