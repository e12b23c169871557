/**
 * Eyes in files that were enlarged, as the table of docs/model.md: npx tsx scripts/enlarged.ts [seed]
 * People left out of the reference, through a camera's own steps, then cubic interpolation and JPEG 90. Discs in pixels before.
 */
import { quantile } from 'd3-array';
import { isEnlarged, measureEye, type EyeMeasured } from '../src/core/measure/eye';
import {
  degrade,
  enlargedPatch,
  filesOf,
  photographedEyes,
  renderedEyes,
  type Eye
} from '../src/core/testing/eyePatches';
import { seededNormal, seededRandom } from '../src/core/testing/random';

const seed = Number(process.argv[2] ?? 1);
const random = seededRandom(seed);
const normal = seededNormal(seed + 1);
const files = filesOf(random);
const eyes = [...photographedEyes(), ...renderedEyes().filter((_, index) => index % 2 === 0)];
/** More about the eye than is measured, for what interpolation draws from. */
const around = 24;

function measured(eye: Eye, disc: number, times: number): EyeMeasured {
  const camera = { ...files.B(), normal };
  if (times === 1) return measureEye(degrade(eye, { disc, ...camera }), eye.side, eye);
  const side = Math.min(eye.room - 8, eye.side + around);
  const patch = degrade({ ...eye, side }, { disc, ...camera });
  const wanted = 2 ** Math.floor(Math.log2(side * times));
  const light = enlargedPatch(patch, side, { times, quality: 90, wanted });
  return measureEye(light, wanted, { eyesPx: eye.eyesPx * times, rollDeg: eye.rollDeg });
}

console.log('| times | disc | read, median | nine of ten above | surely sharp (under 3.5) | said of six eyes |');
console.log('| --- | --- | --- | --- | --- | --- |');
for (const times of [1, 1.5, 2, 3])
  for (const disc of [0, 3, 6, 9]) {
    const read = eyes.map((eye) => measured(eye, disc, times));
    const told = read.flatMap((eye) => (eye.ok ? [eye] : []));
    const discs = told.map(({ discPx }) => discPx / times);
    const sixes = Array.from({ length: 40 }, () =>
      Array.from({ length: 6 }, () => read[Math.floor(random() * read.length)])
    );
    const said = sixes.filter((six) => isEnlarged(six.flatMap((eye) => eye ?? []))).length / sixes.length;
    const share = (part: number) => `${Math.round(100 * part)}%`;
    const sharp = told.filter(({ high }) => high / times < 3.5).length / told.length;
    console.log(
      `| ${times} | ${disc} | ${(quantile(discs, 0.5) ?? 0).toFixed(1)} | ${(quantile(discs, 0.1) ?? 0).toFixed(1)} | ${share(sharp)} | ${share(said)} |`
    );
  }
