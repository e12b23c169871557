import { spawn, spawnSync, type ChildProcess } from 'node:child_process';
import Redis from 'ioredis';
import type { Storage } from 'unstorage';
import { afterAll, afterEach, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { rateLimit } from './api';
import { readBody } from './body';
import { sharedStorage } from './shared';
import { PickupRepository } from './pickupRepository';

const bytes = (size: number) => new Uint8Array(size);
const limits = { keptMs: 1000, itemBytes: 10, items: 3, bytes: 25 };

/** A Redis-compatible server of our own, where this machine has one. */
let server: ChildProcess | undefined;
const port = 20_000 + (process.pid % 20_000);
const url = `redis://127.0.0.1:${port}`;
const there = spawnSync('redis-server', ['--version']).status === 0;
beforeAll(async () => {
  if (!there) return;
  server = spawn('redis-server', ['--port', String(port), '--save', '', '--appendonly', 'no'], { stdio: 'ignore' });
  const probe = new Redis(url, { retryStrategy: () => 50 });
  probe.on('error', () => undefined);
  await probe.ping();
  probe.disconnect();
});
afterAll(() => void server?.kill());

const storages: readonly (readonly [string, () => Storage])[] = [
  ['in memory', () => sharedStorage('x', undefined)],
  ...(there ? [['in a shared store', () => sharedStorage(`test-${Math.random()}`, url)] as const] : [])
];
describe.each(storages)('the shelf %s', (_, storageOf) => {
  let storage: Storage;
  beforeEach(() => void (storage = storageOf()));
  afterEach(() => storage.dispose());

  it('keeps an item until it has arrived or its time is over, however often it is asked for', async () => {
    let now = 0;
    const shelf = new PickupRepository(limits, () => now, storage);
    const sealed = new Uint8Array([0, 255, 128, 7]);
    expect(await shelf.put('a', sealed)).toBe('kept');
    expect(await shelf.get('a')).toEqual(sealed);
    expect(await shelf.get('a')).toEqual(sealed);
    expect(await shelf.remove('a')).toBe(true);
    expect(await shelf.remove('a')).toBe(false);
    expect(await shelf.get('a')).toBeNull();
    await shelf.put('b', bytes(1));
    now = 999;
    expect(await shelf.has('b')).toBe(true);
    now = 1000;
    expect(await shelf.has('b')).toBe(false);
    expect(await shelf.get('b')).toBeNull();
  });

  it('takes nothing too large, no more than it has room for, and makes room as time goes by', async () => {
    let now = 0;
    const shelf = new PickupRepository(limits, () => now, storage);
    expect(await shelf.put('a', bytes(11))).toBe('tooLarge');
    // At the same moment, too, each is counted.
    expect(await Promise.all(['a', 'b'].map((id) => shelf.put(id, bytes(10))))).toEqual(['kept', 'kept']);
    expect(await shelf.put('c', bytes(6))).toBe('full');
    expect(await shelf.put('c', bytes(5))).toBe('kept');
    expect(await shelf.put('d', bytes(0))).toBe('full');
    // In place of an earlier one of the same name.
    expect(await shelf.put('b', bytes(9))).toBe('kept');
    expect(await shelf.get('b')).toHaveLength(9);
    now = 1000;
    expect(await shelf.put('d', bytes(10))).toBe('kept');
    expect(await shelf.get('a')).toBeNull();
  });
});

it.runIf(there)('two servers on one store hold one shelf, and count requests together', async () => {
  const [one, other] = [sharedStorage('both', url), sharedStorage('both', url)];
  await new PickupRepository(limits, () => 0, one).put('a', bytes(3));
  expect(await new PickupRepository(limits, () => 0, other).get('a')).toHaveLength(3);
  await Promise.all([one.dispose(), other.dispose()]);
  const clients = [new Redis(url), new Redis(url)];
  const [here, elsewhere] = clients.map((client) => rateLimit('test', 2, 60, client));
  expect(await here?.('1.2.3.4')).toBeNull();
  expect(await elsewhere?.('1.2.3.4')).toBeNull();
  expect((await here?.('1.2.3.4'))?.status).toBe(429);
  expect(await here?.('5.6.7.8')).toBeNull();
  for (const client of clients) client.disconnect();
});

it('while the store is out of reach each server counts for itself', async () => {
  const away = new Redis('redis://127.0.0.1:1', {
    enableOfflineQueue: false,
    maxRetriesPerRequest: 0,
    lazyConnect: true
  });
  away.on('error', () => undefined);
  const limited = rateLimit('away', 1, 60, away);
  expect(await limited('1.2.3.4')).toBeNull();
  expect((await limited('1.2.3.4'))?.status).toBe(429);
  away.disconnect();
});

it('reads a body no further than its limit, said or not', async () => {
  const request = (body: BodyInit, headers = {}) =>
    new Request('http://x/', { method: 'PUT', body, headers, duplex: 'half' } as RequestInit);
  expect(await readBody(request(bytes(10)), 10)).toHaveLength(10);
  expect(await readBody(request(bytes(11)), 10)).toBeNull();
  let pulled = 0;
  const endless = new ReadableStream({
    pull: (controller) => {
      pulled++;
      controller.enqueue(bytes(4));
    }
  });
  expect(await readBody(request(endless), 10)).toBeNull();
  expect(pulled).toBeLessThan(8);
  expect(await readBody(new Request('http://x/'), 10)).toHaveLength(0);
});
