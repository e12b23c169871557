import type { Page } from '@playwright/test';
import { call, expect, openDemo, readViews, saved, test } from './support';

/** Changes something and looks after one animation frame: the views must all have followed. */
async function changesWithinAFrame(
  page: Page,
  change: () => void
): Promise<{ call: boolean; ladder: boolean; floor: boolean }> {
  return page.evaluate(async (source) => {
    const read = () => ({
      call: document.querySelector('[data-testid=call]')?.textContent,
      ladder: document.querySelector('[data-testid=ladder]')?.innerHTML,
      floor: document.querySelector('[data-testid=floor]')?.innerHTML
    });
    const before = read();
    (new Function(`(${source})()`) as () => void)();
    await new Promise((resolve) => requestAnimationFrame(resolve));
    const after = read();
    return {
      call: before.call !== after.call,
      ladder: before.ladder !== after.ladder,
      floor: before.floor !== after.floor
    };
  }, change.toString());
}

const all = { call: true, ladder: true, floor: true };

test.describe('one frame after a change, Call, Ladder and Floor have all moved', () => {
  test.beforeEach(({ page }) => openDemo(page));

  test('lens', async ({ page }) => {
    const moved = await changesWithinAFrame(page, () => {
      const field = [...document.querySelectorAll('select')].find(
        (item) => item.value === 'lens-85'
      ) as HTMLSelectElement;
      field.value = 'lens-135';
      field.dispatchEvent(new Event('change', { bubbles: true }));
    });
    expect(moved).toEqual(all);
  });

  test('distance', async ({ page }) => {
    const moved = await changesWithinAFrame(page, () => {
      const label = [...document.querySelectorAll('label')].find((item) => item.textContent === 'Distance');
      const field = document.getElementById(label?.htmlFor ?? '') as HTMLInputElement;
      field.value = '2.4';
      field.dispatchEvent(new Event('input', { bubbles: true }));
      field.dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter', bubbles: true }));
    });
    expect(moved).toEqual(all);
  });

  test('head turn', async ({ page }) => {
    const moved = await changesWithinAFrame(page, () => {
      const label = [...document.querySelectorAll('label')].find((item) => item.textContent?.startsWith('Head turn'));
      const field = document.getElementById(label?.htmlFor ?? '') as HTMLInputElement;
      // Straight on, both eyes are equally far.
      field.value = '0';
      field.dispatchEvent(new Event('input', { bubbles: true }));
    });
    expect(moved).toEqual(all);
  });

  test('stop', async ({ page }) => {
    const moved = await changesWithinAFrame(page, () => {
      document.querySelector<HTMLButtonElement>('[data-stop="5.6"]')?.click();
    });
    expect(moved).toEqual(all);
  });
});

test('dragging a person, the turn handle and the camera on the Floor moves the call; undo takes each drag back', async ({
  page
}) => {
  await openDemo(page, 'Under the palms');
  const start = await readViews(page);
  const drag = async (testId: string, dx: number, dy: number) => {
    const box = await page.getByTestId(testId).locator('circle, path').first().boundingBox();
    const x = (box?.x ?? 0) + (box?.width ?? 0) / 2;
    const y = (box?.y ?? 0) + (box?.height ?? 0) / 2;
    await page.mouse.move(x, y);
    await page.mouse.down();
    await page.mouse.move(x + dx / 2, y + dy / 2, { steps: 4 });
    await page.mouse.move(x + dx, y + dy, { steps: 4 });
    await page.mouse.up();
  };
  await page.getByTestId('floor-person-tobiah').focus();
  await drag('turn-handle', 10, 40);
  await expect(page.getByLabel(/^Head turn/)).not.toHaveValue('-40');
  await drag('floor-person-tobiah', 30, 20);
  await expect.poll(async () => (await readViews(page)).ladder).not.toBe(start.ladder);
  await drag('floor-camera', 60, 0);
  await expect(page.getByLabel('Framing', { exact: true })).toHaveValue('byDistance');
  await expect(call(page)).not.toHaveText(start.call);

  for (let i = 0; i < 3; i++) await page.keyboard.press('Control+z');
  await expect.poll(() => readViews(page)).toEqual(start);
  await page.keyboard.press('Control+Shift+z');
  await expect.poll(async () => (await readViews(page)).ladder).not.toBe(start.ladder);
});

test('two tabs change one setup and neither loses anything', async ({ page, context }) => {
  await openDemo(page);
  const other = await context.newPage();
  await openDemo(other);
  await page.getByLabel('Height', { exact: true }).fill('1.75');
  await other.getByLabel(/^Head turn/).fill('20');
  await other.getByLabel(/^Head turn/).press('Enter');
  await page.getByLabel('Height', { exact: true }).press('Enter');
  await saved(page);
  await saved(other);
  for (const tab of [page, other]) {
    await expect(tab.getByLabel(/^Head turn/)).toHaveValue('20');
    await expect(tab.getByLabel('Height', { exact: true })).toHaveValue('1.75 m');
  }
  await page.reload();
  await expect(page.getByLabel(/^Head turn/)).toHaveValue('20');
  await expect(page.getByLabel('Height', { exact: true })).toHaveValue('1.75 m');
});

test('leaving the page at once loses nothing', async ({ page }) => {
  await openDemo(page);
  await page.getByLabel(/^Head turn/).fill('-15');
  await page.reload();
  await expect(page.getByLabel(/^Head turn/)).toHaveValue('-15');
});

test('a thing is added, dragged and nudged on the Floor, and rings and couple are both held sharp', async ({
  page
}) => {
  await openDemo(page, 'Under the palms');
  await page.getByRole('button', { name: 'Object', exact: true }).click();
  await page.getByLabel('Name', { exact: true }).fill('Rings');
  await page.getByLabel('Name', { exact: true }).press('Enter');
  const thing = page.getByTestId(/^floor-thing-/).and(page.getByRole('button', { name: /^Rings, / }));
  await expect(thing).toBeVisible();
  const before = await readViews(page);
  await thing.focus();
  for (let i = 0; i < 5; i++) await page.keyboard.press('ArrowLeft');
  await expect(page.getByLabel('Distance from lens', { exact: true })).toHaveValue('3.23 m');
  await expect.poll(async () => (await readViews(page)).ladder).not.toBe(before.ladder);
  await page.getByRole('tab', { name: 'Intent' }).click();
  await page.getByLabel('Aperture', { exact: true }).selectOption('deepAndSafe');
  // So deep no stop holds all three looked at closely; a print is one press away.
  await page.getByRole('button', { name: 'Alternatives' }).click();
  await page
    .getByTestId('other-ways')
    .getByRole('button', { name: /^in print: / })
    .click();
  for (const name of ['Rings', 'Ines', 'Tobiah']) {
    const row = page
      .getByTestId('ladder')
      .getByRole('row', { name: new RegExp(`^${name} `) })
      .first();
    await expect(row.getByText(/^sharp/).last()).toBeAttached();
  }
});
