/** Moves of what stands in a setup, as changes to a draft of it: from where it was when the move began. */
import type { Mounting } from '../kit/fits';
import { boundsOf } from '../schema/values';
import { cameraSchema, type Camera, type Setup } from './schema';

type Chosen = (kind: 'person' | 'thing', id: string) => boolean;

/** Moves the chosen people and things by so much on the floor. */
export function moveChosen(draft: Setup, from: Setup, chosen: Chosen, depthMm: number, lateralMm: number): void {
  for (const [kind, list] of [['person', 'people'] as const, ['thing', 'things'] as const]) {
    for (const item of draft[list]) {
      const start = from[list].find((other) => other.id === item.id);
      if (!start || !chosen(kind, item.id)) continue;
      item.depthMm = start.depthMm + depthMm;
      item.lateralMm = start.lateralMm + lateralMm;
    }
  }
}

/** In the side view: depth, and the step people stand on or the height of a thing. */
export function raiseChosen(draft: Setup, from: Setup, chosen: Chosen, depthMm: number, upMm: number): void {
  for (const person of draft.people) {
    const start = from.people.find((other) => other.id === person.id);
    if (!start || !chosen('person', person.id)) continue;
    person.depthMm = start.depthMm + depthMm;
    person.floorMm = start.floorMm + upMm;
  }
  for (const thing of draft.things) {
    const start = from.things.find((other) => other.id === thing.id);
    if (!start || !chosen('thing', thing.id)) continue;
    thing.depthMm = start.depthMm + depthMm;
    thing.heightMm = Math.max(0, start.heightMm + upMm);
  }
}

/** Angles the camera comes to rest on, degrees. */
const turnStepDeg = 0.05;

/** Turns the camera by so many degrees, within what it may. */
export function turnCamera(draft: Camera, from: Camera, yawDeg: number, pitchDeg: number): void {
  const rest = (degrees: number, { min, max }: { min: number; max: number }) =>
    Math.max(min, Math.min(max, Math.round(degrees / turnStepDeg) * turnStepDeg));
  const tidy = (degrees: number) => Number(degrees.toFixed(2)) + 0;
  draft.yawDeg = tidy(rest(from.yawDeg + yawDeg, boundsOf(cameraSchema.shape.yawDeg)));
  draft.pitchDeg = tidy(rest(from.pitchDeg + pitchDeg, boundsOf(cameraSchema.shape.pitchDeg)));
}

/** Puts a lens on with what is between, as near to the focal length in use as it goes. */
export function takeLens(draft: Camera, { lens, adapterIds, seen }: Mounting): void {
  draft.lensId = lens.id;
  draft.adapterIds = adapterIds;
  draft.focalLengthMm = Math.min(seen.longestMm, Math.max(seen.shortestMm, draft.focalLengthMm));
}

/** The setup with its camera set otherwise. */
export const withCamera = (setup: Setup, changes: Partial<Camera>): Setup => ({
  ...setup,
  camera: { ...setup.camera, ...changes }
});
