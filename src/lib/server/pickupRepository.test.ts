import { spawn, spawnSync, type ChildProcess } from 'node:child_process';
import Redis from 'ioredis';
import type { Storage } from 'unstorage';
import { afterAll, afterEach, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { rateLimit } from './api';
import { AddressBudget } from './addressBudget';
import { readBody } from './body';
import { sharedStorage } from './shared';
import { PickupRepository } from './pickupRepository';

const bytes = (size: number) => new Uint8Array(size);
const limits = { keptMs: 1000, itemBytes: 10, items: 3, bytes: 25, ofOne: 9 };

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
    expect(await shelf.put('a', sealed, 'x')).toBe('kept');
    expect(await shelf.get('a')).toEqual(sealed);
    expect(await shelf.get('a')).toEqual(sealed);
    expect(await shelf.remove('a')).toBe(true);
    expect(await shelf.remove('a')).toBe(false);
    expect(await shelf.get('a')).toBeNull();
    await shelf.put('b', bytes(1), 'x');
    now = 999;
    expect(await shelf.has('b')).toBe(true);
    now = 1000;
    expect(await shelf.has('b')).toBe(false);
    expect(await shelf.get('b')).toBeNull();
  });

  it('takes nothing too large, no more than it has room for, and makes room as time goes by', async () => {
    let now = 0;
    const shelf = new PickupRepository(limits, () => now, storage);
    expect(await shelf.put('a', bytes(11), 'x')).toBe('tooLarge');
    // At the same moment, too, each is counted.
    expect(await Promise.all(['a', 'b'].map((id) => shelf.put(id, bytes(10), 'x')))).toEqual(['kept', 'kept']);
    expect(await shelf.put('c', bytes(6), 'x')).toBe('full');
    expect(await shelf.put('c', bytes(5), 'x')).toBe('kept');
    expect(await shelf.put('d', bytes(0), 'x')).toBe('full');
    // In place of an earlier one of the same name.
    expect(await shelf.put('b', bytes(9), 'x')).toBe('kept');
    expect(await shelf.get('b')).toHaveLength(9);
    now = 1000;
    expect(await shelf.put('d', bytes(10), 'x')).toBe('kept');
    expect(await shelf.get('a')).toBeNull();
  });

  it('gives one address no more than its share', async () => {
    const shelf = new PickupRepository({ ...limits, ofOne: 2 }, () => 0, storage);
    for (const id of ['a', 'b']) expect(await shelf.put(id, bytes(1), 'one')).toBe('kept');
    expect(await shelf.put('c', bytes(1), 'one')).toBe('enough');
    expect(await shelf.put('b', bytes(2), 'one')).toBe('kept');
    expect(await shelf.put('c', bytes(1), 'another')).toBe('kept');
  });
});

it.runIf(there)('two servers on one store hold one shelf, and count requests together', async () => {
  const [one, other] = [sharedStorage('both', url), sharedStorage('both', url)];
  await new PickupRepository(limits, () => 0, one).put('a', bytes(3), 'x');
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

describe('a body', () => {
  const usual = () => ({ budget: new AddressBudget({ each: 20, all: 30 }), address: 'a' });
  const request = (body: BodyInit, headers = {}) =>
    new Request('http://x/', { method: 'PUT', body, headers, duplex: 'half' } as RequestInit);

  it('is read no further than its limit, said or not', async () => {
    expect(await readBody(request(bytes(10)), 10, usual())).toHaveLength(10);
    expect(await readBody(request(bytes(11)), 10, usual())).toBe('tooLarge');
    expect(await readBody(request(bytes(1), { 'content-length': '11' }), 10, usual())).toBe('tooLarge');
    let pulled = 0;
    const endless = new ReadableStream({
      pull: (controller) => {
        pulled++;
        controller.enqueue(bytes(4));
      }
    });
    expect(await readBody(request(endless), 10, usual())).toBe('tooLarge');
    expect(pulled).toBeLessThan(8);
    expect(await readBody(new Request('http://x/'), 10, usual())).toHaveLength(0);
  });

  it('held open takes room of its address and of all, said before or as it comes, and gives it back', async () => {
    const budget = new AddressBudget({ each: 20, all: 30 });
    let end = (): void => undefined;
    const held = (size: number) =>
      new ReadableStream({
        start: (controller) => {
          controller.enqueue(bytes(size));
          end = () => controller.close();
        }
      });
    const first = readBody(request(held(10)), 10, { budget, address: 'a' });
    const endFirst = end;
    const second = readBody(request(held(1), { 'content-length': '10' }), 10, { budget, address: 'a' });
    const endSecond = end;
    await expect.poll(() => readBody(request(bytes(1)), 10, { budget, address: 'a' })).toBe('noRoom');
    expect(await readBody(request(bytes(10)), 10, { budget, address: 'b' })).toHaveLength(10);
    expect(await readBody(request(bytes(11)), 11, { budget, address: 'b' })).toBe('noRoom');
    endFirst();
    endSecond();
    expect(await first).toHaveLength(10);
    await second;
    expect(await readBody(request(bytes(11)), 11, { budget, address: 'b' })).toHaveLength(11);
  });
});
