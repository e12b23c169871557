import { readFileSync } from 'node:fs';
import { call, expect, expectNoAxeFindings, openDemo, saved, test } from './support';

test('the first visit is one question, one press to a call, and shown round once', async ({ page }) => {
  await page.goto('/');
  await expect(page.getByRole('heading', { name: 'What are you shooting?' })).toBeVisible();
  await expectNoAxeFindings(page);
  await page.getByRole('button', { name: /^A couple/ }).click();
  await expect(call(page)).toHaveText(/^f\/[\d.]+ on .+ eye, from [\d.]+ m\.$/);
  await expect(page.getByTestId('floor')).toBeVisible();
  const offer = page.getByTestId('show-round');
  await offer.getByRole('button', { name: 'Take the tour' }).click();
  const stop = page.locator('#driver-popover-content');
  for (const title of ['The call', 'The Ladder', 'The Floor', 'The Finder']) {
    await expect(stop).toContainText(title);
    await stop.getByRole('button', { name: 'Next' }).click();
  }
  await expect(stop).toContainText('The field card');
  await stop.getByRole('button', { name: 'Done' }).click();
  await expect(stop).toHaveCount(0);
  await expect(offer).toHaveCount(0);
  await saved(page);
  // Never again, and the next visit goes on where this one was.
  const title = await page.title();
  await page.goto('/');
  await expect(page).toHaveTitle(title);
  await expect(call(page)).toBeVisible();
  await expect(offer).toHaveCount(0);
  // Unless it is asked for; Escape ends it.
  await page.getByRole('button', { name: 'Keys and help' }).click();
  await page.getByRole('button', { name: 'Tour this screen' }).click();
  await expect(stop).toContainText('The call');
  await page.keyboard.press('Escape');
  await expect(stop).toHaveCount(0);
});

test('whoever only looks round opens on a call, and the picture is understood from it', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('button', { name: 'Explore a sample wedding' }).click();
  await expect(call(page)).toBeVisible();
  await expect(page.getByTestId('show-round')).toHaveCount(0);
  await expect(call(page)).toHaveText('f/2.8 on Ines’s near eye, from 1.5 m.');
  await expect(page.getByTestId('call')).toContainText('Narrower: ferns come back');
  await expect(page.getByTestId('call')).toContainText('blur at ferns');
  await expect(page.getByTestId('target-ring')).toBeVisible();
});

test('a conflict names both wishes and settles for the faces', async ({ page }) => {
  await openDemo(page, 'West door, the 50');
  await expect(page.getByTestId('conflict')).toContainText(
    /The faces need f\/[\d.]+, but ferns would only blur away at f\/[\d.]+\./
  );
  await expect(page.getByTestId('window-band')).toHaveCount(0);
});

test('a picture is planned from nothing, survives a reload, and gives the same call in a fresh profile', async ({
  page,
  browser
}) => {
  await openDemo(page);
  await page.getByRole('button', { name: 'Fernhall Glasshouse' }).click();
  await page.getByRole('button', { name: 'Start a new job' }).click();
  await page.getByRole('button', { name: /^A couple/ }).click();

  await page.getByLabel('Lens', { exact: true }).selectOption({ label: '135 mm f/1.8' });
  await page.getByLabel('Distance', { exact: true }).fill('12 paces');
  await page.getByLabel('Distance', { exact: true }).press('Enter');
  await expect(page.getByLabel('Framing', { exact: true })).toHaveValue('byDistance');

  await page.getByRole('tab', { name: 'People' }).click();
  await page.getByLabel('Name', { exact: true }).fill('Ada');
  await page.getByLabel('Distance from lens', { exact: true }).fill('8.8');
  await page.getByLabel('Distance from lens', { exact: true }).press('Enter');
  await page.getByLabel(/^Head turn/).fill('30');
  await page.getByLabel('Sharp', { exact: true }).selectOption({ label: 'near eye' });

  await page.getByRole('tab', { name: 'Background' }).click();
  const background = page.getByRole('group', { name: 'leaves', exact: true });
  await background.getByLabel('Behind the subject').fill('20 m');
  await background.getByLabel('Detail size').fill('15 cm');
  await background.getByText('blur away', { exact: true }).click();

  await page.getByRole('tab', { name: 'Intent' }).click();
  await page.getByLabel('Viewed as').selectOption({ label: 'an album, 30 cm at 40 cm' });
  await expect(page.getByTestId('call')).toContainText('blur at leaves');
  const answer = (await page.getByTestId('call').textContent()) ?? '';
  await expect(call(page)).toHaveText(/^f\/[\d.]+ on .+, from [\d.]+ m\.$/);
  await saved(page);

  await page.reload();
  await expect(page.getByTestId('call')).toHaveText(answer);

  await page.getByRole('button', { name: 'New job' }).click();
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Export this job' }).click()
  ]);
  const file = await download.path();
  expect(JSON.parse(readFileSync(file, 'utf8'))).toMatchObject({ format: 'focalis-job', version: 3 });

  const fresh = await browser.newContext();
  const other = await fresh.newPage();
  await openDemo(other);
  await other
    .getByLabel('Job file')
    .setInputFiles({ name: 'job.json', mimeType: 'application/json', buffer: readFileSync(file) });
  await expect(other).toHaveTitle(/^A couple/);
  await expect(other.getByTestId('call')).toHaveText(answer);
  await fresh.close();
});

test('the field card gives the answer on a phone', async ({ page }) => {
  await page.setViewportSize({ width: 390, height: 844 });
  await openDemo(page);
  await page.getByRole('link', { name: 'Field card' }).click();
  const heading = page.getByTestId('card-call');
  await expect(heading).toContainText('f/2.8');
  await expect(heading).toContainText('Ines’s near eye');
  const size = await heading
    .locator('.text-\\[100px\\]')
    .evaluate((element) => parseFloat(getComputedStyle(element).fontSize));
  expect(size).toBeGreaterThan(80);
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
  for (const link of await page.getByRole('link').all()) {
    const box = await link.boundingBox();
    expect(Math.min(box?.width ?? 0, box?.height ?? 0)).toBeGreaterThanOrEqual(44);
  }
  await page.getByRole('navigation', { name: 'Setups' }).getByRole('link', { name: 'After: Rings' }).click();
  await expect(heading).toContainText('rings');
});

test('a card prints on one sheet of A6', async ({ page }) => {
  for (const card of ['demo-under-palms', 'demo-west-door-50', 'demo-band']) {
    await page.goto(`/card/${card}`);
    await expect(page.getByTestId('card-call')).toBeVisible();
    const pdf = (await page.pdf({ preferCSSPageSize: true, printBackground: true })).toString('latin1');
    const [, width, height] = /MediaBox\s*\[0 0 ([\d.]+) ([\d.]+)\]/.exec(pdf) ?? [];
    // ISO 216: A6 is 105 × 148 mm; a point is 1/72 inch.
    expect(Math.abs((Number(width) / 72) * 25.4 - 105)).toBeLessThan(1);
    expect(Math.abs((Number(height) / 72) * 25.4 - 148)).toBeLessThan(1);
    expect(pdf.match(/\/Type\s*\/Page\b(?!s)/g), card).toHaveLength(1);
  }
});
