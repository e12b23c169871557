/** What the simulated camera is set up with before the sheets: a kit of one's own, with faults drawn by chance. */
import type { FrameFacts } from '$core/simulation/metadata';
import { normalFrom, seededRandom } from '$core/maths/random';
import { lensStops, stopsBetween } from '$core/optics/stops';
import { depthOfField } from '$core/optics/depthOfField';
import { magnification } from '$core/optics/thinLens';
import type { Body, Lens } from '$core/kit/schema';
import type { EdgesOrder, FocusOrder, SpotsOrder } from '../../workers/bench.worker';

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
  bodyName: body.name,
  lensName: lens.name,
  focalLengthMm,
  fNumber,
  shutterS: 1 / 250,
  iso: 100,
  at: at + 4000 * number,
  zoneMinutes: 0,
  distanceMm: null,
  orientation: 1,
  number,
  pixelMm
});

/** Of the sensor only the part with the sheet is drawn: so many pixels, of such a pitch that the sheet fills it. */
const focusSize = { width: 1000, height: 800, sheetMm: 268 } as const;

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
    fNumber,
    distanceMm,
    leanDeg: 44,
    errorUm: biasUm + spreadUm * normal(),
    rest: { vignetting: 0.15, uneven: 0.12, blurPx: { centre: 0.45, corner: 0.6 } },
    seed: seed + index,
    facts: factsOf(kit, index + 1, fNumber, pixelMm)
  }));
}

const edgeSize = { width: 1600, height: 1067 } as const;
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
      fNumber,
      distanceMm: 40 * focalLengthMm,
      rest: { vignetting: 0.25, uneven: 0.1, distortion: 0.01, blurPx: { centre: px(false), corner: px(true) } },
      seed: seed + index,
      facts: factsOf(kit, index + 1, Number(label), pixelMm)
    };
  });
}

const fieldSize = { width: 1200, height: 800, frames: 6 } as const;

/** A wall of pages at many focusings, by a lens whose field bends towards it by `bendShare` of its depth of field. */
export function fieldOrders(kit: Kit, bendShare: number, seed: number): EdgesOrder[] {
  const { body, focalLengthMm, lens } = kit;
  const { width, height, frames } = fieldSize;
  const pixelMm = Number((body.sensor.widthMm / width).toFixed(5));
  const distanceMm = 40 * focalLengthMm;
  const fNumber = lens.widestFNumber;
  const { near, far } = depthOfField(focalLengthMm, fNumber, 0.03, distanceMm);
  const step = Math.min(far - near, distanceMm / 3) / 2;
  return Array.from({ length: frames }, (_, index) => ({
    lens: { focalLengthMm, pixelMm, width, height },
    fNumber,
    distanceMm,
    planeMm: distanceMm + (index - (frames - 1) / 2) * step * 0.8,
    rest: { vignetting: 0.2, uneven: 0.1, curvedMm: bendShare * 2 * step, blurPx: { centre: 0.5, corner: 0.7 } },
    seed: seed + index,
    facts: factsOf(kit, index + 1, fNumber, pixelMm)
  }));
}

const spotSize = { width: 3000, height: 2000, specks: 7 } as const;

/** A plain surface at the smallest stop, before a sensor with some dust. */
export function spotOrder(kit: Kit, seed: number): SpotsOrder {
  const { body, focalLengthMm, lens } = kit;
  const { width, height, specks } = spotSize;
  const random = seededRandom(seed);
  const pixelMm = Number((body.sensor.widthMm / width).toFixed(5));
  const fNumber = Math.min(22, Math.max(11, lens.smallestFNumber));
  return {
    lens: { focalLengthMm, pixelMm, width, height },
    fNumber,
    heightMm: 1.2,
    specks: Array.from({ length: specks }, () => ({
      x: 0.04 + 0.92 * random(),
      y: 0.04 + 0.92 * random(),
      mm: 0.02 + 0.06 * random() ** 2
    })),
    rest: { vignetting: 0.25, uneven: 0.15 },
    seed,
    facts: factsOf(kit, 1, fNumber, pixelMm)
  };
}
