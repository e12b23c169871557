/**
 * How many specks are found in noisy skies, and how many that are none: npx tsx scripts/dust.ts [seed]
 * Skies of 3000 by 2000 pixels with dark corners, noise as of ISO 800 to 3200 (shot noise, in eight bits), six specks each; and
 * the same with soft clouds.
 */
import { findSpots } from '../src/core/bench/spots';
import { spotShot } from '../src/core/bench/simulate';
import { encoded, linearOf } from '../src/core/simulation/sensor';
import { seededNormal, seededRandom } from '../src/core/testing/random';

const seed = Number(process.argv[2] ?? 1);
const random = seededRandom(seed);
const normal = seededNormal(seed + 1);
const lens = { focalLengthMm: 50, pixelMm: 0.012, width: 3000, height: 2000 };
const asked = { fNumber: 16, widthMm: lens.width * lens.pixelMm };
const trials = 10;

console.log('| sky | specks found | of | false a frame |\n| --- | --- | --- | --- |');
for (const sky of ['plain', 'clouds'] as const) {
  let [found, of, none] = [0, 0, 0];
  for (let trial = 0; trial < trials; trial++) {
    const specks = Array.from({ length: 6 }, () => ({
      x: 0.05 + 0.9 * random(),
      y: 0.05 + 0.9 * random(),
      mm: 0.03 + 0.04 * random()
    }));
    const exposure = 0.25 + 0.3 * random();
    const rest = { vignetting: 0.4 + 0.25 * random(), uneven: 0.2 * random(), exposure };
    const picture = spotShot({ lens, fNumber: 16, specks, heightMm: 1.3, rest, noise: 0 }, seededRandom(trial));
    // Two to five parts in a hundred at middle grey.
    const shot = 0.0036 * 2 ** (1.3 * random());
    const waves = Array.from({ length: 12 }, () => ({
      x: (random() - 0.5) * 60,
      y: (random() - 0.5) * 60,
      phase: 6.3 * random(),
      share: 0.02 * random()
    }));
    const { width, height } = lens;
    for (let y = 0; y < height; y++)
      for (let x = 0; x < width; x++) {
        const at = y * width + x;
        let light = picture.light[at] ?? 0;
        if (sky === 'clouds')
          for (const wave of waves) light *= 1 + wave.share * Math.sin((wave.x * x + wave.y * y) / width + wave.phase);
        const noisy = light + shot * Math.sqrt(light / 0.18) * normal();
        picture.light[at] = linearOf(Math.round(255 * encoded(Math.min(1, Math.max(0, noisy)))) / 255);
      }
    const told = findSpots(picture, asked);
    of += specks.length;
    if (typeof told === 'string') {
      console.log(sky, trial, told);
      continue;
    }
    const isSpeck = (spot: { x: number; y: number }) =>
      specks.some(({ x, y }) => Math.hypot((spot.x - x) * 1.5, spot.y - y) < 0.008);
    found += specks.filter(({ x, y }) =>
      told.spots.some((spot) => Math.hypot((spot.x - x) * 1.5, spot.y - y) < 0.008)
    ).length;
    none += told.spots.filter((spot) => !isSpeck(spot)).length;
  }
  console.log(`| ${sky} | ${found} | ${of} | ${(none / trials).toFixed(1)} |`);
}
