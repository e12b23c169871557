/** A wide view stitched from narrow frames: how many, in which order, what it comes to, what spoils it. */
import { degrees } from '../geometry/vector';
import type { Body } from '../kit/schema';
import { angleOfView } from '../optics/thinLens';
import { equivalentLens, frameSize } from '../setup/framing';
import type { Camera } from '../setup/schema';

export interface StitchFrame {
  /** 0 is the first column from the left, the first row from the top. */
  readonly column: number;
  readonly row: number;
  /** Where it lies in the whole, in shares of its angle from the left and the top: its middle and its size. */
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

export type Projection = 'flat' | 'cylinder' | 'sphere';

export interface Stitching {
  /** In the order they are taken: the one with the subject first, then round it. */
  readonly frames: readonly StitchFrame[];
  /** Whole view and one frame, degrees. */
  readonly angleDeg: { readonly across: number; readonly down: number };
  readonly frameDeg: { readonly across: number; readonly down: number };
  /** Turn from frame to frame, degrees. */
  readonly turnDeg: { readonly across: number; readonly down: number };
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

/** Columns (or rows) of frames of an angle that cover a wanted one with an overlap: the least n with α(1 + (n − 1)(1 − o)) ≥ wanted. */
export function framesFor(wantedDeg: number, frameDeg: number, overlap: number): number {
  return Math.max(1, Math.ceil(1 + (wantedDeg / frameDeg - 1) / (1 - overlap) - 1e-9));
}

/** One frame's angles with the lens in use at a distance, degrees. */
export function frameAngles(body: Body, camera: Camera, distanceMm: number, P: number): Stitching['frameDeg'] {
  const frame = frameSize(body, camera.orientation);
  const of = (size: number) => degrees(angleOfView(camera.focalLengthMm, distanceMm, size, P));
  return { across: of(frame.width), down: of(frame.height) };
}

interface Taken {
  readonly body: Body;
  readonly camera: Camera;
  readonly N: number;
  readonly distanceMm: number;
  readonly P: number;
  /** Where the target lies, in shares of the picture. */
  readonly at: { readonly x: number; readonly y: number };
}

/** Null for a picture of one frame. */
export function stitching({ body, camera, N, distanceMm, P, at }: Taken): Stitching | null {
  const { stitch } = camera;
  if (!stitch) return null;
  const frameDeg = frameAngles(body, camera, distanceMm, P);
  const step = 1 - stitch.overlap;
  const turnDeg = { across: frameDeg.across * step, down: frameDeg.down * step };
  const angleDeg = {
    across: frameDeg.across + turnDeg.across * (stitch.columns - 1),
    down: frameDeg.down + turnDeg.down * (stitch.rows - 1)
  };
  const size = { width: frameDeg.across / angleDeg.across, height: frameDeg.down / angleDeg.down };
  const all = Array.from({ length: stitch.columns * stitch.rows }, (_, index): StitchFrame => {
    const column = index % stitch.columns;
    const row = Math.floor(index / stitch.columns);
    const place = (n: number, turn: number, own: number, whole: number) => (n * turn + own / 2) / whole;
    return {
      column,
      row,
      x: place(column, turnDeg.across, frameDeg.across, angleDeg.across),
      y: place(row, turnDeg.down, frameDeg.down, angleDeg.down),
      ...size
    };
  });
  const frame = frameSize(body, camera.orientation);
  const pixelsPerMm = body.sensor.pixelsWide / body.sensor.widthMm;
  const pixels = { across: frame.width * pixelsPerMm, down: frame.height * pixelsPerMm };
  const whole = (pixels.across / size.width) * (pixels.down / size.height);
  // Turned off the pupil by e, a thing at d moves against one at s by e × turn × |1/d − 1/s|, in radians; its blur disc is
  // A |1/d − 1/s| wide, seen from the lens: the shift is e × turn/A of it wherever it lies.
  const shift = offPupilMm * ((turnDeg.across * Math.PI) / 180);
  const perRadian = pixels.across / ((frameDeg.across * Math.PI) / 180);
  const hidden = shift / (camera.focalLengthMm / N) <= shownOfDisc;
  const nearestMm = hidden ? null : 1 / (1 / distanceMm + shownPixels / (shift * perRadian));
  return {
    frames: fromSubject(all, at),
    angleDeg,
    frameDeg,
    turnDeg,
    equivalent: equivalentLens(body, camera, N),
    megapixels: whole / 1e6,
    projection:
      angleDeg.across <= flatUpTo && angleDeg.down <= flatUpTo
        ? 'flat'
        : angleDeg.down <= cylinderUpTo
          ? 'cylinder'
          : 'sphere',
    nearestMm
  };
}

/** The frame whose middle is nearest to the subject first; then ring by ring, each clockwise from its top. */
function fromSubject(frames: readonly StitchFrame[], at: Taken['at']): readonly StitchFrame[] {
  const off = (frame: StitchFrame) => Math.hypot(frame.x - at.x, frame.y - at.y);
  const first = frames.reduce<StitchFrame | undefined>(
    (best, frame) => (best && off(best) <= off(frame) ? best : frame),
    undefined
  );
  if (!first) return frames;
  const ring = (frame: StitchFrame) => Math.max(Math.abs(frame.column - first.column), Math.abs(frame.row - first.row));
  const turn = (frame: StitchFrame) => {
    const angle = Math.atan2(frame.column - first.column, first.row - frame.row);
    return angle < 0 ? angle + 2 * Math.PI : angle;
  };
  return [...frames].sort((a, b) => ring(a) - ring(b) || turn(a) - turn(b));
}
