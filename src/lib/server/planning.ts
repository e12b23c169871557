/** Plan requests off the server's own thread: several at a time, each for so long, no answer without end. */
import { availableParallelism } from 'node:os';
import { join } from 'node:path';
import { Piscina } from 'piscina';
import type { PlanAnswer } from '$core/service/planRequest';

/** Longest a request may take, from when it comes in, ms. */
const limitMs = Number(process.env['PLAN_LIMIT_MS'] ?? 2000);

/** Requests that may wait for a thread; more are sent away at once. */
const mostWaiting = 16;

let pool: Piscina<string, PlanAnswer> | undefined;

/** Threads come when first needed, and go when they are not. */
function threads(): Piscina<string, PlanAnswer> {
  return (pool ??= new Piscina({
    filename: process.env['PLAN_WORKER'] ?? join(process.cwd(), 'build/plan.worker.mjs'),
    minThreads: 1,
    maxThreads: Math.max(1, Math.min(4, availableParallelism() - 1)),
    maxQueue: mostWaiting,
    idleTimeout: 60_000,
    resourceLimits: { maxOldGenerationSizeMb: 256 }
  }));
}

export type PlanOutcome = PlanAnswer | { readonly ok: null; readonly reason: string };

/** The answer to a request, or why there is none just now. */
export async function plan(text: string): Promise<PlanOutcome> {
  const tooLong = new AbortController();
  const timer = setTimeout(() => tooLong.abort(), limitMs);
  try {
    return await threads().run(text, { signal: tooLong.signal });
  } catch (error) {
    if (tooLong.signal.aborted) {
      const reason = `This takes longer than ${limitMs / 1000} s. Ask for less at once: fewer lenses, people or parts.`;
      return { ok: null, reason };
    }
    if ((error as { code?: unknown } | null)?.code === 'ERR_WORKER_OUT_OF_MEMORY') {
      return { ok: null, reason: 'This takes more memory than one request may have. Ask for less at once.' };
    }
    if (threads().queueSize < mostWaiting) process.stderr.write(`A plan request ended its thread: ${String(error)}\n`);
    return { ok: null, reason: 'The server has too much to do just now. Try again in a moment.' };
  } finally {
    clearTimeout(timer);
  }
}
