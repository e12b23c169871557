/** Without a network: visited once, the server stopped, closed and started cold. */
import { execFileSync } from 'node:child_process';
import { createHash, X509Certificate } from 'node:crypto';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromium, devices, expect, test, type BrowserContext, type Page } from '@playwright/test';
import { generate } from 'selfsigned';
import { ownServer, stopped } from './ownServer';

let folder = '';
test.beforeEach(() => void (folder = mkdtempSync(join(tmpdir(), 'focalis-offline-'))));
test.afterEach(() => rmSync(folder, { recursive: true, force: true }));

const { defaultBrowserType: _, ...phone } = devices['Pixel 5'];

/** A phone's browser with a profile that outlives it. */
const open = (args: readonly string[] = []): Promise<BrowserContext> =>
  chromium.launchPersistentContext(join(folder, 'profile'), {
    ...phone,
    serviceWorkers: 'allow',
    viewport: { width: 390, height: 664 },
    executablePath: process.env['CHROMIUM_PATH'] ?? '/usr/bin/chromium',
    args: ['--no-sandbox', '--disable-gpu', '--disable-quic', '--no-first-run', ...args]
  });

const pageOf = async (context: BrowserContext): Promise<Page> => context.pages()[0] ?? context.newPage();

async function visit(page: Page, base: string): Promise<void> {
  await page.goto(`${base}/card/demo-family-steps`);
  await expect(page.getByTestId('card-call')).toContainText('f/7.1');
  await page.evaluate(async () => void (await navigator.serviceWorker.ready));
  await expect.poll(() => page.evaluate(() => navigator.serviceWorker.controller !== null)).toBe(true);
}

/** Adjusts, ticks and notes, without a network. */
async function work(page: Page): Promise<void> {
  await expect(page.getByTestId('card-call')).toContainText('Stand 5.2 m from the front row');
  await page.getByRole('button', { name: 'Distance, more' }).click();
  await page.getByRole('button', { name: 'Distance, more' }).click();
  await expect(page.getByTestId('different')).toHaveText('at 5.6 m');
  await expect(page.getByTestId('card-call')).toContainText('Stand 5.6 m from the front row');
  await page.getByRole('button', { name: 'Done', exact: true }).click();
  await page.getByRole('button', { name: /^Done/ }).click();
  await page.getByRole('button', { name: 'soft', exact: true }).click();
  await page.getByLabel('Note for next time').fill('Wren ran.');
  await page.getByLabel('Note for next time').press('Enter');
  await page.getByRole('button', { name: 'Close', exact: true }).click();
}

async function expectAllThere(page: Page): Promise<void> {
  await expect(page.getByTestId('different')).toHaveText('at 5.6 m');
  await page.getByRole('button', { name: /^Done, soft/ }).click();
  await expect(page.getByLabel('Note for next time')).toHaveValue('Wren ran.');
}

test('visited once, then the server is stopped: closed, started cold, everything works and nothing is lost', async () => {
  const server = await ownServer(4231);
  const base = 'http://127.0.0.1:4231';
  let context = await open();
  await visit(await pageOf(context), base);
  await stopped(server);
  await context.close();

  context = await open();
  let page = await pageOf(context);
  await context.setOffline(true);
  await page.goto(`${base}/card/demo-family-steps`);
  await work(page);
  await page.reload();
  await expectAllThere(page);
  // Other screens and a search in a worker, which nobody has looked at here before.
  await page.goto(`${base}/card/demo-west-door-50`);
  await expect(page.getByTestId('cannot')).toContainText(/f\/[\d.]+ works|f\/[\d.]+–f\/[\d.]+ works/);
  await page.goto(`${base}/day/demo-fernhall`);
  await expect(page.getByRole('heading', { name: /^13 setups, 13:40–/ })).toBeVisible();
  await expect(page.getByTestId('bag')).toContainText('cover every must-have setup');
  // Pages are made here too, with fonts and all.
  await page.getByRole('button', { name: 'Print and export' }).click();
  const [cards] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Field cards (PDF)' }).click()
  ]);
  const words = execFileSync('pdftotext', [await cards.path(), '-'], { encoding: 'utf8' });
  expect(words).toContain('5. Family on the steps');
  expect(words).toContain('As shot: at 5.6 m.');
  await context.close();

  context = await open();
  page = await pageOf(context);
  await page.goto(`${base}/card/demo-family-steps`);
  await expectAllThere(page);
  await context.close();
});

test('the same under https, on a name that is not this machine’s own', async () => {
  const made = await generate([{ name: 'commonName', value: 'studio.test' }], {
    extensions: [{ name: 'subjectAltName', altNames: [{ type: 2, value: 'studio.test' }] }]
  });
  const [cert, key] = [join(folder, 'cert.pem'), join(folder, 'key.pem')];
  writeFileSync(cert, made.cert);
  writeFileSync(key, made.private);
  const spki = new X509Certificate(made.cert).publicKey.export({ type: 'spki', format: 'der' });
  const trusted = [
    '--host-resolver-rules=MAP studio.test 127.0.0.1',
    `--ignore-certificate-errors-spki-list=${createHash('sha256').update(spki).digest('base64')}`
  ];
  const server = await ownServer(4232, {}, ['--cert', cert, '--key', key]);
  const base = 'https://studio.test:4232';
  let context = await open(trusted);
  await visit(await pageOf(context), base);
  await stopped(server);
  await context.close();
  context = await open(trusted);
  const page = await pageOf(context);
  await page.goto(`${base}/card/demo-family-steps`);
  await work(page);
  await page.reload();
  await expectAllThere(page);
  await context.close();
});

test('answers of the server are never kept, and what is apart only once it has been used', async () => {
  const server = await ownServer(4233);
  const base = 'http://127.0.0.1:4233';
  const context = await open();
  const page = await pageOf(context);
  await visit(page, base);
  await page.evaluate(async () => {
    await (await fetch('/api/plan/schema')).text();
    await (await fetch('/favicon.svg')).text();
  });
  const paths = () =>
    page.evaluate(async () => {
      const caches = await Promise.all((await window.caches.keys()).map((name) => window.caches.open(name)));
      const requests = await Promise.all(caches.map((cache) => cache.keys()));
      return requests.flat().map((request) => new URL(request.url).pathname);
    });
  const kept = await paths();
  expect(kept).toContain('/');
  expect(kept.some((path) => path.endsWith('.woff2'))).toBe(true);
  expect(kept.some((path) => path.includes('planner.worker'))).toBe(true);
  expect(kept.filter((path) => /^\/api|\/apart\/|renderer|\/models\//.test(path))).toEqual([]);
  await page.evaluate(async () => void (await (await fetch('/models/head-0.mesh')).arrayBuffer()));
  await expect.poll(paths).toContain('/models/head-0.mesh');
  await context.close();
  await stopped(server);
});

test('it can be installed: a manifest with icons that are what they say', async ({ request, page, baseURL }) => {
  await page.goto('/');
  const href = await page.locator('link[rel=manifest]').getAttribute('href');
  const manifest = (await (await request.get(href ?? '')).json()) as {
    start_url: string;
    display: string;
    icons: { src: string; sizes: string; purpose?: string }[];
    screenshots: { src: string; sizes: string }[];
  };
  expect(manifest).toMatchObject({ start_url: '/', display: 'standalone' });
  expect(manifest.icons.some((icon) => icon.purpose === 'maskable')).toBe(true);
  for (const { src, sizes } of [...manifest.icons, ...manifest.screenshots]) {
    expect((await request.get(src)).ok(), src).toBe(true);
    if (sizes === 'any') continue;
    const size = await page.evaluate(
      async (address) => {
        const image = new Image();
        image.src = address;
        await image.decode();
        return `${image.naturalWidth}x${image.naturalHeight}`;
      },
      `${baseURL ?? ''}${src}`
    );
    expect(size, src).toBe(sizes);
  }
});
