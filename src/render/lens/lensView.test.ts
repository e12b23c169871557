import { describe, expect, it } from 'vitest';
import { imageDistance } from '../../core/optics/thinLens';
import { depthRange, frustumFrom, pupilRadius, cutoutAt, wholePicture, type LensState } from './lensView';

const lens: LensState = {
  focalLengthMm: 50,
  fNumber: 2,
  focusMm: 3000,
  pupilMagnification: 1,
  pictureWidthMm: 36,
  pictureHeightMm: 24
};

/** Where a point (mm from the middle of the pupil) falls across a frustum, −1 to 1. */
function across(point: { x: number; z: number }, from: { x: number; y: number }): number {
  const { left, right, near } = frustumFrom(lens, wholePicture, from);
  const atNear = ((point.x - from.x) * near) / point.z;
  return ((atNear - left) / (right - left)) * 2 - 1;
}

describe('looks through the pupil', () => {
  it('agree on the plane of focus and nowhere else', () => {
    const radius = pupilRadius(lens);
    expect(radius).toBe(12.5);
    const inFocus = { x: 400, z: 3000 };
    const behind = { x: 400, z: 6000 };
    const places = [-radius, 0, radius].map((x) => ({ x, y: 0 }));
    const spread = (point: typeof inFocus) => {
      const seen = places.map((from) => across(point, from));
      return Math.max(...seen) - Math.min(...seen);
    };
    expect(spread(inFocus)).toBeLessThan(1e-12);
    // The disc of the core: A m |z − s|/z on a sensor 36 mm wide.
    const m = 50 / (3000 - 50);
    const disc = (25 * m * 3000) / 6000;
    expect((spread(behind) / 2) * 36).toBeCloseTo(disc, 9);
  });

  it('frame what the core frames: 36 mm on the sensor at the image distance', () => {
    const { left, right } = frustumFrom(lens, wholePicture, { x: 0, y: 0 });
    expect((right - left) / depthRange.near).toBeCloseTo(36 / imageDistance(50, 3000), 12);
  });

  it('show a part of the picture as that part of the whole', () => {
    const cutout = { left: 0.25, top: 0.5, right: 0.5, bottom: 0.75 };
    const whole = frustumFrom(lens, wholePicture, { x: 3, y: -2 });
    const part = frustumFrom(lens, cutout, { x: 3, y: -2 });
    expect(part.left).toBeCloseTo(whole.left + (whole.right - whole.left) * 0.25, 9);
    expect(part.top).toBeCloseTo((whole.top + whole.bottom) / 2, 9);
  });

  it('keep a cutout of camera pixels inside the picture', () => {
    const picture = { width: 7000, height: 4600 };
    const cutout = cutoutAt({ x: 0.001, y: 0.5 }, { width: 140, height: 92 }, picture);
    expect(cutout.left).toBe(0);
    expect((cutout.right - cutout.left) * picture.width).toBeCloseTo(140, 9);
    expect(cutoutAt({ x: 0.5, y: 0.5 }, { width: 9000, height: 9000 }, picture)).toEqual(wholePicture);
  });
});
