import { describe, expect, it } from 'vitest';
import { boxMtf, diffractionMtf, discMtf, mtf50 } from '../testing/mtf';
import { seededNormal } from '../testing/random';
import { gray, type Gray } from './gray';
import numpyEdges from './numpyEdges.json';
import { slantedEdge, transposed, type EdgeFigure } from './slantedEdge';

/** Where half of a unit step lies, by its distance, for a line spread of that transfer: ½ + ∫ M(ν) sin(2πνx)/(πν) dν, by midpoints. */
function edgeSpread(mtf: (nu: number) => number): (x: number) => number {
  const [step, most] = [0.0025, 3];
  const waves = Array.from({ length: most / step }, (_, index) => {
    const nu = (index + 0.5) * step;
    return { nu, weight: (mtf(nu) * step) / (Math.PI * nu) };
  });
  const fine = 64;
  const reach = 40;
  const table = Float64Array.from({ length: 2 * reach * fine + 1 }, (_, index) => {
    const x = index / fine - reach;
    return 0.5 + waves.reduce((sum, { nu, weight }) => sum + weight * Math.sin(2 * Math.PI * nu * x), 0);
  });
  return (x) => {
    const at = Math.min(Math.max((x + reach) * fine, 0), table.length - 1.001);
    const index = Math.floor(at);
    const [from = 0, to = 0] = [table[index], table[index + 1]];
    return from + (to - from) * (at - index);
  };
}

interface Drawn {
  readonly angleDeg: number;
  readonly width?: number;
  readonly height?: number;
  readonly noise?: () => number;
}
/** An edge through the middle, from 0.18 to 0.72 in light (4 : 1). */
function edge(spread: (x: number) => number, { angleDeg, width = 60, height = 130, noise = () => 0 }: Drawn): Gray {
  const picture = gray(width, height);
  const angle = (angleDeg * Math.PI) / 180;
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const off = (x - (width - 1) / 2 + 0.21) * Math.cos(angle) - (y - (height - 1) / 2) * Math.sin(angle);
      picture.light[y * width + x] = 0.18 + 0.54 * spread(off) + noise();
    }
  return picture;
}
const measured = (picture: Gray): EdgeFigure => {
  const found = slantedEdge(picture);
  if (typeof found === 'string') throw new Error(found);
  return found;
};

/** Transfers with closed forms, cycles per pixel: all with the pixel's own box. */
const known: readonly { readonly name: string; readonly mtf: (nu: number) => number }[] = [
  ...[0.4, 0.7, 1.2, 2].map((sigma) => ({
    name: `Gaussian of ${sigma} px`,
    mtf: (nu: number) => Math.exp(-2 * (Math.PI * sigma * nu) ** 2) * boxMtf(1, nu)
  })),
  ...[1.5, 3].map((b) => ({ name: `box of ${b} px`, mtf: (nu: number) => boxMtf(b, nu) * boxMtf(1, nu) })),
  ...[1.6, 3, 5].map((b) => ({ name: `disc of ${b} px`, mtf: (nu: number) => discMtf(b, nu) * boxMtf(1, nu) })),
  // f/16 on pixels of 6 µm: ν in cycles per pixel is ν/0.006 per mm.
  { name: 'diffraction at f/16', mtf: (nu: number) => diffractionMtf(16, nu / 0.006) * boxMtf(1, nu) }
];

describe('the slanted edge', () => {
  it.each(known)('finds MTF50 of a $name within 3% at angles of 3° to 10°', ({ mtf }) => {
    const truth = mtf50(mtf);
    expect(truth).toBeLessThan(0.41);
    const spread = edgeSpread(mtf);
    for (const angleDeg of [3, -4, 5, 7.3, -10]) {
      const { mtf50: found, angleDeg: seen } = measured(edge(spread, { angleDeg }));
      expect(Math.abs(found / truth - 1), `${angleDeg}°: ${found} for ${truth}`).toBeLessThan(0.03);
      expect(Math.abs(seen - angleDeg)).toBeLessThan(0.2);
    }
  });

  it.each(known)('… within 6% with noise of 40 dB: $name', ({ mtf }) => {
    const truth = mtf50(mtf);
    const spread = edgeSpread(mtf);
    const normal = seededNormal(8);
    // A hundredth of the brighter side.
    const noise = () => 0.0072 * normal();
    for (const angleDeg of [3, 5, -8]) {
      const found = measured(edge(spread, { angleDeg, noise })).mtf50;
      expect(Math.abs(found / truth - 1), `${angleDeg}°: ${found} for ${truth}`).toBeLessThan(0.06);
    }
  });

  it('reads the same pixels as an independent script in numpy does (scripts/slanted_edge.py), within 3%', () => {
    const { width, height, edges } = numpyEdges;
    expect(edges.length).toBeGreaterThan(4);
    for (const { sigma, angleDeg, mtf50: theirs, pixels } of edges) {
      const bytes = Buffer.from(pixels, 'base64');
      const found = measured({ width, height, light: Float32Array.from(bytes, (byte) => byte / 255) });
      expect(Math.abs(found.mtf50 / theirs - 1), `${sigma} px: ${found.mtf50} for ${theirs}`).toBeLessThan(0.03);
      expect(Math.abs(found.angleDeg - angleDeg)).toBeLessThan(0.2);
    }
  });

  it('has the whole curve, not only its half', () => {
    const sigma = 0.8;
    const mtf = (nu: number) => Math.exp(-2 * (Math.PI * sigma * nu) ** 2) * boxMtf(1, nu);
    const found = measured(edge(edgeSpread(mtf), { angleDeg: 5 }));
    for (const { perPixel, contrast } of found.mtf.filter((one) => one.perPixel <= 0.4))
      expect(Math.abs(contrast - mtf(perPixel))).toBeLessThan(0.02);
  });

  it('rises over 0.687 of a disc’s diameter (closed form), and 2.563 of a Gaussian’s deviation', () => {
    const disc = measured(
      edge(
        edgeSpread((nu) => discMtf(6, nu)),
        { angleDeg: 5 }
      )
    );
    expect(disc.rise / (0.687 * 6)).toBeCloseTo(1, 1);
    const bell = measured(
      edge(
        edgeSpread((nu) => Math.exp(-2 * (Math.PI * 1.5 * nu) ** 2)),
        { angleDeg: 5 }
      )
    );
    expect(bell.rise / (2.563 * 1.5)).toBeCloseTo(1, 1);
    expect(bell.overshoot).toBeLessThan(0.01);
  });

  it('follows an edge that a lens bends, dark on either side, and lying', () => {
    const sigma = 0.9;
    const mtf = (nu: number) => Math.exp(-2 * (Math.PI * sigma * nu) ** 2) * boxMtf(1, nu);
    const spread = edgeSpread(mtf);
    const [width, height] = [60, 140];
    const bent = gray(width, height);
    for (let y = 0; y < height; y++)
      for (let x = 0; x < width; x++) {
        const v = y - height / 2;
        bent.light[y * width + x] = 0.72 - 0.54 * spread(x - 30 - 0.09 * v - 0.0005 * v * v);
      }
    expect(measured(bent).mtf50 / mtf50(mtf)).toBeCloseTo(1, 1);
    const lying = transposed(edge(spread, { angleDeg: 5 }));
    expect(measured(transposed(lying)).mtf50 / mtf50(mtf)).toBeCloseTo(1, 1);
  });

  it('sees that a picture was sharpened', () => {
    // Unsharp masking: its own blur of one pixel taken off once over.
    const mask = (nu: number) => 2 - Math.exp(-2 * (Math.PI * nu) ** 2);
    const mtf = (nu: number) => Math.exp(-2 * (Math.PI * 0.6 * nu) ** 2) * boxMtf(1, nu) * mask(nu);
    expect(measured(edge(edgeSpread(mtf), { angleDeg: 5 })).overshoot).toBeGreaterThan(0.04);
  });

  it('says why where there is nothing to measure', () => {
    const spread = edgeSpread((nu) => boxMtf(1, nu));
    expect(slantedEdge(gray(60, 130))).toBe('flat');
    expect(slantedEdge(edge(spread, { angleDeg: 5, height: 12 }))).toBe('small');
    expect(slantedEdge(edge(spread, { angleDeg: 0.5 }))).toBe('straight');
    expect(slantedEdge(edge(spread, { angleDeg: 20, width: 90 }))).toBe('askew');
    const bright = edge(spread, { angleDeg: 5 });
    expect(slantedEdge({ ...bright, light: bright.light.map((value) => value * 1.5) })).toBe('blown');
  });
});
