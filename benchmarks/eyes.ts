/**
 * The disc of an eye against a straightforward sharpness filter (the variance of the Laplacian, by the image library image-js) on
 * the same photographed eyes: what each costs, and how often each tells a disc from none at equal error, against strangers.
 */
import { Image } from 'image-js';
import { measureEye } from '../src/core/measure/eye';
import { degrade, photographedEyes } from '../src/core/testing/eyePatches';
import { seededNormal, seededRandom } from '../src/core/testing/random';

const eyes = photographedEyes();
const [normal, random] = [seededNormal(9), seededRandom(10)];
const laplacian = [
  [0, 1, 0],
  [1, -4, 1],
  [0, 1, 0]
];

function asImage(light: Float32Array, side: number): Image {
  const data = Uint8Array.from(light, (value) => Math.round(255 * Math.min(1, Math.max(0, value)) ** (1 / 2.2)));
  return new Image(side, side, { colorModel: 'GREY', data });
}
/** Larger is softer, as with a disc. */
function filtered(image: Image): number {
  const found = image.rawDirectConvolution(laplacian);
  const mean = found.reduce((sum, value) => sum + value, 0) / found.length;
  return -found.reduce((sum, value) => sum + (value - mean) ** 2, 0) / found.length;
}

const discs = [0, 3, 4] as const;
/** Each disc on each eye; as one file of one camera, or in files as different as those of a day. */
const patchesOf = (alike: boolean) =>
  discs.map((disc) =>
    eyes.map((eye) => {
      const between = (from: number, to: number) => (alike ? (from + to) / 2 : from + (to - from) * random());
      const how = { noise: between(0.004, 0.012), quality: Math.round(between(75, 95)), sharpen: between(0, 0.6) };
      const light = degrade(eye, { disc, normal, ...how });
      const exposure = alike ? 1 : 2 ** between(-1.5, 0.5);
      return { eye, light: light.map((value) => value * exposure) };
    })
  );
const readBy = (patches: ReturnType<typeof patchesOf>) => ({
  disc: patches.map((all) =>
    all.flatMap(({ eye, light }) => {
      const measured = measureEye(light, eye.side, eye);
      return measured.ok ? [measured.discPx] : [];
    })
  ),
  filter: patches.map((all) => all.map(({ eye, light }) => filtered(asImage(light, eye.side))))
});
const [alike, different] = [patchesOf(true), patchesOf(false)];

/** The share told rightly where as many sharp ones are missed as soft ones. */
function right(soft: readonly number[], sharp: readonly number[]): number {
  const limits = [...soft, ...sharp];
  return Math.max(
    ...limits.map((limit) =>
      Math.min(
        soft.filter((read) => read >= limit).length / soft.length,
        sharp.filter((read) => read < limit).length / sharp.length
      )
    )
  );
}

const twelve = (alike[1] ?? []).slice(0, 12);
function medianMs(work: () => void): number {
  for (let i = 0; i < 3; i++) work();
  const times = Array.from({ length: 15 }, () => {
    const start = performance.now();
    work();
    return performance.now() - start;
  }).sort((a, b) => a - b);
  return times[7] ?? NaN;
}
const images = twelve.map(({ eye, light }) => asImage(light, eye.side));
const costs = {
  disc: medianMs(() => twelve.forEach(({ eye, light }) => measureEye(light, eye.side, eye))),
  filter: medianMs(() => images.forEach((image) => filtered(image)))
};
console.table([
  { what: '12 eyes, disc with its interval', ms: costs.disc.toFixed(1), aim: '≤ 300' },
  { what: '12 eyes, variance of the Laplacian (image-js)', ms: costs.filter.toFixed(1), aim: '' }
]);
for (const [what, patches] of [
  ['in files all alike', alike],
  ['in files as different as those of a day', different]
] as const) {
  const reads = readBy(patches);
  discs.forEach((disc, index) => {
    if (disc === 0) return;
    const told = (by: readonly (readonly number[])[]) => Math.round(100 * right(by[index] ?? [], by[0] ?? []));
    console.log(`${disc} px told from none ${what}: ${told(reads.disc)} of 100, by the filter ${told(reads.filter)}`);
  });
}
console.log(`The disc costs ${(costs.disc / costs.filter).toFixed(1)} times the filter.`);
