import jpeg from 'jpeg-js';
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { withMetadata } from '../simulation/metadata';
import { writeSidecar } from '../formats/sidecar';
import { jpegAt, largestJpeg } from './jpegs';
import { kindOf } from './kind';
import { noFacts, readFacts } from './metadata';

const picture = (width: number, height: number) =>
  new Uint8Array(jpeg.encode({ data: new Uint8Array(width * height * 4).fill(120), width, height }, 80).data);
const bytes = (...parts: (string | number[] | Uint8Array)[]) =>
  Uint8Array.from(parts.flatMap((part) => (typeof part === 'string' ? [...Buffer.from(part, 'latin1')] : [...part])));

describe('what kind of file it is', () => {
  it('is told by its first bytes, whatever its name', () => {
    expect(kindOf(picture(8, 8))).toBe('jpeg');
    expect(kindOf(bytes([0x89], 'PNG\r\n\x1a\n', [0, 0, 0, 13], 'IHDR'))).toBe('png');
    expect(kindOf(bytes('RIFF', [1, 0, 0, 0], 'WEBPVP8 '))).toBe('webp');
    expect(kindOf(bytes([0, 0, 0, 24], 'ftypheic', [0, 0, 0, 0]))).toBe('heic');
    expect(kindOf(bytes([0, 0, 0, 24], 'ftypcrx ', [0, 0, 0, 0]))).toBe('raw');
    expect(kindOf(bytes('II', [42, 0, 8, 0, 0, 0]))).toBe('raw');
    expect(kindOf(bytes('MM', [0, 42, 0, 0, 0, 8]))).toBe('raw');
    expect(kindOf(bytes('<svg xmlns="http://www.w3.org/2000/svg"/>'))).toBe('other');
    expect(kindOf(bytes('II, a note that begins so'))).toBe('other');
    expect(kindOf(new Uint8Array())).toBe('empty');
  });
});

describe('a JPEG inside another file', () => {
  it('is found wherever it lies, the largest of them, and a thumbnail inside its metadata is not taken for it', () => {
    const [small, large] = [picture(16, 8), picture(320, 200)];
    const raw = bytes(
      'II',
      [42, 0, 8, 0, 0, 0],
      new Uint8Array(300),
      small,
      new Uint8Array(77),
      large,
      new Uint8Array(9)
    );
    const found = largestJpeg(raw);
    expect(found).toMatchObject({ width: 320, height: 200 });
    expect(raw.subarray(found?.from, found?.to)).toEqual(large);
    const boxes = bytes([0, 0, 0, 24], 'ftypcrx ', new Uint8Array(12), [0, 0, 9, 9], 'mdat', small);
    expect(largestJpeg(boxes)).toMatchObject({ width: 16, height: 8 });
  });

  it('is none where it is cut off, lossless, or only looks like one', () => {
    const whole = picture(320, 200);
    expect(jpegAt(whole, 0)).toMatchObject({ from: 0, to: whole.length });
    expect(jpegAt(whole.subarray(0, whole.length - 40), 0)).toBeNull();
    const lossless = Uint8Array.from(whole);
    for (let at = 0; at + 1 < lossless.length; at++)
      if (lossless[at] === 0xff && lossless[at + 1] === 0xc0) lossless[at + 1] = 0xc3;
    expect(jpegAt(lossless, 0)).toBeNull();
    expect(largestJpeg(bytes([0xff, 0xd8, 0xff], 'nothing of the kind'))).toBeNull();
    expect(largestJpeg(new Uint8Array(1000).fill(0xff))).toBeNull();
  });
});

describe('what a picture says of itself', () => {
  const facts = {
    bodyName: 'Main body',
    lensName: '85 mm f/1.8',
    focalLengthMm: 85,
    fNumber: 2.8,
    shutterS: 1 / 250,
    iso: 640,
    at: Date.UTC(2027, 5, 12, 12, 35, 2, 420),
    zoneMinutes: 120,
    distanceMm: 3400,
    orientation: 6 as const,
    number: 7,
    full: [{ x: 1, y: 2, width: 30, height: 40 }]
  };

  it('is read: the kit, the settings, the clock with its fraction and zone, the distance, what is at full size', () => {
    const read = readFacts(withMetadata(picture(32, 16), facts).buffer);
    expect(read).toMatchObject({
      make: 'Focalis',
      model: 'Stand-in',
      serial: 'Main body',
      lens: '85 mm f/1.8',
      focalLengthMm: 85,
      fNumber: 2.8,
      iso: 640,
      clockMs: Date.UTC(2027, 5, 12, 14, 35, 2, 420),
      zoneMinutes: 120,
      distanceMm: 3400,
      orientation: 6,
      widthPx: 32,
      heightPx: 16,
      full: facts.full
    });
    expect(read.shutterS).toBeCloseTo(1 / 250, 9);
  });

  it('is what XMP says, too, where nothing parses XML by itself', () => {
    const xmp = bytes(`http://ns.adobe.com/xap/1.0/\0${writeSidecar({ rating: 4, label: 'keep', measured: '' })}`);
    const plain = picture(8, 8);
    const whole = bytes(
      [0xff, 0xd8, 0xff, 0xe1, (xmp.length + 2) >> 8, (xmp.length + 2) & 255],
      xmp,
      plain.subarray(2)
    );
    expect(readFacts(whole.buffer)).toMatchObject({ rating: 4, label: 'keep' });
    const broken = bytes([0xff, 0xd8, 0xff, 0xe1, 0, 38], 'http://ns.adobe.com/xap/1.0/\0<x:xmpm', plain.subarray(2));
    expect(readFacts(broken.buffer)).toMatchObject({ rating: null, widthPx: 8 });
  });

  it('is nothing where there is nothing, or nothing sound', () => {
    expect(readFacts(picture(8, 8).buffer)).toMatchObject({ make: null, clockMs: null, orientation: 1, widthPx: 8 });
    expect(readFacts(new Uint8Array([1, 2, 3]).buffer)).toEqual(noFacts);
    expect(readFacts(new ArrayBuffer(0))).toEqual(noFacts);
    // Metadata that points at itself, and past its own end.
    const looped = withMetadata(picture(8, 8), facts);
    for (let at = 20; at < 200; at += 3) looped[at] = 8;
    expect(() => readFacts(looped.buffer)).not.toThrow();
  });

  it('is read from photographs of other cameras (samples inside @vladmandic/face-api)', () => {
    const folder = dirname(createRequire(import.meta.url).resolve('@vladmandic/face-api/package.json'));
    const bytes = readFileSync(join(folder, 'demo/sample1.jpg'));
    const read = readFacts(bytes.buffer.slice(bytes.byteOffset, bytes.byteOffset + bytes.byteLength));
    expect(read.widthPx).toBe(1920);
    expect(read.make).not.toBeNull();
    expect(read.orientation).toBe(1);
  });
});
