/**
 * What servers share when several of them do the work: the address of a Redis-compatible store in REDIS_URL. Without it, each
 * server has its own memory.
 */
import Redis from 'ioredis';
import { createStorage, type Storage } from 'unstorage';
import redisDriver from 'unstorage/drivers/redis';

const base = 'focalis';

export const sharedUrl: string | undefined = process.env['REDIS_URL'];

/** A store under a name of its own; in this server's memory where nothing is shared. */
export const sharedStorage = (name: string, url = sharedUrl): Storage =>
  createStorage(
    url === undefined ? {} : { driver: redisDriver({ url, base: `${base}:${name}`, maxRetriesPerRequest: 1 }) }
  );

let client: Redis | undefined;
/** The one connection that counts requests; undefined where nothing is shared. Commands fail at once while it is down. */
export function sharedClient(url = sharedUrl): Redis | undefined {
  if (url === undefined) return undefined;
  if (!client) {
    client = new Redis(url, { enableOfflineQueue: false, maxRetriesPerRequest: 1 });
    // Whoever asks is told; it connects again by itself.
    client.on('error', () => undefined);
  }
  return client;
}
