/**
 * The circle of confusion C follows from where the picture will be looked at, not from the camera alone.
 *
 * Traditional: 0.2 mm on a 20 × 25 cm print at 25 cm, an angle of 0.8 mrad, which is about 0.030 mm on a full-frame
 * sensor (Ray, Applied Photographic Optics; Kingslake). One arc minute is the resolution of a normal eye (ISO 8596,
 * acuity 1.0).
 */

/** Diagonal of the 24 × 36 mm frame, mm. */
export const fullFrameDiagonalMm = Math.hypot(36, 24);

/** The customary disc on a full-frame sensor, mm. */
export const traditionalDiscMm = 0.03;

/** Angle of the traditional disc at the reader's eye, radians: 0.2 mm at 250 mm. */
export const traditionalBlurAngle = 0.2 / 250;

/** One minute of arc, radians. */
export const oneArcMinute = Math.PI / (180 * 60);

/**
 * A large display filled with it, or a print of 40 cm in the hand, shows half the customary disc (common practice, no
 * source; a print of 40 × 50 cm is the 20 × 25 cm one enlarged twice, seen from as near).
 */
export const closeShare = 0.5;

type Acuity = 'traditional' | 'arcMinute';

export type Viewing =
  /** Looked at closely, as photographers do: half of the customary criterion. */
  | { readonly kind: 'close' }
  /** The customary criterion for the format. */
  | { readonly kind: 'traditional' }
  /** A print or screen of a given long edge seen from a given distance. */
  | { readonly kind: 'seen'; readonly longEdgeMm: number; readonly distanceMm: number; readonly acuity: Acuity }
  /** Discs no wider than so many pixels at 100%. */
  | { readonly kind: 'pixels'; readonly pixels: number };

export interface SensorSize {
  readonly widthMm: number;
  readonly heightMm: number;
  /** Pixels along the long edge. */
  readonly pixelsWide: number;
}

export function sensorDiagonal(sensor: SensorSize): number {
  return Math.hypot(sensor.widthMm, sensor.heightMm);
}

/** Pixel pitch, mm. */
export function pixelPitch(sensor: SensorSize): number {
  return sensor.widthMm / sensor.pixelsWide;
}

/** The traditional disc scaled to a format by its diagonal, mm: C_ref of the autofocus spread too. */
export function formatDisc(sensor: SensorSize): number {
  return (traditionalDiscMm * sensorDiagonal(sensor)) / fullFrameDiagonalMm;
}

/**
 * Permissible blur-disc diameter on the sensor, mm. A seen picture is taken uncropped: the long edge of the sensor
 * fills the long edge of the print or screen.
 */
export function circleOfConfusion(viewing: Viewing, sensor: SensorSize): number {
  switch (viewing.kind) {
    case 'close':
      return closeShare * formatDisc(sensor);
    case 'traditional':
      return formatDisc(sensor);
    case 'seen': {
      const angle = viewing.acuity === 'arcMinute' ? oneArcMinute : traditionalBlurAngle;
      return (angle * viewing.distanceMm * Math.max(sensor.widthMm, sensor.heightMm)) / viewing.longEdgeMm;
    }
    case 'pixels':
      return viewing.pixels * pixelPitch(sensor);
  }
}
