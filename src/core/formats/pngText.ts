/**
 * Settings written into a picture file: an iTXt chunk with XMP (Adobe, XMP Specification part 3) in a PNG (ISO/IEC 15948).
 */
import { buf } from 'crc-32';

const signature = [0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a] as const;
/** IHDR is always first, and always 25 bytes with its length and checksum. */
const afterHeader = signature.length + 25;

/** As XML in plain ASCII: everything else becomes a numeric reference. */
const escaped = (text: string) =>
  [...text]
    .map((letter) => {
      const code = letter.codePointAt(0) ?? 32;
      return code > 126 || code < 32 || '&<>"'.includes(letter) ? `&#${code};` : letter;
    })
    .join('');

interface PictureFacts {
  readonly title: string;
  readonly description: string;
  readonly focalLengthMm: number;
  readonly fNumber: number;
  readonly subjectDistanceMm: number;
  readonly exposureTimeS: number;
}

function xmpOf(facts: PictureFacts): string {
  const rational = (value: number, per: number) => `${Math.round(value * per)}/${per}`;
  return `<?xpacket begin="" id="W5M0MpCehiHzreSzNTczkc9d"?><x:xmpmeta xmlns:x="adobe:ns:meta/"><rdf:RDF xmlns:rdf="http://www.w3.org/1999/02/22-rdf-syntax-ns#"><rdf:Description rdf:about="" xmlns:dc="http://purl.org/dc/elements/1.1/" xmlns:exif="http://ns.adobe.com/exif/1.0/" xmlns:xmp="http://ns.adobe.com/xap/1.0/" xmp:CreatorTool="Focalis" exif:FocalLength="${rational(facts.focalLengthMm, 10)}" exif:FNumber="${rational(facts.fNumber, 100)}" exif:SubjectDistance="${rational(facts.subjectDistanceMm / 1000, 1000)}" exif:ExposureTime="${rational(facts.exposureTimeS, 100000)}"><dc:title><rdf:Alt><rdf:li xml:lang="x-default">${escaped(facts.title)}</rdf:li></rdf:Alt></dc:title><dc:description><rdf:Alt><rdf:li xml:lang="x-default">${escaped(facts.description)}</rdf:li></rdf:Alt></dc:description></rdf:Description></rdf:RDF></x:xmpmeta><?xpacket end="w"?>`;
}

/** The same picture with its settings in it. Throws when the bytes are not a PNG. */
export function withFacts(png: Uint8Array, facts: PictureFacts): Uint8Array<ArrayBuffer> {
  if (signature.some((byte, index) => png[index] !== byte)) throw new Error('This is not a PNG.');
  // Keyword, 0, not compressed, method 0, no language, no translated keyword, text.
  const body = Uint8Array.from(`iTXtXML:com.adobe.xmp\0\0\0\0\0${xmpOf(facts)}`, (letter) => letter.charCodeAt(0));
  const result = new Uint8Array(png.length + body.length + 8);
  const view = new DataView(result.buffer);
  result.set(png.subarray(0, afterHeader));
  view.setUint32(afterHeader, body.length - 4);
  result.set(body, afterHeader + 4);
  view.setInt32(afterHeader + 4 + body.length, buf(body));
  result.set(png.subarray(afterHeader), afterHeader + 8 + body.length);
  return result;
}
