/** Plan requests off the server's own thread: several at a time, each for so long, no answer without end. */
import { availableParallelism } from 'node:os';
import { join } from 'node:path';
import { Piscina } from 'piscina';
import type { PlanAnswer } from '$core/service/planRequest';
import { FairQueue } from './fairQueue';

/** Longest a request may take once a thread has begun with it, ms. */
const limitMs = Number(process.env['PLAN_LIMIT_MS'] ?? 2000);
const mostThreads = Math.max(1, Math.min(4, availableParallelism() - 1));
/** Requests that wait for a thread, and for how long: addresses take turns. */
const queue = new FairQueue({ atOnce: mostThreads, each: 8, all: 64, waitMs: 20_000 });

let pool: Piscina<string, PlanAnswer> | undefined;

/** Threads come when first needed, and go when they are not. */
function threads(): Piscina<string, PlanAnswer> {
  return (pool ??= new Piscina({
    filename: process.env['PLAN_WORKER'] ?? join(process.cwd(), 'build/plan.worker.mjs'),
    minThreads: 1,
    maxThreads: mostThreads,
    idleTimeout: 60_000,
    resourceLimits: { maxOldGenerationSizeMb: 256 }
  }));
}

/** `refused` tells one address that it asks too much at once from a server that is busy. */
export type PlanOutcome = PlanAnswer | { readonly ok: null; readonly refused: boolean; readonly reason: string };

const notNow = (reason: string, refused = false) => ({ ok: null, refused, reason }) as const;
const busy = 'The server has too much to do just now. Try again in a moment.';

/** The answer to a request, or why there is none just now. */
export async function plan(text: string, address: string): Promise<PlanOutcome> {
  const outcome = await queue.run(address, () => answer(text));
  if (outcome === 'tooMany') return notNow('Too many requests at once. Wait for their answers.', true);
  return typeof outcome === 'string' ? notNow(busy) : outcome;
}

async function answer(text: string): Promise<PlanOutcome> {
  const tooLong = new AbortController();
  const timer = setTimeout(() => tooLong.abort(), limitMs);
  try {
    return await threads().run(text, { signal: tooLong.signal });
  } catch (error) {
    if (tooLong.signal.aborted)
      return notNow(`This takes longer than ${limitMs / 1000} s. Ask for less at once: fewer lenses, people or parts.`);
    if ((error as { code?: unknown } | null)?.code === 'ERR_WORKER_OUT_OF_MEMORY')
      return notNow('This takes more memory than one request may have. Ask for less at once.');
    process.stderr.write(`A plan request ended its thread: ${String(error)}\n`);
    return notNow(busy);
  } finally {
    clearTimeout(timer);
  }
}
