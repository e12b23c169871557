import { call, expect, openDemo, saved, test } from './support';

test('what is being typed stays, whatever another tab stores meanwhile', async ({ page, context }) => {
  await openDemo(page);
  const other = await context.newPage();
  await openDemo(other);
  const distance = page.getByLabel('Distance', { exact: true });
  await distance.fill('2.');
  await other.getByLabel(/^Head turned/).fill('10');
  await saved(other);
  await expect(page.getByLabel(/^Head turned/)).toHaveValue('10');
  await expect(distance).toHaveValue('2.');
  await distance.fill('2.6');
  await distance.press('Enter');
  await expect(call(page)).toHaveText(/from 2\.6 m\.$/);
  await expect(call(other)).toHaveText(/from 2\.6 m\.$/);
});

test('a setup is named and noted as one types, in one step of undo each', async ({ page }) => {
  await openDemo(page);
  await page.getByRole('tab', { name: 'Intent' }).click();
  const name = page.getByLabel('Name of this setup');
  await name.fill('');
  await name.pressSequentially('Evening door');
  await expect(page).toHaveTitle(/^Evening door/);
  await name.fill('');
  await name.press('Enter');
  await expect(name).not.toHaveValue('');
  await page.getByLabel('Notes, for the field card').fill('Wait for the lamp.');
  await saved(page);
  await page.getByRole('link', { name: 'Field card' }).click();
  await expect(page.getByText('Wait for the lamp.')).toBeVisible();
  await expect(page.getByText('1. Evening door')).toBeVisible();
});

test('a name with markup is refused with the reason and the old name stays', async ({ page }) => {
  await openDemo(page);
  await page.getByLabel('Name', { exact: true }).fill('<b>Ines</b>');
  await expect(page.getByRole('alert')).toContainText('must not contain markup');
  await page.getByLabel('Name', { exact: true }).press('Enter');
  await expect(page.getByLabel('Name', { exact: true })).toHaveValue('Ines');
  await expect(call(page)).toContainText('Ines’s near eye');
});
