import type { Page } from '@playwright/test';
import { readFileSync } from 'node:fs';
import { strToU8, zipSync } from 'fflate';
import { demoJobs, demoParts } from '../src/core/job/demo';
import { builtInKit } from '../src/core/kit/builtInKit';
import { writeJobFile } from '../src/core/formats/jobFile';
import { call, expect, message, openDemo, saved, test } from './support';

const [wedding] = demoJobs();
const good = writeJobFile({ job: wedding.job, kit: builtInKit, ...demoParts(wedding) });

async function offer(page: Page, name: string, content: string | Buffer): Promise<void> {
  await page.getByLabel('Job file').setInputFiles({ name, mimeType: 'application/json', buffer: Buffer.from(content) });
}

/** Everything in the browser's store. */
function stored(page: Page): Promise<string> {
  return page.evaluate(async () => {
    const database = await new Promise<IDBDatabase>((resolve, reject) => {
      const request = indexedDB.open('focalis');
      request.onsuccess = () => resolve(request.result);
      request.onerror = () => reject(request.error);
    });
    const tables = ['jobs', 'people', 'places', 'setups', 'bodies', 'lenses'];
    const rows = await Promise.all(
      tables.map(
        (table) =>
          new Promise((resolve) => {
            const request = database.transaction(table).objectStore(table).getAll();
            request.onsuccess = () => resolve(request.result);
          })
      )
    );
    database.close();
    return JSON.stringify(rows);
  });
}

const hostile: readonly [string, string, RegExp][] = [
  ['truncated', good.slice(0, good.length / 2), /cut off/],
  ['foreign', '{"format":"other","version":1}', /format: This is not a Focalis job file/],
  ['future', good.replace('"version":3', '"version":99'), /version: The file is of version 99, newer/],
  [
    'negative',
    good.replace('"distanceMm":950', '"distanceMm":-950'),
    /setups\[11\]\.camera\.placement\.distanceMm: Must be at least 50/
  ],
  ['nan', good.replace('"distanceMm":950', '"distanceMm":NaN'), /isn’t a complete/],
  [
    'markup',
    good.replace('"name":"Ines"', '"name":"<script>alert(1)</script>"'),
    /people\[0\]\.name: Must not contain markup/
  ],
  ['prototype', good.replace('"notes"', '"__proto__":{"x":1},"notes"'), /__proto__: This key has no place/],
  ['deep', '['.repeat(200_000), /nested/]
];

test('bad files are refused with the field and the reason, and nothing stored changes', async ({ page }) => {
  await openDemo(page);
  await saved(page);
  const before = await stored(page);
  for (const [name, content, reason] of hostile) {
    await offer(page, `${name}.json`, content);
    await expect(page.getByRole('alert')).toContainText(`Couldn’t import ${name}.json.`);
    await expect(page.getByRole('alert')).toContainText(reason);
  }
  // Made in the page: sent through the test's own pipe they would take longer than all the rest.
  const drop = (name: string, bytes: number, text: string) =>
    page.evaluate(
      ([file, size, piece]) => {
        const transfer = new DataTransfer();
        const count = Math.ceil(size / piece.length);
        transfer.items.add(
          new File(
            Array.from({ length: count }, () => piece),
            file,
            { type: 'application/json' }
          )
        );
        window.dispatchEvent(new DragEvent('drop', { dataTransfer: transfer, bubbles: true, cancelable: true }));
      },
      [name, bytes, text] as const
    );
  await drop('huge.json', 170_000_000, ' '.repeat(1_000_000));
  await expect(page.getByRole('alert')).toContainText('170 MB; a job file has at most 160 MB');
  await drop('zeros.json', 16_000_000, `${'0,'.repeat(500_000)}`);
  await expect(page.getByRole('alert')).toContainText('more than 6000000 values');
  await drop('list.json', 7_400_000, `${'0,'.repeat(500_000)}`);
  await expect(page.getByRole('alert')).toContainText('Couldn’t import list.json. This isn’t a complete');
  expect(await stored(page)).toBe(before);
  await expect(call(page)).toHaveText('f/2.8 on Ines’s near eye, from 1.5 m.');
});

test('a dropped job file is imported beside what is there; undo removes it again', async ({ page }) => {
  await openDemo(page);
  await page.evaluate((text) => {
    const transfer = new DataTransfer();
    transfer.items.add(new File([text], 'dropped.json', { type: 'application/json' }));
    window.dispatchEvent(new DragEvent('drop', { dataTransfer: transfer, bubbles: true, cancelable: true }));
  }, good);
  await expect(message(page)).toContainText('Fernhall Glasshouse imported.');
  await expect(page.getByRole('button', { name: 'Fernhall Glasshouse (2)' })).toBeVisible();
  await message(page).getByRole('button', { name: 'Undo' }).click();
  await expect(message(page)).toContainText('Undone');
  await page.goto('/');
  await expect(page.getByRole('button', { name: 'Fernhall Glasshouse', exact: true })).toBeVisible();
});

test('the demo never overwrites what a user made, and can be put away and loaded again', async ({ page }) => {
  await openDemo(page);
  await page.getByLabel('Name').fill('Inessa');
  await page.getByLabel('Name').press('Enter');
  await expect(call(page)).toContainText('Inessa');
  await saved(page);
  await page.getByRole('button', { name: 'Fernhall Glasshouse' }).click();
  await page.getByRole('button', { name: 'Load the demo again' }).click();
  await expect(page.getByRole('button', { name: 'Fernhall Glasshouse (2)' })).toBeVisible();
  await expect(call(page)).toContainText('Ines’s near eye');
  await page.getByRole('button', { name: 'Fernhall Glasshouse (2)' }).click();
  await page.getByRole('button', { name: 'Fernhall Glasshouse', exact: true }).click();
  await expect(page.getByText('on Inessa’s near eye').first()).toBeVisible();
  // Worked in, it stays when an empty start is asked for.
  await page.getByRole('button', { name: 'Fernhall Glasshouse', exact: true }).click();
  await page.getByRole('button', { name: 'Start a new job' }).click();
  await page.getByRole('button', { name: 'New job', exact: true }).click();
  await expect(page.getByRole('button', { name: 'Fernhall Glasshouse', exact: true })).toBeVisible();
});

test('removing a setup, a person and a job each offers undo', async ({ page }) => {
  await openDemo(page);
  await page.getByRole('link', { name: 'Day' }).click();
  await page.getByRole('button', { name: 'Choose West door', exact: true }).click();
  await page.getByRole('button', { name: 'Remove', exact: true }).click();
  await expect(page.getByRole('link', { name: /Remove|West door f/ })).toHaveCount(0);
  await message(page).getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByText('f/2.8 on Ines’s near eye, from 1.5 m.')).toBeVisible();
  await page.getByRole('button', { name: 'Fernhall Glasshouse' }).click();
  await page.getByRole('button', { name: 'Remove this job' }).click();
  await expect(page.getByRole('button', { name: 'Quayside Brass' })).toBeVisible();
  await message(page).getByRole('button', { name: 'Undo' }).click();
  await expect(message(page)).toContainText('Undone');
  await page.getByRole('button', { name: 'Quayside Brass' }).click();
  await expect(page.getByRole('button', { name: 'Fernhall Glasshouse' })).toBeVisible();
});

test('the policy allows no inline script and no other origin, and large requests are refused', async ({
  browser,
  request,
  baseURL
}) => {
  const response = await request.get('/');
  const policy = response.headers()['content-security-policy'] ?? '';
  expect(policy).toContain("default-src 'none'");
  expect(policy).toMatch(/script-src 'self' 'sha256-[^']+'[;$]/);
  expect(policy.match(/script-src[^;]*/)?.[0]).not.toContain('unsafe-inline');
  expect(policy).toMatch(/style-src 'self'[;$]/);
  expect(policy).toContain("frame-ancestors 'none'");
  expect(policy).not.toMatch(/https?:/);
  const large = await request.post('/', {
    data: Buffer.alloc(600_000, 'a'),
    headers: { 'content-type': 'application/octet-stream' }
  });
  expect(large.status()).toBe(413);

  const page = await browser.newPage();
  await page.goto(baseURL ?? '');
  const ran = await page.evaluate(() => {
    const script = document.createElement('script');
    script.textContent = 'window.inlineRan = true';
    document.head.append(script);
    return 'inlineRan' in window;
  });
  expect(ran).toBe(false);
  await page.close();
});

test('everything is saved as one file, and a fresh profile takes it; what is no such file changes nothing', async ({
  page,
  browser
}) => {
  await openDemo(page);
  await page.getByLabel('Name').fill('Inessa');
  await page.getByLabel('Name').press('Enter');
  await saved(page);
  await page.goto('/settings');
  await page.getByText('feet and inches').click();
  await expect(page.getByTestId('backed-up')).toHaveText('No backup yet.');
  await expect(page.getByTestId('space')).toContainText(/^Uses .+ this browser allows\./);
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Back up' }).click()
  ]);
  expect(download.suggestedFilename()).toMatch(/^Focalis-\d{4}-\d\d-\d\d\.zip$/);
  await expect(page.getByTestId('backed-up')).toHaveText(/^Last backup \d/);
  const path = await download.path();
  const whole = readFileSync(path);

  const context = await browser.newContext();
  const other = await context.newPage();
  await other.goto('/settings');
  const chooser = other.getByLabel('Archive');
  const offer = (buffer: Buffer) => chooser.setInputFiles({ name: 'all.zip', mimeType: 'application/zip', buffer });
  const refusal = other.getByRole('main').getByRole('alert');
  await offer(whole.subarray(0, whole.length / 2));
  await expect(refusal).toHaveText('Couldn’t restore all.zip. This zip is cut off or damaged. Nothing was changed.');
  await offer(Buffer.from(zipSync({ '../evil.json': strToU8('x') })));
  await expect(refusal).toContainText('points outside it');

  await chooser.setInputFiles(path);
  const found = other.getByTestId('restorable');
  await expect(found).toContainText('Nothing would change: all of it is here already.');
  await found.getByText('replace what is here').click();
  await expect(found.getByRole('list', { name: 'What would change' })).toContainText('Settings as they are there.');
  await found.getByRole('button', { name: 'Restore', exact: true }).click();
  await expect(message(other).filter({ hasText: 'Restored.' })).toBeVisible();
  await expect(other.getByRole('radio', { name: 'feet and inches' })).toBeChecked();
  await other.goto('/setup/demo-west-door');
  await expect(call(other)).toHaveText(/Inessa’s near eye, from \d+′/);
  await context.close();
});
