/**
 * The disc of an eye against a straightforward sharpness filter (the variance of the Laplacian, by the image library image-js) on
 * the same photographed eyes: what each costs, and how often each tells a disc from none at equal error, against strangers.
 */
import { Image } from 'image-js';
import { measureEye } from '../src/core/measure/eye';
import { degrade, photographedEyes } from '../src/core/testing/eyePatches';
import { seededNormal } from '../src/core/testing/random';

const eyes = photographedEyes();
const normal = seededNormal(9);
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

const patches = [0, 3, 4].map((disc) =>
  eyes.map((eye) => ({ eye, light: degrade(eye, { disc, noise: 0.008, normal, quality: 92 }) }))
);
const ways = {
  disc: patches.map((all) =>
    all.flatMap(({ eye, light }) => {
      const measured = measureEye(light, eye.side, eye);
      return measured.ok ? [measured.discPx] : [];
    })
  ),
  filter: patches.map((all) => all.map(({ eye, light }) => filtered(asImage(light, eye.side))))
};

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

const twelve = (patches[1] ?? []).slice(0, 12);
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
for (const [index, disc] of [3, 4].entries()) {
  const told = (reads: readonly (readonly number[])[]) =>
    Math.round(100 * right(reads[index + 1] ?? [], reads[0] ?? []));
  console.log(`A disc of ${disc} px told from none: ${told(ways.disc)} of 100, by the filter ${told(ways.filter)}`);
}
console.log(`The disc costs ${(costs.disc / costs.filter).toFixed(1)} times the filter.`);
