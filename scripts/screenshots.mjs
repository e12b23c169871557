// npm run screenshots: one picture of each main view, from the demo, into docs/screenshots.
import { spawn } from 'node:child_process';
import { join } from 'node:path';
import { chromium as playwright } from '@playwright/test';
import { build, chromiumPath, install, root } from './prepare.mjs';

install();
build();
const port = '4188';
const server = spawn('node', ['scripts/start.mjs'], { cwd: root, env: { ...process.env, PORT: port }, stdio: 'pipe' });
await new Promise((resolve) => server.stdout.on('data', (text) => String(text).includes('Focalis is at') && resolve()));

const browser = await playwright.launch({
  executablePath: chromiumPath,
  args: [
    '--no-sandbox',
    '--disable-quic',
    '--no-first-run',
    '--disable-background-networking',
    '--disable-component-update',
    '--disable-sync'
  ]
});

const desk = { width: 1280, height: 800 };
const pocket = { width: 390, height: 844 };
const views = [
  { name: 'setup', path: '/setup/demo-under-palms', size: desk },
  { name: 'conflict-dim', path: '/setup/demo-west-door-50', size: desk, theme: 'dim' },
  { name: 'family', path: '/setup/demo-family-steps', size: desk },
  { name: 'day', path: '/day/demo-fernhall', size: desk },
  { name: 'field-card', path: '/card/demo-under-palms', size: pocket, theme: 'sun' }
];

for (const { name, path, size, theme } of views) {
  const page = await browser.newPage({ viewport: size });
  await page.goto(`http://127.0.0.1:${port}/`);
  await page.getByTestId('call').waitFor();
  if (theme) {
    await page.getByRole('button', { name: 'Settings' }).click();
    await page.getByText(theme, { exact: true }).click();
  }
  await page.goto(`http://127.0.0.1:${port}${path}`);
  await page.locator('main svg').last().waitFor();
  await page.evaluate(() => document.fonts.ready);
  await page.screenshot({ path: join(root, 'docs/screenshots', `${name}.png`) });
  await page.close();
}
await browser.close();
server.kill();
