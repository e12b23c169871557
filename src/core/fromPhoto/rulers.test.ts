import { describe, expect, it } from 'vitest';
import { distanceOfFace, irisMm, pupilsMm, reading, type FaceSeen, type PhotoProjection } from './rulers';

/** A phone's main camera: 26 mm equivalent, 12 megapixels. */
const projection: PhotoProjection = { widthPx: 4032, heightPx: 3024, focalPx: 2907 };

/** A face in the middle of the picture, read without error. */
function faceAt(distanceMm: number, changes: Partial<FaceSeen> & { pupils?: number; iris?: number } = {}): FaceSeen {
  const { pupils = pupilsMm.adult.mean, iris = irisMm.mean, yawDeg = 0, ...rest } = changes;
  const half = (projection.focalPx * pupils * Math.cos((yawDeg * Math.PI) / 180)) / distanceMm / 2;
  return {
    id: 'face',
    left: { x: 2016 + half, y: 1512 },
    right: { x: 2016 - half, y: 1512 },
    // As the detector reads it: the lids narrow it.
    irisPx: (reading.irisFactor * projection.focalPx * iris) / distanceMm,
    yawDeg,
    pitchDeg: 0,
    ...rest
  };
}

describe('the distance of a face', () => {
  it('is that at which usual pupils and irises are as large as they are', () => {
    for (const mm of [800, 2000, 4000]) {
      // Of an adult; where one in seven may be a child, a little nearer.
      expect(Math.abs((distanceOfFace(faceAt(mm), projection, null, 0)?.mm ?? 0) / mm - 1)).toBeLessThan(0.001);
      expect(Math.abs((distanceOfFace(faceAt(mm), projection)?.mm ?? 0) / mm - 1)).toBeLessThan(0.03);
    }
  });

  it('does not take a turned head for one further away', () => {
    const straight = distanceOfFace(faceAt(2500), projection)?.mm ?? 0;
    const turned = distanceOfFace(faceAt(2500, { yawDeg: 35 }), projection);
    expect((turned?.mm ?? 0) / straight).toBeCloseTo(1, 2);
    // But is less sure of it.
    expect(turned?.sd).toBeGreaterThan(distanceOfFace(faceAt(2500), projection)?.sd ?? 1);
  });

  it('leans to a child where irises are large for the pupils, and puts it nearer', () => {
    const [adult, child] = [faceAt(2000), faceAt(2000, { pupils: 50 })];
    expect(distanceOfFace(child, projection)?.child).toBeGreaterThan(
      2 * (distanceOfFace(adult, projection)?.child ?? 1)
    );
    // As an adult alone it would stand a quarter further away.
    expect(distanceOfFace(child, projection, null, 0)?.mm).toBeGreaterThan(2350);
    expect(distanceOfFace(child, projection, null, 0.9)?.mm).toBeLessThan(2250);
  });

  it('counts the spread of people, 6 % by pupils, and how well eyes are read', () => {
    const alone = distanceOfFace({ ...faceAt(600), irisPx: null }, projection, null, 0)?.sd ?? 0;
    expect(alone).toBeGreaterThan(0.06);
    expect(alone).toBeLessThan(0.07);
    expect(distanceOfFace(faceAt(600), projection, null, 0)?.sd).toBeLessThan(alone);
    // Far away the reading counts more than people do.
    expect(distanceOfFace(faceAt(12_000), projection, null, 0)?.sd).toBeGreaterThan(1.1 * alone);
  });

  it('of a person whose pupils were measured rests on those', () => {
    const found = distanceOfFace(faceAt(2000, { pupils: 58 }), projection, 58);
    expect(Math.abs((found?.mm ?? 0) / 2000 - 1)).toBeLessThan(0.01);
    expect(found?.sd).toBeLessThan(0.03);
  });

  it('is the straight one at the edge of the frame too, where the picture is stretched', () => {
    // The same head 35° off the axis: an angle is drawn longer there.
    const angle = (35 * Math.PI) / 180;
    const half = Math.atan(pupilsMm.adult.mean / 2 / 3000);
    const at = (by: number) => ({ x: 2016 + projection.focalPx * Math.tan(angle + by), y: 1512 });
    const iris = projection.focalPx * (Math.tan(angle + irisMm.mean / 6000) - Math.tan(angle - irisMm.mean / 6000));
    const face = { ...faceAt(3000), left: at(half), right: at(-half), irisPx: null };
    expect(Math.abs((distanceOfFace(face, projection)?.mm ?? 0) / 3000 - 1)).toBeLessThan(0.06);
    // Seen across the stretch, an iris is wider by 1/cos²; its middle measure lies between that and 1/cos.
    expect(iris).toBeGreaterThan((projection.focalPx * irisMm.mean) / 3000);
  });

  it('is not told of eyes a few pixels apart, nor of a profile', () => {
    expect(distanceOfFace(faceAt(30_000), projection)).toBeUndefined();
    expect(distanceOfFace(faceAt(2000, { yawDeg: 70 }), projection)).toBeUndefined();
    expect(distanceOfFace({ ...faceAt(2000), left: { x: NaN, y: 0 } }, projection)).toBeUndefined();
  });
});
