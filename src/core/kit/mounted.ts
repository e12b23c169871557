/** What a lens becomes on a body: with adapters and converters, at a focal length; and a body set to use part of its sensor. */
import { exactFNumber, stopScale, stopsBetween } from '../optics/stops';
import type { Adapter, Body, Lens } from './schema';

/** Within this share of a zoom's whole range from an end, in stops of focal length, it is at that end. From memory. */
const endShare = 0.15;

/** The next worse way a lens draws. */
const worse = { crisp: 'ordinary', ordinary: 'weakWideOpen', weakWideOpen: 'weakWideOpen' } as const;

/** What adapters and converters together make of the focal length. */
export function factorOf(adapters: readonly Adapter[]): number {
  return adapters.reduce((product, adapter) => product * adapter.factor, 1);
}

/** How far along its range a lens is, 0 short to 1 long, in steps of equal ratio. */
function along({ shortestMm, longestMm }: Lens, focalLengthMm: number): number {
  if (longestMm <= shortestMm) return 0;
  return Math.min(1, Math.max(0, Math.log(focalLengthMm / shortestMm) / Math.log(longestMm / shortestMm)));
}

/** The mark of the third-stop scale nearest to an f-number, as a number. */
function nearestMark(fNumber: number): number {
  const nearest = stopScale('third').reduce((best, stop) =>
    Math.abs(stopsBetween(stop.fNumber, fNumber)) < Math.abs(stopsBetween(best.fNumber, fNumber)) ? stop : best
  );
  return Number(nearest.label);
}

/** Between the marks at the two ends, on a third-stop mark (cameras step in thirds: common practice, no source). */
function between(short: number, long: number, share: number): number {
  if (short === long || share === 0) return short;
  if (share === 1) return long;
  const [a, b] = [exactFNumber(short), exactFNumber(long)];
  return nearestMark(a * (b / a) ** share);
}

function isWeak({ weakEnds }: Lens, share: number): boolean {
  const short = weakEnds === 'short' || weakEnds === 'both';
  const long = weakEnds === 'long' || weakEnds === 'both';
  return (short && share <= endShare) || (long && share >= 1 - endShare);
}

/**
 * The lens as the body sees it: focal lengths times the factor of what is between, openings as much smaller, the opening
 * and the character of its own focal length. The same lens when nothing is changed.
 *
 * @param focalLengthMm as the body sees it
 */
export function mountedLens(lens: Lens, adapters: readonly Adapter[], focalLengthMm: number): Lens {
  const factor = factorOf(adapters);
  const lost = adapters.reduce((sum, { stopsLost }) => sum + stopsLost, 0);
  const share = along(lens, focalLengthMm / factor);
  const weak = isWeak(lens, share);
  const closes = lens.widestAtLong !== null || lens.smallestAtLong !== null;
  if (adapters.length === 0 && !weak && !closes) return lens;
  const darker = (mark: number) => (lost === 0 ? mark : nearestMark(exactFNumber(mark) * 2 ** (lost / 2)));
  const enlarged = (table: NonNullable<Lens['measured']>) =>
    table.map(({ fNumber, lpPerMm }) => ({ fNumber: darker(fNumber), lpPerMm: lpPerMm / factor }));
  const widest = between(lens.widestFNumber, lens.widestAtLong ?? lens.widestFNumber, share);
  const smallest = between(lens.smallestFNumber, lens.smallestAtLong ?? lens.smallestFNumber, share);
  return {
    ...lens,
    name: [lens.name, ...adapters.map((adapter) => adapter.name)].join(' + '),
    shortestMm: lens.shortestMm * factor,
    longestMm: lens.longestMm * factor,
    widestFNumber: darker(widest),
    smallestFNumber: darker(smallest),
    // What was measured of the lens alone is enlarged with its picture.
    ...(lens.measured && { measured: enlarged(lens.measured) }),
    ...(lens.measuredCorner && { measuredCorner: enlarged(lens.measuredCorner) }),
    widestAtLong: null,
    smallestAtLong: null,
    character: weak ? worse[lens.character] : lens.character
  };
}

/** The body with its sensor cut down to a crop mode; the focus points keep their places on what is left. */
export function croppedBody(body: Body, cropMode: string | null): Body {
  const mode = body.cropModes.find((item) => item.name === cropMode);
  if (!mode) return body;
  const { sensor, focusGrid } = body;
  return {
    ...body,
    sensor: {
      widthMm: sensor.widthMm / mode.factor,
      heightMm: sensor.heightMm / mode.factor,
      pixelsWide: Math.max(100, Math.round(sensor.pixelsWide / mode.factor))
    },
    focusGrid: {
      ...focusGrid,
      widthShare: Math.min(1, focusGrid.widthShare * mode.factor),
      heightShare: Math.min(1, focusGrid.heightShare * mode.factor)
    }
  };
}
