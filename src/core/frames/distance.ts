/** How far away the camera stood, by how far apart eyes are in the picture. */
import { sum } from 'd3-array';
import { nineOfTenSd } from '../maths/normal';
import { radians } from '../maths/vector';
import { interpupillaryOf } from '../people/anatomy';
import type { Body } from '../kit/schema';
import { pictureSize } from '../setup/framing';
import type { Setup } from '../setup/schema';
import type { ExpectedFace } from './expected';
import { eyesPx } from './eyes';
import type { Frame, FrameFace } from './schema';

export interface DistanceFound {
  /** From the lens to the subject line, mm; nine of ten between `low` and `high`. */
  readonly mm: number;
  readonly low: number;
  readonly high: number;
  /** Faces it rests on. */
  readonly faces: number;
}

/** Spread of adults' eyes about their mean: 3.7 of 63 mm (Dodgson 2004); children vary by more (from memory). */
const spreadOf = { adult: 3.7 / 63, child: 0.1, baby: 0.12 } as const;
/** Each iris is found to about so many pixels (docs/model.md, section 12). */
const irisPx = 1.5;
/** A turn is read to about so many degrees (from memory); beyond `mostTurn` the eyes tell too little. */
const turnDeg = 5;
const mostTurnDeg = 45;
/** Nearer or further than planned by more than this, as a ratio, and the plan says nothing of where anybody stands (chosen). */
const elsewhere = 1.3;

/** Whether faces say that the camera stood somewhere else altogether, or that the file's focal length is not the one it was taken with. */
export const contradicts = ({ low, high }: DistanceFound, plannedMm: number): boolean =>
  low > elsewhere * plannedMm || high * elsewhere < plannedMm;

/** How far apart somebody's eyes would be straight on, pixels. */
export const straightPx = (face: Turned): number => eyesPx(face) / Math.cos(radians(face.yawDeg));
/** How uncertain that is, as a share: by the irises, and by the turn. */
export const straightSd = (face: Turned): number =>
  Math.hypot((irisPx * Math.SQRT2) / eyesPx(face), Math.tan(radians(Math.abs(face.yawDeg))) * radians(turnDeg));
type Turned = Pick<FrameFace, 'left' | 'right' | 'yawDeg'>;

/**
 * Each face gives the camera's distance: s = f/P + f · (distance between the eyes) ÷ (the same on the sensor), less how far behind the
 * subject line that person stands; together by their certainty.
 *
 * @param pupilMagnification P; @param distanceMm lens to subject line as planned
 * @returns null where no adult or child of the plan was found, or the focal length is not known
 */
export function distanceFromEyes(
  frame: Frame,
  setup: Setup,
  body: Body,
  expected: readonly ExpectedFace[],
  { pupilMagnification: P, distanceMm }: { readonly pupilMagnification: number; readonly distanceMm: number }
): DistanceFound | null {
  const f = frame.focalLengthMm;
  if (f === null) return null;
  const pxPerMm = frame.widthPx / pictureSize(body, setup.camera).width;
  const each = frame.faces.flatMap((face) => {
    const person = setup.people.find(({ id }) => id === face.personId);
    const own = expected.find(({ personId }) => personId === face.personId);
    if (!person || !own || face.pointed || person.being === 'pet' || Math.abs(face.yawDeg) > mostTurnDeg) return [];
    const px = eyesPx(face);
    if (!(px > 0)) return [];
    const depth = f / P + (f * interpupillaryOf[person.being] * pxPerMm) / straightPx(face);
    const relative = Math.hypot(spreadOf[person.being], straightSd(face));
    return [{ mm: depth - (own.depthMm - distanceMm), sd: depth * relative }];
  });
  if (each.length === 0) return null;
  const weights = each.map(({ sd }) => 1 / (sd * sd));
  const all = sum(weights);
  const mm = sum(each, (one) => one.mm / (one.sd * one.sd)) / all;
  const half = nineOfTenSd / Math.sqrt(all);
  return { mm, low: mm - half, high: mm + half, faces: each.length };
}
