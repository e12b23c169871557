/** Everything about a setup that does not change from stop to stop: what the stages of a plan found, put together. */
import type { Aimed } from './aim';
import type { CameraInHand } from './camera';
import type { Exposure } from './exposure';
import type { LaidOut } from './layOut';
import type { PeopleInFrame } from './people';
import type { Sight } from './sight';

export interface Situation
  extends CameraInHand, LaidOut, Pick<Sight, 'imageHeights' | 'lineOfSight'>, PeopleInFrame, Aimed, Exposure {
  readonly kind: 'situation';
}
