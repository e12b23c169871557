import { readFileSync } from 'node:fs';
import type { Locator, Page } from '@playwright/test';
import { call, expect, expectNoAxeFindings, openDemo, saved, test } from './support';

/** Replaces what is in a field, and takes it, by keys. */
async function type(field: Locator, text: string): Promise<void> {
  await field.focus();
  await field.press('Control+a');
  await field.pressSequentially(text);
  await field.press('Enter');
}
/** Opens a menu by keys and presses the item of this name. */
async function choose(page: Page, menu: string, item: string): Promise<void> {
  await page.getByRole('button', { name: menu, exact: true }).focus();
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: item, exact: true }).focus();
  await page.keyboard.press('Enter');
  await expect(page.getByLabel('Name', { exact: true })).toHaveValue(new RegExp(item.slice(0, 6).replace('.', '\\.')));
}

/** A file of the open lens database format, with invented kit. */
const database = `<lensdatabase version="2">
  <mount><name>Osmo K</name><compat>Osmo J</compat></mount>
  <camera><maker>Osmo</maker><model>Osmo One</model><mount>Osmo K</mount><cropfactor>1</cropfactor></camera>
  <lens><maker>Osmo</maker><model>Osmo 40mm f/2.8 Slim</model><mount>Osmo K</mount><cropfactor>1</cropfactor></lens>
  <lens><maker>Osmo</maker><model>Osmo Portrait 90mm</model><mount>Osmo K</mount><cropfactor>1</cropfactor></lens>
  <lens><maker>Osmo</maker><model>Without a focal length</model><mount>Osmo K</mount></lens>
</lensdatabase>`;

test('somebody who owns none of the built-in kit enters theirs by keys, plans with it, retires one, and it goes with the job', async ({
  page,
  browser
}) => {
  test.slow();
  await openDemo(page);
  await page.getByRole('link', { name: 'Kit', exact: true }).focus();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'Kit', level: 1 })).toBeVisible();

  // Two bodies, three lenses, an adapter.
  await choose(page, 'Add a body', 'Full frame, mirrorless, 45 MP');
  await type(page.getByLabel('Name', { exact: true }), 'Anna');
  await type(page.getByLabel(/^Mount/), 'Osmo K');
  await choose(page, 'Add a body', 'Full frame, SLR, 24 MP');
  await type(page.getByLabel('Name', { exact: true }), 'Bruno');
  await type(page.getByLabel(/^Mount/), 'Old J');
  await choose(page, 'Add a lens', '85 mm f/1.8');
  await type(page.getByLabel(/^Mount/), 'Osmo K');
  await choose(page, 'Add a lens', '24–105 mm f/4');
  await type(page.getByLabel(/^Mount/), 'Osmo K');
  await choose(page, 'Add a lens', '135 mm f/2');
  await type(page.getByLabel('Name', { exact: true }), 'Grandfather’s 135');
  await type(page.getByLabel(/^Mount/), 'Old J');
  // What cannot be is refused in a sentence, and what was stays.
  await type(page.getByLabel('Maximum aperture, f/'), '32');
  await expect(page.getByRole('alert')).toContainText('The smallest opening cannot be wider than the widest.');
  await page.getByLabel('Maximum aperture, f/').press('Escape');
  await choose(page, 'Add an adapter', 'Adapter ring');
  await type(page.getByLabel('Lens mount'), 'Old J');
  await type(page.getByLabel('Goes on bodies with the mount'), 'Osmo K');
  await page.getByRole('checkbox', { name: /^Show the sample kit/ }).focus();
  await page.keyboard.press('Space');
  await expect(page.getByRole('button', { name: 'Main body' })).toHaveCount(0);
  await expectNoAxeFindings(page);

  // From a lens database: shown before it is taken, asked for what it lacks.
  await page.getByRole('button', { name: 'Import from a lens database' }).focus();
  await page.keyboard.press('Enter');
  const dialog = page.getByTestId('lensfun');
  const files = (names: Record<string, string>) =>
    dialog
      .getByLabel('Lens database files')
      .setInputFiles(
        Object.entries(names).map(([name, text]) => ({ name, mimeType: 'text/xml', buffer: Buffer.from(text) }))
      );
  await files({
    'osmo.xml': database,
    'bomb.xml': '<!DOCTYPE a [<!ENTITY b "c">]><lensdatabase/>',
    'cut.xml': database.slice(0, 300),
    'other.xml': '<svg/>'
  });
  await expect(dialog.getByText('bomb.xml was not read. It declares its own entities')).toBeVisible();
  await expect(dialog.getByText('cut.xml was not read. It is cut off')).toBeVisible();
  await expect(dialog.getByText('other.xml was not read. It is XML, but no Lensfun database.')).toBeVisible();
  await expect(dialog.getByText('One entry is left out')).toBeVisible();
  await dialog.getByRole('searchbox').pressSequentially('90');
  await dialog.getByRole('checkbox', { name: 'Osmo Portrait 90mm' }).press('Space');
  await expect(dialog.getByRole('button', { name: 'Take 1' })).toBeDisabled();
  await dialog.getByLabel('Maximum aperture, f/').pressSequentially('2,5');
  await expectNoAxeFindings(page, 'dialog');
  await dialog.getByRole('button', { name: 'Take 1' }).press('Enter');
  await expect(page.getByRole('button', { name: 'Osmo Portrait 90mm, f/2.5' })).toBeVisible();

  // A picture with it: only what goes on the body is offered.
  await page.getByRole('button', { name: 'Fernhall Glasshouse' }).click();
  await page.getByRole('button', { name: 'Start a new job' }).click();
  await page.getByRole('button', { name: /^One person/ }).click();
  await expect(call(page)).toHaveText(/^f\/[\d.]+ on Adult/);
  const body = page.getByLabel('Body', { exact: true });
  const lens = page.getByLabel('Lens', { exact: true });
  await expect(body.locator('option')).toHaveText(['Anna', 'Bruno']);
  await expect(lens.locator('option:checked')).toHaveText('85 mm f/1.8');
  await expect(lens.locator('option')).toHaveText([
    '85 mm f/1.8',
    '24–105 mm f/4',
    'Grandfather’s 135 + Adapter ring',
    'Osmo Portrait 90mm'
  ]);
  await lens.selectOption({ label: 'Grandfather’s 135 + Adapter ring' });
  await expect(page.getByTestId('call')).toContainText(/^f\//);
  await body.selectOption({ label: 'Bruno' });
  await expect(lens.locator('option')).toHaveText(['Grandfather’s 135']);
  await body.selectOption({ label: 'Anna' });
  await lens.selectOption({ label: 'Osmo Portrait 90mm' });
  const headline = /^f\/[\d.]+ on Adult 1’s .*, from [\d.]+ m\.$/;
  await expect(call(page)).toHaveText(headline);
  const answer = (await call(page).textContent()) ?? '';

  // Retired, the lens stays for this picture and is offered to no other.
  await page.getByRole('link', { name: 'Kit', exact: true }).click();
  await page.getByRole('button', { name: 'Osmo Portrait 90mm, f/2.5' }).click();
  await expect(page.getByText('In one setup: One person.')).toBeVisible();
  await page.getByRole('checkbox', { name: /^Retired/ }).press('Space');
  await page.getByRole('link', { name: 'One person' }).click();
  await expect(call(page)).toHaveText(answer);
  await lens.selectOption({ label: '85 mm f/1.8' });
  await expect(lens.locator('option', { hasText: 'Osmo Portrait' })).toHaveCount(0);
  await page.keyboard.press('Control+z');
  await expect(call(page)).toHaveText(answer);
  await saved(page);

  // The job with its kit in a fresh profile.
  await page.getByRole('button', { name: 'New job' }).click();
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Export this job' }).click()
  ]);
  const file = readFileSync(await download.path());
  const fresh = await browser.newContext();
  const other = await fresh.newPage();
  await openDemo(other);
  await other.getByLabel('Job file').setInputFiles({ name: 'job.json', mimeType: 'application/json', buffer: file });
  await expect(other).toHaveTitle(/^One person/);
  await expect(call(other)).toHaveText(answer);
  await other.goto('/kit');
  await expect(other.getByRole('button', { name: 'Osmo Portrait 90mm, f/2.5' })).toBeVisible();
  await fresh.close();
});

test('a bag limits what a job offers, and Kit fits a phone', async ({ page }) => {
  await openDemo(page);
  await page.getByRole('link', { name: 'Kit', exact: true }).click();
  await page.getByRole('button', { name: 'Bag', exact: true }).click();
  await type(page.getByLabel('Name of the bag'), 'Small');
  await page.getByRole('button', { name: 'Main body' }).click();
  await page.getByRole('checkbox', { name: 'In Small' }).check();
  await page.getByLabel('On it at the start').selectOption({ label: '85 mm f/1.4' });
  await page.getByRole('link', { name: 'Day' }).click();
  await page.getByLabel('Bag', { exact: true }).selectOption({ label: 'Small' });
  await page.getByRole('link', { name: 'Setup', exact: true }).click();
  await expect(page.getByLabel('Lens', { exact: true }).locator('option')).toHaveText(['85 mm f/1.4']);
  await page.setViewportSize({ width: 390, height: 844 });
  await page.goto('/kit');
  await expect(page.getByRole('button', { name: '85 mm f/1.4' })).toBeVisible();
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
  await expectNoAxeFindings(page);
});
