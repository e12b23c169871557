/** What a camera writes into its files: Exif (CIPA DC-008) in a JPEG's first application segment. */
import piexif from 'piexifjs';

const { ImageIFD, ExifIFD } = piexif;

/** Exif 2.31 added the zone after the package's table was made. */
const offsetTimeOriginal = 36881;
piexif.TAGS.Exif[offsetTimeOriginal] = { name: 'OffsetTimeOriginal', type: 'Ascii' };

/** The stand-in body's invented name; no camera is called so. */
export const standIn = { make: 'Focalis', model: 'Stand-in', software: 'Focalis simulated camera' } as const;

export interface FrameFacts {
  /** The body as the photographer calls it: two stand-ins can be told apart. */
  readonly bodyName: string;
  readonly lensName: string;
  readonly focalLengthMm: number;
  readonly fNumber: number;
  readonly shutterS: number;
  readonly iso: number;
  /** When the shutter opened by this body's own clock, ms since 1970 in the zone below. */
  readonly at: number;
  /** Minutes that the zone is ahead of UTC. */
  readonly zoneMinutes: number;
  /** As the body believes it, mm; null where it does not tell. */
  readonly distanceMm: number | null;
  /** 1 as it is; 6 and 8 for a body held upright (Exif, Orientation). */
  readonly orientation: 1 | 3 | 6 | 8;
  readonly number: number;
  /** The pitch of its pixels, mm, where the picture is a part of the sensor; left out, the picture fills it. */
  readonly pixelMm?: number;
  /** The only parts drawn at full size, pixels: nothing else can be measured. All of it when left out. */
  readonly full?: readonly PixelRectangle[];
}

/** A part of a picture, pixels from the left and the top. */
export interface PixelRectangle {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

const fullWords = 'Full size only at';

/** How a picture says which parts of it are at full size. */
export const partsText = (parts: readonly PixelRectangle[]): string =>
  `${fullWords} ${parts.map(({ x, y, width, height }) => [x, y, width, height].join(' ')).join(', ')}`;

/** @returns null where the description says nothing of it */
export function partsFrom(description: string): PixelRectangle[] | null {
  if (!description.startsWith(`${fullWords} `)) return null;
  return description
    .slice(fullWords.length + 1)
    .split(', ')
    .flatMap((part): PixelRectangle[] => {
      const [x = NaN, y = NaN, width = NaN, height = NaN] = part.split(' ').map(Number);
      return [x, y, width, height].every(Number.isFinite) ? [{ x, y, width, height }] : [];
    });
}

const two = (value: number) => String(value).padStart(2, '0');

/** "2027:06:12 14:35:02" on the clock of the zone, its milliseconds, "+02:00". */
function clock(at: number, zoneMinutes: number): { time: string; part: string; zone: string } {
  const local = new Date(at + zoneMinutes * 60_000);
  const date = [local.getUTCFullYear(), two(local.getUTCMonth() + 1), two(local.getUTCDate())].join(':');
  const time = [local.getUTCHours(), local.getUTCMinutes(), local.getUTCSeconds()].map(two).join(':');
  const ahead = Math.abs(zoneMinutes);
  return {
    time: `${date} ${time}`,
    part: String(local.getUTCMilliseconds()).padStart(3, '0'),
    zone: `${zoneMinutes < 0 ? '-' : '+'}${two(Math.floor(ahead / 60))}:${two(ahead % 60)}`
  };
}

/** A number as two whole ones, exact to a thousandth; shutter times as 1/n where they are. */
const rational = (value: number): [number, number] => [Math.round(value * 1000), 1000];
const time = (seconds: number): [number, number] =>
  seconds < 0.3 ? [1, Math.round(1 / seconds)] : [Math.round(seconds * 10), 10];

/** Pixels a centimetre of the sensor. */
const focalPlane = (pixelMm: number) => ({
  [ExifIFD.FocalPlaneXResolution]: rational(10 / pixelMm),
  [ExifIFD.FocalPlaneYResolution]: rational(10 / pixelMm),
  [ExifIFD.FocalPlaneResolutionUnit]: 3
});

/** Exif text is ASCII. */
const ascii = (text: string): string => text.normalize('NFKD').replaceAll(/[^\x20-\x7e]/g, '');

/** @returns the same picture with what the camera knows of it. @throws RangeError when it is no JPEG */
export function withMetadata(jpeg: Uint8Array, facts: FrameFacts): Uint8Array<ArrayBuffer> {
  if (jpeg[0] !== 0xff || jpeg[1] !== 0xd8) throw new RangeError('This is no JPEG.');
  const { time: taken, part, zone } = clock(facts.at, facts.zoneMinutes);
  const text = piexif.dump({
    '0th': {
      [ImageIFD.Make]: standIn.make,
      [ImageIFD.Model]: standIn.model,
      [ImageIFD.Software]: standIn.software,
      ...(facts.full ? { [ImageIFD.ImageDescription]: partsText(facts.full) } : {}),
      [ImageIFD.Orientation]: facts.orientation,
      [ImageIFD.DateTime]: taken
    },
    Exif: {
      [ExifIFD.DateTimeOriginal]: taken,
      [ExifIFD.SubSecTimeOriginal]: part,
      [offsetTimeOriginal]: zone,
      [ExifIFD.FNumber]: rational(facts.fNumber),
      [ExifIFD.ExposureTime]: time(facts.shutterS),
      [ExifIFD.ISOSpeedRatings]: Math.min(65_535, Math.round(facts.iso)),
      [ExifIFD.FocalLength]: rational(facts.focalLengthMm),
      [ExifIFD.LensModel]: ascii(facts.lensName),
      [ExifIFD.BodySerialNumber]: ascii(facts.bodyName),
      [ExifIFD.ImageUniqueID]: facts.number.toString(16).padStart(32, '0'),
      ...(facts.pixelMm === undefined ? {} : focalPlane(facts.pixelMm)),
      ...(facts.distanceMm === null ? {} : { [ExifIFD.SubjectDistance]: rational(facts.distanceMm / 1000) })
    }
  });
  const block = Uint8Array.from(text, (character) => character.charCodeAt(0));
  const length = block.length + 2;
  const head = Uint8Array.of(0xff, 0xd8, 0xff, 0xe1, length >> 8, length & 255);
  const whole = new Uint8Array(head.length + block.length + jpeg.length - 2);
  whole.set(head);
  whole.set(block, head.length);
  whole.set(jpeg.subarray(2), head.length + block.length);
  return whole;
}
