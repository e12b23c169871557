/** What comes to the browser, and when. */
import { test as plainTest, type Page } from '@playwright/test';
import { call, drawingTest, expect, test } from './support';

/** Everything fetched so far: the path and the compressed size, bytes. */
const fetched = (page: Page) =>
  page.evaluate(() =>
    (performance.getEntriesByType('resource') as PerformanceResourceTiming[]).map((entry) => ({
      path: new URL(entry.name).pathname,
      bytes: entry.encodedBodySize
    }))
  );

/** Frames, and what waits for one, come only when they are asked for: the call stands still at its first. */
async function holdFrames(page: Page): Promise<void> {
  await page.addInitScript(() => {
    const asked = window.requestAnimationFrame.bind(window);
    const waiting: FrameRequestCallback[] = [];
    window.requestAnimationFrame = (callback) => waiting.push(callback);
    Object.assign(window, { goOn: () => void waiting.splice(0).forEach((callback) => asked(callback)) });
  });
}

async function untilFramesBring(page: Page, count: () => Promise<number>): Promise<void> {
  await expect
    .poll(async () => {
      await page.evaluate(() => (window as unknown as { goOn: () => void }).goOn());
      return count();
    })
    .toBe(1);
}

test('up to the first call at most 250 kB of script come, no graphics and no charts', async ({ page }) => {
  await holdFrames(page);
  await page.goto('/setup/demo-west-door');
  await expect(call(page)).toHaveText(/^f\/2\.8 on Ines/);
  const scripts = (await fetched(page)).filter(({ path }) => path.endsWith('.js'));
  expect(scripts.length).toBeGreaterThan(5);
  expect(scripts.every(({ bytes }) => bytes > 0)).toBe(true);
  expect(scripts.reduce((sum, { bytes }) => sum + bytes, 0)).toBeLessThanOrEqual(250_000);
  expect(scripts.filter(({ path }) => /workers|plotly/.test(path))).toEqual([]);
  await expect(page.getByTestId('floor')).toHaveCount(0);
  await untilFramesBring(page, () => page.getByTestId('floor').count());
});

drawingTest('a field card draws nothing: no renderer comes for it', async ({ page }) => {
  await page.goto('/card/demo-west-door');
  await expect(page.getByTestId('card-call')).toBeVisible();
  await expect(page.locator('main svg').first()).toBeVisible();
  await page.waitForLoadState('networkidle');
  expect((await fetched(page)).filter(({ path }) => /renderer/.test(path))).toEqual([]);
});

plainTest('what the rest of the screen needs cannot be fetched: it is said, and tried again', async ({ page }) => {
  await holdFrames(page);
  await page.goto('/setup/demo-west-door');
  await expect(call(page)).toHaveText(/^f\/2\.8 on Ines/);
  await page.route(/_app\/immutable\//, (route) => route.abort());
  const problem = page.getByRole('alert').filter({ hasText: 'The rest of this screen could not be fetched' });
  await untilFramesBring(page, () => problem.count());
  await page.unroute(/_app\/immutable\//);
  await problem.getByRole('button', { name: 'Try again' }).click();
  await untilFramesBring(page, () => page.getByTestId('floor').count());
  await expect(problem).toHaveCount(0);
});
