import { describe, expect, it } from 'vitest';
import { seededRandom } from '../testing/random';
import { gray, type Gray } from './gray';
import { sharedArea, spotShot, type Speck, type SpotScene } from './simulate';
import { findSpots, showsFrom, type Spots } from './spots';

const lens = { focalLengthMm: 50, pixelMm: 0.018, width: 1000, height: 666 };
const asked = { fNumber: 16, widthMm: lens.width * lens.pixelMm };
const heightMm = 1.3;
const specks: readonly Speck[] = [
  { x: 0.2, y: 0.3, mm: 0.06 },
  { x: 0.7, y: 0.25, mm: 0.035 },
  { x: 0.55, y: 0.8, mm: 0.028 },
  { x: 0.9, y: 0.6, mm: 0.045 },
  { x: 0.1, y: 0.9, mm: 0.03 }
];
const scene = (changes: Partial<SpotScene> = {}): SpotScene => ({
  lens,
  fNumber: 16,
  specks,
  heightMm,
  rest: { vignetting: 0.35, uneven: 0.2 },
  ...changes
});
const found = (one: SpotScene, seed = 1): Spots => {
  const told = findSpots(spotShot(one, seededRandom(seed)), { ...asked, fNumber: one.fNumber });
  if (typeof told === 'string') throw new Error(told);
  return told;
};

describe('dust on the sensor', () => {
  it('is found where it lies, each speck as large as it is, and none where there is none', () => {
    const { spots, heightMm: told } = found(scene());
    expect(spots).toHaveLength(specks.length);
    for (const { x, y, mm } of specks) {
      const own = spots.find((spot) => Math.hypot(spot.x - x, spot.y - y) < 0.004);
      expect(own?.speckMm).toBeGreaterThan(0.8 * mm);
      expect(own?.speckMm).toBeLessThan(1.2 * mm);
    }
    expect(told / heightMm).toBeGreaterThan(0.75);
    expect(told / heightMm).toBeLessThan(1.25);
    expect(found(scene({ specks: [] })).spots).toEqual([]);
  });

  it('shows from the stop on at which it shows: drawn again there it takes the light one sees, a stop wider less', () => {
    for (const spot of found(scene()).spots) {
      const speck = specks.find(({ x, y }) => Math.hypot(spot.x - x, spot.y - y) < 0.004);
      // By the closed form of two discs: what a speck takes of its cone in the middle.
      const taken = (N: number) => {
        const cone = heightMm / N;
        return sharedArea(speck?.mm ?? 0, cone, 0) / (Math.PI * (cone / 2) ** 2);
      };
      expect(taken(spot.showsFrom * 2 ** 0.5)).toBeGreaterThan(0.02);
      expect(taken(spot.showsFrom / 2 ** 0.5)).toBeLessThan(0.02);
    }
    expect(showsFrom(0.05, 1)).toBeCloseTo(Math.SQRT2 * 2, 6);
  });

  it('is the same dust at another small stop', () => {
    const wide = found(scene({ fNumber: 11 })).spots;
    const small = found(scene({ fNumber: 22 })).spots;
    expect(small).toHaveLength(specks.length);
    expect(wide.length).toBeGreaterThanOrEqual(3);
    for (const spot of wide) {
      const same = small.find((one) => Math.hypot(one.x - spot.x, one.y - spot.y) < 0.004);
      expect((same?.speckMm ?? 0) / spot.speckMm).toBeGreaterThan(0.75);
      expect((same?.speckMm ?? 0) / spot.speckMm).toBeLessThan(1.33);
    }
  });

  it('sees no dust in the noise of dark corners, and what lies there all the same', () => {
    const dim = { rest: { vignetting: 0.65, uneven: 0.2, exposure: 0.3 }, noise: 0.012 };
    expect(found(scene({ ...dim, specks: [] })).spots).toEqual([]);
    expect(found(scene({ ...dim, specks: [{ x: 0.08, y: 0.08, mm: 0.06 }] })).spots).toHaveLength(1);
  });

  it('says what cannot be looked at', () => {
    const of = (picture: Gray, fNumber = 16) => findSpots(picture, { ...asked, fNumber });
    const plain = spotShot(scene(), seededRandom(2));
    expect(of(plain, 4)).toBe('wideStop');
    expect(of({ ...plain, light: plain.light.map(() => 1) })).toBe('blown');
    expect(of({ ...plain, light: plain.light.map((value) => value * 0.02) })).toBe('dark');
    const drawn = gray(plain.width, plain.height);
    plain.light.forEach((value, at) => {
      const [x, y] = [at % plain.width, Math.floor(at / plain.width)];
      drawn.light[at] = value * (Math.floor(x / 12) % 3 === 0 && Math.floor(y / 12) % 3 === 0 ? 0.7 : 1);
    });
    expect(of(drawn)).toBe('notPlain');
    const edge = gray(plain.width, plain.height);
    plain.light.forEach((value, at) => (edge.light[at] = at % plain.width < 700 ? 0.05 * value : value));
    expect(of(edge)).toBe('notPlain');
  });
});
