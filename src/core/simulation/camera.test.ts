import exifReader from 'exifreader';
import { describe, expect, it } from 'vitest';
import { seededNormal } from '../testing/random';
import { standIn, withMetadata, type FrameFacts } from './metadata';
import { bytesOf, counted, encoded, lightOf, linearOf, noiseAt, type LinearImage } from './sensor';

/** A grey picture of one pixel. */
const jpeg = Uint8Array.from(
  atob(
    '/9j/4AAQSkZJRgABAQEASABIAAD/2wBDAP//////////////////////////////////////////////////////////////////////////////////////wgALCAABAAEBAREA/8QAFBABAAAAAAAAAAAAAAAAAAAAAP/aAAgBAQABPxA='
  ),
  (character) => character.charCodeAt(0)
);
const facts: FrameFacts = {
  bodyName: 'Main body',
  lensName: '85 mm f/1.4',
  focalLengthMm: 85,
  fNumber: 1.4,
  shutterS: 1 / 125,
  iso: 400,
  at: Date.UTC(2027, 5, 12, 12, 35, 2, 47),
  zoneMinutes: 120,
  distanceMm: 1480,
  orientation: 6,
  number: 12
};
const read = (changes: Partial<FrameFacts> = {}) =>
  exifReader.load(withMetadata(jpeg, { ...facts, ...changes }).buffer) as Record<
    string,
    { description: string; value: unknown } | undefined
  >;

describe('what the simulated camera writes', () => {
  it('is read by another package as it was written', () => {
    const tags = read();
    const said = (name: string) => tags[name]?.description;
    expect(said('Make')).toBe(standIn.make);
    expect(said('Model')).toBe(standIn.model);
    expect(said('DateTimeOriginal')).toBe('2027:06:12 14:35:02');
    expect(said('SubSecTimeOriginal')).toBe('047');
    expect(said('OffsetTimeOriginal')).toBe('+02:00');
    expect(said('FNumber')).toBe('f/1.4');
    expect(said('ExposureTime')).toBe('1/125');
    expect(Number(said('ISOSpeedRatings'))).toBe(400);
    expect(said('FocalLength')).toBe('85 mm');
    expect(said('LensModel')).toBe('85 mm f/1.4');
    expect(said('BodySerialNumber')).toBe('Main body');
    expect(said('SubjectDistance')).toBe('1.48 m');
    expect(tags['Orientation']?.value).toBe(6);
  });

  it('says times west of Greenwich and long exposures, and nothing of a distance it does not know', () => {
    const tags = read({ zoneMinutes: -210, shutterS: 2, distanceMm: null, bodyName: 'Zoës Körper' });
    expect(tags['OffsetTimeOriginal']?.description).toBe('-03:30');
    expect(tags['DateTimeOriginal']?.description).toBe('2027:06:12 09:05:02');
    expect(tags['ExposureTime']?.description).toBe('2');
    expect(tags['SubjectDistance']).toBeUndefined();
    expect(tags['BodySerialNumber']?.description).toBe('Zoes Korper');
  });

  it('leaves the picture as it is, and is for JPEG alone', () => {
    const whole = withMetadata(jpeg, facts);
    expect(whole.slice(-(jpeg.length - 2))).toEqual(jpeg.slice(2));
    expect(() => withMetadata(new Uint8Array([1, 2, 3]), facts)).toThrow(RangeError);
  });
});

describe('the simulated sensor', () => {
  it('turns bytes into light and back (sRGB, IEC 61966-2-1)', () => {
    // Middle grey, 18% of the light, is written as about 46% (the standard's own formula).
    expect(linearOf(0.5)).toBeCloseTo(0.214, 4);
    expect(encoded(0.18)).toBeCloseTo(0.4614, 4);
    const bytes = Uint8ClampedArray.from({ length: 256 * 4 }, (_, index) => (index % 4 === 3 ? 255 : index >> 2));
    expect(bytesOf(lightOf(bytes, 256, 1))).toEqual(bytes);
  });

  it('counts light as noisy as its electrons are few', () => {
    const flat: LinearImage = { width: 200, height: 200, light: new Float32Array(200 * 200 * 3).fill(0.18) };
    for (const iso of [100, 1600]) {
      const noise = noiseAt(0.006, iso, 100);
      const { light } = counted(flat, noise, seededNormal(5));
      const mean = light.reduce((sum, value) => sum + value, 0) / light.length;
      const spread = Math.sqrt(light.reduce((sum, value) => sum + (value - mean) ** 2, 0) / light.length);
      const electrons = 0.18 * noise.fullElectrons;
      expect(mean).toBeCloseTo(0.18, 3);
      // Shot noise and the reading's in quadrature (EMVA 1288).
      expect(spread / (Math.sqrt(electrons + 9) / noise.fullElectrons)).toBeCloseTo(1, 1);
    }
    expect(noiseAt(0.006, 1600, 100).fullElectrons).toBeCloseTo(noiseAt(0.006, 100, 100).fullElectrons / 16, 6);
  });
});
