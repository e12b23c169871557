/** What the drills share: how objects stand, how a step is written, what is read of an object. */
import { blurDiscDiameter } from '../../optics/blur';
import { depthOfField } from '../../optics/depthOfField';
import { exactFNumber } from '../../optics/stops';
import type { Estimate } from '../../record/learn';
import type { FrameRead } from '../series/series';
import type { DrillObject, DrillStep } from '../series/steps';
import type { DrillOutcome, DrillSaid, KitLimits, ThingRead } from './kind';

export const thingsIn = (frame: FrameRead, step: DrillStep): ThingRead[] => {
  const aimed = frame.marks.find(({ index }) => index === step.focusOn);
  return [...frame.marks]
    .sort((a, b) => a.index - b.index)
    .map(({ index, depthMm }) => {
      const seen = frame.discs.find((disc) => disc.index === index);
      return {
        index,
        discMm: seen ? seen.discPx * frame.pixelMm : null,
        expectedMm: aimed ? blurDiscDiameter(frame.focalLengthMm, frame.fNumber, aimed.depthMm, depthMm) : NaN
      };
    });
};

const ordinals = ['first', 'second', 'third', 'fourth', 'fifth', 'sixth', 'seventh'];
export const ordinal = (index: number): string => ordinals[index] ?? `${index + 1}th`;
/** "f/2.8", as it is marked. */
export const stopName = (N: number): string => `f/${N < 10 ? Number(N.toFixed(1)) : Math.round(N)}`;
/** The widest stop the steps ask for. */
export const widestOf = (steps: readonly DrillStep[]): string =>
  stopName(Math.min(...steps.map(({ fNumber }) => fNumber)));

export const marked = 'a printed mark in front of each, facing you';
export const marksAndTripod = 'a tripod, or something to rest on';

/** From so many focal lengths marks are large enough to be read and the zone shallow enough to be seen (chosen). */
const distanceTimes = 24;

/** To whole steps of so many mm, one at least. */
export const rounded = (mm: number, step: number): number => Math.max(step, Math.round(mm / step) * step);

/** From the lens to the first object, mm. @param times of the focal length */
export const distanceFor = ({ focalLengthMm: f, closestMm }: KitLimits, times: number = distanceTimes): number =>
  rounded(Math.max(times * f, 1.3 * closestMm), 50);

/** How far apart objects stand: so many depths of field at an f-number, mm. */
export function apart(
  kit: KitLimits,
  {
    zones,
    least,
    fNumber,
    step
  }: { readonly zones: number; readonly least: number; readonly fNumber: number; readonly step: number }
): number {
  const distanceMm = distanceFor(kit);
  const { near, far } = depthOfField(kit.focalLengthMm, fNumber, kit.discMm, distanceMm);
  return rounded(Math.max(zones * Math.min(far - near, distanceMm), least), step);
}

/** Objects one behind another, each as far aside of the last; the middle of them on the axis, the first at the distance. */
export const inLine = (count: number, asideMm: number, apartMm: number): DrillObject[] =>
  Array.from({ length: count }, (_, index) => ({
    index,
    lateralMm: (index - (count - 1) / 2) * asideMm,
    depthMm: index * apartMm
  }));

/** Writes steps: wide open, in the middle, held level, unless it is said otherwise. */
export const stepWriter =
  (kit: KitLimits) =>
  (changes: Partial<DrillStep> & Pick<DrillStep, 'id' | 'focusOn'>): DrillStep => ({
    fNumber: exactFNumber(kit.widestFNumber),
    place: 'middle',
    upright: false,
    turning: null,
    distanceMm: null,
    waitS: null,
    shutterS: null,
    ...changes
  });

/** Each of three once straight: so that each is sharp in a frame, and is held against it. */
export const straight = (kit: KitLimits): DrillStep[] =>
  [1, 0, 2].map((focusOn) => stepWriter(kit)({ id: `straight${focusOn}`, focusOn }));

export const nothingFits: DrillSaid = {
  title: 'No frame fits a step.',
  detail: '',
  next: 'Shoot them again, with the marks in the frame and readable.'
};

/** How many steps have no frame. */
export const missingIn = (steps: readonly { readonly frame: FrameRead | null }[]): number =>
  steps.filter(({ frame }) => frame === null).length;

/** "One step is missing: shoot it again." */
export const missingText = (missing: number): string =>
  missing === 1 ? 'One step is missing: shoot it again.' : `${missing} steps are missing: shoot them again.`;

type Figure = Pick<DrillOutcome, 'figure' | 'low' | 'high'>;
export const figureAlone = (figure: number | null): Figure => ({ figure, low: null, high: null });
export const figureOf = (estimate: Estimate | undefined): Figure =>
  estimate ? { figure: estimate.value, low: estimate.low, high: estimate.high } : figureAlone(null);
