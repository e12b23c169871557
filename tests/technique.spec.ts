import type { Page } from '@playwright/test';
import { call, expect, expectNoAxeFindings, inSettings, openDemo, saved, test } from './support';

async function technique(page: Page) {
  await page.getByRole('tab', { name: 'Technique' }).click();
  await expect(page.getByTestId('ways')).toBeVisible();
  const all = page.getByRole('button', { name: /^All \d+$/ });
  if (await all.isVisible()) await all.click();
  return page.getByTestId('technique');
}

/** Another picture of the day, once all that was done to this one is kept. */
async function turnTo(page: Page, setupId: string): Promise<void> {
  await saved(page);
  await page.goto(`/setup/${setupId}`);
  await expect(call(page)).toBeVisible();
  await expect(page.getByTestId('floor')).toBeVisible();
}

const way = (page: Page, name: RegExp) => page.getByTestId('ways').getByRole('listitem').filter({ hasText: name });

test('speaker in candlelight with the SLR: what it would take, the point, the meter, the checks ticked on the card', async ({
  page
}) => {
  await openDemo(page, 'Speeches');
  const tab = await technique(page);
  await expect(tab.getByRole('heading', { level: 2 })).toHaveText(
    'Single point on Anselm’s near eye. Left to choose, the camera would focus on the guests.'
  );
  await expect(way(page, /Single point on Anselm’s near eye(?!,)/)).toContainText('In use');
  // This body finds no eyes.
  await expect(way(page, /Eye detection/)).toHaveCount(0);
  // Pointed at, a way is drawn: its area in the Finder, its planes on the Floor.
  await way(page, /Full-area AF/).hover();
  await expect(page.getByTestId('focus-area')).toBeVisible();
  await expect(page.getByTestId('looked-plane').first()).toBeAttached();
  await expect(page.getByTestId('finder-caption')).toContainText('Full-area AF');
  await page.getByText('Move the point or recompose?').click();
  await expect(tab).toContainText(
    'If you let go of the shutter button, AF refocuses on whatever is then in the centre'
  );

  await page.getByRole('tab', { name: 'Light' }).click();
  await page.getByLabel('Metering').selectOption({ label: 'spot, centre' });
  await expect(page.getByTestId('metering')).toContainText(
    /brighter than middle grey[^]*exposure compensation to\s+\+/
  );
  await page.getByLabel('Direction').selectOption({ label: 'behind' });

  await page.getByRole('tab', { name: 'Checks' }).click();
  const checks = page.getByTestId('checks');
  await expect(checks).toContainText('backlight lowers contrast on faces');
  await expect(checks).toContainText(/Exposure compensation \+/);
  await checks.getByRole('checkbox', { name: /^Single point/ }).check();
  await saved(page);
  await expectNoAxeFindings(page, '[role=tabpanel]');

  await page.getByRole('link', { name: 'Field card' }).click();
  await expect(page.getByTestId('card-call')).toContainText('f/');
  await expect(page.getByTestId('pocket')).toContainText('Single point');
  await page.getByRole('button', { name: /checks: more$/ }).click();
  await expect(page.getByText(/^Checks, 1 of \d+ done$/)).toBeVisible();
  await expect(page.getByRole('checkbox', { name: /^Single point/ })).toBeChecked();
  await page.getByRole('checkbox', { name: /^Check the first frame/ }).check();
  await expect(page.getByText(/^Checks, 2 of \d+ done$/)).toBeVisible();
});

test('the walk up the nave and the child on the steps: followed or waited for, one press takes a way, undo gives it back', async ({
  page
}) => {
  await openDemo(page, 'Walk up the nave');
  const tab = await technique(page);
  await expect(way(page, /Single point on [^,]*?eyes?(?!,)/)).toContainText(
    /doesn’t track: they come \d+ cm closer before the shutter opens/
  );
  await expect(tab).toContainText(/Ines is sharp for \d+ cm of the way, 0\.\d\d s\./);
  await expect(page.getByTestId('hold-chart')).toHaveCount(0);
  const odds = page.getByTestId('call').getByRole('button', { name: /keeper rate/ });
  const before = (await odds.textContent()) ?? '';
  await way(page, /Zone AF/)
    .getByRole('button', { name: 'Use: Zone AF' })
    .click();
  await expect(way(page, /Zone AF/)).toContainText('In use');
  await expect(odds).not.toHaveText(before);
  // The table and the call say the same.
  const zone =
    (await way(page, /Zone AF/)
      .getByRole('img')
      .getAttribute('aria-label')) ?? '';
  const percent = /^\d+%/.exec(zone)?.[0] ?? 'none';
  await expect(odds).toContainText(percent);
  await page.getByRole('button', { name: 'Undo', exact: true }).first().click();
  await expect(odds).toHaveText(before);

  await turnTo(page, 'demo-child-steps');
  await expect(page).toHaveTitle(/^Child on the steps/);
  await technique(page);
  await expect(tab).toContainText('Prefocus on a mark on the floor');
  await page.getByRole('group', { name: 'Wren, frame by frame' }).hover();
  await expect(page.getByTestId('step')).toHaveCount(9);
});

test('first dance, Gran and Pilot, rings three ways: rules judged, the eye and not the muzzle, each with its stop', async ({
  page
}) => {
  await openDemo(page, 'First dance');
  await technique(page);
  const rules = page.getByTestId('rules');
  await page.getByText('Rules of thumb, tested').click();
  await expect(rules.getByRole('listitem').filter({ hasText: 'Always wide open' })).toContainText('In use');
  await expect(rules.getByRole('listitem').filter({ hasText: 'Always f/8' })).toContainText('misses: bulbs');
  await rules.getByRole('button', { name: 'Use: Always f/8' }).click();
  await expect(call(page)).toContainText('f/8 ');
  await page.keyboard.press('Control+z');
  await expect(call(page)).toContainText('f/1.4');

  await turnTo(page, 'demo-gran-pilot');
  await expect(page).toHaveTitle(/^Gran/);
  const tab = await technique(page);
  await expect(tab).toContainText(
    /Get down to Pilot’s eye level and focus on the nearer eye, not the muzzle \d+ cm in front/
  );
  const sizes = page.getByTestId('point-sizes');
  await sizes.getByRole('button', { name: /^pinpoint/ }).click();
  await expect(way(page, /^Pinpoint on Marguerite/)).toContainText('In use');

  await turnTo(page, 'demo-rings');
  await expect(page).toHaveTitle(/^Rings/);
  await technique(page);
  const three = page.getByTestId('subject-ways');
  await expect(three.getByRole('listitem')).toHaveCount(3);
  await expect(three.getByRole('listitem').first()).toContainText('soft but discernible');
  await three.getByRole('button', { name: 'Use: Person sharp, object soft' }).click();
  await expect(call(page)).toContainText(/on (Ines|Tobiah)’s/);
  await three.getByRole('button', { name: 'Use: Both sharp' }).click();
  await expect(call(page)).not.toContainText('f/4 ');
  await three.getByRole('button', { name: 'Use: Object sharp, person soft' }).click();
  await expect(call(page)).toContainText('rings');
});

test('the whole nave stitched, and the phone through ferns', async ({ page }) => {
  await openDemo(page, 'The whole nave');
  await technique(page);
  await expect(page.getByTestId('stitch-frame')).toHaveCount(12);
  await expect(page.getByTestId('stitch-steps')).toContainText('12 frames, 4 across and 3 high');
  await page.getByLabel('Wanted across').fill('90');
  await page.getByLabel('Wanted across').press('Enter');
  await expect(page.getByTestId('stitch-steps')).toContainText('6 across and 3 high');
  await expect(page.getByTestId('stitch-frame')).toHaveCount(18);
  await page.getByLabel('Wanted across').fill('0');
  await page.getByLabel('Wanted across').press('Enter');
  await expect(page.getByRole('alert')).toContainText('1');

  await turnTo(page, 'demo-through-ferns');
  await expect(page).toHaveTitle(/^Through the ferns/);
  const tab = await technique(page);
  await expect(way(page, /^Tap Ines/)).toContainText('In use');
  await expect(way(page, /Full-area AF/)).toContainText('grabs the fern fronds');
  await expect(tab).toContainText(/It blurs like f\/\d+ at 69 mm on full frame/);
});

test('how you work is answered once, and new setups start so; ordered shapes and a veil change what is said', async ({
  page
}) => {
  await openDemo(page, 'West door');
  await inSettings(page, async () => {
    const schools = page.getByRole('region', { name: 'How you work' });
    await schools.getByLabel('Focus button').selectOption({ label: 'back button' });
    await schools.getByLabel('Sharp on each face').selectOption({ label: 'the near eye is enough' });
  });
  await page.getByRole('button', { name: 'Add a setup' }).click();
  await page
    .getByRole('dialog')
    .getByRole('button', { name: /^One person/ })
    .click();
  await expect(page).toHaveTitle(/^One person/);
  await technique(page);
  await expect(page.getByRole('group', { name: 'Focus button' }).getByLabel('back button')).toBeChecked();
  await page.getByRole('tab', { name: 'Intent' }).click();
  await expect(page.getByLabel('Sharp on each face')).toHaveValue('nearEye');

  const odds = page.getByTestId('call').getByRole('button', { name: /keeper rate/ });
  await expect(odds).toBeVisible();
  const before = await page.getByTestId('ladder').textContent();
  await page.getByRole('checkbox', { name: '1:1' }).check();
  await expect(page.getByTestId('ladder')).not.toHaveText(before ?? '');
  await page.getByRole('tab', { name: 'Checks' }).click();
  await expect(page.getByTestId('checks')).toContainText('1:1');
  await page.getByRole('tab', { name: 'People' }).click();
  await page.getByText('Appearance').click();
  await page.getByLabel('Headwear').selectOption({ label: 'a veil' });
  await technique(page);
  const detection = way(page, /Eye detection/).getByRole('img');
  await expect(detection).toHaveAttribute('aria-label', /^\d\d% sharp/);
  await expect(detection).not.toHaveAttribute('aria-label', /^99%/);
});
