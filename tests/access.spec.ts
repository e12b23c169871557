import type { Page } from '@playwright/test';
import { call, expect, expectNoAxeFindings, inSettings, openDemo, test } from './support';

test('a keyboard alone goes from nothing to a field card', async ({ page }) => {
  await openDemo(page);
  const press = (...keys: string[]) =>
    keys.reduce(async (done, key) => (await done, page.keyboard.press(key)), Promise.resolve());
  /** Whatever has the focus must show it: with an outline, its own or that of the part that is drawn. */
  const unseenFocus = () =>
    page.evaluate(() => {
      const { activeElement: active } = document;
      if (!active?.matches(':focus-visible')) return '';
      const parts = [active, active.closest('label'), ...active.querySelectorAll('*')];
      const shown = parts.some((item) => item && getComputedStyle(item).outlineStyle !== 'none');
      return shown ? '' : active.outerHTML.slice(0, 300);
    });
  const tabTo = async (name: RegExp) => {
    for (let i = 0; i < 120; i++) {
      const label = await page.evaluate(() => {
        const active = document.activeElement as HTMLElement | null;
        const labels = (active as HTMLInputElement | null)?.labels;
        return active?.getAttribute('aria-label') ?? labels?.[0]?.textContent ?? active?.textContent ?? '';
      });
      if (name.test(label.trim())) return;
      await page.keyboard.press('Tab');
      expect(await unseenFocus()).toBe('');
    }
    throw new Error(`Tab never reached ${name}`);
  };

  await tabTo(/^Fernhall Glasshouse$/);
  await press('Enter');
  await tabTo(/^Start a new job$/);
  await press('Enter');
  await expect(page.getByRole('heading', { name: 'What are you shooting?' })).toBeVisible();
  await page.locator('body').press('Tab');
  await tabTo(/^A couple/);
  await press('Enter');
  await expect(page).toHaveTitle(/^A couple/);
  await page.locator('body').press('Tab');
  await tabTo(/^Lens$/);
  await page.keyboard.type('135');
  await expect(page.getByLabel('Lens', { exact: true })).toHaveValue('lens-135');
  await tabTo(/^Distance$/);
  await press('Control+a');
  await page.keyboard.type('5.5');
  await press('Enter');
  await expect(call(page)).toHaveText(/from 5\.5 m\.$/);

  // On the Floor: move and turn a person.
  await tabTo(/^Adult 1, 5\.5 m from the lens/);
  await press('ArrowRight', 'ArrowRight', '.', '.');
  await expect(page.getByLabel('Distance from lens', { exact: true })).toHaveValue('5.54 m');
  await expect(page.getByLabel(/^Head turn/)).toHaveValue('35');

  // Anywhere else the arrows choose the stop.
  await page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur());
  const before = await call(page).textContent();
  await press('ArrowRight');
  await expect(call(page)).not.toHaveText(before ?? '');
  await expect(page.getByTestId('call')).toContainText('You chose');
  await press('Control+z');
  await expect(call(page)).toHaveText(before ?? '');
  await press('7');
  await expect(page.getByRole('tab', { name: 'Background' })).toHaveAttribute('aria-selected', 'true');
  await press('c');
  await expect(page.getByTestId('card-call')).toBeVisible();
  await tabTo(/^More about this setup$/);
  await press('Enter');
  await expect(page.getByRole('dialog')).toBeVisible();
  await tabTo(/^Print this card$/);
  await tabTo(/^Edit this setup$/);
  await press('Enter');
  await expect(call(page)).toBeVisible();
});

test('a dialog or menu opened by a key gives the focus back when Escape shuts it', async ({ page }) => {
  await openDemo(page);
  const names = ['Add a setup', 'Keys and help', 'Measure with the rangefinder', 'Eyes at 100% (H)'];
  for (const name of [...names, 'Compare apertures, lenses or focus']) {
    const button = page.getByRole('button', { name, exact: true });
    await button.focus();
    await page.keyboard.press('Enter');
    const opened = page.getByRole('dialog');
    await expect(opened, name).toBeVisible();
    await expectNoAxeFindings(page, 'dialog', 'structure');
    await page.keyboard.press('Escape');
    await expect(opened, name).toBeHidden();
    await expect(button, name).toBeFocused();
  }
});

test('the job menu opens when it is pressed, goes with Escape back to its button, and shuts when it is left', async ({
  page
}) => {
  await openDemo(page);
  const menu = page.getByRole('button', { name: 'Fernhall Glasshouse' });
  const item = page.getByRole('button', { name: 'Start a new job' });
  await menu.focus();
  await expect(item).toHaveCount(0);
  await page.keyboard.press('Enter');
  await expect(item).toBeVisible();
  await expectNoAxeFindings(page, 'header');
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('ArrowDown');
  await expect(page.getByRole('button', { name: 'Quayside Brass' })).toBeFocused();
  await page.keyboard.press('Escape');
  await expect(item).toHaveCount(0);
  await expect(menu).toBeFocused();
  await page.keyboard.press('Enter');
  await page.keyboard.press('Shift+Tab');
  await expect(item).toHaveCount(0);
});

test('a dialog just closed stays closed, however late the browser says that it has opened', async ({ page }) => {
  await openDemo(page);
  await page.getByRole('button', { name: 'Keys and help' }).click();
  await expect(page.getByRole('dialog')).toBeVisible();
  await page.getByRole('dialog').evaluate((dialog) => {
    dialog.querySelector<HTMLButtonElement>('button[aria-label=Close]')?.click();
    dialog.dispatchEvent(new ToggleEvent('toggle', { oldState: 'closed', newState: 'open' }));
  });
  await expect(page.getByRole('dialog')).toHaveCount(0);
});

type Look = (within?: string) => Promise<void>;

/** What axe finds but for contrast, and how large everything is that can be pressed. */
const structure =
  (page: Page): Look =>
  async (within) => {
    await expectNoAxeFindings(page, within, 'structure');
    await expectTargets(page, 24);
  };

/** Looks at a setup with every tab in turn. */
async function inTheSetup(page: Page, look: Look): Promise<void> {
  await openDemo(page, 'Under the palms');
  await look();
  for (const tab of ['Fixes', 'Line-up', 'Technique', 'Light', 'Checks', 'People', 'Background', 'Intent', 'Camera']) {
    await page.getByRole('tab', { name: tab }).click();
    await expect(page.getByRole('tab', { name: tab })).toHaveAttribute('aria-selected', 'true');
    await look('[role=tabpanel]');
  }
}

/** Looks at every other screen of the desk and the larger dialogs in turn. */
async function besideTheSetup(page: Page, look: Look): Promise<void> {
  await page.getByRole('link', { name: 'Day' }).click();
  await expect(page.getByLabel('Job', { exact: true })).toBeVisible();
  await page.getByRole('button', { name: 'Choose Rings' }).click();
  await expect(page.getByRole('heading', { name: 'Rings', level: 2 })).toBeVisible();
  await expect(page.getByTestId('bag')).toContainText('cover every must-have setup');
  await look();
  for (const name of ['Print and export', 'Send to phone']) {
    await page.getByRole('button', { name }).click();
    await expect(page.getByRole('dialog')).toBeVisible();
    await look('dialog');
    await page.keyboard.press('Escape');
    await expect(page.getByRole('dialog')).toHaveCount(0);
  }
  await page.getByRole('button', { name: 'Fernhall Glasshouse' }).click();
  await page.getByRole('button', { name: 'All jobs' }).click();
  await expect(page.getByRole('heading', { name: 'Jobs', level: 1 })).toBeVisible();
  await look();
  await page.getByRole('link', { name: 'Kit' }).click();
  await expect(page.getByRole('button', { name: '85 mm f/1.4' })).toBeVisible();
  await look();
  await page.getByRole('link', { name: 'Record' }).click();
  await page.getByRole('button', { name: 'Show a made-up record' }).click();
  await expect(page.getByTestId('kit-groups')).toBeVisible();
  await expect(page.getByTestId('honesty-chart').locator('.main-svg').first()).toBeVisible();
  await look();
  await page.getByRole('link', { name: 'Drills' }).click();
  await expect(page.getByRole('link', { name: 'Three on a diagonal' }).first()).toBeVisible();
  await look();
  await page.goto(`/pickup/${'A'.repeat(22)}#${'A'.repeat(43)}.demo-fernhall`);
  await expect(page.getByRole('button', { name: 'Collect' })).toBeVisible();
  await look();
}

/** Looks at the Pocket, standing and lying, and at what it opens. */
async function inHand(page: Page, look: Look): Promise<void> {
  await page.goto('/card/demo-under-palms');
  await expect(page.getByTestId('card-call')).toBeVisible();
  await look();
  const { width, height } = page.viewportSize() ?? { width: 0, height: 0 };
  if (width < height) {
    // Lying on its side, as much as a browser leaves.
    await page.setViewportSize({ width: 844, height: 340 });
    await look();
    expect(await page.evaluate(() => document.documentElement.scrollHeight)).toBeLessThanOrEqual(340);
    await page.setViewportSize({ width, height });
  }
  const done = page.getByRole('button', { name: /^Done/ });
  // Ticked, it asks how it is.
  if ((await done.textContent())?.trim() === 'Done') await done.click();
  for (const button of [page.getByRole('button', { name: 'More about this setup' }), done]) {
    await button.click();
    await expect(page.getByRole('dialog')).toBeVisible();
    await look('dialog');
    await page.getByRole('button', { name: 'Close', exact: true }).click();
  }
  await page.goto('/drills/diagonal/hand');
  await expect(page.getByTestId('drill-task')).toBeVisible();
  await look();
}

/** Sets the theme, and looks at where that is done. */
async function inTheme(page: Page, theme: string, look: Look): Promise<void> {
  await page.goto('/settings');
  await page.getByRole('group', { name: 'Theme' }).getByText(theme, { exact: true }).click();
  await expect(page.locator('html')).toHaveAttribute('data-theme', theme);
  await look();
}

/** Everything that can be pressed or typed into is large enough for a finger. */
async function expectTargets(page: Page, leastPx: number): Promise<void> {
  const small = await page.evaluate((least) => {
    const all = document.querySelectorAll<HTMLElement>('a, button, input, select, textarea, summary, [role=tab]');
    return [...all].flatMap((item) => {
      const { width, height } = item.getBoundingClientRect();
      const seen = item.checkVisibility() && !item.closest('.sr-only');
      const said = item.getAttribute('aria-label') ?? item.textContent;
      return seen && Math.min(width, height) < least - 0.5 ? [`${said.trim()}: ${width} × ${height}`] : [];
    });
  }, leastPx);
  expect(small).toEqual([]);
}

const phone = { width: 390, height: 844 };
// Colours are the same at every size and come from each theme's tokens, held by src/lib/shell/tokens.test.ts: contrast is
// looked at on the few screens below, and structure once on every screen.
test('axe finds nothing in a setup, and everything is large enough', async ({ page }) => {
  await inTheSetup(page, structure(page));
});

test('axe finds nothing on the other screens of the desk, and everything is large enough', async ({ page }) => {
  await inTheme(page, 'studio', structure(page));
  await openDemo(page);
  await besideTheSetup(page, structure(page));
});

test('on a phone every screen fits and everything is large enough; the card is analysed', async ({ page }) => {
  await page.setViewportSize(phone);
  const fits: Look = async (within) => {
    await expectTargets(page, 24);
    if (within) return;
    const wide = await page.evaluate(() => document.documentElement.scrollWidth - innerWidth);
    expect(wide, page.url()).toBeLessThanOrEqual(0);
  };
  await inTheSetup(page, fits);
  await besideTheSetup(page, fits);
  await inHand(page, async (within) => {
    await expectNoAxeFindings(page, within);
    await expectTargets(page, within === 'dialog' ? 24 : 44);
  });
});

for (const theme of ['studio', 'dim', 'sun']) {
  test(`chosen in Settings, the ${theme} theme is worn by every screen, also by what draws itself`, async ({
    page
  }) => {
    const look: Look = (within) => expectNoAxeFindings(page, within, 'contrast');
    await inTheme(page, theme, look);
    await openDemo(page);
    await look();
    await page.goto('/record');
    await page.getByRole('button', { name: 'Show a made-up record' }).click();
    await expect(page.getByTestId('honesty-chart').locator('.main-svg').first()).toBeVisible();
    await look();
    await page.setViewportSize(phone);
    await page.goto('/card/demo-under-palms');
    await expect(page.getByTestId('card-call')).toBeVisible();
    await expect(page.locator('html')).toHaveAttribute('data-theme', theme);
    await look();
  });
}

test('axe finds nothing in the empty and the impossible setup, nor in the first question', async ({ page }) => {
  await openDemo(page);
  await page.getByRole('button', { name: 'Remove Ines' }).click();
  await expect(call(page)).toHaveText('No one is in this setup yet.');
  await expectNoAxeFindings(page);
  await page.getByRole('button', { name: 'Fernhall Glasshouse' }).click();
  await page.getByRole('button', { name: 'Start a new job' }).click();
  await expect(page.getByRole('heading', { name: 'What are you shooting?' })).toBeVisible();
  await expectNoAxeFindings(page);
});

test('wanting more contrast is heard', async ({ page }) => {
  const softInk = () =>
    page
      .locator('.label')
      .first()
      .evaluate((item) => getComputedStyle(item).color);
  await openDemo(page);
  const usual = await softInk();
  await page.emulateMedia({ contrast: 'more' });
  expect(await softInk()).not.toBe(usual);
});

test('works at 200% zoom and from 320 px', async ({ page }) => {
  for (const width of [640, 320]) {
    await page.setViewportSize({ width, height: 720 });
    await openDemo(page);
    const widest = await page.evaluate(() => document.documentElement.scrollWidth);
    expect(widest).toBeLessThanOrEqual(width);
    await expect(page.getByRole('tab', { name: 'Intent' })).toBeVisible();
  }
});

test('lengths are typed and read in feet and inches', async ({ page }) => {
  await openDemo(page);
  await inSettings(page, () => page.getByText('feet and inches').click());
  await page.getByLabel('Distance', { exact: true }).fill(`11' 2"`);
  await page.getByLabel('Distance', { exact: true }).press('Enter');
  await expect(call(page)).toHaveText(/from 11′ 2″\.$/);
  await page.getByLabel('Distance', { exact: true }).fill('quite far');
  await page.getByLabel('Distance', { exact: true }).press('Enter');
  await expect(page.getByRole('alert')).toContainText('Not a length');
  await expect(call(page)).toHaveText(/from 11′ 2″\.$/);
});

test('full, half and third stops', async ({ page }) => {
  await openDemo(page);
  const stops = page.locator('[data-stop]');
  await expect(stops).toHaveCount(22);
  const steps = page.getByRole('group', { name: 'Aperture increments' });
  const set = async (name: string) => {
    await page.getByRole('link', { name: 'Day' }).click();
    await steps.getByText(name, { exact: true }).click();
    await page.goBack();
  };
  await set('half');
  await expect(stops).toHaveCount(15);
  await set('full');
  await expect(stops).toHaveText(['1.4', '2', '2.8', '4', '5.6', '8', '11', '16']);
});
