/** Practice: frames of marks taken in as files, in any order, with a retake; judged, kept, exported; and pairs judged by eye. */
import type { Page } from '@playwright/test';
import { arrangedFor } from '../src/core/drills/kinds';
import { type DrillStep } from '../src/core/drills/series/steps';
import type { DrillId } from '../src/core/drills/kinds/ids';
import { marksShot, type StandingMark } from '../src/core/drills/series/simulate';
import { recomposeShift } from '../src/core/call/motion';
import { imageDistance } from '../src/core/optics/thinLens';
import { seededNormal, seededRandom } from '../src/core/testing/random';
import { fileOf } from './cameraFiles';
import { expect, expectNoAxeFindings, message, openDemo, saved, test } from './support';

const f = 85;
const kit = { focalLengthMm: f, widestFNumber: 1.4, smallestFNumber: 16, closestMm: 700, discMm: 0.03 };
/** Pixels so large that the marks' codes are some fifty wide. */
const pixelMm = 0.03;

interface Taken {
  readonly step: DrillStep;
  readonly planeMm: number;
  /** The thing aimed at lies so far off the middle, mm. */
  readonly at?: readonly [number, number];
}

/** Frames as a camera writes them, one after another. */
function framesOf(drill: DrillId, taken: readonly Taken[], size: readonly [number, number]) {
  const arranged = arrangedFor(drill, kit);
  if (!arranged) throw new Error('no things');
  return taken.map(({ step, planeMm, at = [0, 0] }, index) => {
    const [width, height] = step.upright ? [size[1], size[0]] : size;
    const aimed =
      drill === 'edges' ? (arranged.things.find((thing) => thing.index === step.focusOn)?.lateralMm ?? 0) : 0;
    const marks = arranged.things.map((thing): StandingMark => {
      return {
        index: thing.index,
        x: thing.lateralMm - aimed + at[0],
        y: at[1],
        z: arranged.distanceMm + thing.depthMm
      };
    });
    const picture = marksShot(
      { lens: { focalLengthMm: f, pixelMm, width, height }, fNumber: step.fNumber, planeMm, marks },
      seededRandom(index)
    );
    const fNumber = Number(step.fNumber.toFixed(1));
    return fileOf(picture, {
      name: `DRILL_${index + 1}.JPG`,
      lens: '85 mm f/1.4',
      focalLengthMm: f,
      fNumber,
      pixelMm,
      number: index + 1
    });
  });
}

const depthOf = (drill: DrillId, index: number): number => {
  const arranged = arrangedFor(drill, kit);
  return (arranged?.distanceMm ?? 0) + (arranged?.things.find((thing) => thing.index === index)?.depthMm ?? 0);
};
const stepsOf = (drill: DrillId) => arrangedFor(drill, kit)?.steps ?? [];

async function opened(page: Page, title: string) {
  await openDemo(page);
  await page.getByRole('link', { name: 'Drills' }).click();
  await page.getByRole('link', { name: title }).first().click();
  await expect(page.getByRole('heading', { level: 1, name: title })).toBeVisible();
  await page.getByLabel('Lens', { exact: true }).selectOption({ label: '85 mm f/1.4' });
}
const put = (page: Page) => page.getByLabel('Frames of the drill', { exact: true });
const done = (page: Page) =>
  expect(page.getByRole('button', { name: 'Stop', exact: true })).toHaveCount(0, { timeout: 240_000 });

test('three on a diagonal: mixed order, a retake, one still to do; then the sheet of three', async ({ page }) => {
  test.setTimeout(300_000);
  const [first, second, third] = stepsOf('diagonal');
  if (!first || !second || !third) throw new Error('no steps');
  const z = (index: number) => depthOf('diagonal', index);
  const frames = framesOf(
    'diagonal',
    [
      { step: first, planeMm: z(0) + 60 },
      { step: first, planeMm: z(0) + 14 },
      { step: second, planeMm: z(1) - 12 },
      { step: third, planeMm: z(2) + 9 }
    ],
    [640, 220]
  );
  await opened(page, 'Three on a diagonal');
  await expectNoAxeFindings(page);
  await page.getByText('AF point on the first. Half-press, then shoot').click();
  await put(page).setInputFiles([frames[2], frames[1], frames[0]].flatMap((frame) => frame ?? []));
  await done(page);
  await expect(page.getByTestId('drill-verdict')).toHaveText('One still to do: the third.', { timeout: 60_000 });
  await expect(page.getByText('shoot it again')).toBeVisible();
  // The last one, and what is no such frame.
  await put(page).setInputFiles([
    ...frames.slice(3),
    { name: 'empty.jpg', mimeType: 'image/jpeg', buffer: Buffer.alloc(0) }
  ]);
  await done(page);
  await expect(page.getByTestId('drill-verdict')).toHaveText('Each time the one you chose was the sharpest.');
  await expect(page.getByTestId('refused')).toContainText('empty.jpg');
  const rows = page.getByTestId('drill-steps').getByRole('listitem');
  // The retake counts; the first of the two is spare.
  await expect(rows.nth(0)).toContainText('DRILL_2.JPG');
  await expect(rows.nth(0)).toContainText('one spare');
  await expect(rows.nth(0)).toContainText(/1\d mm behind/);
  await expectNoAxeFindings(page);
  const [png] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Save as image' }).click()
  ]);
  expect(png.suggestedFilename()).toBe('Focalis-three.png');
  await page.getByText('one large, two small').click();
  const [pdf] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'PDF', exact: true }).click()
  ]);
  expect(pdf.suggestedFilename()).toBe('Focalis-three.pdf');
  await page.getByRole('button', { name: 'Save this result' }).click();
  await expect(page.getByTestId('earlier-times').getByRole('listitem')).toHaveText(/\d+ mm off/);
  await saved(page);
  // Ticks and results are there after a reload.
  await page.reload();
  await expect(page.getByRole('checkbox', { name: 'AF point on the first. Half-press, then shoot' })).toBeChecked();
  await expect(page.getByTestId('earlier-times').getByRole('listitem')).toHaveCount(1);
  await page.getByRole('link', { name: 'Drills', exact: true }).last().click();
  const [csv] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'All results as CSV' }).click()
  ]);
  expect(csv.suggestedFilename()).toBe('Focalis-drills.csv');
});

test('the stop ladder: mixed order and a retake; which stop holds all, measured against theory', async ({ page }) => {
  test.setTimeout(300_000);
  const steps = stepsOf('stopLadder');
  const taken = steps.map((step) => ({ step, planeMm: depthOf('stopLadder', step.focusOn) + 4 }));
  const [again] = taken;
  if (!again) throw new Error('no steps');
  const frames = framesOf('stopLadder', [{ ...again, planeMm: again.planeMm + 40 }, ...taken], [860, 220]);
  await opened(page, 'Aperture ladder');
  await put(page).setInputFiles([...frames].reverse());
  await done(page);
  await expect(page.getByTestId('drill-verdict')).toHaveText(
    /^f\/\d+(\.\d)? keeps all sharp, focused on the (first|second)\.$/,
    {
      timeout: 120_000
    }
  );
  await expect(page.getByText('shoot it again')).toHaveCount(0);
  await expect(page.getByText(/keeps to theory within a tenth|blurs \d+% (more|less) than theory/)).toBeVisible();
  await expect(page.getByTestId('drill-steps').getByRole('listitem').nth(0)).toContainText('DRILL_2.JPG');
  await expectNoAxeFindings(page);
});

test('to the edges: frames are known by where the thing lies; the lean is told, and counts in calls', async ({
  page
}) => {
  test.setTimeout(300_000);
  const normal = seededNormal(3);
  const steps = stepsOf('edges');
  const size = [960, 640] as const;
  const v = imageDistance(f, depthOf('edges', 1));
  const taken = steps.map((step): Taken => {
    const z = depthOf('edges', step.focusOn);
    const [wide, high] = step.upright ? [size[1], size[0]] : size;
    const half = (px: number) => ((px / 2) * pixelMm * z) / v;
    const at = {
      middle: [0, 0] as const,
      left: [-0.6 * half(wide), 0] as const,
      right: [0.6 * half(wide), 0] as const,
      top: [0, -0.6 * half(high)] as const,
      bottom: [0, 0.6 * half(high)] as const
    }[step.place];
    const turned = step.turning === null ? 0 : recomposeShift({ x: at[0], y: at[1], z }, 120, 'flat');
    return { step, at, planeMm: z + turned + (step.turning === 'lean' ? 30 + 3 * normal() : 0) };
  });
  const [straight] = taken;
  if (!straight) throw new Error('no steps');
  const frames = framesOf('edges', [{ ...straight, planeMm: straight.planeMm - 25 }, ...taken], size);
  await opened(page, 'To the edges');
  const [a, b, ...rest] = frames;
  await put(page).setInputFiles([...rest, b, a].flatMap((frame) => frame ?? []));
  await done(page);
  await expect(page.getByTestId('drill-verdict')).toHaveText(/^You lean (2\d|3\d) mm forward while you turn\.$/, {
    timeout: 120_000
  });
  await page.getByRole('button', { name: 'Use my lean' }).click();
  await expect(message(page)).toContainText('Your lean counts');
  await page.getByRole('button', { name: 'Save this result' }).click();
  await expect(page.getByTestId('earlier-times').getByRole('listitem')).toHaveText(/leaning \d+ mm forward/);
  // The record has it, in use; once the usual figure is back, it is offered.
  await saved(page);
  await page.getByRole('link', { name: 'Record', exact: true }).click();
  const lean = page.getByTestId('drill-figures').getByRole('listitem').first();
  await expect(lean).toHaveText(/You come (2\d|3\d) mm nearer while turning \(\d+ to \d+ mm nearer\), .*in use/);
  await expect(page.getByTestId('drill-figures').getByRole('listitem')).toHaveCount(2);
  await expectNoAxeFindings(page);
});
