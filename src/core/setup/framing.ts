import { distanceForFraming, framedSize } from '../optics/thinLens';
import type { Body, Camera, Framing } from './schema';

/** Height framed from top to bottom of the picture, mm (common practice, no source). */
export const framedHeightMm: Readonly<Record<Framing, number>> = {
  headAndShoulders: 600,
  halfLength: 1000,
  threeQuarter: 1450,
  fullLength: 2100
};

/** Sensor as held: width and height of the picture, mm. */
export function frameSize(body: Body, orientation: Camera['orientation']): { width: number; height: number } {
  const { widthMm, heightMm } = body.sensor;
  return orientation === 'landscape' ? { width: widthMm, height: heightMm } : { width: heightMm, height: widthMm };
}

/** Distance from the lens to the subject line, mm: as typed, or from how the picture is framed. */
export function cameraDistance(camera: Camera, body: Body): number {
  const { placement } = camera;
  if (placement.kind === 'distance') return placement.distanceMm;
  const height = placement.kind === 'framing' ? framedHeightMm[placement.framing] : placement.heightMm;
  return distanceForFraming(camera.focalLengthMm, height, frameSize(body, camera.orientation).height);
}

/** Height of scene framed at a distance, mm. */
export function framedHeightAt(camera: Camera, body: Body, distanceMm: number): number {
  return framedSize(camera.focalLengthMm, distanceMm, frameSize(body, camera.orientation).height);
}
