/** What kind of file this is, by its first bytes: names lie. */

export type PhotoFileType = 'jpeg' | 'png' | 'webp' | 'heic' | 'raw' | 'other' | 'empty';

/** Larger pictures would take more memory than a browser gives a page, pixels. */
export const mostPixels = 160_000_000;
/** What a field for pictures takes: raw kinds are no images to a browser. */
export const acceptedPictures = 'image/*,.heic,.heif,.dng,.cr2,.cr3,.nef,.arw,.raf,.orf,.rw2,.pef';

const text = (bytes: Uint8Array, from: number, to: number): string => String.fromCharCode(...bytes.subarray(from, to));

/** ISO/IEC 23008-12, and what cameras write (from memory). */
const heicBrands = new Set(['heic', 'heix', 'hevc', 'heim', 'heis', 'hevm', 'mif1', 'msf1']);
/** A camera's own box-based kind says so by its brand. */
const rawBrands = new Set(['crx ']);

/** @param bytes the first sixteen of the file at least */
export function kindOf(bytes: Uint8Array): PhotoFileType {
  if (bytes.length === 0) return 'empty';
  if (bytes[0] === 0xff && bytes[1] === 0xd8 && bytes[2] === 0xff) return 'jpeg';
  if (text(bytes, 0, 8) === '\x89PNG\r\n\x1a\n') return 'png';
  if (text(bytes, 0, 4) === 'RIFF' && text(bytes, 8, 12) === 'WEBP') return 'webp';
  if (text(bytes, 4, 8) === 'ftyp') {
    const brand = text(bytes, 8, 12);
    return rawBrands.has(brand) ? 'raw' : heicBrands.has(brand) ? 'heic' : 'other';
  }
  // TIFF and what raw kinds make of it: the byte order, then 42, or a number of the kind's own (from memory).
  const order = text(bytes, 0, 2);
  if (order === 'II' || order === 'MM') {
    const [a = 0, b = 0] = [bytes[2], bytes[3]];
    const magic = order === 'II' ? a + b * 256 : a * 256 + b;
    return [42, 43, 0x55, 0x4f52, 0x5352, 0x1a].includes(magic) ? 'raw' : 'other';
  }
  return 'other';
}
