/** The first stage of a plan: the camera in the hand, and what it takes for sharp. */
import { circleOfConfusion, pixelPitch, sensorDiagonal } from '../optics/criterion';
import { pixelDisc, type LensSharpness } from '../optics/sharpness';
import { exactFNumber } from '../optics/stops';
import { focusFromSensor } from '../optics/thinLens';
import { bodyOf, lensOf } from '../kit/find';
import type { Body, Kit, Lens } from '../kit/schema';
import { pictureSize, stitchFactor } from '../setup/framing';
import type { FrameSize } from '../setup/shapes';
import type { Setup } from '../setup/schema';
import { tightestCrop } from '../setup/shapes';
import { stabiliserStops } from './motion';
import { noPlan, type NoPlan } from './plan';
import type { PlanInput } from './planInput';

export interface CameraInHand {
  readonly body: Body;
  readonly lens: Lens;
  readonly f: number;
  /** Pupil magnification. */
  readonly P: number;
  /** Closest focus from the pupil, mm. */
  readonly closest: number;
  /** Circle of confusion on the sensor, mm. */
  readonly C: number;
  readonly pixel: number;
  /** The most the lens's own disc counts for, mm. */
  readonly lensAtMostMm: number;
  readonly sharpness: LensSharpness;
  readonly picture: FrameSize;
  /** What holds the picture still, stops. */
  readonly stabiliser: number;
}

/**
 * Nobody looking closely calls a face missed for a lens that draws softly all over: of the smaller circle of confusion its own disc
 * takes no more than this share (common practice, no source).
 */
const lensShare = 0.8;

/** Finds body and lens in the kit; or says which of them it lacks. */
export function cameraInHand({ setup, kit, habits }: Omit<PlanInput, 'stopStep'>): CameraInHand | NoPlan {
  const body = bodyOf(kit, setup.camera);
  if (!body) return noPlan({ code: 'unknownBody', id: setup.camera.bodyId });
  const lens = lensOf(kit, setup.camera);
  if (!lens) return noPlan({ code: 'unknownLens', id: setup.camera.lensId });
  const f = setup.camera.focalLengthMm;
  const P = lens.pupilMagnification;
  const C = circleFor(setup, body);
  return {
    body,
    lens,
    f,
    P,
    closest: Math.max(focusFromSensor(f, lens.closestFocusMm, P), (f / P) * 1.01),
    C,
    pixel: pixelDisc(pixelPitch(body.sensor)),
    lensAtMostMm: setup.intent.viewing.kind === 'close' ? lensShare * C : Infinity,
    sharpness: sharpnessOf(kit, setup, body, lens),
    picture: pictureSize(body, setup.camera),
    stabiliser: stabiliserStops(habits, body, lens)
  };
}

function circleFor({ camera, intent }: Setup, body: Body): number {
  const C = circleOfConfusion(intent.viewing, body.sensor);
  // Pixels at 100% are the same pixels, however the picture is put together or cropped.
  if (intent.viewing.kind === 'pixels') return C;
  // A stitched picture is enlarged less, so it bears a larger circle; what is cropped to an ordered shape a smaller one.
  return C * stitchFactor(body, camera) * tightestCrop(intent.shapes, pictureSize(body, camera));
}

function sharpnessOf(kit: Kit, { camera }: Setup, body: Body, lens: Lens): LensSharpness {
  const whole = kit.bodies.find((item) => item.id === camera.bodyId) ?? body;
  return {
    character: lens.character,
    widestFNumber: exactFNumber(lens.widestFNumber),
    // In a crop mode the lens still draws for the whole sensor.
    formatDiagonalMm: sensorDiagonal(whole.sensor),
    ...(lens.measured && { measured: lens.measured }),
    ...(lens.measuredCorner && { measuredCorner: lens.measuredCorner })
  };
}
