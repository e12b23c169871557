/** What the simulated camera is set up with before the sheets: a kit of one's own, with faults drawn by chance. */
import type { FrameFacts } from '$core/camera/metadata';
import { normalFrom, seededRandom } from '$core/statistics/random';
import { lensStops, stopsBetween } from '$core/optics/stops';
import { magnification } from '$core/optics/thinLens';
import type { Body, Lens } from '$core/kit/schema';
import type { EdgesOrder, FocusOrder } from '../../workers/bench.worker';

interface Kit {
  readonly body: Body;
  readonly lens: Lens;
  readonly focalLengthMm: number;
  readonly at: number;
}

const factsOf = (
  { body, lens, focalLengthMm, at }: Kit,
  number: number,
  fNumber: number,
  pixelMm: number
): FrameFacts => ({
  ...{ bodyName: body.name, lensName: lens.name, focalLengthMm, fNumber, shutterS: 1 / 250, iso: 100 },
  ...{ at: at + 4000 * number, zoneMinutes: 0, distanceMm: null, orientation: 1, number, pixelMm }
});

/** Of the sensor only the part with the sheet is drawn: so many pixels, of such a pitch that the sheet fills it. */
const focusSize = { width: 1200, height: 960, sheetMm: 268 } as const;

/** Frames of a lens that focuses `biasUm` off on the sensor and scatters. */
export function focusOrders(
  kit: Kit,
  distanceMm: number,
  frames: number,
  biasUm: number,
  spreadUm: number,
  seed: number
): FocusOrder[] {
  const normal = normalFrom(seededRandom(seed));
  const { width, height, sheetMm } = focusSize;
  const { focalLengthMm, lens } = kit;
  const pixelMm = Number(((sheetMm * magnification(focalLengthMm, distanceMm)) / width).toFixed(5));
  const fNumber = lens.widestFNumber;
  return Array.from({ length: frames }, (_, index) => ({
    lens: { focalLengthMm, pixelMm, width, height },
    ...{ fNumber, distanceMm, leanDeg: 44, errorUm: biasUm + spreadUm * normal() },
    rest: { vignetting: 0.15, uneven: 0.12, blurPx: { centre: 0.45, corner: 0.6 } },
    ...{ seed: seed + index, facts: factsOf(kit, index + 1, fNumber, pixelMm) }
  }));
}

const edgeSize = { width: 2000, height: 1333 } as const;
/** A lens that is weak wide open, most in the corners, and limited by diffraction at the end: blur in µm as a standard deviation. */
const blurUm = (stopsDown: number, fNumber: number, corner: boolean): number =>
  Math.hypot((corner ? 20 : 9) * 2 ** -stopsDown, corner ? 5 : 3.2, 0.37 * fNumber);

/** One frame a stop of a wall of pages. */
export function edgeOrders(kit: Kit, seed: number): EdgesOrder[] {
  const { body, focalLengthMm, lens } = kit;
  const { width, height } = edgeSize;
  const pixelMm = Number((body.sensor.widthMm / width).toFixed(5));
  const stops = lensStops(lens.widestFNumber, Math.min(16, lens.smallestFNumber), 'full');
  return stops.map(({ fNumber, label }, index) => {
    const px = (corner: boolean) => blurUm(stopsBetween(lens.widestFNumber, fNumber), fNumber, corner) / 1000 / pixelMm;
    return {
      lens: { focalLengthMm, pixelMm, width, height },
      ...{ fNumber, distanceMm: 40 * focalLengthMm },
      rest: { vignetting: 0.25, uneven: 0.1, distortion: 0.01, blurPx: { centre: px(false), corner: px(true) } },
      ...{ seed: seed + index, facts: factsOf(kit, index + 1, Number(label), pixelMm) }
    };
  });
}
