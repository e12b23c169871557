/**
 * Sharp eyes of frames of the simulated camera, as patches in a row: npx tsx scripts/renderedEyes.ts folder …
 * Each folder is one that `npm run simulate -- --calm` has filled.
 */
import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import jpeg from 'jpeg-js';
import { PNG } from 'pngjs';
import type { FrameTruth } from '../src/lib/frames/burst';

const room = 104;
const out = join(import.meta.dirname, '../src/core/testing');
const patches: { person: string; eyesPx: number; rollDeg: number; at: (x: number, y: number, c: number) => number }[] =
  [];
for (const folder of process.argv.slice(2)) {
  const truths = JSON.parse(readFileSync(join(folder, 'truth.json'), 'utf8')) as FrameTruth[];
  for (const truth of truths) {
    const picture = jpeg.decode(readFileSync(join(folder, truth.file)), { useTArray: true, maxMemoryUsageInMB: 2048 });
    for (const { id, left, right, of } of truth.heads) {
      const eyesPx = Math.hypot(left.x - right.x, left.y - right.y);
      if (of.eyesOpen === false || of.covered || eyesPx < 46 || eyesPx > 90) continue;
      for (const eye of [left, right]) {
        const [x0, y0] = [Math.round(eye.x - room / 2), Math.round(eye.y - room / 2)];
        const inside = x0 >= 0 && y0 >= 0 && x0 + room <= picture.width && y0 + room <= picture.height;
        if (Math.abs(eye.discPx) > 0.7 || !inside) continue;
        const rollDeg = (Math.atan2(left.y - right.y, left.x - right.x) * 180) / Math.PI;
        patches.push({
          person: id,
          eyesPx: Math.round(eyesPx * 10) / 10,
          rollDeg: Math.round(rollDeg * 10) / 10,
          at: (x, y, c) => picture.data[((y0 + y) * picture.width + x0 + x) * 4 + c] ?? 0
        });
      }
    }
  }
}
const png = new PNG({ width: room * patches.length, height: room });
patches.forEach(({ at }, index) => {
  for (let y = 0; y < room; y++)
    for (let x = 0; x < room; x++)
      for (let c = 0; c < 4; c++) png.data[(y * png.width + index * room + x) * 4 + c] = c === 3 ? 255 : at(x, y, c);
});
writeFileSync(join(out, 'renderedEyes.png'), PNG.sync.write(png));
writeFileSync(
  join(out, 'renderedEyes.json'),
  `${JSON.stringify(
    patches.map(({ person, eyesPx, rollDeg }) => ({ person, eyesPx, rollDeg })),
    null,
    1
  )}\n`
);
console.log(`${patches.length} eyes of ${new Set(patches.map(({ person }) => person)).size} people`);
