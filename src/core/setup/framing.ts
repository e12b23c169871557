/** How much of the scene a picture shows, and from where it shows what is wanted. */
import { fullFrameDiagonalMm } from '../optics/criterion';
import { distanceForFraming } from '../optics/thinLens';
import { groupDistance } from './groupFraming';
import type { Body } from '../kit/schema';
import type { Camera, Framing, Setup } from './schema';
import type { FrameSize } from './shapes';

/** What decides where the camera stands. */
export type Framed = Pick<Setup, 'camera' | 'people'>;

/** Height framed from top to bottom of the picture, mm (common practice, no source). */
export const framedHeightMm: Readonly<Record<Framing, number>> = {
  headAndShoulders: 600,
  halfLength: 1000,
  threeQuarter: 1450,
  fullLength: 2100
};

/** Sensor as held: width and height of one frame, mm. */
export function frameSize(body: Body, orientation: Camera['orientation']): FrameSize {
  const { widthMm, heightMm } = body.sensor;
  return orientation === 'landscape' ? { width: widthMm, height: heightMm } : { width: heightMm, height: widthMm };
}

/** Widest angle a stitched view is taken to cover, radians; beyond it a flat projection has no meaning. */
export const widestStitch = (150 * Math.PI) / 180;

/** Angle covered by n frames of angle α overlapping by o: α (1 + (n − 1)(1 − o)). */
export function stitchedAngle(frameAngle: number, frames: number, overlap: number): number {
  return frameAngle * (1 + (frames - 1) * (1 - overlap));
}

/** Angle one frame of a side takes in at infinity, radians. */
export const frameAngle = (side: number, f: number): number => 2 * Math.atan(side / (2 * f));

/**
 * Size of the whole picture on one flat sensor behind the same lens, mm: one frame, or the sensor a stitched view would
 * have needed, 2 f tan(angle/2) each way.
 */
export function pictureSize(body: Body, camera: Camera): FrameSize {
  const frame = frameSize(body, camera.orientation);
  const { stitch, focalLengthMm: f } = camera;
  if (!stitch) return frame;
  const side = (one: number, frames: number) =>
    2 * f * Math.tan(Math.min(widestStitch, stitchedAngle(frameAngle(one, f), frames, stitch.overlap)) / 2);
  return { width: side(frame.width, stitch.columns), height: side(frame.height, stitch.rows) };
}

/** How much larger a stitched picture is than one frame, by its diagonal; 1 for one frame. */
export function stitchFactor(body: Body, camera: Camera): number {
  const frame = frameSize(body, camera.orientation);
  const picture = pictureSize(body, camera);
  return Math.hypot(picture.width, picture.height) / Math.hypot(frame.width, frame.height);
}

/** The full-frame lens that would give the same view and blur in one frame: f_eq from the diagonal, f_eq/A. */
export function equivalentLens(body: Body, camera: Camera, N: number): { focalLengthMm: number; fNumber: number } {
  const picture = pictureSize(body, camera);
  const focalLengthMm = (fullFrameDiagonalMm * camera.focalLengthMm) / Math.hypot(picture.width, picture.height);
  return { focalLengthMm, fNumber: focalLengthMm / (camera.focalLengthMm / N) };
}

/**
 * Distance from the lens to the subject line, mm: as typed, or from how the picture is framed by a lens of pupil
 * magnification P.
 */
export function cameraDistance({ camera, people }: Framed, body: Body, P = 1): number {
  const { placement, focalLengthMm: f } = camera;
  const picture = pictureSize(body, camera);
  switch (placement.kind) {
    case 'distance':
      return placement.distanceMm;
    case 'framing':
      return distanceForFraming(f, framedHeightMm[placement.framing], picture.height, P);
    case 'framedHeight':
      return distanceForFraming(f, placement.heightMm, picture.height, P);
    case 'group':
      return people.length === 0
        ? distanceForFraming(f, framedHeightMm[placement.framing], picture.height, P)
        : groupDistance(people, camera, placement, picture, P);
  }
}
