import { get as getSecurely } from 'node:https';
import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { connect } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { AddressInfo } from 'node:net';
import { generate } from 'selfsigned';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { policyFor, shellPolicy } from './headers';
import { serve, type ServeOptions } from './serve';

let build = '';
const opened: { close: () => void; closeAllConnections: () => void }[] = [];

beforeEach(() => {
  build = mkdtempSync(join(tmpdir(), 'focalis-'));
  mkdirSync(join(build, 'prerendered'));
  const meta = `<meta http-equiv="content-security-policy" content="default-src &#39;none&#39;; script-src 'self'">`;
  writeFileSync(join(build, 'prerendered/index.html'), `<head>${meta}</head>`);
});
afterEach(() => {
  for (const server of opened.splice(0)) {
    server.close();
    server.closeAllConnections();
  }
  rmSync(build, { recursive: true });
});

async function start(changes: Partial<ServeOptions> = {}) {
  const seen: string[] = [];
  const started = await serve({
    host: '127.0.0.1',
    port: 0,
    build,
    handler: (request, response) => {
      seen.push(request.url ?? '');
      request.resume();
      request.once('end', () => response.end('answer'));
    },
    tls: null,
    origin: undefined,
    ...changes
  });
  opened.push(started.server);
  const { port } = started.server.address() as AddressInfo;
  return { ...started, seen, port, get: (path: string) => fetch(`http://127.0.0.1:${port}${path}`) };
}

describe('what every response carries', () => {
  it.each(['/', '/setup/x', '/theme.js', '/_app/immutable/workers/a.js', '/api/plan', '/%zz', '/no/such/page'])(
    'is there for %s',
    async (path) => {
      const { get } = await start();
      const { headers } = await get(path);
      expect(headers.get('x-content-type-options')).toBe('nosniff');
      expect(headers.get('x-frame-options')).toBe('DENY');
      expect(headers.get('referrer-policy')).toBe('no-referrer');
      expect(headers.get('cross-origin-resource-policy')).toBe('same-origin');
      expect(headers.get('content-security-policy')).toContain("default-src 'none'");
    }
  );

  it('is, for a page, the policy in its head and what only a header may say', async () => {
    const { get } = await start();
    const policy = (await get('/day/x')).headers.get('content-security-policy');
    expect(policy).toBe("default-src 'none'; script-src 'self'; frame-ancestors 'none'");
    expect(policyFor('/favicon.svg', 'shell')).toContain("frame-ancestors 'none'");
    expect(policyFor('/favicon.svg', 'shell')).not.toContain('script-src');
    expect(policyFor('/_app/immutable/workers/a.js', 'shell')).toContain("script-src 'self'");
  });

  it('is not made up: a page without a policy is refused', () => {
    writeFileSync(join(build, 'prerendered/index.html'), '<head></head>');
    expect(() => shellPolicy(build)).toThrow('no content security policy');
  });
});

it('sends the one page to every address of a page, and leaves the others alone', async () => {
  const { get, seen } = await start();
  for (const path of ['/setup/a-1', '/day/b?x=1', '/card/c', '/', '/setup/a/b', '/api/plan', '/models/head-0.mesh']) {
    await get(path);
  }
  expect(seen).toEqual(['/', '/', '/', '/', '/setup/a/b', '/api/plan', '/models/head-0.mesh']);
});

it('refuses what is too large, and what a page does not take, in the shape of every error', async () => {
  const { port } = await start();
  const post = (path: string, body: string) => fetch(`http://127.0.0.1:${port}${path}`, { method: 'POST', body });
  const large = await post('/api/plan', 'a'.repeat(600_000));
  expect([large.status, Object.keys((await large.json()) as object)]).toEqual([413, ['field', 'reason']]);
  const posted = await post('/setup/a', 'a');
  expect([posted.status, posted.headers.get('allow')]).toEqual([405, 'GET, HEAD']);
  expect(await posted.json()).toEqual({ field: '', reason: 'This address does not take POST.' });
});

/** Says something and waits until the other side has had enough. */
function dawdle(port: number, said: string): Promise<string> {
  return new Promise((resolve, reject) => {
    let answer = '';
    const socket = connect(port, '127.0.0.1', () => socket.write(said));
    socket.on('data', (data) => (answer += String(data)));
    socket.on('close', () => resolve(answer));
    socket.on('error', reject);
  });
}

it('ends who never finishes the headers, and who never finishes the body', async () => {
  const timing = { headersTimeout: 150, requestTimeout: 300, connectionsCheckingInterval: 50 };
  const { port } = await start({ timing });
  expect(await dawdle(port, 'GET / HTTP/1.1\r\nHost: a\r\n')).toContain('408');
  const body = 'POST /api/plan HTTP/1.1\r\nHost: a\r\nContent-Length: 100\r\n\r\n{';
  expect(await dawdle(port, body)).toContain('408');
});

it('says under which address it is found', async () => {
  const address = async (changes: Partial<ServeOptions>) => (await start(changes)).addresses;
  expect(await address({ origin: 'https://focalis.example' })).toEqual(['https://focalis.example']);
  expect((await address({ host: '0.0.0.0' })).join()).not.toMatch(/localhost|0\.0\.0\.0/);
  expect(await address({})).toEqual(['http://127.0.0.1:0']);
});

it('is secure with a certificate and its key, with the same headers', async () => {
  const made = await generate([{ name: 'commonName', value: 'studio.test' }]);
  const tls = { cert: join(build, 'cert.pem'), key: join(build, 'key.pem') };
  writeFileSync(tls.cert, made.cert);
  writeFileSync(tls.key, made.private);
  const { addresses, port } = await start({ tls });
  expect(addresses[0]).toMatch(/^https:/);
  const headers = await new Promise<Record<string, unknown>>((resolve, reject) => {
    const options = { host: '127.0.0.1', port, path: '/setup/x', ca: made.cert, servername: 'studio.test' };
    getSecurely({ ...options, checkServerIdentity: () => undefined }, (response) => {
      response.resume();
      resolve(response.headers);
    }).on('error', reject);
  });
  expect(headers['x-content-type-options']).toBe('nosniff');
  expect(headers['content-security-policy']).toContain("frame-ancestors 'none'");
  await expect(start({ tls: { cert: join(build, 'none.pem'), key: tls.key } })).rejects.toMatchObject({
    code: 'ENOENT'
  });
});

it('says that a port is taken', async () => {
  const { port } = await start();
  await expect(start({ port })).rejects.toMatchObject({ code: 'EADDRINUSE' });
});
