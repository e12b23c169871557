import { join } from 'node:path';
import { expect, test } from '@playwright/test';
import { call } from './support';

const photo = (name: string) => join(import.meta.dirname, 'frames', name);

test('the first visit: from a photo of six people to a call in four presses, corrected and kept', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('button', { name: 'Start from a photo' }).click();
  const dialog = page.getByTestId('from-photo');
  // The choosing of a file: a press for the button, one for the file.
  const [chooser] = await Promise.all([
    page.waitForEvent('filechooser'),
    dialog.getByRole('button', { name: 'Choose a photo' }).click()
  ]);
  await chooser.setFiles(photo('FOC_0201.JPG'));
  await expect(dialog.getByTestId('photo-call')).toHaveText(/^f\/[\d.]+ on Adult \d’s .+ from the front row/);
  await expect(dialog).toContainText(/6 faces in 2 rows, [\d.]+ m to [\d.]+ m away, each ±\d+%, as from Main body\./);
  await expect(dialog.getByTestId('photo-sure')).toHaveText(
    /keeps everyone sharp in \d+ of 100 of what this photo may mean\./
  );
  // They stood in rows at 4.5 m and 5.15 m: within what a photo tells.
  const faces = dialog.getByTestId('photo-faces').getByRole('button');
  await expect(faces).toHaveCount(6);
  const distances = (await faces.allInnerTexts()).map((text) => Number.parseFloat(text)).sort((a, b) => a - b);
  for (const [index, metres] of distances.entries())
    expect(Math.abs(metres / (index < 3 ? 4.5 : 5.15) - 1)).toBeLessThan(0.12);

  // A measured front row scales all; a face pressed is left out.
  await dialog.getByLabel('Front row, if measured').fill('4.5 m');
  await dialog.getByLabel('Front row, if measured').press('Enter');
  await expect(dialog.getByTestId('photo-call')).toContainText('4.5 m from the front row');
  await faces.nth(0).click();
  await expect(dialog).toContainText('5 faces');
  await faces.nth(0).click();
  await expect(dialog).toContainText('6 faces');

  const said = (await dialog.getByTestId('photo-call').textContent())?.trim() ?? '';
  await dialog.getByRole('button', { name: 'Make the setup' }).click();
  await expect(page).toHaveURL(/\/setup\//);
  await expect(call(page)).toHaveText(said);
  await expect(page.getByLabel('Distance', { exact: true })).toHaveValue('4.5 m');
});

test('a photo that tells nothing says why, and changes nothing', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('button', { name: 'Start from a photo' }).click();
  const dialog = page.getByTestId('from-photo');
  const choose = dialog.getByLabel('Photo of the group');
  await choose.setInputFiles({ name: 'notes.jpg', mimeType: 'image/jpeg', buffer: Buffer.from('not a photo') });
  await expect(dialog.getByRole('alert')).toContainText('Nothing was changed.');
  // A screenshot: pixels, and no camera.
  const screenshot = await page.screenshot();
  await choose.setInputFiles({ name: 'screen.png', mimeType: 'image/png', buffer: screenshot });
  await expect(dialog.getByRole('alert')).toContainText('doesn’t say how it was taken');
  await expect(dialog.getByRole('button', { name: 'Make the setup' })).toHaveCount(0);
  await page.keyboard.press('Escape');
  await expect(page.getByRole('heading', { name: 'What are you shooting?' })).toBeVisible();
});

test.describe('on the phone', () => {
  test.use({ viewport: { width: 390, height: 844 } });

  test('the field card looks: a photo of them, and a setup beside the planned one by the same lens', async ({
    page
  }) => {
    await page.goto('/card/demo-family-steps');
    const planned = (await page.getByTestId('card-call').textContent()) ?? '';
    await page.getByRole('button', { name: /checks: more/ }).click();
    const [chooser] = await Promise.all([
      page.waitForEvent('filechooser'),
      page.getByRole('button', { name: 'Look: read where they stand' }).click()
    ]);
    await chooser.setFiles(photo('FOC_0202.JPG'));
    const dialog = page.getByTestId('from-photo');
    await expect(dialog.getByTestId('photo-call')).toContainText('from the front row');
    await expect(dialog).toContainText(/6 faces in 2 rows/);
    await dialog.getByRole('button', { name: 'Make a setup beside it' }).click();
    await expect(page).not.toHaveURL(/demo-family-steps/);
    await expect(page.getByTestId('card-call')).toBeVisible();
    await expect(page.getByText('Family on the steps, from a photo').first()).toBeVisible();
    // What was planned is as it was.
    await page.goto('/card/demo-family-steps');
    await expect(page.getByTestId('card-call')).toHaveText(planned);
  });
});
