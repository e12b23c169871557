/** What all routes of the API share: one shape of error, and how often and how much at once one address may ask. */
import { RateLimiterMemory, RateLimiterRedis, RateLimiterRes } from 'rate-limiter-flexible';
import { AddressBudget } from './addressBudget';
import { sharedClient } from './shared';

/** An error as the API tells it: which field, and why. */
export function refusal(
  status: number,
  reason: string,
  { field = '', headers = {} }: { readonly field?: string; readonly headers?: Record<string, string> } = {}
): Response {
  return Response.json({ field, reason }, { status, headers });
}

/**
 * Refuses an address that asks more than `points` times in `seconds`; null when it may go on. `name` keeps apart what is counted.
 * Servers that share a store count together; while it is out of reach, each counts for itself.
 */
export function rateLimit(
  name: string,
  points: number,
  seconds: number,
  storeClient = sharedClient()
): (address: string) => Promise<Response | null> {
  const own = new RateLimiterMemory({ keyPrefix: name, points, duration: seconds });
  const limiter = storeClient
    ? new RateLimiterRedis({
        storeClient,
        keyPrefix: `focalis:${name}`,
        points,
        duration: seconds,
        insuranceLimiter: own
      })
    : own;
  return async (address) => {
    try {
      await limiter.consume(address);
      return null;
    } catch (refused) {
      const waitMs = refused instanceof RateLimiterRes ? refused.msBeforeNext : seconds * 1000;
      const headers = { 'retry-after': String(Math.ceil(waitMs / 1000)) };
      return refusal(429, 'Too many requests. Wait a moment and try again.', { headers });
    }
  };
}

/** Counts what each address has open. */
export class OpenByAddress {
  readonly #places: AddressBudget;

  constructor(limits: { readonly each: number; readonly all: number }) {
    this.#places = new AddressBudget(limits);
  }

  /** Takes a place; the function gives it back, once. Null when this address, or everybody together, has enough. */
  take(address: string): (() => void) | null {
    if (!this.#places.take(address, 1)) return null;
    let given = false;
    return () => {
      if (given) return;
      given = true;
      this.#places.give(address, 1);
    };
  }
}
