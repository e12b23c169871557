/** A file as a picture that can be measured. */
import { kindOf, mostPixels } from '../core/photos/kind';
import { largestJpeg } from '../core/photos/jpegs';
import { readFacts, type PictureFacts } from '../core/photos/metadata';
import type { Size } from '../faces/boxes';
import { decode, decodePixels, type Decoded } from './decode';

/** Pixels of a picture the browser does not decode, upright: decoded elsewhere. */
export interface DecodedPixels {
  readonly width: number;
  readonly height: number;
  readonly data: Uint8ClampedArray<ArrayBuffer>;
}

const mostBytes = 400_000_000;

/** A picture that can be measured. */
export interface Opened {
  readonly picture: Decoded;
  readonly bytes: Uint8Array<ArrayBuffer>;
  readonly facts: PictureFacts;
  readonly preview: boolean;
}

/** @returns why it cannot be read, where it cannot */
export async function openPicture(file: Blob, pixels: DecodedPixels | null = null): Promise<Opened | string> {
  if (file.size === 0) return 'It is empty.';
  if (file.size > mostBytes) return `It has ${Math.round(file.size / 1e6)} MB; at most 400 MB are read.`;
  const bytes = new Uint8Array(await file.arrayBuffer());
  const kind = kindOf(bytes);
  if (kind === 'heic' && !pixels) return 'This HEIC file cannot be decoded: it is damaged, or cut off.';
  if (kind === 'other' || kind === 'empty')
    return 'Focalis can’t read this file. It reads JPEG, PNG, WebP, HEIC and raw files with a preview.';
  const part = kind === 'raw' ? largestJpeg(bytes) : null;
  if (kind === 'raw' && !part) return 'This raw file has no preview inside that can be decoded.';
  const facts = readFacts(bytes.buffer);
  const inner = part ? bytes.subarray(part.from, part.to) : bytes;
  const size = part ?? sizeOf(facts);
  if (size && size.width * size.height > mostPixels)
    return `It has ${Math.round((size.width * size.height) / 1e6)} megapixels; at most 160 are read.`;
  const type = kind === 'png' ? 'image/png' : kind === 'webp' ? 'image/webp' : 'image/jpeg';
  try {
    // A preview lies as the sensor does; its own orientation, if it has one, is that of the file.
    const picture = pixels
      ? await decodePixels(pixels)
      : await decode(new Blob([inner], { type }), type, facts.orientation);
    return { picture, bytes, facts, preview: part !== null };
  } catch {
    return 'It cannot be decoded: it is damaged, or cut off.';
  }
}

const sizeOf = ({ widthPx, heightPx }: PictureFacts): Size | null =>
  widthPx !== null && heightPx !== null ? { width: widthPx, height: heightPx } : null;
