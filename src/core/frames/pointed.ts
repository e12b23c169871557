/** What somebody pointed at, where no face was seen: an eye in profile or behind a veil, a pet's, a thing. */
import { median } from 'd3-array';
import { interpupillaryOf } from '../people/anatomy';
import { projector } from '../setup/projection';
import { eyesMidpoint, viewpoint } from '../setup/scene';
import type { Body } from '../kit/schema';
import type { Plan } from '../call/plan';
import type { Setup } from '../setup/schema';
import type { ExpectedFace } from './expected';
import { eyesPx } from './eyes';
import type { EyeFigure, Frame, FrameFace } from './schema';

interface Point {
  readonly x: number;
  readonly y: number;
}

export interface PointedAt {
  readonly id: string;
  readonly personId: string;
  readonly at: Point;
  /** Which eye is taken to have been meant; of a thing it does not matter. */
  readonly side: 'left' | 'right';
  readonly kind: 'eye' | 'thing';
  /** Distance between the eyes there, or the size of what was measured of a thing, pixels. */
  readonly sizePx: number;
  readonly figure: EyeFigure;
}

/** A box as the detector would have drawn it is so many distances between the eyes wide. */
const boxPerEyes = 2.4;

/** One point as a face, of which the other eye was not seen. */
export function pointedFace({ id, personId, at, side, kind, sizePx, figure }: PointedAt): FrameFace {
  const unseen = { ok: false, reason: 'unseen' } as const;
  // As the lens sees somebody: their own left eye is on the right.
  const other = { x: at.x + (side === 'left' ? -sizePx : sizePx), y: at.y };
  const width = boxPerEyes * sizePx;
  return {
    id,
    personId,
    box: { x: at.x - width / 2, y: at.y - width / 2, width, height: width },
    left: side === 'left' ? at : other,
    right: side === 'right' ? at : other,
    yawDeg: 0,
    pitchDeg: 0,
    rollDeg: 0,
    lids: { left: 0, right: 0 },
    contrast: { left: 0, right: 0 },
    score: 0,
    byHand: true,
    pointed: kind,
    eyes: side === 'left' ? { left: figure, right: unseen } : { left: unseen, right: figure }
  };
}

/** Nearer together than this, in distances between the eyes, two faces are one. */
const oneFace = 0.6;
const middleOf = ({ left, right }: FrameFace): Point => ({ x: (left.x + right.x) / 2, y: (left.y + right.y) / 2 });
const isSame = (a: FrameFace, b: FrameFace): boolean => {
  const [one, other] = [middleOf(a), middleOf(b)];
  return Math.hypot(one.x - other.x, one.y - other.y) < oneFace * Math.min(eyesPx(a), eyesPx(b));
};

/**
 * A frame with a face somebody pointed at: it takes the place of the same one, and of what was pointed at before; whoever else had that
 * name in it is nobody's.
 */
export function withPointed<F extends { readonly faces: readonly FrameFace[] }>(frame: F, face: FrameFace): F {
  const others = frame.faces.flatMap((one): FrameFace[] => {
    if (!face.pointed && !one.pointed && isSame(one, face)) return [];
    if (one.personId !== face.personId) return [one];
    return one.pointed ? [] : [{ ...one, personId: null }];
  });
  return { ...frame, faces: [...others, face] };
}

/** Somebody, or something, that was not found in a frame and can be pointed at. */
export interface Pointable {
  readonly id: string;
  readonly name: string;
  readonly kind: 'eye' | 'thing';
  /** About how far apart the eyes are in it; of a thing how much is measured, pixels. */
  readonly sizePx: number;
  /** The eye nearer to the lens. */
  readonly side: 'left' | 'right';
}

/** Of a thing so much is measured, pixels. */
const thingPx = 75;

/** Whom and what one may point at in a frame: everybody the plan has who was not found, pets and things too. */
export function pointable(
  frame: Pick<Frame, 'faces' | 'widthPx'>,
  setup: Setup,
  plan: Plan,
  body: Body,
  expected: readonly ExpectedFace[]
): Pointable[] {
  const P = plan.pupilMagnification;
  const view = viewpoint(setup, body, P, plan.fieldPerM);
  const project = projector(view, setup.camera, body, plan.stops[plan.selected]?.drawnFocusMm ?? plan.distanceMm, P);
  const there = new Set(frame.faces.flatMap(({ personId }) => personId ?? []));
  // Those found say how much larger everything came out than planned.
  const larger =
    median(
      frame.faces.flatMap((face) => {
        const own = expected.find(({ personId }) => personId === face.personId);
        return own && !face.pointed ? [eyesPx(face) / (own.eyes * frame.widthPx)] : [];
      })
    ) ?? 1;
  const people = setup.people.flatMap((person): Pointable[] => {
    if (there.has(person.id)) return [];
    const at = project(eyesMidpoint(person));
    if (!at) return [];
    const sizePx = at.scale * interpupillaryOf[person.being] * frame.widthPx * larger;
    const points = plan.subjects.find(({ id }) => id === person.id)?.points ?? [];
    const depth = (eye: 'leftEye' | 'rightEye') => points.find(({ feature }) => feature === eye)?.depth ?? Infinity;
    const side = depth('leftEye') <= depth('rightEye') ? 'left' : 'right';
    return [{ id: person.id, name: person.name, kind: 'eye', sizePx, side }];
  });
  const things = setup.things.flatMap((thing): Pointable[] =>
    there.has(thing.id) ? [] : [{ id: thing.id, name: thing.name, kind: 'thing', sizePx: thingPx, side: 'left' }]
  );
  return [...people, ...things];
}
