/** The renderer in Debian's Chromium, in software: time to a first image and to 64 looks, bytes shipped, memory. */
import { readdirSync, statSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { chromium } from '@playwright/test';
import { call, openProof } from '../tests/proof/page';

const root = process.env['FOCALIS_ROOT'] ?? fileURLToPath(new URL('..', import.meta.url));
const models = join(root, 'static/models');

const files = readdirSync(models);
const bytes = files.reduce((sum, file) => sum + statSync(join(models, file)).size, 0);
console.log(
  `\nFigures and places: ${files.length} files, ${(bytes / 1e6).toFixed(2)} MB in all (aim: under 3 MB, fetched as needed)`
);

const browser = await chromium.launch({
  executablePath: process.env['CHROMIUM_PATH'] ?? '/usr/bin/chromium',
  args: ['--no-sandbox', '--use-angle=swiftshader', '--enable-unsafe-swiftshader']
});
const page = await browser.newPage();
await openProof(page);
for (const name of ['West door', 'Under the palms', 'Family on the steps', 'Forty years']) {
  // Once to compile and fetch, then measured.
  await call(page, 'show', { name, width: 620, views: 2 });
  const { times } = await call(page, 'show', { name, width: 620, views: 64 });
  const first = Math.round(times['quick'] ?? 0);
  const each = Math.round((times['views'] ?? 0) / 64);
  console.log(
    `${name}, 620 px wide: first image ${first} ms (aim 150), a look ${each} ms, 64 looks ${((times['views'] ?? 0) / 1000).toFixed(1)} s; the first image against 64 looks 1 : ${Math.round((times['views'] ?? 0) / Math.max(1, first))}`
  );
}
const { before, after } = await call(page, 'many', 'Under the palms', 200);
console.log(`200 changes: ${JSON.stringify(before)} before, ${JSON.stringify(after)} after`);
await browser.close();
