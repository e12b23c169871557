import { readFileSync } from 'node:fs';
import { call, expect, openDemo, saved, test } from './support';

test('an empty profile opens on a call, and the picture is understood from it', async ({ page }) => {
  await openDemo(page);
  await expect(call(page)).toHaveText('f/1.4 on Ines’s near eye, from 1.5 m.');
  await expect(page.getByTestId('call')).toContainText('any narrower, ferns come back');
  await expect(page.getByTestId('call')).toContainText('detail lost at ferns');
  await expect(page.getByTestId('target-ring')).toBeVisible();
});

test('a conflict names both wishes and settles for the faces', async ({ page }) => {
  await openDemo(page, 'West door, the 50');
  await expect(page.getByTestId('conflict')).toContainText(
    /The faces want f\/[\d.]+; ferns would need f\/[\d.]+ to vanish\./
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
  await page.getByLabel('From the lens', { exact: true }).fill('8.8');
  await page.getByLabel('From the lens', { exact: true }).press('Enter');
  await page.getByLabel(/^Head turned/).fill('30');
  await page.getByRole('group', { name: 'Sharp' }).getByText('near eye').click();

  await page.getByRole('tab', { name: 'Background' }).click();
  const background = page.getByRole('group', { name: 'leaves', exact: true });
  await background.getByLabel('Behind the subject').fill('20 m');
  await background.getByLabel('Size of its detail').fill('15 cm');
  await background.getByText('vanish', { exact: true }).click();

  await page.getByRole('tab', { name: 'Intent' }).click();
  await page.getByLabel('It will be looked at as').selectOption({ label: 'an album, 30 cm at 40 cm' });
  await expect(page.getByTestId('call')).toContainText('detail lost at leaves');
  const answer = (await page.getByTestId('call').textContent()) ?? '';
  await expect(call(page)).toHaveText(/^f\/[\d.]+ on .+, [\d.]+ m from both\.$/);
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
  await expect(heading).toContainText('f/1.4');
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
