/**
 * One look through one point of the pupil. All looks share the plane of focus, so that what lies there stays in place and
 * all else spreads as the lens spreads it (Haeberli and Akeley, The accumulation buffer, 1990).
 */
import { imageDistance } from '../../core/optics/thinLens';

export interface LensState {
  readonly focalLengthMm: number;
  readonly fNumber: number;
  readonly focusMm: number;
  readonly pupilMagnification: number;
  /** The whole picture on the sensor, mm. */
  readonly pictureWidthMm: number;
  readonly pictureHeightMm: number;
}

/** A part of the picture, in shares of it from the left and the top. */
export interface Cutout {
  readonly left: number;
  readonly top: number;
  readonly right: number;
  readonly bottom: number;
}

export const wholePicture: Cutout = { left: 0, top: 0, right: 1, bottom: 1 };

export interface Frustum {
  readonly left: number;
  readonly right: number;
  readonly top: number;
  readonly bottom: number;
  readonly near: number;
  readonly far: number;
}

/** Depths drawn, mm. */
export const depthRange = { near: 120, far: 120_000 } as const;

/** Radius of the entrance pupil, mm. */
export function pupilRadius({ focalLengthMm, fNumber }: LensState): number {
  return focalLengthMm / fNumber / 2;
}

/**
 * The off-axis frustum of a look from (x, y) mm off the middle of the pupil, with (jitterX, jitterY) shares of the cutout
 * by which the sampling grid is shifted.
 */
export function frustumFrom(
  lens: LensState,
  cutout: Cutout,
  from: { readonly x: number; readonly y: number },
  jitter: { readonly x: number; readonly y: number } = { x: 0, y: 0 }
): Frustum {
  const { focusMm: s, pictureWidthMm, pictureHeightMm } = lens;
  const v = imageDistance(lens.focalLengthMm, s, lens.pupilMagnification);
  const width = (pictureWidthMm * s) / v;
  const height = (pictureHeightMm * s) / v;
  const shiftX = jitter.x * (cutout.right - cutout.left) * width;
  const shiftY = jitter.y * (cutout.bottom - cutout.top) * height;
  const toNear = depthRange.near / s;
  return {
    left: ((cutout.left - 0.5) * width - from.x + shiftX) * toNear,
    right: ((cutout.right - 0.5) * width - from.x + shiftX) * toNear,
    top: ((0.5 - cutout.top) * height - from.y + shiftY) * toNear,
    bottom: ((0.5 - cutout.bottom) * height - from.y + shiftY) * toNear,
    ...depthRange
  };
}

/** The part of the picture that shows `widthPx` × `heightPx` camera pixels about a place, kept inside it. */
export function cutoutAt(
  at: { readonly x: number; readonly y: number },
  sizePx: { readonly width: number; readonly height: number },
  picturePx: { readonly width: number; readonly height: number }
): Cutout {
  const width = Math.min(1, sizePx.width / picturePx.width);
  const height = Math.min(1, sizePx.height / picturePx.height);
  const clamp = (middle: number, size: number) => Math.max(0, Math.min(1 - size, middle - size / 2));
  const left = clamp(at.x, width);
  const top = clamp(at.y, height);
  return { left, top, right: left + width, bottom: top + height };
}
