import { readFile } from 'node:fs/promises';
import exifr from 'exifr';
import type { Page } from '@playwright/test';
import { call, drawingTest, expect, openDemo, test as resting } from './support';

const test = drawingTest;

// Drawing in software is slow on a busy machine, not wrong.
test.describe.configure({ timeout: 600_000 });

const canvas = (page: Page) => page.getByTestId('finder').locator('canvas');
/** Waits until something has been drawn, rough or fine. */
async function drawn(page: Page): Promise<void> {
  await expect(canvas(page)).toHaveAttribute('data-views', /\d+/, { timeout: 300_000 });
}
const bytesOf = (page: Page) => canvas(page).evaluate((element: HTMLCanvasElement) => element.toDataURL().length);

test('the picture is there at once, refines, and follows a change of stop', async ({ page }) => {
  await openDemo(page);
  await drawn(page);
  await expect(canvas(page)).toHaveAttribute('data-views', /^(16|32|64)$/, { timeout: 300_000 });
  await expect(page.getByTestId('finder-caption')).toContainText('85 mm · point');
  const open = await bytesOf(page);
  expect(open).toBeGreaterThan(20_000);
  await page.locator('[data-stop="16"]').click();
  // A new quick preview, and then finer ones: at f/16 the leaves have far more to show.
  await expect(canvas(page)).toHaveAttribute('data-views', /^(16|32|64)$/, { timeout: 300_000 });
  await expect.poll(() => bytesOf(page), { timeout: 300_000 }).toBeGreaterThan(open * 1.1);
});

resting('a click on a face focuses there, and dragging reframes; both can be undone', async ({ page }) => {
  await openDemo(page, 'Under the palms');
  const before = await call(page).textContent();
  expect(before).toContain('Tobiah');
  const box = await page.getByTestId('finder').boundingBox();
  const at = (x: number, y: number) =>
    [(box?.x ?? 0) + (box?.width ?? 0) * x, (box?.y ?? 0) + (box?.height ?? 0) * y] as const;
  // Ines stands left of the middle.
  await page.mouse.click(...at(0.42, 0.44));
  await expect(call(page)).toContainText('Ines');
  await expect(page.getByTestId('floor-person-ines')).toHaveAttribute('aria-pressed', 'true');
  await page.keyboard.press('Control+z');
  await expect(call(page)).toHaveText(before ?? '');

  await page.getByRole('tab', { name: 'Camera' }).click();
  await expect(page.getByLabel('Turn, right, °')).toHaveValue('0');
  await page.mouse.move(...at(0.2, 0.2));
  await page.mouse.down();
  await page.mouse.move(...at(0.35, 0.2), { steps: 5 });
  await page.mouse.up();
  // The picture is pulled to the right, so the camera turns to the left.
  await expect.poll(async () => Number(await page.getByLabel('Turn, right, °').inputValue())).toBeLessThan(-1);
  await page.keyboard.press('Control+z');
  await expect(page.getByLabel('Turn, right, °')).toHaveValue('0');
});

test('everybody’s eyes are shown with their lids and the scale, with the words of the Ladder, and larger on a click', async ({
  page
}) => {
  await openDemo(page, 'West door, the 50');
  const strip = page.getByTestId('eye-strip');
  await expect(strip.getByRole('button')).toHaveCount(2);
  await expect(strip.getByRole('button', { name: /^Ines, near eye, at \d\d%: sharp\. Look closer\.$/ })).toBeVisible();
  await page.locator('[data-stop="1.8"]').click();
  await expect(strip.getByRole('button', { name: /^Ines, far eye, at \d\d%: soft\. Look closer\.$/ })).toHaveAttribute(
    'data-verdict',
    'soft'
  );
  await expect(strip.locator('canvas').first()).toHaveAttribute('data-views', /\d+/, { timeout: 300_000 });
  await strip.getByRole('button', { name: /far eye/ }).click();
  const loupe = page.getByTestId('loupe');
  await expect(loupe.locator('canvas')).toHaveAttribute('data-views', /\d+/, { timeout: 300_000 });
  await loupe.getByLabel('Look at').selectOption({ label: 'Ines, near eye: sharp' });
  await page.keyboard.press('Escape');
  await expect(loupe).toHaveCount(0);
  await page.keyboard.press('h');
  await expect(page.getByTestId('loupe')).toBeVisible();
});

resting('the eyes of all fourteen are in the strip', async ({ page }) => {
  await openDemo(page, 'Family on the steps');
  await expect(page.getByTestId('eye-strip').getByRole('button')).toHaveCount(14);
  await expect(page.getByTestId('eye-strip').getByRole('button', { name: /^Corvin, eyes/ })).toBeAttached();
});

test('stops are compared side by side, and one is taken', async ({ page }) => {
  await openDemo(page);
  await page.getByRole('button', { name: 'Compare apertures, lenses or focus' }).click();
  const compare = page.getByTestId('compare');
  await expect(compare.getByRole('figure')).toHaveCount(4);
  await expect(compare.locator('canvas').first()).toHaveAttribute('data-views', /\d+/, { timeout: 300_000 });
  await compare.getByText('at 100%').click();
  await expect(compare.getByRole('figure')).toHaveCount(4);
  await compare.getByText('lenses', { exact: true }).click();
  await expect(compare.getByRole('figure').filter({ hasText: '85 mm' })).toBeVisible();
  await compare.getByText('stops', { exact: true }).click();
  const called = compare.getByRole('figure').filter({ hasText: 'f/2.8,' });
  await expect(called.locator('canvas')).toHaveAttribute('data-views', /\d+/, { timeout: 300_000 });
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    compare.getByRole('button', { name: /^Save the preview at f\/2\.8/ }).click()
  ]);
  expect(download.suggestedFilename()).toBe('West-door-f2.8.png');
  await compare.getByRole('figure').filter({ hasText: 'f/4,' }).getByRole('button', { name: 'Use it' }).click();
  await expect(call(page)).toHaveText(/^f\/4 /);
});

test('a picture is saved with its settings in it', async ({ page }) => {
  await openDemo(page);
  await drawn(page);
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Save this preview' }).click()
  ]);
  expect(download.suggestedFilename()).toBe('West-door-f2.8.png');
  const facts = JSON.stringify(
    await exifr.parse(await readFile(await download.path()), { xmp: true, mergeOutput: true })
  );
  expect(facts).toContain('West door');
  expect(facts).toContain('near eye, from 1.5 m.');
  expect(facts).toContain('850/10');
});

resting('marks over the picture are switched and stay switched', async ({ page }) => {
  await openDemo(page);
  const marks = page.getByTestId('marks').locator('rect[width="8"]');
  await expect(marks).toHaveCount(117);
  // The one that is used, as large as it is.
  await expect(page.getByTestId('point-used')).toBeVisible();
  await page.getByRole('button', { name: 'Marks over the preview' }).click();
  await page.getByLabel('Focus points of this body').uncheck();
  await expect(marks).toHaveCount(0);
  await page.getByLabel('Print crop').check();
  await page.reload();
  await expect(page.getByTestId('finder').locator('path[fill-rule=evenodd]')).toBeVisible();
  await expect(marks).toHaveCount(0);
});

test('small pictures of the day are drawn once and kept', async ({ page }) => {
  await openDemo(page);
  const first = page.getByTestId('thumbnail').first();
  await expect(first).toBeVisible({ timeout: 500_000 });
  await page.reload();
  // From the store, before anything has been drawn.
  await expect(first).toBeVisible({ timeout: 60_000 });
});

/** Lets the renderer's worker run something of ours before its own code, which may ask the how-manieth `attempt` it is. */
async function beforeRenderer(page: Page, code: string): Promise<void> {
  await page.addInitScript((first) => {
    const Original = Worker;
    let attempts = 0;
    window.Worker = class extends Original {
      constructor(url: string | URL, options?: WorkerOptions) {
        if (!String(url).includes('renderer')) {
          super(url, options);
          return;
        }
        const module = (text: string) => URL.createObjectURL(new Blob([text], { type: 'text/javascript' }));
        const renderer = new URL(String(url), location.href).href;
        // Its own address is not the application's.
        const base = JSON.stringify(location.origin);
        const prelude = `const attempt = ${++attempts}; const own = self.fetch; self.fetch = (what, how) => own(new URL(what, ${base}), how);\n${first}`;
        // Static imports, in this order: the worker listens before its first message is let through.
        super(module([module(prelude), renderer].map((item) => `import ${JSON.stringify(item)};`).join('\n')), options);
      }
    };
  }, code);
}

test('without WebGL the outline stands in and says so', async ({ page }) => {
  await beforeRenderer(page, 'OffscreenCanvas.prototype.getContext = () => null;');
  await openDemo(page);
  await expect(page.getByText('This browser has no WebGL.')).toBeVisible({ timeout: 300_000 });
  await expect(page.getByRole('img', { name: /through the lens at f\/2.8/ })).toBeVisible();
  await expect(call(page)).toHaveText('f/2.8 on Ines’s near eye, from 1.5 m.');
});

test('when the graphics are lost the outline stands in, and drawing begins again on request', async ({ page }) => {
  await beforeRenderer(
    page,
    `const get = OffscreenCanvas.prototype.getContext;
     OffscreenCanvas.prototype.getContext = function (...given) {
       const context = get.apply(this, given);
       if (given[0] === 'webgl2') new BroadcastChannel('lose').onmessage = () => context.getExtension('WEBGL_lose_context').loseContext();
       return context;
     };`
  );
  await openDemo(page);
  await drawn(page);
  await page.evaluate(() => new BroadcastChannel('lose').postMessage('now'));
  await expect(page.getByText('The graphics card stopped responding.')).toBeVisible({ timeout: 300_000 });
  await expect(page.getByRole('img', { name: /through the lens at f\/2.8/ })).toBeVisible();
  await page.getByRole('button', { name: 'Try again' }).click();
  await expect(page.getByText('The graphics card stopped responding.')).toHaveCount(0);
  await drawn(page);
});

test('a figure that cannot be fetched is said, and fetched on request', async ({ page }) => {
  await beforeRenderer(
    page,
    `const fetched = self.fetch;
     const refuses = (what) => attempt === 1 && String(what).includes('head-');
     self.fetch = (what, how) => refuses(what) ? Promise.resolve(new Response('', { status: 503 })) : fetched(what, how);`
  );
  await openDemo(page);
  await expect(page.getByText(/The figure head-\d could not be fetched \(503\)/)).toBeVisible({ timeout: 300_000 });
  await expect(page.getByRole('img', { name: /through the lens at f\/2.8/ })).toBeVisible();
  await page.getByRole('button', { name: 'Try again' }).click();
  await drawn(page);
});

test('what was drawn to the end is what the field card shows', async ({ page }) => {
  await openDemo(page);
  const kept = () =>
    page.evaluate(
      () =>
        new Promise<boolean>((resolve, reject) => {
          const opening = indexedDB.open('focalis');
          opening.onerror = () => reject(new Error('not opened'));
          opening.onsuccess = () => {
            const asked = opening.result
              .transaction('thumbnails')
              .objectStore('thumbnails')
              .getKey('card-demo-west-door');
            asked.onsuccess = () => {
              opening.result.close();
              resolve(asked.result !== undefined);
            };
          };
        })
    );
  await expect.poll(kept, { timeout: 120_000 }).toBe(true);
  // It is as large as it was drawn, whoever asks.
  const canvas = page.getByTestId('finder').locator('canvas').first();
  expect(await canvas.evaluate((element: HTMLCanvasElement) => element.height / element.width)).toBeCloseTo(1.5, 1);
  await page.goto('/card/demo-west-door');
  const picture = page.getByTestId('card-picture').first();
  await expect(picture).toBeVisible();
  const { width, height } = await picture.evaluate((image: HTMLImageElement) => ({
    width: image.naturalWidth,
    height: image.naturalHeight
  }));
  expect(height / width).toBeCloseTo(1.5, 1);
});
