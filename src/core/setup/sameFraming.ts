/** A setup with another lens, or on another body, that shows the same. */
import type { Body, Lens } from '../kit/schema';
import { distanceForFraming, framedSize } from '../optics/thinLens';
import { keepAim } from './aim';
import { cameraDistance, pictureSize } from './framing';
import type { Camera, Setup } from './schema';

/** A lens stands no nearer than this to what it frames, mm. */
const nearestMm = 50;

/** What takes a picture. */
interface Taking {
  readonly body: Body;
  readonly P: number;
}

/** What is put in the camera instead. */
interface Instead extends Pick<Camera, 'lensId' | 'adapterIds' | 'focalLengthMm'> {
  readonly lens: Pick<Lens, 'pupilMagnification'>;
  readonly body: Body;
}

/** What a lens is changed for: the same framing from another place, or another framing from the same. */
export type Keep = 'framing' | 'spot';

/** The setup with something else in the camera, and what it may then show. */
function holding({ camera }: Setup, instead: Instead): Camera {
  const { lensId, adapterIds, focalLengthMm } = instead;
  const otherBody = instead.body.id !== camera.bodyId;
  return {
    ...camera,
    bodyId: instead.body.id,
    cropMode: otherBody ? null : camera.cropMode,
    lensId,
    adapterIds: [...adapterIds],
    focalLengthMm
  };
}

/** The setup taken with something else from where the camera is: it shows more, or less. */
export function atSameSpot(setup: Setup, { body, P }: Taking, instead: Instead): Setup {
  const distanceMm = cameraDistance(setup, body, P);
  return { ...setup, camera: { ...holding(setup, instead), placement: { kind: 'distance', distanceMm } } };
}

/**
 * The setup taken with something else from where it frames the same; what decides the distance by itself goes on doing so.
 * The group stays where it was in the picture.
 */
export function atSameFraming(setup: Setup, { body, P }: Taking, instead: Instead): Setup {
  const { camera } = setup;
  const framed = framedSize(camera.focalLengthMm, cameraDistance(setup, body, P), pictureSize(body, camera).height, P);
  const { focalLengthMm, lens } = instead;
  const held = holding(setup, instead);
  // A stitched view of another lens has another height.
  const { height } = pictureSize(instead.body, held);
  const placement: Camera['placement'] =
    camera.placement.kind === 'distance'
      ? {
          kind: 'distance',
          distanceMm: Math.max(nearestMm, distanceForFraming(focalLengthMm, framed, height, lens.pupilMagnification))
        }
      : camera.placement;
  const moved: Setup = { ...setup, camera: { ...held, placement } };
  const aim = keepAim({ setup, body, P }, { setup: moved, body: instead.body, P: lens.pupilMagnification });
  return { ...moved, camera: { ...moved.camera, ...aim } };
}
