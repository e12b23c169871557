/** JPEGs inside other files, and how large a JPEG is (ITU-T T.81, annex B). */

export interface JpegPart {
  readonly from: number;
  readonly to: number;
  readonly width: number;
  readonly height: number;
}

/** Start of frame, but for the lossless ones, which nothing here decodes. */
const frames = new Set([0xc0, 0xc1, 0xc2]);
const standalone = (marker: number) => marker === 0x01 || (marker >= 0xd0 && marker <= 0xd8);

const wordAt = (bytes: Uint8Array, at: number): number => (bytes[at] ?? 0) * 256 + (bytes[at + 1] ?? 0);

/** Where a scan ends: at a marker that is neither a stuffed byte nor a restart. */
function afterScan(bytes: Uint8Array, from: number): number {
  let at = from;
  for (; at + 1 < bytes.length; at++) {
    const next = bytes[at + 1] ?? 0;
    if (bytes[at] === 0xff && next !== 0 && next !== 0xff && !(next >= 0xd0 && next <= 0xd7)) break;
  }
  return at;
}

/** The JPEG that begins here, or null when it is none that can be decoded or it is cut off before its picture begins. */
export function jpegAt(bytes: Uint8Array, from: number): JpegPart | null {
  if (bytes[from] !== 0xff || bytes[from + 1] !== 0xd8) return null;
  let at = from + 2;
  let size: { width: number; height: number } | null = null;
  while (at + 4 <= bytes.length) {
    if (bytes[at] !== 0xff) return null;
    const marker = bytes[at + 1] ?? 0;
    if (marker === 0xff) {
      at++;
      continue;
    }
    if (standalone(marker)) {
      at += 2;
      continue;
    }
    if (marker === 0xd9) return null;
    const length = wordAt(bytes, at + 2);
    if (length < 2) return null;
    if (frames.has(marker)) size = { height: wordAt(bytes, at + 5), width: wordAt(bytes, at + 7) };
    at += 2 + length;
    if (marker !== 0xda) continue;
    // More scans may follow.
    at = afterScan(bytes, at);
    if (bytes[at] === 0xff && bytes[at + 1] === 0xd9) return size && { from, to: at + 2, ...size };
  }
  return null;
}

/** The largest JPEG inside a file: a raw file's preview, whether its container is made of tags or of boxes. */
export function largestJpeg(bytes: Uint8Array): JpegPart | null {
  let largest: JpegPart | null = null;
  for (let at = bytes.indexOf(0xff); at >= 0 && at + 3 < bytes.length; at = bytes.indexOf(0xff, at + 1)) {
    if (bytes[at + 1] !== 0xd8 || bytes[at + 2] !== 0xff) continue;
    const part = jpegAt(bytes, at);
    if (!part) continue;
    if (!largest || part.width * part.height > largest.width * largest.height) largest = part;
    // Thumbnails lie inside a preview's own segments.
    at = part.to - 1;
  }
  return largest;
}
