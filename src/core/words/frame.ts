/** One frame in words: where its plane fell, and why. */
import type { CauseFound } from '../frames/causes';
import type { DistanceFound } from '../frames/distance';
import type { FrameJudged } from '../frames/eyes';
import type { FrameReading } from '../frames/reading';
import type { Frame } from '../frames/schema';
import { formatLength, type LengthUnit } from '../units/length';
import { listOfNames, possessive, spoken } from './call';
import { directionWords } from './frames';
import { formatShutter } from './light';

interface Said {
  readonly unit: LengthUnit;
  /** Who was focused on; null for a place between. */
  readonly target: string | null;
  readonly nameOf: (id: string) => string;
}

const length = (mm: number, unit: LengthUnit) => formatLength(Math.abs(mm), unit);

/** "The plane fell 40 cm in front of Corvin." */
export function planeTitle({ plane, meantMm, within }: FrameReading, { unit, target }: Said): string {
  if (within) return 'The plane fell where everybody is held.';
  const off = plane.mm - meantMm;
  const from = target === null ? 'where it was meant' : spoken(target);
  if (plane.side === 'either')
    return `The plane missed ${from} by about ${length(off, unit)}; on which side cannot be told.`;
  return `The plane fell ${length(off, unit)} ${plane.side === 'front' ? 'in front of' : 'behind'} ${from}.`;
}

/** "Between 33 and 47 cm, nine times in ten." */
export function planeInterval({ plane, meantMm, within, features }: FrameReading, { unit }: Said): string {
  const eyes = features.length === 1 ? 'one eye' : `${features.length} eyes`;
  if (within) return `Measured on ${eyes}: no distance from the plan can be told.`;
  const where = (mm: number) => (mm < meantMm ? 'in front' : 'behind');
  const [low, high] = [plane.low - meantMm, plane.high - meantMm];
  const [near, far] = Math.abs(low) < Math.abs(high) ? [low, high] : [high, low];
  const between =
    where(plane.low) === where(plane.high)
      ? `between ${length(near, unit)} and ${length(far, unit)} ${where(plane.low)}`
      : `between ${length(low, unit)} in front and ${length(high, unit)} behind`;
  return `Nine times in ten ${between}; measured on ${eyes}.`;
}

/** "the fern wall" of a background called "Fern wall". */
const lower = (name: string): string => spoken(`${name.charAt(0).toLowerCase()}${name.slice(1)}`);
const whose = (target: string | null) => (target === null ? 'somebody’s' : possessive(spoken(target)));

const together = (ids: readonly string[], nameOf: (id: string) => string): string =>
  listOfNames(ids.map((id) => spoken(nameOf(id))));

/** What happened, in a few words, and what speaks for it. */
export function causeWords({ cause }: CauseFound, { nameOf, target, unit }: Said): { title: string; detail: string } {
  switch (cause.kind) {
    case 'landedOn':
      return {
        title: `The focus took ${together(cause.ids, nameOf)}`,
        detail: `That is where ${together(cause.ids, nameOf)} ${cause.ids.length === 1 ? 'stands' : 'stand'} in the plan.`
      };
    case 'focusError':
      return { title: 'The focus missed by itself', detail: 'No further than focusing scatters with this lens.' };
    case 'lensBias':
      return { title: 'This lens focuses there', detail: 'Your record says so of this body and lens, on average.' };
    case 'youMoved':
      return { title: 'You swayed after focusing', detail: 'No further than this stance and wait let one sway.' };
    case 'background':
      return {
        title: `The focus took ${lower(nameOf(cause.id))}`,
        detail: 'That is where it lies in the plan.'
      };
    case 'nose':
      return { title: `The focus took ${whose(target)} nose`, detail: 'It lies 3 cm before the eyes.' };
    case 'recomposed':
      return {
        title: 'Focused in the middle, then turned',
        detail: `${Math.round(cause.deg)}° from the middle: the plane turns with the camera, and falls behind.`
      };
    case 'theyMoved': {
      const who = cause.everybody || target === null ? 'You' : spoken(target);
      const far = length(cause.mm, unit);
      return {
        title: cause.mm > 0 ? `${who} went ${far} further away` : `${who} came ${far} nearer`,
        detail: `${cause.everybody ? 'Everybody’s' : 'Their'} head is ${cause.mm > 0 ? 'smaller' : 'larger'} than in the frame before.`
      };
    }
  }
}

/** One thing to do next time; null where nothing went wrong. */
export function nextTime({ causes, meantMm }: FrameReading, { nameOf, target, unit }: Said): string | null {
  const [first] = causes;
  if (!first) return null;
  switch (first.cause.kind) {
    case 'landedOn':
      return target === null
        ? `Next time: one small point at ${length(meantMm, unit)}, on something between the rows; ${together(first.cause.ids, nameOf)} took it.`
        : `Next time: one small point on ${possessive(spoken(target))} eye, so that ${together(first.cause.ids, nameOf)} cannot take it.`;
    case 'focusError':
      return 'Next time: focus anew for each frame, and take one more; or close the lens by a stop.';
    case 'lensBias':
      return 'Next time: trust the call, which allows for it; the fine adjustment of body and lens takes it away.';
    case 'youMoved':
      return 'Next time: release at once after focusing, or lean on something; continuous focusing follows your sway.';
    case 'background':
      return `Next time: one small point on ${target === null ? 'somebody’s eye' : `${possessive(spoken(target))} eye`}; in a large area what has more edges wins.`;
    case 'nose':
      return 'Next time: a smaller point on the eye itself, or eye detection; the nearest thing in an area is the nose.';
    case 'recomposed':
      return 'Next time: a point where the eye is, instead of turning after focusing.';
    case 'theyMoved':
      return first.cause.everybody
        ? 'Next time: focus anew once you stand, or let continuous focusing go on.'
        : 'Next time: continuous focusing on the eye, and release while it follows.';
  }
}

/** "By the eyes of 6 people the camera stood 4.4 m away (4.2 m to 4.6 m), as planned." @param plannedMm lens to subject line */
export function distanceWords({ mm, low, high, faces }: DistanceFound, plannedMm: number, unit: LengthUnit): string {
  const who = faces === 1 ? 'one face' : `${faces} people`;
  const range = `${formatLength(low, unit)} to ${formatLength(high, unit)}`;
  const planned =
    plannedMm >= low && plannedMm <= high ? ', as planned' : `; ${formatLength(plannedMm, unit)} were planned`;
  return `By the eyes of ${who} the camera stood ${formatLength(mm, unit)} away (${range})${planned}.`;
}

/** What speaks against the plan, and what to do about it. @param plannedMm lens to subject line */
export function contradictionWords(
  { mm }: DistanceFound,
  plannedMm: number,
  { focalLengthMm }: Pick<Frame, 'focalLengthMm'>,
  unit: LengthUnit
): string {
  const lens = focalLengthMm === null ? '' : ` at ${Number(focalLengthMm.toFixed(0))} mm`;
  return `The faces are as large as from ${formatLength(mm, unit)} away${lens}; ${formatLength(plannedMm, unit)} was planned. Either you stood elsewhere: set the distance in the setup. Or the picture was cropped, or the focal length in the file is wrong.`;
}

/** "The camera shook: 20 px down to the right." */
export const shakeTitle = ({ px, angle }: NonNullable<FrameJudged['shake']>): string =>
  `The camera shook: ${Math.round(px)} px ${directionWords(angle)}.`;

/** How much shorter the shutter would have had to be for a shake nobody sees: it grows with the time (optics/sharpness.ts). */
export function steadier({ shutterS }: Pick<Frame, 'shutterS'>, { px }: NonNullable<FrameJudged['shake']>): string {
  const stops = Math.max(1, Math.ceil(Math.log2(px / unseenPx)));
  const shorter = stops === 1 ? 'a stop' : `${stops} stops`;
  const to = shutterS === null ? '' : `, ${formatShutter(shutterS / 2 ** stops)}`;
  return `Next time: the shutter ${shorter} shorter${to}, or lean on something.`;
}

/** A track this short is lost among the pixels, pixels (common practice, no source). */
const unseenPx = 2;

/** "Sharpest in the whole frame is the fern wall, 3 m behind Ines." Empty where that is somebody's face, or not known. */
export function sharpestWords({ sharpest, meantMm }: FrameReading, { unit, target }: Said): string {
  if (!sharpest) return '';
  if (sharpest === 'unplanned')
    return 'Sharpest in the whole frame is something the plan does not know, in the square.';
  const off = sharpest.depthMm - meantMm;
  const from = target === null ? 'where the plane was meant' : spoken(target);
  const name = sharpest.kind === 'background' ? lower(sharpest.name) : spoken(sharpest.name);
  return `Sharpest in the whole frame is ${name}, ${length(off, unit)} ${off < 0 ? 'in front of' : 'behind'} ${from}.`;
}

/** What no focusing could have mended. */
export const tooDeepWords = ({ fNumber }: Pick<Frame, 'fNumber'>): string =>
  `${fNumber === null ? 'At this stop' : `At f/${Number(fNumber.toFixed(1))}`} nobody could have held all of them: they stand deeper than what is sharp.`;
