/** Every eye held against the same eye in its sharpest frame: what one person's eye looks like need not be guessed from others'. */
import { group } from 'd3-array';
import { measureOwn, type EyeShape } from '../measure/own';
import { unpackSpectrum } from '../measure/packed';
import { eyesClosed, eyesPx, usualEyes } from './eyes';
import type { EyeFigure, Frame, FrameFace, OwnFigure } from './schema';

type Side = 'left' | 'right';
type Told = Extract<EyeFigure, { ok: true }>;

/** A frame and its setup, as far as it matters here. */
export interface FrameOfEyes {
  readonly id: string;
  readonly setupId: string | null;
  readonly faces: Frame['faces'];
  readonly enlarged?: Frame['enlarged'];
}

/** An eye measured again; null where it is now the one that others are held against. */
export interface RemeasuredEye {
  readonly frameId: string;
  readonly faceId: string;
  readonly side: Side;
  readonly own: OwnFigure | null;
}

interface EyeSeen {
  readonly frameId: string;
  readonly face: FrameFace;
  readonly side: Side;
  readonly eye: Told;
  /** The frame has the pixels its camera gave it: others are held against it, and it against others. */
  readonly real: boolean;
}

/** An eye of another size than this, as a ratio, shows other things. */
const mostLarger = 1.8;
/** A head turned further from how it was, degrees, shows another eye (chosen). */
const mostTurned = 25;
/** A frame takes the place of the sharpest so far where it is sharper by this, pixels: else all would be measured again for nothing. */
const sharperBy = 0.3;

const shapeOf = ({ face, eye }: Pick<EyeSeen, 'face' | 'eye'>): EyeShape | null => {
  const spectrum = eye.spectrum === undefined ? null : unpackSpectrum(eye.spectrum);
  return spectrum && { eyesPx: eyesPx(face), rollDeg: face.rollDeg, spectrum, discPx: eye.discPx };
};

/** What is new: eyes whose sharpest frame is another than they were held against. Each person's eyes of each setup apart. */
export function measureOwnEyes(frames: readonly FrameOfEyes[]): RemeasuredEye[] {
  return [...group(frames, ({ setupId }) => setupId).values()].flatMap((ofSetup) => {
    const usual = usualEyes(ofSetup);
    const seen = ofSetup.flatMap(({ id, faces, enlarged }) =>
      faces.flatMap((face) =>
        (['left', 'right'] as const).flatMap((side): EyeSeen[] => {
          const eye = face.eyes[side];
          // The lashes of a closed eye are sharp lines, and no eye.
          return face.personId !== null && eye.ok && eye.spectrum && !eyesClosed(face, usual)
            ? [{ frameId: id, face, side, eye, real: enlarged !== true }]
            : [];
        })
      )
    );
    return [
      ...group(seen, ({ face, side }) => `${face.personId} ${face.pointed === 'thing' ? 'thing' : side}`).values()
    ].flatMap(ofOneEye);
  });
}

function ofOneEye(all: readonly EyeSeen[]): RemeasuredEye[] {
  const still = all.filter(({ eye, real }) => real && !eye.smear);
  const sharpest = [...still].sort((a, b) => a.eye.discPx - b.eye.discPx)[0];
  const before = still.find(({ frameId }) => all.some(({ eye }) => eye.own?.frame === frameId));
  const reference = before && sharpest && before.eye.discPx < sharpest.eye.discPx + sharperBy ? before : sharpest;
  const shape = reference && shapeOf(reference);
  if (!reference || !shape) return [];
  return all.flatMap((seen): RemeasuredEye[] => {
    const { frameId, face, side, eye } = seen;
    const found = seen === reference ? null : against(seen, reference, shape);
    if (found === 'known' || (found === null && eye.own === undefined)) return [];
    return [{ frameId, faceId: face.id, side, own: found }];
  });
}

/** @returns null where the two cannot be compared */
function against({ face, eye, real }: EyeSeen, reference: EyeSeen, shape: EyeShape): OwnFigure | 'known' | null {
  if (face.personId === null || !real) return null;
  if (eye.own?.frame === reference.frameId && eye.own.of === face.personId) return 'known';
  const ratio = eyesPx(face) / shape.eyesPx;
  if (ratio > mostLarger || ratio < 1 / mostLarger) return null;
  if (Math.abs(face.yawDeg - reference.face.yawDeg) > mostTurned) return null;
  const own = shapeOf({ face, eye });
  const fit = own && measureOwn(own, shape, face.pointed === 'thing' ? 'surface' : 'eye');
  if (!fit) return null;
  const { discPx, low, high } = fit;
  return { of: face.personId, frame: reference.frameId, discPx, low, high };
}

/** A frame with its eyes as measured again. */
export function withRemeasuredEyes(frame: Frame, again: readonly RemeasuredEye[]): Frame {
  const faces = frame.faces.map((face) => {
    const eyes = { ...face.eyes };
    for (const { faceId, side, own } of again) {
      const { [side]: eye } = eyes;
      if (faceId !== face.id || !eye.ok || (own !== null && own.of !== face.personId)) continue;
      const { own: _before, ...bare } = eye;
      eyes[side] = own === null ? bare : { ...bare, own };
    }
    return { ...face, eyes };
  });
  return { ...frame, faces };
}
