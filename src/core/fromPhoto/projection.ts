/** How a photo shows the scene, by what its file says. */
import { fullFrameDiagonalMm } from '../optics/criterion';
import type { PictureFacts } from '../photos/metadata';
import type { PhotoProjection } from './rulers';

/** Why a photo does not tell distances. */
export type Untold =
  /** The file says nothing of a camera: a screenshot, or a picture that was sent and stripped. */
  | 'noFacts'
  /** There is no focal length, or nothing that tells how large the sensor is. */
  | 'noFocalLength'
  /** The picture has another shape than the camera gave it. */
  | 'cropped';

/** A shape that differs by more than this was cropped; rounding of a picture made smaller differs by less. */
const shapeShare = 0.015;

/**
 * @param size of the picture as it lies upright, pixels
 * @param sensorWidthMm longer side of the sensor where the body is known
 */
export function projectionOf(
  facts: PictureFacts,
  size: { readonly width: number; readonly height: number },
  sensorWidthMm: number | null = null
): PhotoProjection | Untold {
  const { focalLengthMm, equivalentMm, takenWidthPx, takenHeightPx, pixelMm } = facts;
  if (facts.make === null && facts.model === null && focalLengthMm === null && equivalentMm === null) return 'noFacts';
  const [long, short] = [Math.max(size.width, size.height), Math.min(size.width, size.height)];
  const [takenLong, takenShort] =
    takenWidthPx !== null && takenHeightPx !== null
      ? [Math.max(takenWidthPx, takenHeightPx), Math.min(takenWidthPx, takenHeightPx)]
      : [long, short];
  if (Math.abs((long / short) * (takenShort / takenLong) - 1) > shapeShare) return 'cropped';
  const focalPx = () => {
    // By the diagonal (CIPA DCG-001). The equivalent counts digital zoom, which the focal length does not.
    if (equivalentMm !== null) return (equivalentMm / fullFrameDiagonalMm) * Math.hypot(long, short);
    if (focalLengthMm === null) return null;
    if (pixelMm !== null) return (focalLengthMm / pixelMm) * (long / takenLong);
    return sensorWidthMm === null ? null : (focalLengthMm / sensorWidthMm) * long;
  };
  const found = focalPx();
  return found === null ? 'noFocalLength' : { widthPx: size.width, heightPx: size.height, focalPx: found };
}
