/** The sixth stage of a plan: the settings at each f-number, worked out once. */
import { extensionStops } from '../optics/exposure';
import { magnification } from '../optics/thinLens';
import type { CameraInHand } from './camera';
import type { LaidOut } from './layOut';
import { lightAtStop, lightLevel, onSteps, shutterFloor, type LightAtStop, type LightConditions } from './light';
import { steadiness, stillFor } from './motion';
import type { PeopleInFrame } from './people';

export interface Exposure {
  /** Settings at an f-number. */
  readonly light: (N: number) => LightAtStop;
}

export function exposureOf(scene: LaidOut, camera: CameraInHand, { decisive }: PeopleInFrame): Exposure {
  const conditions = conditionsOf(scene, camera, decisive);
  const known = new Map<number, LightAtStop>();
  return {
    light: (N) => {
      const found = known.get(N) ?? onSteps(lightAtStop(conditions, N), conditions.body);
      known.set(N, found);
      return found;
    }
  };
}

function conditionsOf(
  { setup, habits, view, personOf, subjects }: LaidOut,
  { body, f, P, C, closest, stabiliser }: CameraInHand,
  decisive: readonly number[]
): LightConditions {
  const nearest = Math.min(...decisive.map((index) => subjects[index]?.nearest ?? Infinity), view.distance);
  const drawn = (depthMm: number) => magnification(f, Math.max(depthMm, closest), P);
  return {
    setup,
    body,
    level: lightLevel(setup),
    floor: shutterFloor(setup, body, steadiness(habits, setup.camera, stabiliser), drawn(nearest)),
    wanted: stillFor(
      { habits, camera: setup.camera, stabiliser, C },
      decisive.flatMap((index) => {
        const subject = subjects[index];
        if (!subject) return [];
        return [{ across: personOf.get(subject.id)?.acrossMmPerS ?? 0, m: drawn(subject.nearest) }];
      })
    ),
    extensionStops: extensionStops(drawn(view.distance), P)
  };
}
