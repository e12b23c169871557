import { describe, expect, it } from 'vitest';
import { noFacts, type PictureFacts } from '../photos/metadata';
import { projectionOf } from './projection';

const phone: PictureFacts = {
  ...noFacts,
  make: 'Made up',
  model: 'Phone',
  focalLengthMm: 5.1,
  equivalentMm: 26,
  takenWidthPx: 4032,
  takenHeightPx: 3024
};

describe('how a photo shows the scene', () => {
  it('is told by the equivalent focal length, by the diagonal', () => {
    // 26 mm on a diagonal of 43.27 mm, which is 5040 pixels here.
    const found = projectionOf(phone, { width: 4032, height: 3024 });
    expect(found).toMatchObject({ widthPx: 4032, heightPx: 3024 });
    expect(typeof found === 'string' ? 0 : found.focalPx).toBeCloseTo((26 / 43.2666) * 5040, 1);
  });

  it('goes with the size the picture was made smaller to, and with its turn', () => {
    const whole = projectionOf(phone, { width: 4032, height: 3024 });
    const half = projectionOf(phone, { width: 1512, height: 2016 });
    if (typeof whole === 'string' || typeof half === 'string') throw new Error('not told');
    expect(half.focalPx).toBeCloseTo(whole.focalPx / 2, 6);
    expect(half.widthPx).toBe(1512);
  });

  it('of a camera by the pitch of its pixels, or by its body where that is known', () => {
    const camera = { ...phone, equivalentMm: null, focalLengthMm: 50, takenWidthPx: 6000, takenHeightPx: 4000 };
    const pitched = projectionOf({ ...camera, pixelMm: 0.006 }, { width: 3000, height: 2000 });
    expect(typeof pitched === 'string' ? 0 : pitched.focalPx).toBeCloseTo(50 / 0.006 / 2, 6);
    const known = projectionOf(camera, { width: 6000, height: 4000 }, 36);
    expect(typeof known === 'string' ? 0 : known.focalPx).toBeCloseTo((50 / 36) * 6000, 6);
    expect(projectionOf(camera, { width: 6000, height: 4000 })).toBe('noFocalLength');
  });

  it('is not told of a crop, a screenshot, or a lens without electronics', () => {
    expect(projectionOf(phone, { width: 3024, height: 3024 })).toBe('cropped');
    expect(projectionOf(noFacts, { width: 1179, height: 2556 })).toBe('noFacts');
    expect(projectionOf({ ...phone, equivalentMm: null, focalLengthMm: null }, { width: 4032, height: 3024 })).toBe(
      'noFocalLength'
    );
  });
});
