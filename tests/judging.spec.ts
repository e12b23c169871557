/** Pairs judged by eye, by an observer that looks at the pixels: what the renderer draws is what is judged. */
import { decode } from 'image-js';
import { drawingTest as test, expect, expectNoAxeFindings, sameChance } from './support';

test('judged by eye: an observer that looks at the pixels sees small errors, and the result is kept', async ({
  page
}) => {
  test.setTimeout(400_000);
  await sameChance(page);
  await page.goto('/drills');
  await page.getByRole('link', { name: 'Judge by eye' }).first().click();
  const pair = page.getByTestId('judge-pair').locator('canvas');
  const left = page.getByRole('button', { name: 'Left is sharper' });
  /** How much neighbouring pixels of the iris differ: what is sharper has more of it. Lashes lie before it: a plane in front keeps them sharp. */
  const fineness = async (index: number): Promise<number> => {
    const image = decode(await pair.nth(index).screenshot());
    const { width, height, channels } = image;
    const { data } = image.getRawImage();
    let sum = 0;
    const at = (x: number, y: number) => Number(data[(y * width + x) * channels] ?? 0);
    const [left, top] = [Math.round(width / 2) - 45, Math.round(height / 2) - 35];
    for (let y = top; y < top + 70; y++)
      for (let x = left; x < left + 90; x++) sum += (at(x, y) - at(x - 1, y)) ** 2 + (at(x, y) - at(x, y - 1)) ** 2;
    return sum;
  };
  await expect(left).toBeEnabled({ timeout: 120_000 });
  await expectNoAxeFindings(page);
  for (let trial = 0; trial < 12; trial++) {
    await expect(left).toBeEnabled({ timeout: 120_000 });
    const [one, other] = [await fineness(0), await fineness(1)];
    await page.getByRole('button', { name: one > other ? 'Left is sharper' : 'Right is sharper' }).click();
    await expect(page.getByTestId('judge-count')).toContainText(`${trial + 1} of 24`);
  }
  await expect(page.getByTestId('drill-verdict')).toHaveText(/^You see 0\.[0-3]\d of the blur that is allowed\.$/);
  await page.getByRole('button', { name: 'That is enough' }).click();
  await page.getByRole('button', { name: 'Keep this time' }).click();
  await expect(page.getByTestId('earlier-times').getByRole('listitem')).toHaveText(/seen from 0\.\d+/);
});
