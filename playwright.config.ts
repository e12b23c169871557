import { existsSync } from 'node:fs';
import { defineConfig, devices } from '@playwright/test';

const port = 4199;
const quiet = [
  '--no-sandbox',
  '--disable-quic',
  '--no-first-run',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync'
];
// The shell without a window starts and closes pages sooner, where Debian has it.
const shell = '/usr/bin/chromium-headless-shell';
const executablePath = process.env['CHROMIUM_PATH'] ?? (existsSync(shell) ? shell : '/usr/bin/chromium');
/** The specs that look at what the renderer draws. */
const drawing = /(finder|judging|renderer-proof)\.spec\.ts/;
/** The spec that reports how long tasks take: it runs when nothing else does. */
const alone = /dragging\.spec\.ts/;
const desk = { launchOptions: { executablePath, args: [...quiet, '--disable-gpu'] } };

export default defineConfig({
  testDir: 'tests',
  fullyParallel: true,
  workers: 2,
  forbidOnly: true,
  retries: 0,
  reporter: [[process.env['CI'] ? 'line' : 'list'], ['./scripts/slowest-e2e.ts']],
  // Generous: these machines are shared, and at times have a quarter of their speed. A pass never waits for it.
  timeout: 180_000,
  expect: { timeout: 45_000 },
  use: {
    ...devices['Desktop Chrome'],
    baseURL: `http://127.0.0.1:${port}`,
    viewport: { width: 1280, height: 800 },
    // Only the tests about it (tests/offline.spec.ts) let Focalis be kept in the browser.
    serviceWorkers: 'block'
  },
  projects: [
    {
      name: 'drawing',
      testMatch: drawing,
      use: {
        launchOptions: { executablePath, args: [...quiet, '--use-angle=swiftshader', '--enable-unsafe-swiftshader'] }
      }
    },
    // Without graphics, pages are composed sooner than by graphics in software.
    { name: 'desk', testIgnore: [drawing, alone], use: desk },
    { name: 'alone', testMatch: alone, use: desk, dependencies: ['drawing', 'desk'] }
  ],
  webServer: {
    command: 'node scripts/start.mjs',
    // Busy machines: the limit itself is tested on a server of its own.
    env: { PORT: String(port), PLAN_LIMIT_MS: '60000', FOCALIS_BUILT: process.env['FOCALIS_BUILT'] ?? '' },
    url: `http://127.0.0.1:${port}/favicon.svg`,
    reuseExistingServer: false,
    timeout: 900_000
  }
});
