/**
 * Pictures of 24 megapixels brought in, in Debian's Chromium on the built application: dropped, decoded, faces found, eyes measured,
 * kept. Six large faces, and sixty small ones; made from the test frames. And a table of a thousand frames, scrolled.
 */
import { spawn } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromium } from '@playwright/test';
import jpeg from 'jpeg-js';

const port = 4186;
const base = `http://127.0.0.1:${port}`;
const root = process.env['FOCALIS_ROOT'] ?? '.';
const folder = mkdtempSync(join(tmpdir(), 'focalis-bench-'));
const [width, height] = [6000, 4000];
const rounds = 4;

const { data, ...from } = jpeg.decode(readFileSync(join(root, 'tests/frames/FOC_0211.JPG')), {
  useTArray: true,
  maxMemoryUsageInMB: 2048
});
/** The test frame, so often across and down, as one picture of 24 megapixels. */
function tiled(across: number, down: number, name: string, quality: number): string {
  const out = Buffer.alloc(width * height * 4, 255);
  const scale = Math.max((from.width * across) / width, (from.height * down) / height);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const sx = Math.floor((x % Math.floor(width / across)) * scale);
      const sy = Math.floor((y % Math.floor(height / down)) * scale);
      if (sx >= from.width || sy >= from.height) continue;
      data.slice((sy * from.width + sx) * 4, (sy * from.width + sx) * 4 + 3).forEach((value, channel) => {
        out[(y * width + x) * 4 + channel] = value;
      });
    }
  const file = join(folder, name);
  writeFileSync(file, jpeg.encode({ data: out, width, height }, quality).data);
  return file;
}

const server = spawn('node', ['scripts/start.mjs', '--port', String(port)], { stdio: 'pipe', cwd: root });
await new Promise((resolve) =>
  server.stdout.on('data', (text) => String(text).includes('Focalis is at') && resolve(0))
);
const browser = await chromium.launch({
  executablePath: process.env['CHROMIUM_PATH'] ?? '/usr/bin/chromium',
  args: ['--no-sandbox', '--disable-gpu', '--disable-quic', '--no-first-run']
});
try {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await page.goto(`${base}/setup/demo-west-door`);
  await page.getByTestId('call').waitFor();
  await page.getByLabel('Job file').setInputFiles(join(root, 'tests/frames/six.focalis.json'));
  await page.waitForURL(/six-on-the-steps/);
  await page.getByRole('link', { name: 'Frames' }).click();
  await page.getByRole('heading', { level: 1 }).waitFor();
  for (const { what, across, down, aim } of [
    { what: '6 large faces', across: 1, down: 1, aim: '1.5 s' },
    { what: '60 small faces', across: 4, down: 3, aim: '8 s' }
  ]) {
    const times: number[] = [];
    let faces = 0;
    for (let round = 0; round < rounds; round++) {
      const file = tiled(across, down, `BENCH_${across}${round}.JPG`, 88 + round);
      const before = performance.now();
      await page.getByLabel('Pictures').setInputFiles(file);
      await page.getByText('One picture brought in.').waitFor({ timeout: 180_000 });
      times.push(performance.now() - before);
      await page.getByRole('button', { name: 'Done' }).click();
      faces = await page.evaluate(
        () =>
          new Promise<number>((resolve) => {
            const opened = indexedDB.open('focalis');
            opened.onsuccess = () => {
              const all = opened.result.transaction('frames').objectStore('frames').getAll();
              all.onsuccess = () => {
                opened.result.close();
                const rows = all.result as { value: { faces: unknown[] } }[];
                resolve(rows[rows.length - 1]?.value.faces.length ?? 0);
              };
            };
          })
      );
    }
    // The first also fetches the detector.
    const [first, ...rest] = times;
    const median = [...rest].sort((a, b) => a - b)[Math.floor(rest.length / 2)] ?? 0;
    const seconds = (ms: number | undefined) => ((ms ?? 0) / 1000).toFixed(1);
    console.log(
      `24 MP, ${what} (${faces} found in the last): ${seconds(median)} s (aim ${aim}), the first ${seconds(first)} s`
    );
  }
} finally {
  await browser.close();
  server.kill();
  rmSync(folder, { recursive: true, force: true });
}
