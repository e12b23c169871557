/** What is sharpest in a frame, and what of the plan lies there. */
import type { Body } from '../kit/schema';
import type { Plan } from '../call/plan';
import { projector } from '../setup/projection';
import { depthOf, viewpoint } from '../setup/scene';
import type { Setup } from '../setup/schema';
import { eyesPx } from './eyes';
import type { Frame } from './schema';

export interface Lying {
  readonly kind: 'person' | 'thing' | 'background';
  readonly id: string;
  readonly name: string;
  /** mm from the lens. */
  readonly depthMm: number;
}

/** A head reaches so far from the middle between the eyes, and a body below it, in distances between the eyes (from memory). */
const headReach = { across: 1.6, up: 2.4 } as const;
const bodyReach = 4;

/**
 * What lies at a place of the frame: somebody found there, with what they wear; else a thing of the plan; else its backgrounds, which may
 * be several.
 *
 * @param at shares of the width and the height
 */
export function lyingAt(
  frame: Pick<Frame, 'faces' | 'widthPx' | 'heightPx'>,
  at: { readonly x: number; readonly y: number },
  setup: Setup,
  plan: Plan,
  body: Body
): Lying[] {
  const [x, y] = [at.x * frame.widthPx, at.y * frame.heightPx];
  const people = frame.faces.flatMap((face): Lying[] => {
    const subject = plan.subjects.find(({ id }) => id === face.personId);
    if (!subject || subject.kind !== 'person') return [];
    const apart = eyesPx(face);
    const [across, down] = [x - (face.left.x + face.right.x) / 2, y - (face.left.y + face.right.y) / 2];
    const inHead = Math.abs(across) < headReach.across * apart && Math.abs(down) < headReach.up * apart;
    const inBody = down > 0 && Math.abs(across) < bodyReach * apart;
    return inHead || inBody ? [{ kind: 'person', id: subject.id, name: subject.name, depthMm: subject.nearest }] : [];
  });
  const view = viewpoint(setup, body, plan.pupilMagnification, plan.fieldPerM);
  const focus = plan.stops[plan.selected]?.drawnFocusMm ?? plan.distanceMm;
  const project = projector(view, setup.camera, body, focus, plan.pupilMagnification);
  const things = setup.things.flatMap((thing): Lying[] => {
    const position = { x: thing.lateralMm, y: thing.heightMm, z: thing.depthMm };
    const seen = project(position);
    if (!seen) return [];
    const [wide, tall] = [seen.scale * thing.widthMm * frame.widthPx, seen.scale * thing.tallMm * frame.widthPx];
    const within =
      Math.abs(seen.x * frame.widthPx - x) < wide / 2 + slackPx &&
      Math.abs(seen.y * frame.heightPx - y) < tall / 2 + slackPx;
    return within ? [{ kind: 'thing', id: thing.id, name: thing.name, depthMm: depthOf(view, position) }] : [];
  });
  const [nearest] = [...people, ...things].sort((a, b) => a.depthMm - b.depthMm);
  if (nearest) return [nearest];
  return plan.backgrounds.map(({ id, name, depthMm }) => ({ kind: 'background', id, name, depthMm }));
}

/** A thing is seldom held quite where it was planned, pixels (chosen). */
const slackPx = 60;
