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
// As large as in the Finder: 620 × 414 wide, 276 × 414 tall.
const pictures = { 'West door': 276, 'Under the palms': 620, 'Family on the steps': 620, 'Forty years': 620 } as const;
for (const [name, width] of Object.entries(pictures)) {
  // Once to compile and fetch, then measured.
  await call(page, 'show', { name, width, views: 2 });
  const firsts: number[] = [];
  for (let n = 0; n < 5; n++) firsts.push((await call(page, 'show', { name, width, views: 0 })).times['quick'] ?? 0);
  const first = firsts.sort((a, b) => a - b)[2] ?? 0;
  const all = (await call(page, 'show', { name, width, views: 64 })).times['views'] ?? 0;
  console.log(
    `${name}, ${width} px wide: first image ${Math.round(first)} ms (median of 5, aim 150), a look ${Math.round(all / 64)} ms, 64 looks ${(all / 1000).toFixed(1)} s; the first image against 64 looks 1 : ${Math.round(all / Math.max(1, first))}`
  );
}
const { before, after } = await call(page, 'many', 'Under the palms', 200);
console.log(`200 changes: ${JSON.stringify(before)} before, ${JSON.stringify(after)} after`);
await browser.close();
