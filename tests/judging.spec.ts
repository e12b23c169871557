/** Pairs judged by eye, by an observer that looks at the pixels: what the renderer draws is what is judged. */
import { decode } from 'image-js';
import type { Locator } from '@playwright/test';
import { drawingTest as test, expect, expectNoAxeFindings, sameChance } from './support';

interface Area {
  readonly left: number;
  readonly top: number;
  readonly width: number;
  readonly height: number;
}
/** How much neighbouring pixels differ in a part of a picture, across and down: what is sharper has more of it. */
async function finenessIn(picture: Locator, area: (size: { width: number; height: number }) => Area) {
  const image = decode(await picture.screenshot());
  const { width, height, channels } = image;
  const { data } = image.getRawImage();
  const at = (x: number, y: number) => Number(data[(y * width + x) * channels] ?? 0);
  const { left, top, ...size } = area({ width, height });
  const sums = { across: 0, down: 0 };
  for (let y = Math.round(top); y < top + size.height; y++)
    for (let x = Math.round(left); x < left + size.width; x++) {
      sums.across += (at(x, y) - at(x - 1, y)) ** 2;
      sums.down += (at(x, y) - at(x, y - 1)) ** 2;
    }
  return sums;
}

test('judged by eye: an observer that looks at the pixels is right, whatever is asked', async ({ page }) => {
  test.setTimeout(400_000);
  await sameChance(page);
  await page.goto('/drills');
  await page.getByRole('link', { name: 'Judge by eye' }).first().click();
  const pair = page.getByTestId('judge-pair').locator('canvas');
  const left = page.getByRole('button', { name: 'Left is sharper' });
  /** Of the iris. Lashes lie before it: a plane in front keeps them sharp. */
  const fineness = async (index: number, of = { dx: 0, dy: 0 }): Promise<number> => {
    const { across, down } = await finenessIn(pair.nth(index), ({ width, height }) => ({
      left: width / 2 - 45 + of.dx,
      top: height / 2 - 35 + of.dy,
      width: 90,
      height: 70
    }));
    return across + down;
  };
  await expect(left).toBeEnabled({ timeout: 120_000 });
  await expectNoAxeFindings(page);
  // What it converges to is proved without drawing (core/drills/desk/quest.test.ts).
  for (let trial = 0; trial < 2; trial++) {
    await expect(left).toBeEnabled({ timeout: 120_000 });
    const [one, other] = [await fineness(0), await fineness(1)];
    await page.getByRole('button', { name: one > other ? 'Left is sharper' : 'Right is sharper' }).click();
    await expect(page.getByTestId('judge-count')).toContainText(`${trial + 1} of 24, right`);
  }
  // One of four, and one stopped down: what is plain to see is seen.
  for (const [asked, names, of] of [
    ['which of four to keep', ['Keep the first', 'Keep the second', 'Keep the third', 'Keep the fourth'], undefined],
    // Beside the head, where the hedge is.
    ['which is stopped down', ['Left is stopped down', 'Right is stopped down'], { dx: -90, dy: -60 }]
  ] as const) {
    await page.getByText(asked).click();
    await expect(page.getByTestId('judge-count')).toContainText('0 of 24');
    await expect(page.getByRole('button', { name: names[0] })).toBeEnabled({ timeout: 120_000 });
    let right = 0;
    for (let trial = 0; trial < 2; trial++) {
      await expect(page.getByRole('button', { name: names[0] })).toBeEnabled({ timeout: 120_000 });
      const seen: number[] = [];
      for (const index of names.keys()) seen.push(await fineness(index, of));
      await page.getByRole('button', { name: names[seen.indexOf(Math.max(...seen))] ?? '' }).click();
      const count = page.getByTestId('judge-count');
      await expect(count).toContainText(`${trial + 1} of 24`);
      if ((await count.textContent())?.includes('right')) right++;
    }
    expect(right, asked).toBe(2);
  }

  // One face: sharp, off or moved. What it was is said.
  await page.getByText('sharp, off or moved').click();
  const sharp = page.getByRole('button', { name: 'Sharp', exact: true });
  await expect(sharp).toBeEnabled({ timeout: 120_000 });
  await sharp.click();
  await expect(page.getByTestId('judge-count')).toContainText(/1 of 24.*(right|front|behind|moved)/);
});

test('what a step must come out as is drawn before a frame is taken', async ({ page }) => {
  test.setTimeout(200_000);
  await page.goto('/drills/diagonal');
  const finder = page.locator('figure canvas');
  const things = async () => {
    await expect(finder).toHaveAttribute('data-views', '32', { timeout: 120_000 });
    const third = (index: number) => (size: { width: number; height: number }) => ({
      left: (size.width * index) / 3 + 1,
      top: 20,
      width: size.width / 3 - 2,
      height: size.height - 60
    });
    const fine: number[] = [];
    for (const index of [0, 1, 2]) {
      const { across, down } = await finenessIn(finder, third(index));
      fine.push(across + down);
    }
    return fine;
  };
  const onFirst = await things();
  await page.getByLabel('expected', { exact: true }).selectOption('focus on the third');
  await expect(page.getByLabel('The Finder: focus on the third, as it must come out')).toBeVisible();
  await expect.poll(async () => (await things())[2], { timeout: 120_000 }).toBeGreaterThan(2 * (onFirst[2] ?? NaN));
  expect(onFirst[0]).toBeGreaterThan(2 * ((await things())[0] ?? NaN));
  await expectNoAxeFindings(page);

  // Hands shake across: what is fine across goes with the time, what is fine down stays.
  await page.goto('/drills/steady');
  const all = (size: { width: number; height: number }) => ({
    left: 2,
    top: 2,
    width: size.width - 4,
    height: size.height - 4
  });
  await expect(finder).toHaveAttribute('data-views', '32', { timeout: 120_000 });
  const short = await finenessIn(finder, all);
  const times = page.getByLabel('expected', { exact: true });
  await times.selectOption({ index: (await times.locator('option').count()) - 1 });
  const kept = async () => {
    const long = await finenessIn(finder, all);
    return { across: long.across / short.across, down: long.down / short.down };
  };
  await expect.poll(async () => (await kept()).across, { timeout: 120_000 }).toBeLessThan(0.75);
  await expect(finder).toHaveAttribute('data-views', '32', { timeout: 120_000 });
  const { across, down } = await kept();
  expect(down).toBeGreaterThan(1.2 * across);
});
