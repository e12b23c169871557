import type { Page } from '@playwright/test';
import { call, expect, message, openDemo, saved, test } from './support';

/** Runs something with a table of the store, in the page. */
async function withTable(page: Page, table: string, change: (row: Record<string, unknown>) => void): Promise<void> {
  await page.evaluate(
    async ([name, source]) => {
      const alter = new Function(`return (${source})`)() as (row: Record<string, unknown>) => void;
      const database = await new Promise<IDBDatabase>((resolve, reject) => {
        const request = indexedDB.open('focalis');
        request.onsuccess = () => resolve(request.result);
        request.onerror = () => reject(request.error);
      });
      await new Promise<void>((resolve, reject) => {
        const transaction = database.transaction(name, 'readwrite');
        const store = transaction.objectStore(name);
        const all = store.getAll();
        all.onsuccess = () => {
          for (const row of all.result as Record<string, unknown>[]) {
            alter(row);
            store.put(row);
          }
        };
        transaction.oncomplete = () => resolve();
        transaction.onerror = () => reject(transaction.error);
      });
      database.close();
    },
    [table, change.toString()] as const
  );
}

test('a full disk: it is said, the edit stays, can be exported, and is stored once there is room', async ({ page }) => {
  await openDemo(page);
  await page.evaluate(() => {
    const { put } = IDBObjectStore.prototype;
    (window as unknown as { room: () => void }).room = () => void (IDBObjectStore.prototype.put = put);
    IDBObjectStore.prototype.put = () => {
      throw new DOMException('The quota has been exceeded.', 'QuotaExceededError');
    };
  });
  const height = page.getByLabel('Height', { exact: true });
  await height.fill('1.75');
  await height.press('Enter');
  const notSaved = page.getByTestId('not-saved');
  await expect(notSaved).toContainText('Not saved. The space this browser gives Focalis is full.');
  // A second edit does not hide the first.
  await page.getByLabel(/^Head turn/).fill('20');
  await page.getByLabel(/^Head turn/).press('Enter');
  await expect(height).toHaveValue('1.75 m');
  await expect(notSaved).toBeVisible();
  const download = page.waitForEvent('download');
  await notSaved.getByRole('button', { name: 'Export now' }).click();
  const stream = await (await download).createReadStream();
  const text = (await stream.toArray()).join('');
  expect(text).toContain('"statureMm":1750');
  await notSaved.getByRole('button', { name: 'Try again' }).click();
  await expect(notSaved).toBeVisible();
  // Closed in this state, nothing is lost: the next tab finds it.
  const other = await page.context().newPage();
  await openDemo(other);
  await expect(other.getByLabel('Height', { exact: true })).toHaveValue('1.75 m');
  await expect(other.getByLabel(/^Head turn/)).toHaveValue('20');
  await page.evaluate(() => (window as unknown as { room: () => void }).room());
  // It is tried again by itself.
  await saved(page);
  await expect(notSaved).toHaveCount(0);
  await page.reload();
  await expect(height).toHaveValue('1.75 m');
});

test('one damaged row is set aside and named; everything else works', async ({ page }) => {
  await openDemo(page);
  await saved(page);
  await withTable(page, 'setups', (row) => {
    if (row['id'] === 'demo-rings') row['value'] = { name: 'Rings', camera: 'gone' };
  });
  await page.reload();
  await expect(call(page)).toHaveText('f/2.8 on Ines’s near eye, from 1.5 m.');
  const notice = page.getByTestId('set-aside');
  await expect(notice).toContainText('Set aside, because it cannot be read: setup “Rings”. Everything else works.');
  const download = page.waitForEvent('download');
  await notice.getByRole('button', { name: 'Save it as a file' }).click();
  const text = (await (await (await download).createReadStream()).toArray()).join('');
  expect(text).toContain('"camera": "gone"');
  await page
    .getByRole('navigation', { name: 'Setups' })
    .getByRole('link', { name: /Under the palms/ })
    .click();
  await expect(page).toHaveTitle(/^Under the palms/);
  await notice.getByRole('button', { name: 'Close' }).click();
  await expect(notice).toHaveCount(0);
});

test('a job removed in one tab while edited in the other is offered back with the edit', async ({ page, context }) => {
  await openDemo(page);
  const other = await context.newPage();
  await openDemo(other);
  await other.getByRole('button', { name: 'Fernhall Glasshouse' }).click();
  await other.getByRole('button', { name: 'Remove this job' }).click();
  await expect(other.getByRole('button', { name: 'Quayside Brass' })).toBeVisible();
  await expect(page.getByRole('alert')).toContainText('Fernhall Glasshouse was removed. It is kept');
  await page.getByLabel('Height', { exact: true }).fill('1.8');
  await page.getByLabel('Height', { exact: true }).press('Enter');
  await saved(page);
  // In the other tab it is erased for good; here everything is still whole.
  await other.getByRole('button', { name: 'Quayside Brass' }).click();
  await other.getByRole('button', { name: 'Removed jobs' }).click();
  await other.getByRole('button', { name: 'Erase Fernhall Glasshouse now' }).click();
  await other.getByRole('button', { name: 'Erase', exact: true }).click();
  await expect(page.getByRole('alert')).toContainText('Fernhall Glasshouse was erased in another tab.');
  await page.getByRole('button', { name: 'Restore it' }).click();
  await expect(message(page)).toContainText('Fernhall Glasshouse is back');
  await page.reload();
  await expect(page.getByLabel('Height', { exact: true })).toHaveValue('1.8 m');
  await other.reload();
  await expect(other.getByRole('navigation', { name: 'Pages' })).toBeVisible();
});

test('a removed job can be restored after a reload', async ({ page }) => {
  await openDemo(page);
  await page.getByRole('button', { name: 'Fernhall Glasshouse' }).click();
  await page.getByRole('button', { name: 'Remove this job' }).click();
  await expect(page.getByRole('button', { name: 'Quayside Brass' })).toBeVisible();
  await saved(page);
  await page.reload();
  await page.getByRole('button', { name: 'Quayside Brass' }).click();
  await page.getByRole('button', { name: 'Removed jobs' }).click();
  await page.getByRole('button', { name: 'Restore Fernhall Glasshouse' }).click();
  await expect(page.getByText('Nothing has been removed.')).toBeVisible();
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Quayside Brass' }).click();
  await page.getByRole('button', { name: 'Fernhall Glasshouse', exact: true }).click();
  await expect(page.getByRole('link', { name: /^West door .*f\/2/ })).toBeVisible();
});

test('the message’s Undo takes back what it names, whatever was done since', async ({ page }) => {
  await openDemo(page);
  await page.getByRole('link', { name: 'Day', exact: true }).click();
  await page.getByRole('button', { name: 'Choose Rings' }).click();
  await page.getByRole('button', { name: 'Remove', exact: true }).click();
  const said = message(page).filter({ hasText: 'Rings removed.' });
  await expect(said).toBeVisible();
  await page.getByLabel('Job', { exact: true }).fill('Fernhall, renamed');
  await page.getByLabel('Job', { exact: true }).press('Enter');
  await said.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('link', { name: /^Rings .*f\// })).toBeVisible();
  await expect(page.getByLabel('Job', { exact: true })).toHaveValue('Fernhall, renamed');
});

test('a worker that crashes ends in a message with another go', async ({ page }) => {
  await page.addInitScript(() => {
    const Original = Worker;
    let crashes = 1;
    window.Worker = class extends Original {
      constructor(url: string | URL, options?: WorkerOptions) {
        const broken = String(url).includes('planner') && crashes-- > 0;
        const bad = URL.createObjectURL(new Blob(['throw new Error("broken")'], { type: 'text/javascript' }));
        super(broken ? bad : url, options);
      }
    };
  });
  await openDemo(page, 'Under the palms');
  await page.getByRole('tab', { name: 'Line-up' }).click();
  await expect(page.getByRole('alert')).toContainText('The calculation stopped unexpectedly.');
  await page.getByRole('button', { name: 'Try again' }).click();
  await expect(page.getByTestId('line-up')).toBeVisible();
});
