import { request as send } from 'node:http';
import { chromium, expect, test } from '@playwright/test';
import { builtInKit } from '../src/core/kit/builtInKit';
import { demoJobs } from '../src/core/job/demo';
import { ownServer } from './ownServer';

test('every kind of response carries the same headers', async ({ request, page }) => {
  await page.goto('/setup/demo-west-door');
  await expect(page.getByTestId('call')).toBeVisible();
  const read = () => page.evaluate(() => performance.getEntriesByType('resource').map((entry) => entry.name));
  await expect.poll(async () => (await read()).some((name) => /workers\/.*\.js$/.test(name))).toBe(true);
  const loaded = await read();
  const own = (part: RegExp) => loaded.map((name) => new URL(name).pathname).find((path) => part.test(path)) ?? '';
  const kinds = {
    page: '/setup/anything',
    script: own(/entry\/.*\.js$/),
    style: own(/\.css$/),
    font: own(/\.woff2$/),
    worker: own(/workers\/.*\.js$/),
    file: '/favicon.svg',
    mesh: '/models/head-0.mesh',
    answer: '/api/plan/schema',
    'error of the API': '/api/plan',
    'no page': '/no/such/page',
    'bad address': '/%zz'
  };
  for (const [kind, path] of Object.entries(kinds)) {
    expect(path, kind).not.toBe('');
    const headers = (await request.get(path)).headers();
    expect(headers['x-content-type-options'], kind).toBe('nosniff');
    expect(headers['x-frame-options'], kind).toBe('DENY');
    expect(headers['referrer-policy'], kind).toBe('no-referrer');
    expect(headers['permissions-policy'], kind).toContain('camera=()');
    expect(headers['cross-origin-opener-policy'], kind).toBe('same-origin');
    expect(headers['content-security-policy'], kind).toContain("default-src 'none'");
    expect(headers['content-security-policy'], kind).toContain(
      kind === 'worker' ? "script-src 'self'" : 'frame-ancestors'
    );
    expect(headers['content-security-policy'], kind).not.toMatch(/script-src[^;]*unsafe-inline/);
  }
});

test('a phone on the local network gets every screen over plain http', async ({ baseURL }) => {
  const browser = await chromium.launch({
    executablePath: process.env['CHROMIUM_PATH'] ?? '/usr/bin/chromium',
    args: ['--no-sandbox', '--disable-gpu', '--host-resolver-rules=MAP studio.test 127.0.0.1']
  });
  const page = await browser.newPage({ viewport: { width: 390, height: 844 } });
  const errors: string[] = [];
  page.on('pageerror', (error) => errors.push(error.message));
  const base = `http://studio.test:${new URL(baseURL ?? '').port}`;
  await page.goto(`${base}/setup/demo-west-door`);
  expect(await page.evaluate(() => isSecureContext)).toBe(false);
  await expect(page.getByTestId('call').getByRole('heading', { level: 1 })).toHaveText(/^f\/2\.8 on Ines/);
  // What needs ids of its own: somebody new, a setup, a job.
  await page.getByRole('button', { name: 'Person', exact: true }).click();
  await page.getByRole('button', { name: 'New person' }).click();
  await expect(page.getByLabel('Name', { exact: true })).toHaveValue('Adult 1');
  await page.goto(`${base}/day/demo-fernhall`);
  await expect(page.getByLabel('Job', { exact: true })).toHaveValue('Fernhall Glasshouse');
  await page.goto(`${base}/card/demo-under-palms`);
  await expect(page.getByTestId('card-call')).toBeVisible();
  await page.goto(`${base}/no/such/page`);
  await expect(page.getByText('There is no such page.')).toBeVisible();
  expect(errors).toEqual([]);
  await browser.close();
});

test('a request that takes too long is ended, and nobody waits for it; told to stop, the server finishes and goes', async () => {
  const server = await ownServer(4221, { PLAN_LIMIT_MS: '100' });
  const post = (data: unknown) =>
    fetch('http://127.0.0.1:4221/api/plan', {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(data)
    });
  const [setup] = demoJobs()[0].setups.filter((item) => item.name === 'Family on the steps');
  const [zoom] = builtInKit.lenses.filter((lens) => lens.id === 'lens-70-200');
  const lenses = Array.from({ length: 40 }, (_, index) => ({ ...zoom, id: `own-${index}`, name: `Own ${index}` }));
  const heavy = post({ setup, kit: { bodies: [], lenses }, stopStep: 'third', include: ['lineUp'] });
  const beside = await post({ setup: demoJobs()[0].setups[0] });
  expect([200, 503]).toContain(beside.status);
  const ended = await heavy;
  expect(ended.status).toBe(503);
  expect(ended.headers.get('retry-after')).toBe('2');
  expect(await ended.json()).toEqual({
    field: '',
    reason: expect.stringContaining('takes longer than 0.1 s') as unknown as string
  });
  const gone = new Promise<number | null>((resolve) => server.once('exit', resolve));
  server.kill('SIGTERM');
  expect(await gone).toBe(0);
});

test('heavy plans and unfinished bodies of some addresses keep no stranger from an answer', async () => {
  const server = await ownServer(4223);
  /** A request from an address of its own on this machine. */
  const from = (localAddress: string, body: string, ends = true) =>
    new Promise<number>((resolve, reject) => {
      const headers = {
        'content-type': 'application/json',
        'content-length': String(Buffer.byteLength(body) + (ends ? 0 : 9))
      };
      const to = { host: '127.0.0.1', port: 4223, path: '/api/plan', method: 'POST', localAddress, headers };
      const sent = send(to, (answer) => {
        answer.resume();
        answer.once('end', () => resolve(answer.statusCode ?? 0));
      });
      sent.once('error', reject);
      sent.write(body);
      if (ends) sent.end();
    });
  const [zoom] = builtInKit.lenses.filter((lens) => lens.id === 'lens-70-200');
  const lenses = Array.from({ length: 40 }, (_, index) => ({ ...zoom, id: `own-${index}`, name: `Own ${index}` }));
  const [setup] = demoJobs()[0].setups.filter((item) => item.name === 'Family on the steps');
  const heavy = JSON.stringify({ setup, kit: { bodies: [], lenses }, stopStep: 'third', include: ['lineUp'] });
  const asked = Array.from({ length: 4 }, () => from('127.0.0.2', heavy));
  // Six addresses hold four bodies each open, of which nothing more ever comes.
  const unfinished = Array.from({ length: 24 }, (_, index) => from(`127.0.0.${10 + (index % 6)}`, '{', false));
  for (const one of unfinished) one.catch(() => undefined);
  const cheap = JSON.stringify({ setup: demoJobs()[0].setups[0] });
  const strangers = await Promise.all(Array.from({ length: 20 }, (_, index) => from(`127.0.0.${100 + index}`, cheap)));
  expect(strangers).toEqual(Array<number>(20).fill(200));
  for (const status of await Promise.all(asked)) expect([200, 503]).toContain(status);
  server.kill('SIGKILL');
});

test('one address cannot take all rangefinders', async () => {
  const server = await ownServer(4222);
  const open = () => fetch('http://127.0.0.1:4222/api/rangefinder?mm=2000');
  const [first, second, third] = [await open(), await open(), await open()];
  expect([first.status, second.status, third.status]).toEqual([200, 200, 503]);
  expect(await third.json()).toMatchObject({ field: '', reason: 'All rangefinders are in use.' });
  await first.body?.cancel();
  await expect
    .poll(async () => {
      const again = await open();
      await again.body?.cancel();
      return again.status;
    })
    .toBe(200);
  server.kill('SIGTERM');
});

test('a second start on a busy port says so', async ({ baseURL }) => {
  const { port } = new URL(baseURL ?? '');
  await expect(ownServer(Number(port))).rejects.toThrow(`Port ${port} is in use`);
});
