// npm run screenshots: one picture of each main view, from the demo, into docs/screenshots.
import { readdirSync } from 'node:fs';
import { join } from 'node:path';
import { browsing } from './browsing.mjs';
import { root } from './prepare.mjs';

const { base, browser, end } = await browsing('4188');

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
  await ways.getByRole('listitem').nth(1).hover();
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
      await page.getByRole('button', { name: 'Compare apertures, lenses or focus' }).click();
      await fine(page.getByTestId('compare').locator('canvas').last());
    }
  },
  {
    name: 'day',
    path: '/day/demo-fernhall',
    size: desk,
    then: (page) => page.getByTestId('bag').getByText('needed for').first().waitFor()
  },
  {
    name: 'kit',
    path: '/kit',
    size: desk,
    then: (page) => page.getByRole('button', { name: '85 mm f/1.4' }).click()
  },
  { name: 'settings', path: '/settings', size: desk },
  {
    name: 'pocket-dim',
    path: '/card/demo-first-dance',
    size: pocket,
    theme: 'dim',
    then: (page) => page.getByRole('button', { name: 'Light, less' }).click()
  }
];

/** Whether a small picture has been kept; runs in the page. */
const keptThumbnail = (key) =>
  new Promise((resolve) => {
    const opening = indexedDB.open('focalis');
    opening.onsuccess = () => {
      const found = opening.result.transaction('thumbnails').objectStore('thumbnails').getKey(key);
      found.onsuccess = () => {
        opening.result.close();
        resolve(found.result !== undefined);
      };
    };
  });

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

if (process.argv.length === 2 || process.argv.includes('welcome')) {
  const first = await browser.newPage({ viewport: desk });
  await first.goto(`${base}/`);
  await first.getByRole('button', { name: /^Person with a pet/ }).waitFor();
  await first.screenshot({ path: join(root, 'docs/screenshots/welcome.png') });
  await first.getByRole('button', { name: 'Start from a photo' }).click();
  await first.getByLabel('Photo of the group').setInputFiles(join(root, 'tests/frames/FOC_0201.JPG'));
  await first.getByTestId('photo-sure').waitFor({ timeout: 120_000 });
  await first.screenshot({ path: join(root, 'docs/screenshots/from-photo.png') });
  await first.close();
}
// One profile for all, so that the small pictures are drawn once.
const context = await browser.newContext();
const page = await context.newPage();
await page.setViewportSize(desk);
page.setDefaultTimeout(300_000);
const only = process.argv.slice(2);
await page.goto(`${base}/day/demo-fernhall`);
if (only.length === 0)
  await page.waitForFunction(() => document.querySelectorAll('[data-testid=thumbnail]').length >= 11);
for (const { name, path, size, theme = 'studio', then } of views.filter(
  (view) => only.length === 0 || only.includes(view.name)
)) {
  await page.setViewportSize(desk);
  await page.goto(`${base}/settings`);
  await page.getByRole('group', { name: 'Theme' }).getByText(theme, { exact: true }).click();
  if (path.startsWith('/card')) {
    // The card shows what the Finder has drawn to the end, and kept.
    await page.goto(`${base}${path.replace('/card', '/setup')}`);
    while (!(await page.evaluate(keptThumbnail, path.replace('/card/', 'card-')))) await page.waitForTimeout(500);
  }
  await page.setViewportSize(size);
  await page.goto(`${base}${path}`);
  await page.evaluate(() => document.fonts.ready);
  if (path.startsWith('/setup')) await fine(page.getByTestId('finder').locator('canvas'));
  else if (path.startsWith('/day')) await page.getByTestId('thumbnail').first().waitFor({ timeout: 120_000 });
  else if (path.startsWith('/card')) await page.locator('[data-testid=pocket-ring]').first().waitFor();
  else await page.getByRole('heading', { level: 1 }).waitFor();
  await then?.(page);
  await page.waitForTimeout(1500);
  await page.screenshot({ path: join(root, 'docs/screenshots', `${name}.png`) });
}
if (only.length === 0 || only.some((name) => name.startsWith('frame'))) {
  // Frames of the simulated camera, brought in and measured as anybody's would be.
  const folder = join(root, 'tests/frames');
  await page.setViewportSize(desk);
  await page.goto(`${base}/setup/demo-west-door`);
  await page.getByTestId('call').waitFor();
  await page.getByLabel('Job file').setInputFiles(join(folder, 'six.focalis.json'));
  await page.waitForURL(/six-on-the-steps/);
  await page.getByRole('link', { name: 'Frames' }).click();
  const files = readdirSync(folder).filter((name) => name.endsWith('.JPG'));
  await page.getByLabel('Photos').setInputFiles(files.map((name) => join(folder, name)));
  await page.getByText('12 photos imported').waitFor();
  await page.getByRole('button', { name: 'Done' }).click();
  await page.getByText('by time', { exact: true }).click();
  for (const key of [
    'n',
    'ArrowDown',
    'n',
    'ArrowDown',
    'Enter',
    'ArrowDown',
    'm',
    'ArrowDown',
    'Enter',
    'ArrowDown',
    'n'
  ])
    await page.keyboard.press(key);
  await page.getByRole('grid').evaluate((grid) => (grid.scrollTop = 0));
  await page.waitForTimeout(800);
  await page.screenshot({ path: join(root, 'docs/screenshots/frames.png') });
  await page.goto(page.url().replace(/\?.*/, ''));
  await page.getByText('by time', { exact: true }).click();
  for (const number of ['202', '203', '204'])
    await page
      .getByTestId('frame-row')
      .filter({ has: page.getByText(number, { exact: true }) })
      .getByText('compare')
      .click();
  await page.getByRole('button', { name: 'Side by side' }).click();
  await page.getByText('Wren', { exact: true }).click();
  await page.getByTestId('locked-eyes').first().locator('img').waitFor();
  await page.waitForTimeout(800);
  await page.screenshot({ path: join(root, 'docs/screenshots/side-by-side.png') });
  await page.getByRole('button', { name: 'All frames' }).click();
  await page.getByRole('button', { name: 'Open FOC_0202.JPG' }).click();
  await page.getByTestId('plane-title').waitFor();
  await page.waitForTimeout(800);
  await page.screenshot({ path: join(root, 'docs/screenshots/frame.png') });
}
if (only.length === 0 || only.includes('record')) {
  const fresh = await browser.newPage({ viewport: desk });
  await fresh.goto(`${base}/setup/demo-west-door`);
  await fresh.getByTestId('call').waitFor();
  await fresh.getByRole('link', { name: 'Record' }).click();
  await fresh.getByRole('button', { name: 'Show a made-up record' }).click();
  await fresh.getByTestId('kit-groups').waitFor();
  await fresh.locator('.main-svg').first().waitFor();
  await fresh.waitForTimeout(1500);
  await fresh.screenshot({ path: join(root, 'docs/screenshots/record.png') });
}
if (only.length === 0 || only.includes('bench')) {
  const fresh = await browser.newPage({ viewport: desk });
  await fresh.goto(`${base}/setup/demo-west-door`);
  await fresh.getByTestId('call').waitFor();
  await fresh.getByRole('link', { name: 'Bench' }).click();
  const done = () =>
    fresh.getByRole('button', { name: 'Stop', exact: true }).waitFor({ state: 'detached', timeout: 300_000 });
  await fresh.getByRole('button', { name: 'Try it with the simulated camera' }).click();
  await fresh.getByTestId('bench-verdict').waitFor({ timeout: 120_000 });
  await done();
  await fresh.waitForTimeout(1500);
  await fresh.screenshot({ path: join(root, 'docs/screenshots/bench.png') });
}
if (only.length === 0 || only.includes('drill')) {
  const fresh = await browser.newPage({ viewport: desk });
  await fresh.goto(`${base}/setup/demo-west-door`);
  await fresh.getByTestId('call').waitFor();
  await fresh.getByRole('link', { name: 'Drills' }).click();
  await fresh.getByRole('link', { name: 'Three on a diagonal' }).first().click();
  await fresh.getByRole('button', { name: 'Try it with the simulated camera' }).click();
  await fresh.getByTestId('drill-verdict').waitFor({ timeout: 120_000 });
  await fine(fresh.locator('figure canvas').first());
  await fresh.screenshot({ path: join(root, 'docs/screenshots/drill.png') });
}
await end();
