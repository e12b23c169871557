/** The evening before and the day itself: a job from nothing, ordered, packed, taken along, adjusted without a network, brought home. */
import ICAL from 'ical.js';
import jsQR from 'jsqr';
import { chromium, devices, type Page } from '@playwright/test';
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { ownServer, stopped } from './ownServer';
import { expect, message, saved, test } from './support';

const row = (page: Page, name: string) => page.getByRole('listitem').filter({ hasText: name }).first();

test('an order that costs less is one press away, the bag says why, setups are chosen, moved and undone', async ({
  page
}) => {
  await page.goto('/day/demo-fernhall');
  await expect(page.getByRole('heading', { name: /^13 setups, 13:40–/ })).toBeVisible();
  const cost = page.getByTestId('day-cost');
  await expect(cost).toHaveText(/^7 lens changes · 9 walks/);
  await page.getByRole('button', { name: /^Swap \d+ and \d+: / }).click();
  await expect(cost).toHaveText(/^6 lens changes · 8 walks/);
  await message(page).getByRole('button', { name: 'Undo' }).click();
  await expect(cost).toHaveText(/^7 lens changes · 9 walks/);

  // By the keyboard: picked up, moved down, put down.
  const handle = page.getByRole('button', { name: /^Move Rings/ });
  await handle.focus();
  await page.keyboard.press('Enter');
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Enter');
  const names = () => page.getByRole('list', { name: 'Setups in order' }).getByRole('link').allTextContents();
  await expect.poll(async () => (await names())[2]).toContain('Rings');
  // Whoever takes another's turn takes its time.
  await expect(row(page, 'Rings')).toContainText('14:10');

  const bag = page.getByTestId('bag');
  await expect(bag).toContainText('cover every must-have setup');
  await bag.getByRole('checkbox', { name: '85 mm f/1.4' }).check();
  await expect(bag).toContainText('1 of 4 packed');

  // A time that clashes is said.
  await page.getByRole('button', { name: 'Choose Under the palms' }).click();
  await page.getByLabel('Starts at').fill('14.40');
  await page.getByLabel('Starts at').press('Enter');
  await expect(page.getByLabel('Starts at')).toHaveValue('14:40');
  await expect(page.getByText(/too tight/).first()).toBeVisible();

  // Several together, to the other job.
  await page.getByRole('button', { name: 'Choose Rings' }).click({ modifiers: ['Control'] });
  await expect(page.getByRole('heading', { name: '2 setups chosen' })).toBeVisible();
  await page.getByText('move', { exact: true }).click();
  await page.getByLabel('Which job').selectOption({ label: 'Quayside Brass' });
  await expect(message(page)).toContainText('2 setups moved to Quayside Brass');
  await expect(page.getByRole('heading', { name: /^11 setups/ })).toBeVisible();
  await page.getByRole('button', { name: 'Fernhall Glasshouse' }).click();
  await page.getByRole('button', { name: 'Quayside Brass' }).click();
  await expect(page.getByRole('heading', { name: /^6 setups/ })).toBeVisible();
});

test('jobs are searched, duplicated, kept as templates, archived and started from', async ({ page }) => {
  await page.goto('/jobs');
  await page.getByRole('button', { name: 'Keep as template: Quayside Brass' }).click();
  await expect(page.getByRole('heading', { name: 'Templates of your own' })).toBeVisible();
  await page.getByRole('button', { name: 'Start a job from Quayside Brass, template' }).click();
  await expect(page.getByRole('heading', { name: /^4 setups/ })).toBeVisible();
  await page.goto('/jobs');
  await page.getByRole('button', { name: 'Archive Quayside Brass', exact: true }).click();
  await expect(page.getByRole('region', { name: 'Archived' })).toContainText('Quayside Brass');
  await page.getByLabel('Search by name, date or notes').fill('palm 2027-06');
  await expect(page.getByRole('main').getByRole('listitem')).toHaveCount(1);
  await expect(page.getByRole('main')).toContainText('Fernhall Glasshouse');
  await page.getByLabel('Search by name, date or notes').fill('zebra');
  await expect(page.getByText('Nothing is called so.')).toBeVisible();
});

test('a group by role becomes a picture of those people', async ({ page }) => {
  await page.goto('/day/demo-fernhall');
  const cast = page.getByTestId('cast');
  await cast.getByRole('button', { name: 'her family 4' }).click();
  await cast.getByRole('button', { name: 'his family 4' }).click();
  await cast.getByRole('button', { name: 'A setup of these 8' }).click();
  await expect(page).toHaveTitle(/^Group of 8/);
  await expect(page.getByTestId('ladder')).toContainText('Petra');
  await expect(page.getByTestId('ladder')).not.toContainText('Ludmila');
});

test('an evening and a wedding: made from nothing, taken to a phone by the code, the server stopped, brought home', async ({
  page
}) => {
  test.slow();
  let server = await ownServer(4241);
  const base = 'http://127.0.0.1:4241';
  const folder = mkdtempSync(join(tmpdir(), 'focalis-day-'));
  // The evening: a job, twelve setups, times, people, a place.
  await page.goto(`${base}/jobs`);
  await page.getByRole('button', { name: 'New job' }).click();
  await page.getByLabel('Job', { exact: true }).fill('Lake house');
  await page.getByLabel('Job', { exact: true }).press('Enter');
  const kinds = ['One person', 'A couple', 'A small group', 'A large group', 'Someone walking', 'A speaker'];
  for (let i = 0; i < 12; i++) {
    const kind = kinds[i % kinds.length] ?? '';
    if (i > 0) await page.getByRole('button', { name: 'Setup', exact: true }).click();
    await page.getByRole('button', { name: new RegExp(`^${kind}`) }).click();
    await expect(page).toHaveTitle(new RegExp(`^${kind}`));
    await page.getByRole('link', { name: 'Day', exact: true }).click();
    await expect(page.getByRole('list', { name: 'Setups in order' }).getByRole('link')).toHaveCount(i + 1);
  }
  await page.getByRole('button', { name: 'Choose One person', exact: true }).click();
  await page.getByLabel('Starts at').fill('13:40');
  await page.getByLabel('Starts at').press('Enter');
  await expect(page.getByRole('heading', { name: /^12 setups, 13:40–/ })).toBeVisible();
  await expect(page.getByTestId('bag')).toContainText('every must-have setup');
  // A place of its own, and what is for others: a table and a calendar.
  await page.getByLabel('Place', { exact: true }).selectOption({ label: 'a new place, copied from here' });
  await expect(page.getByTestId('day-cost')).toContainText('1 walk');
  await page.getByLabel('Date', { exact: true }).fill('2027-05-08');
  await page.getByLabel('Date', { exact: true }).press('Enter');
  await page.getByRole('button', { name: 'Print and export' }).click();
  const out = async (name: string) => {
    const [file] = await Promise.all([page.waitForEvent('download'), page.getByRole('button', { name }).click()]);
    return readFileSync(await file.path(), 'utf8');
  };
  expect((await out('Table (CSV)')).trim().split('\r\n')).toHaveLength(13);
  const events = new ICAL.Component(ICAL.parse(await out('Calendar (iCalendar)')) as unknown[]);
  expect(events.getAllSubcomponents('vevent')).toHaveLength(12);
  await page.keyboard.press('Escape');
  await saved(page);

  // Taken along by the code.
  await page.getByRole('button', { name: 'Send to phone' }).click();
  await page.getByRole('button', { name: 'Make a QR code' }).click();
  const qr = page.getByTestId('qr');
  await expect(qr).toBeVisible();
  const address = await page.getByLabel('Or copy the link').inputValue();
  await expect
    .poll(async () => {
      const { data, width, height } = await qr.evaluate((canvas: HTMLCanvasElement) => {
        const image = canvas.getContext('2d')?.getImageData(0, 0, canvas.width, canvas.height);
        return { data: [...(image?.data ?? [])], width: canvas.width, height: canvas.height };
      });
      return jsQR(Uint8ClampedArray.from(data), width, height)?.data;
    })
    .toBe(address);

  const { defaultBrowserType: _, ...pixel } = devices['Pixel 5'];
  const phone = await chromium.launchPersistentContext(join(folder, 'profile'), {
    ...pixel,
    viewport: { width: 390, height: 664 },
    serviceWorkers: 'allow',
    executablePath: process.env['CHROMIUM_PATH'] ?? '/usr/bin/chromium',
    args: ['--no-sandbox', '--disable-gpu', '--disable-quic', '--no-first-run']
  });
  try {
    const hand = phone.pages()[0] ?? (await phone.newPage());
    await hand.goto(address);
    await expect(hand.getByRole('button', { name: 'Collect' })).toBeVisible();
    await expect.poll(() => hand.evaluate(() => location.hash)).toBe('');
    await hand.evaluate(async () => void (await navigator.serviceWorker.ready));
    await expect.poll(() => hand.evaluate(() => navigator.serviceWorker.controller !== null)).toBe(true);
    await hand.getByRole('button', { name: 'Collect' }).click();
    await expect(hand.getByRole('heading', { name: /^12 setups/ })).toBeVisible();
    await expect(page.getByText('Collected.')).toBeVisible();
    await page.keyboard.press('Escape');

    // On location: no server at all.
    await stopped(server);
    await hand.reload();
    const first = await hand
      .getByRole('list', { name: 'Setups in order' })
      .getByRole('link')
      .first()
      .getAttribute('href');
    await hand.goto(`${base}${(first ?? '').replace('/setup/', '/card/')}`);
    for (let i = 0; i < 4; i++) {
      await expect(hand.getByTestId('pocket')).toContainText(`${i + 1} `);
      await hand.getByRole('button', { name: 'Distance, more' }).click();
      await expect(hand.getByTestId('different')).toHaveText(/^at /);
      await hand.getByRole('button', { name: 'Done', exact: true }).click();
      await expect(hand.getByRole('button', { name: /^Done how did it go/ })).toBeVisible();
      if (i < 3) await hand.getByRole('link', { name: /^After: / }).click();
      await expect(hand.getByTestId('pocket')).toContainText(`${Math.min(i + 2, 4)} `);
    }

    // Home again.
    server = await ownServer(4241);
    await hand.getByRole('button', { name: 'More about this setup' }).click();
    await hand.getByRole('button', { name: 'Send back' }).click();
    await expect(hand.getByRole('button', { name: /^Sent/ })).toBeVisible();
    await page.getByRole('button', { name: 'Receive' }).click();
    await expect(message(page).filter({ hasText: 'Received: 4 setups' })).toBeVisible();
    const list = page.getByRole('list', { name: 'Setups in order' });
    await expect(list.getByText('done', { exact: true })).toHaveCount(4);
    await expect(list.getByRole('link')).toHaveCount(12);
    // The plan stands as it was; beside it what was different.
    await expect(page.getByText(/^As shot: at /)).toBeVisible();
    // A second return adds nothing.
    await hand.getByRole('button', { name: /^Sent/ }).click();
    await expect(hand.getByRole('button', { name: /^Sent/ })).toBeEnabled();
    await page.getByRole('button', { name: 'Receive' }).click();
    await expect(message(page).filter({ hasText: 'Received: nothing new' })).toBeVisible();
    await expect(list.getByRole('link')).toHaveCount(12);
  } finally {
    await phone.close();
    await stopped(server);
    rmSync(folder, { recursive: true, force: true });
  }
});

test('the day leaves as cards, a list and a calendar, with nobody’s name where that is not ticked', async ({
  page
}) => {
  await page.goto('/day/demo-fernhall');
  await page.getByRole('button', { name: 'Print and export' }).click();
  const dialog = page.getByRole('dialog');
  const made = async (name: string) => {
    const [file] = await Promise.all([
      page.waitForEvent('download'),
      dialog.getByRole('button', { name, exact: true }).click()
    ]);
    return { path: await file.path(), name: file.suggestedFilename() };
  };
  const names = dialog.getByLabel('with names');
  await expect(names).not.toBeChecked();
  await names.check();
  const cards = await made('Field cards (PDF)');
  expect(cards.name).toBe('Fernhall-Glasshouse-cards.pdf');
  const words = execFileSync('pdftotext', [cards.path, '-'], { encoding: 'utf8' });
  expect(words).toContain('Ines’s near eye');
  expect(words).toContain('13. Family, the 85');
  await names.uncheck();
  const list = await made('List (PDF)');
  const lines = execFileSync('pdftotext', ['-layout', list.path, '-'], { encoding: 'utf8' });
  expect(lines).toContain('Person 1’s near eye');
  expect(lines).not.toMatch(/Ines|Tobiah/);
  const calendar = await made('Calendar (iCalendar)');
  const read = new ICAL.Component(ICAL.parse(readFileSync(calendar.path, 'utf8')) as unknown[]);
  const events = read.getAllSubcomponents('vevent').map((item) => new ICAL.Event(item));
  expect(events).toHaveLength(13);
  expect(events[0]?.startDate.toString()).toBe('2027-06-12T13:40:00');
  expect(events[0]?.description).not.toContain('Ines');
  expect(await page.evaluate(() => document.querySelector('[role=alert]')?.textContent ?? '')).toBe('');
});

test('the shot list goes out as a table and comes in again, row by row, with what was not taken and why', async ({
  page
}) => {
  await page.goto('/day/demo-fernhall');
  await page.getByRole('button', { name: 'Print and export' }).click();
  const dialog = page.getByRole('dialog');
  for (const what of ['with names', 'with places']) await dialog.getByLabel(what).check();
  const saving = page.waitForEvent('download');
  await dialog.getByRole('button', { name: 'Table (CSV)' }).click();
  const file = await saving;
  expect(file.suggestedFilename()).toBe('Fernhall-Glasshouse.csv');
  const path = await file.path();
  await page.goto('/jobs');
  await page.getByRole('button', { name: 'New job' }).click();
  await page.getByRole('button', { name: 'Import a shot list…' }).click();
  await page.getByLabel('List of shots').setInputFiles(path);
  await dialog.getByRole('button', { name: 'Add 13 setups' }).click();
  await expect(page.getByRole('heading', { name: /^13 setups, 13:40–/ })).toBeVisible();
  await page.getByText('Who is in which setup').click();
  await expect(page.getByTestId('cast')).toContainText('Great-aunt Sabeth');

  const offer = (name: string, content: string) =>
    page
      .getByLabel('List of shots')
      .setInputFiles({ name, mimeType: 'text/csv', buffer: Buffer.from(content, 'latin1') });
  await page.getByRole('button', { name: 'Print and export' }).click();
  await offer('long.csv', `Name\n${'x\n'.repeat(100_000)}`);
  await expect(dialog.getByRole('alert')).toHaveText(
    'Couldn’t import long.csv. The file has more than 300 rows; a job holds 300 setups. Nothing was changed.'
  );
  await offer('columns.csv', 'Something,Else\na,b\n');
  await expect(dialog.getByRole('button', { name: 'Nothing to import' })).toBeDisabled();
  await offer('evening.csv', 'Shot,When\nZo\xeb,18:00\nCake,soon\n');
  await expect(dialog).toContainText('2 rows, read as Windows-1252');
  await expect(dialog.getByRole('alert')).toContainText('Row 3: "soon" is no time.');
  await dialog.getByRole('button', { name: 'Add 1 setup, without those rows' }).click();
  await expect(page.getByRole('list', { name: 'Setups in order' })).toContainText('Zoë');
  await message(page).getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('heading', { name: /^13 setups/ })).toBeVisible();
});
