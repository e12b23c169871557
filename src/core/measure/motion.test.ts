import { describe, expect, it } from 'vitest';
import {
  behindGlasses,
  degrade,
  facesOf,
  photographedEyes,
  referenceWithout,
  renderedEyes,
  type Degraded,
  type Eye
} from '../testing/eyePatches';
import { seededNormal, seededRandom } from '../testing/random';
import { expectedOf } from './eye';
import { likeliestMovement, movementEvidence, movementsIn, type Evidence } from './motion';
import { spectrumOf } from './spectrum';

const random = seededRandom(21);
const normal = seededNormal(22);
/** Both eyes of each face; each person left out of what is expected. */
const [real, drawn] = [facesOf(photographedEyes()), facesOf(renderedEyes()).filter((_, index) => index % 2 === 0)];
const faces = [...real, ...drawn];
const evidenceOf = (eyes: readonly Eye[], how: Partial<Degraded>): Evidence[] =>
  eyes.flatMap((eye) => {
    const light = degrade(eye, { disc: 0, noise: 0.004 + 0.008 * random(), normal, quality: 90, camera: 0.5, ...how });
    return movementEvidence(spectrumOf(light, eye.side), expectedOf(eye, referenceWithout(eye))) ?? [];
  });
const share = (found: readonly unknown[]) => found.filter(Boolean).length / found.length;
const alone = (eyes: readonly Eye[], how: Partial<Degraded>) => movementsIn([evidenceOf(eyes, how)])[0] ?? null;

describe('a movement', () => {
  it('is not seen in one still face of twenty: sharp, soft, or behind glasses', () => {
    expect(share(faces.map((eyes) => alone(eyes, { disc: 0.5 })))).toBeLessThan(1 / 20);
    expect(share(faces.map((eyes) => alone(eyes, { disc: 6 })))).toBeLessThan(1 / 20);
    const glazed = faces.map((eyes) => eyes.map((eye) => behindGlasses(eye, random)));
    expect(share(glazed.map((eyes) => alone(eyes, {})))).toBeLessThan(1 / 20);
  });

  it('of ten pixels is seen in most faces, with its direction and its length', () => {
    const tried = faces.map((eyes) => {
      const angle = Math.PI * random();
      const found = alone(eyes, { disc: 1, smear: { px: 10, angle } });
      const off = Math.abs((found?.angle ?? NaN) - angle);
      return { found, offDeg: (Math.min(off, Math.PI - off) * 180) / Math.PI };
    });
    const found = (of: readonly unknown[]) =>
      share(tried.filter((_, at) => of.includes(faces[at])).map((one) => one.found));
    expect(found(drawn)).toBeGreaterThan(0.9);
    expect(found(real)).toBeGreaterThan(0.6);
    const said = tried.flatMap(({ found, offDeg }) => (found ? [{ px: found.px, offDeg }] : []));
    expect(share(said.map(({ offDeg }) => offDeg < 22.5))).toBeGreaterThan(0.9);
    expect(share(said.map(({ px }) => Math.abs(px - 10) <= 4))).toBeGreaterThan(0.6);
  });

  it('of the camera shows in all faces of a frame: five pixels are enough, where few faces tell for themselves', () => {
    const angle = 0.6;
    const evidence = [...real.slice(0, 4), ...drawn.slice(0, 2)].map((eyes) =>
      evidenceOf(eyes, { disc: 2, smear: { px: 5, angle } })
    );
    const apart = evidence.map((eyes) => movementsIn([eyes])[0]);
    const frame = movementsIn(evidence);
    expect(share(apart)).toBeLessThan(0.7);
    expect(share(frame)).toBe(1);
    expect(new Set(frame.map((found) => found?.angle)).size).toBe(1);
  });

  it('of one is not put down to those beside them, nor to the camera', () => {
    const evidence = faces
      .slice(-6)
      .map((eyes, index) => evidenceOf(eyes, index === 2 ? { disc: 1, smear: { px: 10, angle: 2 } } : { disc: 1 }));
    expect(movementsIn(evidence).map(Boolean)).toEqual([false, false, true, false, false, false]);
  });

  it('is nothing where nothing was seen', () => {
    expect(movementsIn([])).toEqual([]);
    expect(movementsIn([[], []])).toEqual([null, null]);
    expect(likeliestMovement([])).toBeNull();
  });
});
