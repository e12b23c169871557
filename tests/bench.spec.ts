/** Before the day: a lens tested from pictures of printed sheets, and the plans follow. The pictures are the simulated camera's, as files. */
import type { Page } from '@playwright/test';
import { edgeShot, focusShot } from '../src/core/bench/simulate';
import { errorUm } from '../src/core/record/observe';
import { seededNormal, seededRandom } from '../src/core/testing/random';
import { bareJpeg, fileOf, type Taken } from './cameraFiles';
import { expect, expectNoAxeFindings, message, openDemo, saved, test } from './support';

const bench = async (page: Page) => {
  await page.getByRole('link', { name: 'Bench' }).click();
  await expect(page.getByRole('heading', { name: 'Does this lens front- or back-focus?' })).toBeVisible();
};
const chosen = (page: Page, label: string) => page.getByLabel(label, { exact: true });

test('a lens that focuses 9 mm behind is found, said, written to the Kit, and the call’s odds change', async ({
  page
}) => {
  test.setTimeout(300_000);
  const normal = seededNormal(9);
  const lens = { focalLengthMm: 85, pixelMm: 0.0112, width: 1010, height: 850 };
  const optics = { focalLengthMm: 85, pupilMagnification: 1, meantMm: 2100 };
  const shot = (offsetMm: number, index: number, changes: Partial<Taken> = {}) => {
    const scene = { lens, fNumber: 1.4, distanceMm: 2100, leanDeg: 46, errorUm: errorUm(optics, 2100 + offsetMm) };
    const { picture } = focusShot({ ...scene, rest: { uneven: 0.2, vignetting: 0.2 } }, seededRandom(index));
    const taken = {
      name: `FOCUS_${index}.JPG`,
      lens: '85 mm f/1.4',
      focalLengthMm: 85,
      fNumber: 1.4,
      pixelMm: lens.pixelMm
    };
    return fileOf(picture, { ...taken, number: index, ...changes });
  };
  const frames = Array.from({ length: 8 }, (_, index) => shot(9 + 1.5 * normal(), index + 1));
  const [first] = frames;
  if (!first) throw new Error('no frame');

  await openDemo(page);
  const odds = page.getByTestId('call').getByRole('button', { name: /keeper rate/ });
  const before = await odds.textContent();
  await bench(page);
  // What is no sheet, another lens half-way, and the same file twice: each is said, none is counted.
  await chosen(page, 'Photos of the focus sheet').setInputFiles([
    first,
    fileOf(
      { width: 400, height: 300, light: new Float32Array(120_000).fill(0.4) },
      { name: 'wall.jpg', lens: '85 mm f/1.4', focalLengthMm: 85, fNumber: 1.4, pixelMm: 0.01, number: 90 }
    ),
    { name: 'empty.jpg', mimeType: 'image/jpeg', buffer: Buffer.alloc(0) },
    { ...first, name: 'other.jpg', buffer: shot(9, 91, { lens: 'Another lens' }).buffer },
    first
  ]);
  await expect(page.getByTestId('bench-verdict')).toHaveText('85 mm f/1.4: too few frames to say', {
    timeout: 120_000
  });
  await expect(page.getByRole('button', { name: 'Stop', exact: true })).toHaveCount(0, { timeout: 120_000 });
  await expect(page.getByRole('button', { name: /^Frame \d+, not counted$/ })).toHaveCount(3);
  await expect(page.getByText('One photo was here already.')).toBeVisible();
  await page.getByRole('button', { name: 'Frame 2, not counted' }).click();
  await expect(page.getByText('No focus sheet found.')).toBeVisible();
  await page.getByRole('button', { name: 'Frame 3, not counted' }).click();
  await expect(page.getByText('It is empty.')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Save to Kit' })).toBeDisabled();

  await chosen(page, 'Photos of the focus sheet').setInputFiles(frames.slice(1));
  await expect(page.getByRole('button', { name: /^Frame/ })).toHaveCount(11, { timeout: 180_000 });
  await expect(page.getByTestId('bench-verdict')).toHaveText(
    /^85 mm f\/1\.4 back-focuses (8|9|10) mm, consistently\.$/
  );
  await expect(page.getByText('Use AF fine-tune to move focus forward', { exact: false })).toBeVisible();
  await expectNoAxeFindings(page);
  await page.getByRole('button', { name: 'Save to Kit' }).click();
  await expect(message(page)).toContainText('85 mm f/1.4 on Main body');
  await expect(page.getByTestId('earlier-tests').getByRole('listitem')).toHaveCount(1);
  await saved(page);

  await page.getByRole('link', { name: 'Kit' }).click();
  await page.getByRole('button', { name: '85 mm f/1.4' }).click();
  await expect(page.getByTestId('own-focus')).toContainText(/Main body.*behind/);
  await page.getByRole('link', { name: 'Setup', exact: true }).click();
  await expect(odds).not.toHaveText(before ?? '');
  // What was measured stays while one looks elsewhere; what was written, after a reload, too.
  await page.getByRole('link', { name: 'Bench' }).click();
  await expect(page.getByTestId('bench-verdict')).toContainText('back-focuses');
  await expect(page.getByRole('button', { name: 'Save to Kit' })).toHaveCount(0);
  await page.reload();
  await expect(page.getByTestId('earlier-tests').getByRole('listitem')).toHaveText(
    /9 mm behind|8 mm behind|10 mm behind/
  );
});

test('a series of stops finds the weak wide-open 50, and the planner’s best stop follows', async ({ page }) => {
  test.setTimeout(300_000);
  const lens = { focalLengthMm: 50, pixelMm: 0.018, width: 2000, height: 1333 };
  /** Blur by stop as standard deviations in pixels: weak wide open, best at f/8. */
  const blur = {
    1.8: [1.3, 2.2],
    2.8: [0.95, 1.6],
    4: [0.7, 1.1],
    5.6: [0.5, 0.7],
    8: [0.33, 0.45],
    16: [0.6, 0.7]
  } as const;
  const frames = Object.entries(blur).map(([stop, [centre, corner]], index) => {
    const fNumber = Number(stop);
    const picture = edgeShot(
      { lens, fNumber, distanceMm: 2000, rest: { blurPx: { centre, corner }, vignetting: 0.2 } },
      seededRandom(10 + index)
    );
    // One of a lens without contacts, as it were: its stop is typed.
    if (fNumber === 16) return { name: 'STOP_16.JPG', mimeType: 'image/jpeg', buffer: Buffer.from(bareJpeg(picture)) };
    return fileOf(picture, {
      name: `STOP_${stop}.JPG`,
      lens: '50 mm f/1.8',
      focalLengthMm: 50,
      fNumber,
      pixelMm: lens.pixelMm,
      number: index
    });
  });
  await openDemo(page, 'West door, the 50');
  const call = page.getByTestId('call').getByRole('heading', { level: 1 });
  await page.getByRole('tab', { name: 'Intent' }).click();
  await page.getByLabel('Aperture', { exact: true }).selectOption('lensBest');
  await expect(call).toContainText(/f\/\d/);
  const before = await call.textContent();
  await bench(page);
  await page.getByLabel('Lens', { exact: true }).selectOption({ label: '50 mm f/1.8' });
  await page.getByText('Sharpness by aperture').click();
  await chosen(page, 'Photos of the edge sheet').setInputFiles(frames);
  await expect(page.getByRole('button', { name: 'Stop', exact: true })).toHaveCount(0, { timeout: 180_000 });
  await expect(page.getByTestId('lacking')).toContainText('STOP_16.JPG has no aperture');
  await page.getByLabel('STOP_16.JPG: f/').fill('16');
  await page.getByLabel('STOP_16.JPG: f/').press('Enter');
  await page.getByRole('button', { name: 'Read again' }).click();
  await expect(page.getByTestId('lacking')).toHaveCount(0, { timeout: 60_000 });
  await expect(page.getByTestId('stops-table').getByRole('columnheader', { name: '16', exact: true })).toBeVisible();
  await expect(page.getByTestId('stops-verdict')).toHaveText('Best at f/8, from the centre to the corners.');
  await expect(page.getByText(/It loses in the centre .* in the corners up to \d+%/)).toBeVisible();
  await expect(page.getByTestId('stops-chart').locator('.main-svg').first()).toBeVisible();
  await expectNoAxeFindings(page);
  await page.getByRole('button', { name: 'Write to the lens' }).click();
  await expect(message(page)).toContainText('is now planned as measured');
  await expect(page.getByTestId('earlier-tests').getByRole('listitem')).toHaveCount(1);
  await saved(page);
  // Corners too: a face near the edge is reckoned with them.
  await page.getByRole('link', { name: 'Kit' }).click();
  await page.getByRole('button', { name: '50 mm f/1.8' }).click();
  await page.getByText('More', { exact: true }).first().click();
  const corners = page.getByRole('group', { name: 'Likewise near the corners' });
  await expect(corners.getByRole('button', { name: /^Remove the measurement/ })).toHaveCount(6);
  await page.getByRole('link', { name: 'Setup', exact: true }).click();
  await openDemo(page, 'West door, the 50');
  await expect(call).not.toHaveText(before ?? '');
});

test('sheets leave as PDF and SVG, and the simulated camera tries a test out', async ({ page }) => {
  test.setTimeout(300_000);
  await openDemo(page);
  await bench(page);
  const [pdf] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Focus sheet, A4' }).click()
  ]);
  expect(pdf.suggestedFilename()).toBe('Focalis-focus-A4.pdf');
  const [svg] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Focus sheet, SVG' }).click()
  ]);
  expect(svg.suggestedFilename()).toBe('Focalis-focus.svg');
  await page.getByRole('button', { name: 'Try it with the simulated camera' }).click();
  await expect(page.getByText(/\d of 8 drawn and measured/)).toBeVisible();
  await expect(page.getByTestId('bench-verdict')).toBeVisible({ timeout: 120_000 });
  await page.getByRole('button', { name: 'Stop', exact: true }).click();
  await expect(page.getByText('a trial run, not your lens')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Focus sheet, A4' })).toBeVisible();

  await page.getByText('Dust', { exact: true }).click();
  await page.getByRole('button', { name: 'Try it with the simulated camera' }).click();
  await expect(page.getByTestId('spots-verdict')).toHaveText(/^7 spots/, { timeout: 120_000 });
  await expect(page.getByTestId('spots-table').getByRole('row')).toHaveCount(8);
  await expectNoAxeFindings(page);
  await page.getByRole('button', { name: 'Keep this test' }).click();
  await expect(page.getByTestId('earlier-tests').getByRole('listitem')).toHaveText(/7 spots/);
});

test('a field that bends is found on a wall, written to the lens, and a setup can have its surface as measured', async ({
  page
}) => {
  test.setTimeout(300_000);
  await openDemo(page);
  await bench(page);
  await page.getByText('Field curvature', { exact: true }).click();
  await page.getByRole('button', { name: 'Try it with the simulated camera' }).click();
  await expect(page.getByTestId('field-verdict')).toHaveText(/^For this lens (bring|let) the ends of a row \d+/, {
    timeout: 200_000
  });
  await expect(page.getByTestId('field-chart').locator('.main-svg').first()).toBeVisible();
  await expectNoAxeFindings(page);
  await page.getByRole('button', { name: 'Write to the lens' }).click();
  await expect(page.getByTestId('earlier-tests').getByRole('listitem')).toHaveCount(1);
  await saved(page);
  await page.getByRole('link', { name: 'Setup', exact: true }).click();
  await page.getByRole('tab', { name: 'Camera' }).click();
  await page.getByRole('tabpanel').getByText('Advanced').click();
  await page.getByText('as measured', { exact: true }).click();
  await expect(page.getByText('preview ignores field curvature')).toBeVisible();
});
