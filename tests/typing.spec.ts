import type { Locator, Page } from '@playwright/test';
import { call, expect, openDemo, saved, test } from './support';

const selectAll = (field: Locator) => field.press('Control+a');

/** Types over whatever is there, key by key. */
async function type(field: Locator, text: string): Promise<void> {
  await field.focus();
  await selectAll(field);
  await field.press('Delete');
  await field.pressSequentially(text);
}

test('what is being typed stays, whatever another tab stores meanwhile', async ({ page, context }) => {
  await openDemo(page);
  const other = await context.newPage();
  await openDemo(other);
  const distance = page.getByLabel('Distance', { exact: true });
  await type(distance, '2.');
  await type(other.getByLabel(/^Head turn/), '10');
  await other.keyboard.press('Enter');
  await saved(other);
  await expect(page.getByLabel(/^Head turn/)).toHaveValue('10');
  await expect(distance).toHaveValue('2.');
  await distance.pressSequentially('6');
  await distance.press('Enter');
  await expect(call(page)).toHaveText(/from 2\.6 m\.$/);
  await expect(call(other)).toHaveText(/from 2\.6 m\.$/);
});

test('a setup is named and noted, seen as one types, in one step of undo each', async ({ page }) => {
  await openDemo(page);
  await page.getByRole('tab', { name: 'Intent' }).click();
  const name = page.getByLabel('Name of this setup');
  await type(name, 'Evening door');
  await expect(page).toHaveTitle(/^Evening door/);
  await name.press('Enter');
  await type(name, '');
  await name.press('Enter');
  await expect(page.getByText('It needs a name.')).toBeVisible();
  await expect(name).toHaveValue('');
  await name.press('Escape');
  await expect(name).toHaveValue('Evening door');
  await type(page.getByLabel('Notes, for the field card'), 'Wait for the lamp.');
  await page.keyboard.press('Tab');
  await saved(page);
  await page.getByRole('link', { name: 'Field card' }).click();
  await expect(page.getByTestId('pocket')).toContainText('1 Evening door');
  await page.getByRole('button', { name: 'More about this setup' }).click();
  await expect(page.getByRole('dialog')).toContainText('Wait for the lamp.');
  await page.getByRole('button', { name: 'Close', exact: true }).click();
  await page.goBack();
  for (let i = 0; i < 2; i++) await page.getByRole('button', { name: 'Undo' }).first().click();
  await expect(page).toHaveTitle(/^West door/);
});

test('a name with markup is refused with the reason, the text stays, and Escape brings the old name back', async ({
  page
}) => {
  await openDemo(page);
  const name = page.getByLabel('Name', { exact: true });
  await type(name, '<b>Ines</b>');
  await name.press('Enter');
  await expect(page.getByRole('alert')).toContainText('Leave out < and >');
  await expect(name).toHaveValue('<b>Ines</b>');
  await expect(call(page)).toContainText('Ines’s near eye');
  await name.press('Escape');
  await expect(name).toHaveValue('Ines');
  await expect(page.getByRole('alert')).toHaveCount(0);
});

test('numbers: a minus, a comma, units, a range in the units shown, Escape, arrows', async ({ page }) => {
  await openDemo(page);
  const turn = page.getByLabel(/^Head turn/);
  await type(turn, '-15');
  await expect(turn).toHaveValue('-15');
  await turn.press('Enter');
  await expect(turn).toHaveValue('-15');
  await type(turn, '99999');
  await expect(turn).toHaveValue('99999');
  await turn.press('Enter');
  await expect(turn).toHaveValue('99999');
  await expect(page.getByRole('alert')).toHaveText('Head turn, °: From −180 to 180°.');
  await type(turn, '30');
  await turn.press('Enter');
  await expect(page.getByRole('alert')).toHaveCount(0);

  const height = page.getByLabel('Height', { exact: true });
  await type(height, '3 m');
  await height.press('Enter');
  await expect(page.getByRole('alert')).toHaveText('Height: From 10 cm to 2.5 m.');
  await expect(height).toHaveValue('3 m');
  await type(height, '1,8');
  await height.press('Enter');
  await expect(height).toHaveValue('1.8 m');
  await expect(page.getByRole('alert')).toHaveCount(0);

  await page.getByRole('tab', { name: 'Camera' }).click();
  const seconds = page.getByLabel(/^Delay, focus to shutter/);
  await type(seconds, '1,5 s');
  await seconds.press('Tab');
  await expect(seconds).toHaveValue('1.5');
  await type(seconds, '3 kg');
  await seconds.press('Enter');
  await expect(page.getByRole('alert')).toContainText('“kg” isn’t a unit here');
  await seconds.press('Escape');
  await expect(seconds).toHaveValue('1.5');

  await page.getByRole('tab', { name: 'Intent' }).click();
  const odds = page.getByLabel(/^(Odds|Keeper rate) wanted/);
  await type(odds, '37');
  await expect(odds).toHaveValue('37');
  await odds.press('Enter');
  await expect(odds).toHaveValue('37');

  await page.getByLabel('Lens', { exact: true }).selectOption('lens-24-70');
  const zoom = page.getByLabel('Zoom, mm');
  await type(zoom, '50');
  await zoom.press('Enter');
  await expect(zoom).toHaveValue('50');
});

/** Every field somebody can type a quantity into, on the tab that is open. */
const fieldsOf = (page: Page) => page.locator('main input:not([type=radio]):not([type=checkbox]):not([type=date])');

/** Tries every field on the screen that has not been tried yet. */
async function checkFields(page: Page, seen: Set<string>): Promise<void> {
  const ids = await fieldsOf(page).evaluateAll((fields) => fields.map((field) => field.id));
  for (const id of ids) {
    const field = page.locator(`[id="${id}"]`);
    // Taking a distance takes the place of a margin.
    if ((await field.count()) === 0) continue;
    const label = (await page.locator(`label[for="${id}"]`).textContent()) ?? '';
    if (seen.has(label)) continue;
    seen.add(label);
    const before = await field.inputValue();
    // A comma, a letter and a minus: nothing may rewrite it.
    await type(field, '-7,q');
    await expect(field, label).toHaveValue('-7,q');
    await field.press('Escape');
    await expect(field, label).toHaveValue(before);
    await type(field, '');
    await expect(field, label).toHaveValue('');
    await field.press('Escape');
    await expect(field, label).toHaveValue(before);
    // At the upper end of its range it stays where it is: then the other way round.
    await field.press('ArrowUp');
    const [there, back] = (await field.inputValue()) === before ? ['ArrowDown', 'ArrowUp'] : ['', 'ArrowDown'];
    if (there !== '') await field.press(there);
    await field.press(back);
    await expect(field, label).toHaveValue(before);
  }
}

const open = (page: Page, tab: string) => page.getByRole('tab', { name: tab, exact: true }).click();

test.describe('every field keeps what is typed, restores with Escape, and its arrows come back', () => {
  test('of the camera and the light', async ({ page }) => {
    const seen = new Set<string>();
    await openDemo(page, 'Rings');
    await page.getByLabel('Lens', { exact: true }).selectOption('lens-24-70');
    await page.getByLabel('Framing', { exact: true }).selectOption('group-halfLength');
    await open(page, 'Camera');
    await page.getByRole('tabpanel').getByText('Advanced').click();
    await page.getByRole('group', { name: 'Stitched panorama' }).getByText('on', { exact: true }).click();
    await checkFields(page, seen);
    await open(page, 'Light');
    await page.getByRole('combobox', { name: 'Light', exact: true }).selectOption('metered');
    await page.getByText('Shutter rules').click();
    await page.getByRole('group', { name: 'Flash' }).getByText('on', { exact: true }).click();
    await checkFields(page, seen);
    expect(seen.size).toBeGreaterThan(20);
    await expect(page.getByRole('alert')).toHaveCount(0);
  });

  test('of people, things, backgrounds and what is wanted', async ({ page }) => {
    const seen = new Set<string>();
    await openDemo(page, 'Rings');
    await open(page, 'Background');
    await checkFields(page, seen);
    await open(page, 'Intent');
    await checkFields(page, seen);
    await open(page, 'People');
    await page.getByText('Step, speed, role, sway').click();
    await checkFields(page, seen);
    await page.getByLabel('Select').selectOption('rings');
    await checkFields(page, seen);
    expect(seen.size).toBeGreaterThan(20);
    await expect(page.getByRole('alert')).toHaveCount(0);
  });

  test('of the arrangements', async ({ page }) => {
    const seen = new Set<string>();
    await openDemo(page, 'Rings');
    await open(page, 'People');
    await page.getByRole('button', { name: 'Arrange' }).click();
    for (const kind of ['rows', 'arc', 'vee', 'seatedFront']) {
      await page.getByLabel('Arrange as').selectOption(kind);
      await checkFields(page, seen);
    }
    expect(seen.size).toBeGreaterThan(7);
    await expect(page.getByRole('alert')).toHaveCount(0);
  });
});

test('what is typed and not yet taken survives a reload and going away; the value that holds stays beside it', async ({
  page
}) => {
  await openDemo(page);
  const distance = page.getByLabel('Distance', { exact: true });
  await type(distance, '12 pac');
  await page.reload();
  await expect(distance).toHaveValue('12 pac');
  await expect(call(page)).toHaveText('f/2.8 on Ines’s near eye, from 1.5 m.');
  await expect(page.getByText('Not applied yet. Enter to apply, Esc to discard.')).toBeVisible();
  await page.keyboard.press(']');
  await expect(page).toHaveTitle(/^Rings/);
  await expect(distance).toHaveValue('1.9 m');
  await page.goBack();
  await expect(distance).toHaveValue('12 pac');
  await distance.focus();
  await distance.press('Escape');
  await expect(distance).toHaveValue('1.5 m');
  await page.reload();
  await expect(distance).toHaveValue('1.5 m');

  await page.getByRole('link', { name: 'Day', exact: true }).click();
  const notes = page.getByLabel('Notes', { exact: true });
  await type(notes, 'Half a thought');
  await page.reload();
  await expect(notes).toHaveValue('Half a thought');
  await notes.focus();
  await notes.press('Enter');
  await saved(page);
  await page.reload();
  await expect(notes).toHaveValue('Half a thought');
  await expect(page.getByText('Not applied yet')).toHaveCount(0);
});

test('two visits of one field are two steps of undo', async ({ page }) => {
  await openDemo(page);
  const turn = page.getByLabel(/^Head turn/);
  await turn.focus();
  await turn.press('ArrowUp');
  await page.getByLabel(/^Shoulder turn/).focus();
  await turn.focus();
  await turn.press('ArrowUp');
  await expect(turn).toHaveValue('50');
  await turn.blur();
  await page.keyboard.press('Control+z');
  await expect(turn).toHaveValue('45');
  await page.keyboard.press('Control+z');
  await expect(turn).toHaveValue('40');
});
