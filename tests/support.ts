import { AxeBuilder } from '@axe-core/playwright';
import { expect, test as base, type Locator, type Page } from '@playwright/test';

/** A page that fails its test on any error in the console and on any request that leaves the origin. */
export const drawingTest = base.extend<{ page: Page }>({
  page: async ({ page, baseURL }, use) => {
    const problems: string[] = [];
    page.on('pageerror', (error) => problems.push(`error: ${error.message}`));
    page.on('console', (message) => {
      if (message.type() === 'error') problems.push(`console: ${message.text()}`);
    });
    page.on('request', (request) => {
      const url = request.url();
      const own =
        url.startsWith(`${baseURL}/`) ||
        url.startsWith('http://127.0.0.1:4241/') ||
        url.startsWith('blob:') ||
        url.startsWith('data:');
      if (!own) problems.push(`request to ${url}`);
    });
    await use(page);
    expect(problems).toEqual([]);
  }
});

/** The same with a renderer that rests: where no picture is looked at, none needs to be drawn. */
export const test = drawingTest.extend({
  context: async ({ context }, use) => {
    await context.addInitScript(() => {
      const Original = Worker;
      window.Worker = class extends Original {
        constructor(url: string | URL, options?: WorkerOptions) {
          const idle = URL.createObjectURL(new Blob([''], { type: 'text/javascript' }));
          super(String(url).includes('renderer') ? idle : url, options);
        }
      };
    });
    await use(context);
  }
});

export { expect };

/** The headline of the call. */
export const call = (page: Page): Locator => page.getByTestId('call').getByRole('heading', { level: 1 });

/** The one message on the screen; other places say how far they are by themselves. */
export const message = (page: Page): Locator => page.getByTestId('message');

export async function openDemo(page: Page, setup = 'West door'): Promise<void> {
  await page.goto('/setup/demo-west-door');
  await expect(call(page)).toBeVisible();
  // What comes after the call has come.
  await expect(page.getByTestId('floor')).toBeVisible();
  if (setup !== 'West door') {
    const link = page
      .getByRole('navigation', { name: 'Setups' })
      .getByRole('link', { name: new RegExp(`\\d ?${setup}$`) });
    // The strip measures its pictures as it opens: what moves under the pointer meanwhile is pressed again.
    await expect(async () => {
      await link.click();
      await expect(page).toHaveTitle(new RegExp(`^${setup}`), { timeout: 5000 });
    }).toPass();
    await expect(page.getByTestId('floor')).toBeVisible();
  }
}

/** Goes to the settings, does something there, and comes back. */
export async function inSettings(page: Page, work: () => Promise<unknown>): Promise<void> {
  await page.getByRole('link', { name: 'Settings' }).click();
  await expect(page.getByRole('heading', { name: 'Settings', level: 1 })).toBeVisible();
  await work();
  await page.goBack();
}

/** Waits until everything typed has reached the store. */
export async function saved(page: Page): Promise<void> {
  await expect(page.getByText(/^saved/)).toBeVisible();
}

const contrast = 'color-contrast';
/** Which rules: of contrast alone, where only colours differ; all but that, which takes most of the time; or all. */
export type AxeRules = 'all' | 'contrast' | 'structure';

/** Of the whole page, or of the part under a selector. */
export async function expectNoAxeFindings(page: Page, within = 'html', rules: AxeRules = 'all'): Promise<void> {
  const tags = ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa', 'best-practice'];
  const builder = new AxeBuilder({ page }).include(within);
  if (rules === 'contrast') builder.withRules([contrast]);
  else builder.withTags(tags);
  if (rules === 'structure') builder.disableRules([contrast]);
  const { violations } = await builder.analyze();
  expect(violations.map((item) => `${item.id}: ${item.nodes.map((node) => node.target.join(' ')).join(', ')}`)).toEqual(
    []
  );
}

/** What the three views say at this moment, read in one go. */
export function readViews(page: Page) {
  return page.evaluate(() => ({
    call: document.querySelector('[data-testid=call] h1')?.textContent ?? '',
    ladder: document.querySelector('[data-testid=ladder] tbody')?.textContent ?? '',
    floor: document.querySelector('[data-testid=sharp-zone]')?.getAttribute('d') ?? ''
  }));
}

/** What is drawn by chance in the page is the same at each run. */
export const sameChance = (page: Page): Promise<unknown> =>
  page.addInitScript(() => {
    let state = 15;
    Math.random = () => {
      state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
      return state / 2 ** 32;
    };
  });
