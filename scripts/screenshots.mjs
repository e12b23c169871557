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
    '--disable-sync',
    '--use-angle=swiftshader',
    '--enable-unsafe-swiftshader'
  ]
});

const desk = { width: 1280, height: 800 };
const pocket = { width: 390, height: 844 };
const tab = (name) => (page) => page.getByRole('tab', { name }).click();
const technique = async (page) => {
  await tab('Technique')(page);
  const ways = page.getByTestId('ways');
  await ways.waitFor();
  await page
    .getByTestId('technique')
    .getByRole('heading', { level: 2 })
    .evaluate((heading) => heading.scrollIntoView());
  await ways.getByText('A zone about it').hover();
};
const views = [
  { name: 'setup', path: '/setup/demo-under-palms', size: desk },
  { name: 'conflict-dim', path: '/setup/demo-west-door-50', size: desk, theme: 'dim' },
  { name: 'family', path: '/setup/demo-family-steps', size: desk },
  { name: 'line-up', path: '/setup/demo-west-door', size: desk, then: tab('Line-up') },
  { name: 'technique', path: '/setup/demo-family-steps', size: desk, then: technique },
  { name: 'dance', path: '/setup/demo-first-dance', size: desk },
  {
    name: 'compare',
    path: '/setup/demo-west-door-50',
    size: desk,
    then: async (page) => {
      await page.getByRole('button', { name: 'Compare stops, lenses or focus' }).click();
      await fine(page.getByTestId('compare').locator('canvas').last());
    }
  },
  {
    name: 'band',
    path: '/setup/demo-band',
    size: desk,
    then: (page) => page.getByText('the side', { exact: true }).click()
  },
  {
    name: 'day',
    path: '/day/demo-fernhall',
    size: desk,
    then: (page) => page.getByTestId('bag').getByText('the only one for').first().waitFor()
  },
  {
    name: 'kit',
    path: '/kit',
    size: desk,
    then: (page) => page.getByRole('button', { name: '85 mm f/1.4' }).click()
  },
  { name: 'pocket-sun', path: '/card/demo-family-steps', size: pocket, theme: 'sun' },
  {
    name: 'pocket-dim',
    path: '/card/demo-first-dance',
    size: pocket,
    theme: 'dim',
    then: (page) => page.getByRole('button', { name: 'Light, less' }).click()
  }
];

/** Waits until a picture has had enough looks to be shown. */
async function fine(canvas) {
  await canvas.waitFor();
  await canvas.evaluate(
    (element) =>
      new Promise((resolve) => {
        const look = () => (Number(element.dataset.views) >= 32 ? resolve() : setTimeout(look, 250));
        look();
      })
  );
}

// One profile for all, so that the small pictures are drawn once.
const context = await browser.newContext();
const page = await context.newPage();
await page.setViewportSize(desk);
page.setDefaultTimeout(300_000);
const only = process.argv.slice(2);
await page.goto(`http://127.0.0.1:${port}/day/demo-fernhall`);
if (only.length === 0)
  await page.waitForFunction(() => document.querySelectorAll('[data-testid=thumbnail]').length >= 11);
for (const { name, path, size, theme = 'studio', then } of views.filter(
  (view) => only.length === 0 || only.includes(view.name)
)) {
  await page.setViewportSize(desk);
  await page.goto(`http://127.0.0.1:${port}/day/demo-fernhall`);
  await page.getByRole('button', { name: 'Settings' }).click();
  await page.getByText(theme, { exact: true }).click();
  if (path.startsWith('/card')) {
    // The card shows what the Finder has drawn to the end, and kept.
    await page.goto(`http://127.0.0.1:${port}${path.replace('/card', '/setup')}`);
    await page.waitForFunction(
      (key) =>
        new Promise((resolve) => {
          const opening = indexedDB.open('focalis');
          opening.onsuccess = () => {
            const found = opening.result.transaction('thumbnails').objectStore('thumbnails').getKey(key);
            found.onsuccess = () => {
              opening.result.close();
              resolve(found.result !== undefined);
            };
          };
        }),
      path.replace('/card/', 'card-')
    );
  }
  await page.setViewportSize(size);
  await page.goto(`http://127.0.0.1:${port}${path}`);
  await page.evaluate(() => document.fonts.ready);
  if (path.startsWith('/setup')) await fine(page.getByTestId('finder').locator('canvas'));
  else if (path.startsWith('/day')) await page.getByTestId('thumbnail').first().waitFor({ timeout: 120_000 });
  else if (path.startsWith('/card')) await page.locator('[data-testid=pocket-ring]').first().waitFor();
  else await page.getByRole('heading', { level: 1 }).waitFor();
  await then?.(page);
  await page.waitForTimeout(1500);
  await page.screenshot({ path: join(root, 'docs/screenshots', `${name}.png`) });
}
await browser.close();
server.kill();
