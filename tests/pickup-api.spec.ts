/** The server between two devices, as any client sees it. */
import { spawn, spawnSync } from 'node:child_process';
import { randomBytes } from 'node:crypto';
import { expect, test } from '@playwright/test';
import { ownServer, stopped } from './ownServer';

const place = () => randomBytes(16).toString('base64url');
const type = { 'content-type': 'application/octet-stream' };

test('what is left waits until it has arrived, is never kept by anybody else, and nothing else is taken', async ({
  request
}) => {
  const at = `/api/pickup/${place()}`;
  expect((await request.post(at)).status()).toBe(404);
  const left = await request.put(at, { data: Buffer.from('sealed'), headers: type });
  expect(left.status()).toBe(204);
  expect(await (await request.get(at)).json()).toEqual({ waits: true });
  // A broken connection may try again.
  for (let i = 0; i < 2; i++) {
    const collected = await request.post(at);
    expect(await collected.text()).toBe('sealed');
    expect(collected.headers()['cache-control']).toBe('no-store');
    expect(collected.headers()['content-security-policy']).toContain("default-src 'none'");
  }
  expect((await request.delete(at)).status()).toBe(204);
  expect((await request.delete(at)).status()).toBe(404);
  const gone = await request.post(at);
  expect(gone.status()).toBe(404);
  expect(await gone.json()).toEqual({ field: '', reason: expect.stringContaining('Nothing waits here') as unknown });

  for (const bad of ['x', 'a'.repeat(23), encodeURIComponent('../../etc/passwd123456')])
    expect((await request.put(`/api/pickup/${bad}`, { data: Buffer.from('x'), headers: type })).status()).toBe(400);
  expect((await request.put(at, { data: Buffer.alloc(0), headers: type })).status()).toBe(400);
  expect((await request.put(at, { data: Buffer.alloc(8 * 1024 * 1024 + 1), headers: type })).status()).toBe(413);
  expect((await request.put(at, { data: Buffer.alloc(1024 * 1024), headers: type })).status()).toBe(204);
  // The larger limit is for this address alone.
  const json = { 'content-type': 'application/json' };
  expect((await request.post('/api/plan', { data: Buffer.alloc(1024 * 1024), headers: json })).status()).toBe(413);
});

test('one address cannot fill the shelf', async () => {
  const server = await ownServer(4242);
  const leave = (body: BodyInit, options: RequestInit = {}) =>
    fetch(`http://127.0.0.1:4242/api/pickup/${place()}`, { method: 'PUT', body, headers: type, ...options });
  const statuses: number[] = [];
  for (let i = 0; i < 10; i++) statuses.push((await leave('x')).status);
  expect(statuses).toEqual([...Array<number>(8).fill(204), 429, 429]);
  // A body that says no length is read no further than its limit, and refused in the same words.
  let sent = 0;
  const endless = new ReadableStream({
    pull: (controller) => {
      sent += 65_536;
      controller.enqueue(new Uint8Array(65_536));
      if (sent > 12 * 1024 * 1024) controller.close();
    }
  });
  const chunked = await leave(endless, { duplex: 'half' } as RequestInit);
  expect(chunked.status).toBe(413);
  expect(await chunked.json()).toMatchObject({ field: '', reason: expect.stringContaining('at most 8 MB') as unknown });
  // A form of another site is refused as everything else is.
  const foreign = await fetch('http://127.0.0.1:4242/api/plan', {
    method: 'POST',
    body: 'a=b',
    headers: { 'content-type': 'application/x-www-form-urlencoded', origin: 'http://elsewhere.test' }
  });
  expect(foreign.status).toBe(403);
  expect(await foreign.json()).toEqual({ field: '', reason: 'Forms of other sites are refused.' });
  await stopped(server);
});

test('two servers share one store; without it nothing is taken, and that is said', async ({ request }) => {
  test.skip(spawnSync('redis-server', ['--version']).status !== 0, 'No Redis server on this machine.');
  const store = 4245;
  const redis = spawn('redis-server', ['--port', String(store), '--save', '', '--appendonly', 'no'], {
    stdio: 'ignore'
  });
  const url = { REDIS_URL: `redis://127.0.0.1:${store}` };
  const servers = await Promise.all([ownServer(4243, url), ownServer(4244, url)]);
  const id = place();
  const at = (port: number) => `http://127.0.0.1:${port}/api/pickup/${id}`;
  const sealed = Buffer.from([0, 200, 13, 10]);
  try {
    expect((await request.put(at(4243), { data: sealed, headers: type })).status()).toBe(204);
    const collected = await request.post(at(4244));
    expect(collected.status()).toBe(200);
    expect(await collected.body()).toEqual(sealed);
    expect((await request.delete(at(4244))).status()).toBe(204);
    expect((await request.post(at(4243))).status()).toBe(404);
    const ended = new Promise((resolve) => redis.once('exit', resolve));
    redis.kill();
    await ended;
    const refused = await request.put(at(4243), { data: sealed, headers: type });
    expect(refused.status()).toBe(503);
    expect(await refused.json()).toEqual({
      field: '',
      reason: 'Can’t reach the pick-ups just now. Try again, or export the job as a file.'
    });
  } finally {
    redis.kill();
    await Promise.all(servers.map(stopped));
  }
});
