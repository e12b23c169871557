/** Where a plan expects faces: what a frame is held against. */
import { interpupillaryOf } from '../people/anatomy';
import { pictureSize } from '../setup/framing';
import { projector } from '../setup/projection';
import { depthOf, eyesMidpoint, turnFromLens, viewpoint } from '../setup/scene';
import type { Body } from '../kit/schema';
import type { Setup } from '../setup/schema';
import type { Plan } from '../call/plan';
import type { ExpectedHead } from './assign';

export interface ExpectedFace extends ExpectedHead {
  readonly name: string;
  /** Depth of the middle between the eyes, mm from the lens. */
  readonly depthMm: number;
}

/** A head turned far away still shows both eyes so far apart, as a share of straight on (the nose hides the far one sooner; chosen). */
const leastTurned = 0.3;

/** Everybody whose face is turned to the lens and in the picture. Pets are never found as faces. */
export function expectedFaces(setup: Setup, plan: Plan, body: Body): ExpectedFace[] {
  const P = plan.pupilMagnification;
  const view = viewpoint(setup, body, P, plan.fieldPerM);
  const focus = plan.stops[plan.selected]?.drawnFocusMm ?? plan.distanceMm;
  const project = projector(view, setup.camera, body, focus, P);
  return setup.people.flatMap((person): ExpectedFace[] => {
    if (person.being === 'pet') return [];
    const position = eyesMidpoint(person);
    const at = project(position);
    const turn = turnFromLens(view, person);
    if (!at || Math.abs(turn) > Math.PI / 2 || at.x < 0 || at.x > 1 || at.y < 0 || at.y > 1) return [];
    const { width, height } = pictureSize(body, setup.camera);
    return [
      {
        personId: person.id,
        name: person.name,
        x: at.x,
        // In widths, as everything here.
        y: (at.y * height) / width,
        eyes: at.scale * interpupillaryOf[person.being] * Math.max(leastTurned, Math.cos(turn)),
        depthMm: depthOf(view, position)
      }
    ];
  });
}
