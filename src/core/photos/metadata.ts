/** What a picture says of how it was taken: Exif (CIPA DC-008) and XMP, read by a package and checked here. */
import { DOMParser, onErrorStopParsing } from '@xmldom/xmldom';
import ExifReader from 'exifreader';
import { mmPerInch } from '../units/conversions';
import { partsFrom, type PixelRectangle } from '../simulation/metadata';

export interface PictureFacts {
  readonly make: string | null;
  readonly model: string | null;
  /** Tells two bodies of one model apart. */
  readonly serial: string | null;
  readonly lens: string | null;
  readonly focalLengthMm: number | null;
  readonly fNumber: number | null;
  readonly shutterS: number | null;
  readonly iso: number | null;
  /** By the body's own clock, as if it were UTC, ms since 1970; null where it does not say. */
  readonly clockMs: number | null;
  /** Minutes its zone is ahead of UTC; null where it does not say. */
  readonly zoneMinutes: number | null;
  /** As the body believes it, mm. */
  readonly distanceMm: number | null;
  /** 1 to 8 (Exif, Orientation). */
  readonly orientation: number;
  readonly widthPx: number | null;
  readonly heightPx: number | null;
  /** −1 rejected, 0 none, 1 to 5. */
  readonly rating: number | null;
  readonly label: string | null;
  readonly keywords: readonly string[];
  /** The only parts that were drawn at full size, by the simulated camera. */
  readonly full: readonly PixelRectangle[] | null;
  /** The pitch of its pixels, mm, as written; of a picture that was made smaller it is still the camera's. */
  readonly pixelMm: number | null;
  /** The focal length that shows as much on 36 × 24 mm, by the diagonal; null where the file does not say. */
  readonly equivalentMm: number | null;
  /** Pixels as the camera wrote them; a picture that was cropped or made smaller since has others. */
  readonly takenWidthPx: number | null;
  readonly takenHeightPx: number | null;
}

export const noFacts: PictureFacts = {
  make: null,
  model: null,
  serial: null,
  lens: null,
  focalLengthMm: null,
  fNumber: null,
  shutterS: null,
  iso: null,
  clockMs: null,
  zoneMinutes: null,
  distanceMm: null,
  orientation: 1,
  widthPx: null,
  heightPx: null,
  rating: null,
  label: null,
  keywords: [],
  full: null,
  pixelMm: null,
  equivalentMm: null,
  takenWidthPx: null,
  takenHeightPx: null
};

/** Longest text taken from a file, characters: somebody may have put a book in. */
const longest = 200;

type Tags = Readonly<Record<string, { readonly value?: unknown; readonly description?: unknown } | undefined>>;

/** XMP is XML, and workers have no parser of their own; where it is broken, everything else is still read. */
function readTags(bytes: ArrayBuffer): Tags | null {
  const options = [{ domParser: new DOMParser({ onError: onErrorStopParsing }) as unknown as Parser }, {}];
  for (const option of options) {
    try {
      return ExifReader.load(bytes, { includeUnknown: false, ...option }) as unknown as Tags;
    } catch {
      continue;
    }
  }
  return null;
}

type Parser = NonNullable<NonNullable<Parameters<typeof ExifReader.load>[1]>['domParser']>;

/** @returns no facts where there are none, or they cannot be read */
export function readFacts(bytes: ArrayBuffer): PictureFacts {
  const tags = readTags(bytes);
  if (!tags) return noFacts;
  const text = (name: string): string | null => {
    const tag = tags[name];
    const raw = Array.isArray(tag?.value) && typeof tag.value[0] === 'string' ? tag.value[0] : tag?.description;
    if (typeof raw !== 'string') return null;
    // Cameras fill their fields with zeros and blanks.
    const clean = raw
      .replaceAll(/\p{Cc}/gu, ' ')
      .trim()
      .slice(0, longest);
    return clean === '' || clean === '[object Object]' ? null : clean;
  };
  const number = (name: string, least: number, most: number): number | null => {
    const value: unknown = tags[name]?.value;
    const first: unknown = Array.isArray(value) ? value[0] : value;
    const asPair =
      Array.isArray(value) && value.length === 2 && typeof value[1] === 'number' && typeof first === 'number'
        ? first / value[1]
        : Array.isArray(first) && typeof first[0] === 'number' && typeof first[1] === 'number'
          ? first[0] / first[1]
          : Number(first);
    return Number.isFinite(asPair) && asPair >= least && asPair <= most ? asPair : null;
  };
  const metres = number('SubjectDistance', 0.01, 10_000);
  const taken = clockOf(text('DateTimeOriginal') ?? text('DateTime'), text('SubSecTimeOriginal'));
  const rating = number('Rating', -1, 5);
  return {
    make: text('Make'),
    model: text('Model'),
    serial: text('BodySerialNumber') ?? text('SerialNumber'),
    lens: text('LensModel') ?? text('Lens'),
    focalLengthMm: number('FocalLength', 1, 10_000),
    fNumber: number('FNumber', 0.3, 512),
    shutterS: number('ExposureTime', 1e-6, 100_000),
    iso: number('ISOSpeedRatings', 1, 100_000_000),
    clockMs: taken,
    zoneMinutes: zoneOf(text('OffsetTimeOriginal') ?? text('OffsetTime')),
    distanceMm: metres === null ? null : metres * 1000,
    orientation: Math.round(number('Orientation', 1, 8) ?? 1),
    widthPx: number('Image Width', 1, 1e6),
    heightPx: number('Image Height', 1, 1e6),
    rating: rating === null ? null : Math.round(rating),
    label: text('Label'),
    keywords: keywordsOf(tags['subject']?.value),
    full: partsFrom(longText(tags['ImageDescription'])),
    pixelMm: pitchOf(number('FocalPlaneXResolution', 1, 1e6), number('FocalPlaneResolutionUnit', 2, 3)),
    equivalentMm: number('FocalLengthIn35mmFilm', 1, 10_000),
    takenWidthPx: number('PixelXDimension', 1, 1e6),
    takenHeightPx: number('PixelYDimension', 1, 1e6)
  };
}

/** Unit 2 is the inch, 3 the centimetre (Exif). */
const pitchOf = (resolution: number | null, unit: number | null): number | null =>
  resolution === null || unit === null ? null : (unit === 2 ? mmPerInch : 10) / resolution;

/** The whole of a description: it may name many parts. */
function longText(tag: Tags[string]): string {
  const value: unknown = Array.isArray(tag?.value) ? tag.value[0] : tag?.description;
  return typeof value === 'string' ? value : '';
}

function keywordsOf(value: unknown): string[] {
  if (!Array.isArray(value)) return [];
  return value.flatMap((item: { readonly value?: unknown }) =>
    typeof item.value === 'string' ? [item.value.slice(0, longest)] : []
  );
}

/** "2027:06:12 14:35:02" and its fraction. */
function clockOf(time: string | null, part: string | null): number | null {
  const [, year, month, day, hour, minute, second] =
    /^(\d{4})[:-](\d\d)[:-](\d\d)[ T](\d\d):(\d\d):(\d\d)/.exec(time ?? '') ?? [];
  if (second === undefined) return null;
  const ms = Date.UTC(Number(year), Number(month) - 1, Number(day), Number(hour), Number(minute), Number(second));
  const fraction = part !== null && /^\d+$/.test(part) ? Number(`0.${part}`) * 1000 : 0;
  return Number.isFinite(ms) && Number(month) >= 1 ? ms + Math.round(fraction) : null;
}

/** "+02:00" as minutes. */
function zoneOf(zone: string | null): number | null {
  if (zone === 'Z') return 0;
  const [, sign, hours, minutes] = /^([+-])(\d\d):(\d\d)$/.exec(zone ?? '') ?? [];
  if (minutes === undefined) return null;
  return (sign === '-' ? -1 : 1) * (Number(hours) * 60 + Number(minutes));
}
