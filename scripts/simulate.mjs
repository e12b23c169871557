// npm run simulate -- --setup demo-family-steps --frames 12 --seed 1 --out folder [--calm] [--job file]
// The simulated camera shoots a setup of the demo, or of a job file: files, and the truth of each, into a folder.
import { mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { parseArgs } from 'node:util';
import { unzipSync } from 'fflate';
import { browsing } from './browsing.mjs';

const { values } = parseArgs({
  options: {
    setup: { type: 'string', default: 'demo-family-steps' },
    frames: { type: 'string', default: '12' },
    seed: { type: 'string', default: '1' },
    out: { type: 'string', default: 'frames' },
    job: { type: 'string' },
    calm: { type: 'boolean', default: false }
  }
});
const { base, browser, end } = await browsing('4187');
try {
  const page = await browser.newPage({ acceptDownloads: true });
  page.on('console', (message) => message.type() === 'error' && console.error(message.text()));
  await page.goto(`${base}/setup/${values.job ? 'demo-west-door' : values.setup}`);
  await page.getByTestId('call').waitFor();
  if (values.job) {
    await page.getByLabel('Job file').setInputFiles(values.job);
    await page.waitForURL(new RegExp(`/setup/${values.setup}`));
  }
  await page.getByRole('link', { name: 'Frames' }).click();
  await page.getByRole('button', { name: 'Simulate a burst' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('Setup').selectOption(values.setup);
  for (const [label, value] of [
    ['Frames', values.frames],
    ['Seed', values.seed]
  ]) {
    await dialog.getByLabel(label, { exact: true }).fill(value);
    await dialog.getByLabel(label, { exact: true }).press('Enter');
  }
  if (values.calm) await dialog.getByRole('checkbox').uncheck();
  await dialog.getByRole('button', { name: 'Shoot' }).click();
  const began = Date.now();
  const told = setInterval(() => {
    const bar = dialog.getByRole('status').locator('[style*=width]').first();
    void bar.getAttribute('style', { timeout: 1000 }).then(
      (style) => console.log(style),
      () => undefined
    );
  }, 15_000);
  const done = dialog.getByRole('button', { name: 'Save files and answer key' });
  await done.or(dialog.getByRole('alert')).waitFor({ timeout: 3_600_000 });
  if (await dialog.getByRole('alert').isVisible()) throw new Error(await dialog.getByRole('alert').innerText());
  clearInterval(told);
  const [download] = await Promise.all([page.waitForEvent('download'), done.click()]);
  const chunks = [];
  for await (const chunk of await download.createReadStream()) chunks.push(chunk);
  mkdirSync(values.out, { recursive: true });
  for (const [name, bytes] of Object.entries(unzipSync(Buffer.concat(chunks))))
    writeFileSync(join(values.out, name), bytes);
  console.log(`${values.frames} frames in ${Math.round((Date.now() - began) / 1000)} s into ${values.out}`);
} finally {
  await end();
}
