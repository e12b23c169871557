/** Everything Focalis wants to know of one picture. */
import { eyesPx } from '../core/frames/eyes';
import type { PictureFacts } from '../core/photos/metadata';
import type { EyeFigure } from '../core/frames/schema';
import {
  isEnlarged,
  measureEye,
  eyePatchSide,
  type EyeMeasured,
  type EyePatch,
  type PatchOf
} from '../core/measure/eye';
import { movementsIn, type MovementFound } from '../core/measure/motion';
import { sharpestCells } from '../core/measure/sharpest';
import { irisContrast } from '../core/measure/openness';
import { luminanceOf } from '../core/measure/luminance';
import { sha256Hex } from './hash';
import type { Decoded } from './decode';
import { openPicture, type DecodedPixels, type Opened } from './openPhoto';
import type { PixelBox, Size } from '../faces/boxes';
import type { Detector, FoundFace, Point } from '../faces/detector';

export interface PhotoRequest {
  /** How far apart the plan expects eyes, as a share of the picture's width; null when nothing is known. */
  readonly eyesShare: number | null;
  /** How many faces the plan expects; null when nothing is known. */
  readonly faces?: number | null;
  readonly pixels?: DecodedPixels | null;
}

export interface ReadFace extends Omit<FoundFace, 'box'> {
  readonly box: PixelBox;
  readonly eyes: { readonly left: EyeFigure; readonly right: EyeFigure };
  /** How much there is to see where each iris should be. */
  readonly contrast: { readonly left: number; readonly right: number };
  /** Both eyes with lids, at 100%, and where they were cut. */
  readonly crop: { readonly picture: Blob; readonly part: PixelBox };
}

export interface ReadFrame {
  readonly hash: string;
  readonly bytes: number;
  readonly width: number;
  readonly height: number;
  /** Of a raw file the preview inside was measured. */
  readonly preview: boolean;
  /** It has more pixels than its camera gave it. */
  readonly enlarged: boolean;
  readonly facts: PictureFacts;
  readonly thumbnail: Blob;
  readonly faces: readonly ReadFace[];
  /** The place that is sharpest in the whole picture; null where nothing tells, or not all of it is at full size. */
  readonly sharpest: SharpestPlace | null;
}

export interface SharpestPlace {
  /** Shares of the width and the height. */
  readonly x: number;
  readonly y: number;
  readonly discPx: number;
  readonly low: number;
  readonly high: number;
}

export type PhotoResult =
  { readonly ok: true; readonly frame: ReadFrame } | { readonly ok: false; readonly reason: string };

const thumbnailPx = 800;

export async function measurePhoto(file: Blob, asked: PhotoRequest, detector: Detector): Promise<PhotoResult> {
  const from = await openPicture(file, asked.pixels);
  if (typeof from === 'string') return { ok: false, reason: from };
  try {
    return { ok: true, frame: await read(from, asked, detector) };
  } finally {
    from.picture.close();
  }
}

/** What somebody pointed at. */
export interface PointRequest {
  readonly at: Point;
  readonly kind: 'eye' | 'thing';
  /** About how far apart eyes are there, or how large the thing is, pixels. */
  readonly sizePx: number;
  readonly pixels?: DecodedPixels | null;
}

export type PointResult =
  /** A face was seen about it, with both eyes. */
  | { readonly kind: 'face'; readonly face: ReadFace }
  | { readonly kind: 'point'; readonly figure: EyeFigure; readonly crop: Blob }
  | { readonly kind: 'refused'; readonly reason: string };

/** An eye, or a thing, that was pointed at: a click is enough. */
export async function measurePoint(
  file: Blob,
  { at, kind, sizePx, pixels }: PointRequest,
  detector: Detector
): Promise<PointResult> {
  const from = await openPicture(file, pixels);
  if (typeof from === 'string') return { kind: 'refused', reason: from };
  const { picture, facts } = from;
  try {
    const face = kind === 'eye' ? await detector.findAt(picture, picture.draw, at, sizePx) : null;
    if (face) {
      const [seen] = withMovements([await measured(face, picture, facts)]);
      if (seen) return { kind: 'face', face: seen };
    }
    const patch = patchAt(at, eyePatchSide(sizePx), picture);
    const figure = measuredPatch(patch, facts, { eyesPx: sizePx, rollDeg: 0 }, kind === 'eye' ? 'eye' : 'surface');
    const { picture: crop } = await cropAt(
      { x: at.x - sizePx / 2, y: at.y },
      { x: at.x + sizePx / 2, y: at.y },
      sizePx,
      picture
    );
    const [moved = null] = movementsIn([evidenceOf([figure])]);
    return { kind: 'point', figure: figureOf(figure, moved), crop };
  } finally {
    picture.close();
  }
}

async function read(
  { picture, bytes, facts, preview }: Opened,
  { eyesShare, faces: expected = null }: PhotoRequest,
  detector: Detector
): Promise<ReadFrame> {
  const { width, height } = picture;
  const scale = Math.min(1, thumbnailPx / Math.max(width, height));
  const whole = { x: 0, y: 0, width, height };
  const thumbnail = await picture.jpeg(whole, {
    width: Math.max(1, Math.round(width * scale)),
    height: Math.max(1, Math.round(height * scale))
  });
  const hash = await sha256Hex(bytes);
  const found = await detector.find(picture, picture.draw, eyesShare === null ? null : eyesShare * width, expected);
  const faces: MeasuredFace[] = [];
  for (const face of withoutNested(found)) faces.push(await measured(face, picture, facts));
  return {
    hash,
    bytes: bytes.length,
    width,
    height,
    preview,
    enlarged: isEnlarged(faces.flatMap(({ eyes: { left, right } }) => [left, right])),
    facts,
    thumbnail,
    faces: withMovements(faces),
    sharpest: facts.full ? null : sharpestPlace(picture)
  };
}

/** The longer side at most of what is looked over for the sharpest place, pixels: the picture by halves. And the cells it is looked over in. */
const overviewPx = 2000;
const cellPx = 30;
/** So many of the cells that promise most are measured at 100%. */
const promising = 6;
/** Places whose discs differ by less are as sharp as each other, pixels. */
const alike = 1;
/** Of a place so much is measured, pixels. */
const placePx = 64;

function sharpestPlace(picture: Decoded): SharpestPlace | null {
  const { width, height } = picture;
  let size: Size = { width, height };
  while (Math.max(size.width, size.height) > overviewPx)
    size = { width: Math.round(size.width / 2), height: Math.round(size.height / 2) };
  const light = luminanceOf(picture.draw({ x: 0, y: 0, width, height }, size).data);
  const found = sharpestCells(light, size.width, size.height, cellPx, promising).flatMap(
    ({ x, y }): SharpestPlace[] => {
      const patch = patchAt({ x: x * width, y: y * height }, placePx, picture);
      const read = measureEye(patch.light, placePx, { eyesPx: placePx, rollDeg: 0 }, 'surface');
      return read.ok ? [{ x, y, discPx: read.discPx, low: read.low, high: read.high }] : [];
    }
  );
  // Of those as sharp as the sharpest the one with most to see.
  const least = Math.min(...found.map(({ discPx }) => discPx));
  return found.find(({ discPx }) => discPx <= least + alike) ?? null;
}

interface Patch {
  readonly part: PixelBox;
  readonly side: number;
  readonly light: Float32Array;
}

function patchAt(at: Point, side: number, picture: Decoded): Patch {
  const part = { x: Math.round(at.x - side / 2), y: Math.round(at.y - side / 2), width: side, height: side };
  return { part, side, light: luminanceOf(picture.draw(part, { width: side, height: side }).data) };
}

function measuredPatch({ part, side, light }: Patch, facts: PictureFacts, eye: EyePatch, of: PatchOf): EyeMeasured {
  return facts.full && !facts.full.some((area) => holds(area, part, side / 4))
    ? { ok: false, reason: 'notFull' }
    : measureEye(light, side, eye, of);
}

async function cropAt(left: Point, right: Point, apart: number, picture: Decoded): Promise<ReadFace['crop']> {
  const part = eyesPart(left, right, apart, picture);
  const shown = Math.min(1, 480 / part.width);
  const size = {
    width: Math.max(1, Math.round(part.width * shown)),
    height: Math.max(1, Math.round(part.height * shown))
  };
  return { part, picture: await picture.jpeg(part, size, 0.9) };
}

type MeasuredFace = Omit<ReadFace, 'eyes'> & {
  readonly eyes: { readonly left: EyeMeasured; readonly right: EyeMeasured };
};

const evidenceOf = (eyes: readonly EyeMeasured[]) =>
  eyes.flatMap((eye) => (eye.ok && eye.movement ? [eye.movement] : []));

/** As it is kept: what moved has been decided. */
function figureOf(eye: EyeMeasured, moved: MovementFound | null): EyeFigure {
  if (!eye.ok) return eye;
  const { discPx, low, high, spectrum } = eye;
  return { ok: true, discPx, low, high, smear: moved, spectrum };
}

/** Who moved is decided over all the faces of a frame. */
function withMovements(faces: readonly MeasuredFace[]): ReadFace[] {
  const moved = movementsIn(faces.map(({ eyes }) => evidenceOf([eyes.left, eyes.right])));
  return faces.map((face, index) => ({
    ...face,
    eyes: {
      left: figureOf(face.eyes.left, moved[index] ?? null),
      right: figureOf(face.eyes.right, moved[index] ?? null)
    }
  }));
}

async function measured(face: FoundFace, picture: Decoded, facts: PictureFacts): Promise<MeasuredFace> {
  const apart = eyesPx(face);
  const side = eyePatchSide(apart);
  const [left, right] = [patchAt(face.left, side, picture), patchAt(face.right, side, picture)];
  const eye = { eyesPx: apart, rollDeg: face.rollDeg };
  return {
    ...face,
    eyes: { left: measuredPatch(left, facts, eye, 'eye'), right: measuredPatch(right, facts, eye, 'eye') },
    contrast: {
      left: irisContrast(left.light, side, apart),
      right: irisContrast(right.light, side, apart)
    },
    crop: await cropAt(face.left, face.right, apart, picture)
  };
}

/** A part of a face is now and then taken for a face of its own: within another, the surer stays. */
function withoutNested(faces: readonly FoundFace[]): FoundFace[] {
  const middle = ({ left, right }: FoundFace) => ({ x: (left.x + right.x) / 2, y: (left.y + right.y) / 2 });
  const kept: FoundFace[] = [];
  for (const face of [...faces].sort((a, b) => b.score - a.score)) {
    const within = kept.some((other) => {
      const [a, b] = [middle(face), middle(other)];
      return Math.hypot(a.x - b.x, a.y - b.y) < 1.3 * Math.max(eyesPx(face), eyesPx(other));
    });
    if (!within) kept.push(face);
  }
  return kept;
}

/** Whether an area holds a part, but for a margin. */
const holds = (area: PixelBox, part: PixelBox, margin: number): boolean =>
  part.x >= area.x - margin &&
  part.y >= area.y - margin &&
  part.x + part.width <= area.x + area.width + margin &&
  part.y + part.height <= area.y + area.height + margin;

/** Both eyes with brows and lids. */
function eyesPart(left: Point, right: Point, apart: number, { width, height }: Size): PixelBox {
  const [x, y] = [(left.x + right.x) / 2, (left.y + right.y) / 2];
  const [wide, tall] = [Math.abs(left.x - right.x) + apart, Math.abs(left.y - right.y) + apart * 0.8];
  const from = (middle: number, size: number, most: number) =>
    Math.round(Math.max(0, Math.min(most - size, middle - size / 2)));
  const [w, h] = [Math.round(Math.min(width, wide)), Math.round(Math.min(height, tall))];
  return { x: from(x, w, width), y: from(y, h, height), width: w, height: h };
}
