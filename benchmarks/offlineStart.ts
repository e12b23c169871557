/**
 * Focalis started cold without a network, in Debian's Chromium: visited once, the server stopped, the browser closed, and how
 * long it then takes to the call of a card; beside it the same with the server, in the same run.
 */
import { spawn, type ChildProcess } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromium } from '@playwright/test';

const port = 4187;
const address = `http://127.0.0.1:${port}/card/demo-family-steps`;
const folder = mkdtempSync(join(tmpdir(), 'focalis-bench-'));
const rounds = 3;

function serve(): Promise<ChildProcess> {
  const server = spawn('node', ['scripts/start.mjs', '--port', String(port)], { stdio: 'pipe' });
  return new Promise((resolve) => {
    server.stdout.on('data', (text) => {
      if (String(text).includes('Focalis is at')) resolve(server);
    });
  });
}

const open = () =>
  chromium.launchPersistentContext(join(folder, 'profile'), {
    executablePath: process.env['CHROMIUM_PATH'] ?? '/usr/bin/chromium',
    args: ['--no-sandbox', '--disable-gpu', '--disable-quic', '--no-first-run'],
    viewport: { width: 390, height: 664 }
  });

/** From asking for the page in a browser just started until the call can be read, ms; the median. */
async function cold(): Promise<number> {
  const times: number[] = [];
  for (let round = 0; round < rounds; round++) {
    const context = await open();
    const page = context.pages()[0] ?? (await context.newPage());
    const started = performance.now();
    await page.goto(address, { waitUntil: 'commit' });
    await page.getByTestId('card-call').waitFor();
    times.push(performance.now() - started);
    await context.close();
  }
  return times.sort((a, b) => a - b)[Math.floor(rounds / 2)] ?? 0;
}

try {
  const server = await serve();
  const context = await open();
  const page = context.pages()[0] ?? (await context.newPage());
  await page.goto(address);
  await page.evaluate(async () => void (await navigator.serviceWorker.ready));
  await page.waitForFunction(() => navigator.serviceWorker.controller !== null);
  await context.close();
  const served = await cold();
  const gone = new Promise((resolve) => server.once('exit', resolve));
  server.kill();
  await gone;
  const without = await cold();
  console.log(
    `Cold start to a card's call: ${Math.round(without)} ms without a server (aim 2000), ${Math.round(served)} ms with one, ${(without / served).toFixed(2)} times`
  );
} finally {
  rmSync(folder, { recursive: true, force: true });
}
