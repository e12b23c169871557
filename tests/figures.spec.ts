import { call, expect, inSettings, openDemo, saved, test } from './support';

test('the figures behind the odds: what each would gain, one changed, kept after a reload, and back again', async ({
  page
}) => {
  await openDemo(page, 'West door, the 50');
  const panel = page.getByTestId('call');
  const odds = panel.getByRole('button', { name: /keeper rate/ });
  await odds.click();
  await expect(panel).toContainText('Ines is most likely to come out soft: AF scatter ±');
  await expect(panel).toContainText(/If you swayed half as much, .*f\/5 would keep \d\d% instead of 9\d%\./);
  const before = (await call(page).textContent()) ?? '';

  const figures = page.getByRole('region', { name: 'Numbers behind the keeper rate' });
  const own = figures.getByRole('group', { name: 'Your own sway after one second' });
  await inSettings(page, async () => {
    await figures.getByText('Advanced').click();
    await own.getByLabel('Standing, mm').fill('300000');
    await own.getByLabel('Standing, mm').press('Enter');
    await expect(figures.getByRole('alert')).toContainText('0 to 1000');
    await own.getByLabel('Standing, mm').fill('12');
    await own.getByLabel('Standing, mm').press('Enter');
  });
  // With a hand so unsteady the faces want a narrower stop.
  await expect(call(page)).not.toHaveText(before);
  await saved(page);
  await page.reload();
  await expect(call(page)).toBeVisible();
  await expect(call(page)).not.toHaveText(before);

  await inSettings(page, async () => {
    await figures.getByText('Advanced').click();
    await expect(own.getByLabel('Standing, mm')).toHaveValue('12');
    await figures.getByRole('button', { name: 'Back to our estimates' }).click();
    await expect(own.getByLabel('Standing, mm')).toHaveValue('5');
  });
  await expect(call(page)).toHaveText(before);
});

test('who plays, what is set down, a shutter by hand and a flash that fills are kept', async ({ page }) => {
  await openDemo(page, 'Gran Marguerite and Pilot');
  await page.getByRole('tab', { name: 'People' }).click();
  const odds = page.getByTestId('call').getByRole('button', { name: /keeper rate/ });
  const still = (await odds.textContent()) ?? '';
  await page.getByLabel('Movement', { exact: true }).selectOption({ label: 'plays or dances' });
  await expect(odds).not.toHaveText(still);

  await page.getByRole('tab', { name: 'Light' }).click();
  await page.getByRole('group', { name: 'Shutter' }).getByText('set by hand').click();
  await page.getByLabel('Shutter, 1/', { exact: true }).fill('30');
  await page.getByLabel('Shutter, 1/', { exact: true }).press('Enter');
  await expect(page.getByTestId('call')).toContainText('1/30');
  await page.getByRole('group', { name: 'Flash' }).getByText('on', { exact: true }).click();
  await page.getByLabel('Flash as', { exact: true }).selectOption({ label: 'fill' });
  await page
    .getByTestId('call')
    .getByRole('button', { name: /^1\/30/ })
    .click();
  await expect(page.getByTestId('call')).toContainText(/Fill flash at \d+% of its power, 1\.5 stops under the light/);
  await saved(page);
  await page.reload();
  await expect(page.getByTestId('call')).toContainText('1/30');
  await page.getByRole('tab', { name: 'Light' }).click();
  await expect(page.getByLabel('Flash as', { exact: true })).toHaveValue('fill');
  await page.getByRole('tab', { name: 'People' }).click();
  await expect(page.getByLabel('Movement', { exact: true })).toHaveValue('lively');
});
