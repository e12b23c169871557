/**
 * Sheets in pictures of 24 megapixels: found and measured, in one thread, without decoding. Beside it the plainest reading of an edge, the
 * steepest step of one row, which needs no more than the difference of neighbours: what it costs, and how far it is off.
 */
import { measureEdgeFrame } from '../src/core/bench/edgeFrame';
import { measureFocusFrame } from '../src/core/bench/focusFrame';
import { gray, type Gray } from '../src/core/bench/gray';
import { isRefused } from '../src/core/bench/refused';
import { edgeShot, focusShot } from '../src/core/bench/simulate';
import { seededRandom } from '../src/core/maths/random';
import { boxMtf, mtf50 } from '../src/core/testing/mtf';

const rounds = 5;
function median(work: () => unknown): number {
  const times = Array.from({ length: rounds }, () => {
    const start = performance.now();
    work();
    return performance.now() - start;
  }).sort((a, b) => a - b);
  return times[Math.floor(rounds / 2)] ?? NaN;
}

const sigma = 0.8;
const lens = { focalLengthMm: 50, pixelMm: 0.006, width: 6000, height: 4000 };
const wall = edgeShot(
  { lens, fNumber: 4, distanceMm: 2000, rest: { blurPx: { centre: sigma, corner: sigma } } },
  seededRandom(1)
);
const truth = mtf50((nu) => Math.exp(-2 * (Math.PI * sigma * nu) ** 2) * boxMtf(1, nu)) / lens.pixelMm;
const found = measureEdgeFrame(wall, lens);
if (isRefused(found)) throw new Error(found.problem);
const off = (values: readonly number[]) => {
  const errors = values.map((value) => Math.abs(value / truth - 1)).sort((a, b) => a - b);
  return `${(100 * (errors[Math.floor(errors.length / 2)] ?? NaN)).toFixed(1)} %`;
};
/** Width of one row's step, as if it were a Gaussian's. */
const plain = (): number[] =>
  found.edges
    .filter(({ stands }) => stands)
    .map(({ x, y }) => {
      const row = Math.round(y) * wall.width;
      const steps = Array.from({ length: 40 }, (_, index) =>
        Math.abs(
          (wall.light[row + Math.round(x) + index - 19] ?? 0) - (wall.light[row + Math.round(x) + index - 20] ?? 0)
        )
      );
      const wide = steps.reduce((sum, step) => sum + step, 0) / Math.max(...steps) / Math.sqrt(2 * Math.PI);
      return mtf50((nu) => Math.exp(-2 * (Math.PI * wide * nu) ** 2)) / lens.pixelMm;
    });

/** In the middle of a picture of 24 megapixels. */
function within({ width, height, light }: Gray): Gray {
  const all = gray(6000, 4000);
  all.light.fill(0.2);
  for (let y = 0; y < height; y++) all.light.set(light.subarray(y * width, (y + 1) * width), (1500 + y) * 6000 + 2000);
  return all;
}
const small = { focalLengthMm: 85, pixelMm: 0.006, width: 2000, height: 1500 };
const sheet = within(
  focusShot({ lens: small, fNumber: 1.4, distanceMm: 2000, leanDeg: 45, errorUm: 15 }, seededRandom(2)).picture
);
const asked = { ...small, width: 6000, height: 4000 };

const [edges, row, focus] = [
  median(() => measureEdgeFrame(wall, lens)),
  median(plain),
  median(() => measureFocusFrame(sheet, asked, 1.4))
];
console.table([
  {
    what: `24 MP, nine pages, ${found.edges.length} edges`,
    ms: edges.toFixed(0),
    aim: '2000',
    error: off(found.edges.map(({ lpPerMm }) => lpPerMm))
  },
  {
    what: 'the steepest step of one row, edges known',
    ms: row.toFixed(2),
    aim: `ratio ${(edges / row).toFixed(0)}`,
    error: off(plain())
  },
  { what: '24 MP, focus sheet', ms: focus.toFixed(0), aim: '2000', error: '' }
]);
