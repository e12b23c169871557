/**
 * How often the focus sheet is found, and whether it is ever misread: npx tsx scripts/sheets.ts [frames] [group, from 1] [first frame]. Each frame has a
 * seed of its own; within the limits of the Bench, and outside them. The table of docs/model.md, section 14.
 */
import { measureFocusFrame } from '../src/core/bench/focusFrame';
import { gray, type Gray } from '../src/core/bench/gray';
import { isRefused } from '../src/core/bench/refused';
import { focusShot, type FocusScene } from '../src/core/bench/simulate';
import { seededRandom } from '../src/core/maths/random';

const frames = Number(process.argv[2] ?? 100);
const only = Number(process.argv[3] ?? 0);
const from = Number(process.argv[4] ?? 0);
let random = seededRandom(0);
const between = (least: number, most: number) => least + (most - least) * random();
const either = () => (random() < 0.5 ? -1 : 1);

/** Found and right: within a millimetre, or 0.15 of how deep it is sharp (about 2 N C s²/f²). */
const allowed = ({ lens, fNumber, distanceMm }: FocusScene) =>
  Math.max(1, (0.15 * 2 * fNumber * 0.03 * distanceMm ** 2) / lens.focalLengthMm ** 2);

function sceneOf(tilt: readonly [number, number]): FocusScene {
  const distanceMm = between(1400, 2400);
  const focalLengthMm = 85;
  // Of the sensor the part the sheet fills, at 3.4 to 4.2 pixels a mm.
  const perMm = between(3.4, 4.2);
  const pixelMm = focalLengthMm / (distanceMm - focalLengthMm) / perMm;
  const [width, height] = [Math.ceil(285 * perMm), Math.ceil(232 * perMm)];
  return {
    lens: { focalLengthMm, pixelMm, width, height },
    fNumber: 1.4,
    distanceMm,
    leanDeg: between(35, 55),
    shiftMm: between(-10, 10),
    tiltDeg: tilt,
    errorUm: between(-25, 25),
    noise: between(0.002, 0.02),
    rest: {
      vignetting: between(0, 0.5),
      uneven: between(-0.4, 0.4),
      exposure: between(0.35, 0.78),
      distortion: between(-0.03, 0.03),
      blurPx: { centre: between(0.3, 0.9), corner: between(0.4, 1.2) }
    }
  };
}
const cut = ({ width, height, light }: Gray, share: number): Gray => {
  const part = gray(Math.floor(width * share), height);
  for (let y = 0; y < height; y++) part.light.set(light.subarray(y * width, y * width + part.width), y * part.width);
  return part;
};

let group = 0;
function tried(name: string, make: () => { readonly scene: FocusScene; readonly change?: (picture: Gray) => Gray }) {
  if (++group !== only && only > 0) return;
  const told = new Map<string, number>();
  for (let frame = from; frame < from + frames; frame++) {
    random = seededRandom(100_000 * group + frame);
    const { scene, change = (picture: Gray) => picture } = make();
    const { picture, offsetMm } = focusShot(scene, random);
    const seen = change(picture);
    const { width, height } = seen;
    const found = measureFocusFrame(seen, { ...scene.lens, width, height }, scene.fNumber);
    const what = isRefused(found)
      ? found.problem
      : Math.abs(found.offsetMm - offsetMm) <= allowed(scene)
        ? 'right'
        : 'misread';
    told.set(what, (told.get(what) ?? 0) + 1);
    if (group === 1 && what !== 'right')
      console.log(frame, what, isRefused(found) ? found.by : { ...found, offsetMm, allowed: allowed(scene) }, scene);
  }
  console.log(name.padEnd(44), [...told].map(([what, count]) => `${what} ${count}`).join(', '));
}

const small = () => [between(-1.5, 1.5), between(-1.5, 1.5)] as const;
tried('square within 1.5 degrees', () => ({ scene: sceneOf(small()) }));
tried('turned by 3 to 5 degrees', () => ({ scene: sceneOf([0, either() * between(3, 5)]) }));
tried('turned by 8 to 30 degrees', () => ({ scene: sceneOf([0, either() * between(8, 30)]) }));
tried('cut off at the right', () => ({
  scene: sceneOf(small()),
  change: (picture) => cut(picture, between(0.4, 0.85))
}));
tried('all of it behind the plane', () => ({ scene: { ...sceneOf(small()), shiftMm: between(75, 120) } }));
