/** A wide view stitched from narrow frames: how many, in which order, what it comes to, what spoils it. */
import { degrees } from '../maths/vector';
import type { Body } from '../kit/schema';
import { equivalentLens, frameAngle, frameSize, stitchedAngle, widestStitch } from '../setup/framing';
import type { Camera } from '../setup/schema';
import type { FrameArea } from '../setup/lineOfSight';

export interface StitchFrame {
  /** 0 is the first column from the left, the first row from the top. */
  readonly column: number;
  readonly row: number;
  /** Where it lies in the whole as it is drawn, flat, in shares from the left and the top. */
  readonly box: FrameArea;
}

export type Projection = 'flat' | 'cylinder' | 'sphere';

interface Sides {
  readonly across: number;
  readonly down: number;
}

export interface Stitching {
  /** In the order they are taken: the one with the subject first, then round it. */
  readonly frames: readonly StitchFrame[];
  /** Whole view, one frame, and the turn from frame to frame, degrees. */
  readonly angleDeg: Sides;
  readonly frameDeg: Sides;
  readonly turnDeg: Sides;
  readonly equivalent: { readonly focalLengthMm: number; readonly fNumber: number };
  readonly megapixels: number;
  readonly projection: Projection;
  /**
   * Nearer than this, sharp things shift between frames if the camera is turned in the hand, mm; null where everything fits,
   * since what is out of focus is blurred by more than it shifts.
   */
  readonly nearestMm: number | null;
}

/** A flat projection stretches beyond so many degrees, a cylinder beyond these upright ones (common practice, no source). */
const flatUpTo = 70;
const cylinderUpTo = 90;

/**
 * In the hand the turn misses the entrance pupil by so much, mm; a shift shows from so many pixels on, and from this share of
 * the blur disc there on (all from memory).
 */
const offPupilMm = 60;
const shownPixels = 4;
const shownOfDisc = 0.5;

/** Columns (or rows) of frames of an angle that cover a wanted one: the least n with α(1 + (n − 1)(1 − o)) ≥ wanted. */
export function stitchFramesFor(wantedDeg: number, frameDeg: number, overlap: number): number {
  return Math.max(1, Math.ceil(1 + (wantedDeg / frameDeg - 1) / (1 - overlap) - 1e-9));
}

interface Taken {
  readonly body: Body;
  readonly camera: Camera;
  readonly N: number;
  /** Distance focused at, mm from the lens. */
  readonly focusMm: number;
  /** Where the target lies, in shares of the picture. */
  readonly at: { readonly x: number; readonly y: number };
}

/** Null for a picture of one frame. */
export function stitching({ body, camera, N, focusMm, at }: Taken): Stitching | null {
  const { stitch, focalLengthMm: f } = camera;
  if (!stitch) return null;
  const frame = frameSize(body, camera.orientation);
  const one = { across: frameAngle(frame.width, f), down: frameAngle(frame.height, f) };
  const whole = {
    across: stitchedAngle(one.across, stitch.columns, stitch.overlap),
    down: stitchedAngle(one.down, stitch.rows, stitch.overlap)
  };
  const turn = { across: one.across * (1 - stitch.overlap), down: one.down * (1 - stitch.overlap) };
  const frames = Array.from({ length: stitch.columns * stitch.rows }, (_, index): StitchFrame => {
    const column = index % stitch.columns;
    const row = Math.floor(index / stitch.columns);
    const [left, right] = extent(column * turn.across, one.across, whole.across);
    const [top, bottom] = extent(row * turn.down, one.down, whole.down);
    return { column, row, box: { left, right, top, bottom } };
  });
  const perMm = body.sensor.pixelsWide / body.sensor.widthMm;
  const pixels = (frame.width * perMm * whole.across * frame.height * perMm * whole.down) / (one.across * one.down);
  // Turned off the pupil by e, a thing at d moves against one at s by e × turn × |1/d − 1/s|, in radians; its blur disc is
  // A |1/d − 1/s| wide, seen from the lens: the shift is e × turn/A of it wherever it lies.
  const shift = offPupilMm * turn.across;
  const hidden = shift / (f / N) <= shownOfDisc;
  const pixelsPerRadian = (frame.width * perMm) / one.across;
  const inDegrees = ({ across, down }: Sides): Sides => ({ across: degrees(across), down: degrees(down) });
  const angleDeg = inDegrees(whole);
  return {
    frames: fromSubject(frames, at),
    angleDeg,
    frameDeg: inDegrees(one),
    turnDeg: inDegrees(turn),
    equivalent: equivalentLens(body, camera, N),
    megapixels: pixels / 1e6,
    projection:
      Math.max(angleDeg.across, angleDeg.down) <= flatUpTo
        ? 'flat'
        : angleDeg.down <= cylinderUpTo
          ? 'cylinder'
          : 'sphere',
    nearestMm: hidden ? null : 1 / (1 / focusMm + shownPixels / (shift * pixelsPerRadian))
  };
}

/** Where a frame that begins at an angle lies in the flat picture of the whole one, in shares of it. */
function extent(from: number, own: number, whole: number): readonly [number, number] {
  // Wider than this no flat picture is drawn: setup/framing.ts.
  const drawn = Math.min(widestStitch, whole);
  const place = (angle: number) => 0.5 + Math.tan((angle / whole - 0.5) * drawn) / (2 * Math.tan(drawn / 2));
  return [place(from), place(from + own)];
}

/** The frame whose middle is nearest to the subject first; then ring by ring, each clockwise from its top. */
function fromSubject(frames: readonly StitchFrame[], at: Taken['at']): readonly StitchFrame[] {
  const off = ({ box }: StitchFrame) =>
    Math.hypot((box.left + box.right) / 2 - at.x, (box.top + box.bottom) / 2 - at.y);
  const [first] = [...frames].sort((a, b) => off(a) - off(b));
  if (!first) return frames;
  const ring = (frame: StitchFrame) => Math.max(Math.abs(frame.column - first.column), Math.abs(frame.row - first.row));
  const turn = (frame: StitchFrame) => {
    const angle = Math.atan2(frame.column - first.column, first.row - frame.row);
    return angle < 0 ? angle + 2 * Math.PI : angle;
  };
  return [...frames].sort((a, b) => ring(a) - ring(b) || turn(a) - turn(b));
}
