/** Everything Focalis wants to know of one picture. */
import { eyesPx } from '../core/frames/eyes';
import { kindOf } from '../core/pictures/kind';
import { largestJpeg } from '../core/pictures/jpegs';
import { readFacts, type PictureFacts } from '../core/pictures/metadata';
import { measureEye, patchSide, type EyeMeasured } from '../core/measure/eye';
import { irisContrast } from '../core/measure/openness';
import { luminanceOf } from '../core/measure/luminance';
import { decode, type Decoded } from './decode';
import type { Box, Size } from './boxes';
import type { Detector, FoundFace, Point } from './detector';

export interface PictureAsked {
  /** How far apart the plan expects eyes, as a share of the picture's width; null when nothing is known. */
  readonly eyesShare: number | null;
}

export interface ReadFace extends Omit<FoundFace, 'box'> {
  readonly box: Box;
  readonly eyes: { readonly left: EyeMeasured; readonly right: EyeMeasured };
  /** How much there is to see where each iris should be. */
  readonly contrast: { readonly left: number; readonly right: number };
  /** Both eyes with lids, at 100 %, and where they were cut. */
  readonly crop: { readonly picture: Blob; readonly part: Box };
}

export interface ReadFrame {
  readonly hash: string;
  readonly bytes: number;
  readonly width: number;
  readonly height: number;
  /** Of a raw file the preview inside was measured. */
  readonly preview: boolean;
  readonly facts: PictureFacts;
  readonly thumbnail: Blob;
  readonly faces: readonly ReadFace[];
}

export type PictureRead =
  { readonly ok: true; readonly frame: ReadFrame } | { readonly ok: false; readonly reason: string };

/** Larger pictures would take more memory than a browser gives a page, pixels. */
const mostPixels = 160_000_000;
const mostBytes = 400_000_000;
const thumbnailPx = 800;

const refused = (reason: string): PictureRead => ({ ok: false, reason });

export async function readPicture(file: Blob, { eyesShare }: PictureAsked, detector: Detector): Promise<PictureRead> {
  if (file.size === 0) return refused('It is empty.');
  if (file.size > mostBytes) return refused(`It has ${Math.round(file.size / 1e6)} MB; at most 400 MB are read.`);
  const bytes = new Uint8Array(await file.arrayBuffer());
  const kind = kindOf(bytes);
  if (kind === 'heic') return refused('HEIC cannot be decoded here yet: save it as JPEG first.');
  if (kind === 'other' || kind === 'empty')
    return refused('It is no picture Focalis can read: JPEG, PNG, WebP or raw.');
  const part = kind === 'raw' ? largestJpeg(bytes) : null;
  if (kind === 'raw' && !part) return refused('This raw file has no preview inside that can be decoded.');
  const facts = readFacts(bytes.buffer);
  const inner = part ? bytes.subarray(part.from, part.to) : bytes;
  const size = part ?? sizeOf(facts);
  if (size && size.width * size.height > mostPixels)
    return refused(`It has ${Math.round((size.width * size.height) / 1e6)} megapixels; at most 160 are read.`);
  const type = kind === 'png' ? 'image/png' : kind === 'webp' ? 'image/webp' : 'image/jpeg';
  let picture: Decoded;
  try {
    // A preview lies as the sensor does; its own orientation, if it has one, is that of the file.
    picture = await decode(new Blob([inner], { type }), type, facts.orientation);
  } catch {
    return refused('It cannot be decoded: it is damaged, or cut off.');
  }
  try {
    return { ok: true, frame: await read(picture, bytes, facts, part !== null, eyesShare, detector) };
  } finally {
    picture.close();
  }
}

const sizeOf = ({ widthPx, heightPx }: PictureFacts): Size | null =>
  widthPx !== null && heightPx !== null ? { width: widthPx, height: heightPx } : null;

async function read(
  picture: Decoded,
  bytes: Uint8Array<ArrayBuffer>,
  facts: PictureFacts,
  preview: boolean,
  eyesShare: number | null,
  detector: Detector
): Promise<ReadFrame> {
  const { width, height } = picture;
  const scale = Math.min(1, thumbnailPx / Math.max(width, height));
  const whole = { x: 0, y: 0, width, height };
  const thumbnail = await picture.jpeg(whole, {
    width: Math.max(1, Math.round(width * scale)),
    height: Math.max(1, Math.round(height * scale))
  });
  const digest = new Uint8Array(await crypto.subtle.digest('SHA-256', bytes));
  const found = await detector.find(picture, picture.draw, eyesShare === null ? null : eyesShare * width);
  const faces: ReadFace[] = [];
  for (const face of withoutNested(found)) faces.push(await measured(face, picture, facts));
  return {
    hash: Array.from(digest, (byte) => byte.toString(16).padStart(2, '0')).join(''),
    bytes: bytes.length,
    width,
    height,
    preview,
    facts,
    thumbnail,
    faces
  };
}

async function measured(face: FoundFace, picture: Decoded, facts: PictureFacts): Promise<ReadFace> {
  const apart = eyesPx(face);
  const side = patchSide(apart);
  const patch = (at: Point) => {
    const part = {
      x: Math.round(at.x - side / 2),
      y: Math.round(at.y - side / 2),
      width: side,
      height: side
    };
    return { part, light: luminanceOf(picture.draw(part, { width: side, height: side }).data) };
  };
  const [left, right] = [patch(face.left), patch(face.right)];
  const eye = ({ part, light }: typeof left): EyeMeasured =>
    facts.full && !facts.full.some((area) => holds(area, part, side / 4))
      ? { ok: false, reason: 'notFull' }
      : measureEye(light, side, { eyesPx: apart, rollDeg: face.rollDeg });
  const part = eyesPart(face, apart, picture);
  const shown = Math.min(1, 480 / part.width);
  return {
    ...face,
    eyes: { left: eye(left), right: eye(right) },
    contrast: {
      left: irisContrast(left.light, side, apart),
      right: irisContrast(right.light, side, apart)
    },
    crop: {
      part,
      picture: await picture.jpeg(
        part,
        {
          width: Math.max(1, Math.round(part.width * shown)),
          height: Math.max(1, Math.round(part.height * shown))
        },
        0.9
      )
    }
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
const holds = (area: Box, part: Box, margin: number): boolean =>
  part.x >= area.x - margin &&
  part.y >= area.y - margin &&
  part.x + part.width <= area.x + area.width + margin &&
  part.y + part.height <= area.y + area.height + margin;

/** Both eyes with brows and lids. */
function eyesPart({ left, right }: FoundFace, apart: number, { width, height }: Size): Box {
  const [x, y] = [(left.x + right.x) / 2, (left.y + right.y) / 2];
  const [wide, tall] = [Math.abs(left.x - right.x) + apart, Math.abs(left.y - right.y) + apart * 0.8];
  const from = (middle: number, size: number, most: number) =>
    Math.round(Math.max(0, Math.min(most - size, middle - size / 2)));
  const [w, h] = [Math.round(Math.min(width, wide)), Math.round(Math.min(height, tall))];
  return { x: from(x, w, width), y: from(y, h, height), width: w, height: h };
}
