import { median } from 'd3-array';
import { describe, expect, it } from 'vitest';
import { degrade, enlargedPatch, photographedEyes, renderedEyes, type Eye } from '../testing/eyePatches';
import { seededNormal } from '../testing/random';
import { enlargements } from './enlarged';
import { isEnlarged, measureEye } from './eye';

const normal = seededNormal(31);
const eyes = [...photographedEyes().slice(0, 8), ...renderedEyes().filter((_, index) => index % 6 === 0)];
const camera = { noise: 0.008, normal, quality: 92, camera: 0.5 };
/** More about the eye than is measured, for what interpolation draws from. */
const around = 24;
const twice = (eye: Eye, disc: number) => {
  const side = eye.side + around;
  const light = enlargedPatch(degrade({ ...eye, side }, { disc, ...camera }), side, {
    times: 2,
    quality: 90,
    wanted: 2 * eye.side
  });
  return measureEye(light, 2 * eye.side, { eyesPx: 2 * eye.eyesPx, rollDeg: eye.rollDeg });
};

describe('a file that was enlarged', () => {
  it('does not make soft eyes surely sharp: twice as large, six pixels stay twelve', () => {
    const read = eyes.map((eye) => twice(eye, 6));
    const told = read.flatMap((eye) => (eye.ok ? [eye] : []));
    expect(told.length).toBeGreaterThan(0.9 * eyes.length);
    expect(told.filter(({ high }) => high < 7)).toEqual([]);
    expect(Math.abs((median(told, ({ discPx }) => discPx) ?? 0) - 12)).toBeLessThan(1.5);
    expect(isEnlarged(read)).toBe(true);
  });

  it('is not taken for one as a camera gave it, sharp or soft', () => {
    for (const disc of [0, 3, 6, 9])
      expect(isEnlarged(eyes.map((eye) => measureEye(degrade(eye, { disc, ...camera }), eye.side, eye)))).toBe(false);
  });

  it('has lost what is finer than two of its old pixels', () => {
    for (const { times, log, noiseShare } of enlargements) {
      expect(noiseShare).toBeLessThan(1 / times);
      // The coarsest waves are all there, of the finest across a hundredth at most where the file is twice as large.
      expect(log[0]).toBeGreaterThan(-0.1);
      if (times >= 2) expect(log[15]).toBeLessThan(Math.log(0.02));
    }
  });
});
