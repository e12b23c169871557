/** One frame in words: where its plane fell, and why. */
import type { CauseFound } from '../frames/causes';
import type { DistanceFound } from '../frames/distance';
import type { FrameJudged } from '../frames/eyes';
import type { FrameReading } from '../frames/reading';
import type { Frame } from '../frames/schema';
import { formatLength, formatLengthRange, type LengthUnit } from '../units/length';
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

/** "Focus landed 40 cm in front of Corvin." */
export function planeTitle({ plane, meantMm, within }: FrameReading, { unit, target }: Said): string {
  if (within) return 'Focus landed where everyone is sharp.';
  const off = plane.mm - meantMm;
  const from = target === null ? 'where you aimed' : spoken(target);
  if (plane.side === 'either')
    return `Focus missed ${from} by about ${length(off, unit)}, in front or behind: can’t tell.`;
  return `Focus landed ${length(off, unit)} ${plane.side === 'front' ? 'in front of' : 'behind'} ${from}.`;
}

/** "33–47 cm in front (90% range), from 10 eyes." */
export function planeInterval({ plane, meantMm, within, features }: FrameReading, { unit }: Said): string {
  const eyes = features.length === 1 ? 'one eye' : `${features.length} eyes`;
  if (within) return `Measured from ${eyes}: no difference from the plan.`;
  const where = (mm: number) => (mm < meantMm ? 'in front' : 'behind');
  const [low, high] = [plane.low - meantMm, plane.high - meantMm];
  const [near, far] = Math.abs(low) < Math.abs(high) ? [low, high] : [high, low];
  const between =
    where(plane.low) === where(plane.high)
      ? `${formatLengthRange(Math.abs(near), Math.abs(far), unit)} ${where(plane.low)}`
      : `Between ${length(low, unit)} in front and ${length(high, unit)} behind`;
  return `${between} (90% range), from ${eyes}.`;
}

/** "the fern wall" of a background called "Fern wall". */
const lower = (name: string): string => spoken(`${name.charAt(0).toLowerCase()}${name.slice(1)}`);
const whose = (target: string | null) => (target === null ? 'someone’s' : possessive(spoken(target)));

const together = (ids: readonly string[], nameOf: (id: string) => string): string =>
  listOfNames(ids.map((id) => spoken(nameOf(id))));

/** What happened, in a few words, and what speaks for it. */
export function causeWords({ cause }: CauseFound, { nameOf, target, unit }: Said): { title: string; detail: string } {
  switch (cause.kind) {
    case 'landedOn':
      return {
        title: `The camera focused on ${together(cause.ids, nameOf)}`,
        detail: `That is where ${together(cause.ids, nameOf)} ${cause.ids.length === 1 ? 'stands' : 'stand'} in the plan.`
      };
    case 'focusError':
      return { title: 'AF missed', detail: 'Within the normal AF scatter of this lens.' };
    case 'lensBias':
      return {
        title: 'This lens usually misses this way',
        detail: 'Your Record shows it for this body and lens, on average.'
      };
    case 'youMoved':
      return { title: 'You swayed after focusing', detail: 'As far as people sway in this stance and time.' };
    case 'background':
      return {
        title: `The camera focused on ${lower(nameOf(cause.id))}`,
        detail: 'That is where it lies in the plan.'
      };
    case 'nose':
      return { title: `The camera focused on ${whose(target)} nose`, detail: 'It is 3 cm in front of the eyes.' };
    case 'recomposed':
      return {
        title: 'Focus and recompose',
        detail: `${Math.round(cause.deg)}° off-centre: turning the camera moves focus behind them.`
      };
    case 'theyMoved': {
      const who = cause.everybody || target === null ? 'You' : spoken(target);
      const far = length(cause.mm, unit);
      return {
        title: cause.mm > 0 ? `${who} went ${far} further away` : `${who} came ${far} nearer`,
        detail: `${cause.everybody ? 'Everyone’s' : 'Their'} head is ${cause.mm > 0 ? 'smaller' : 'larger'} than in the frame before.`
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
        ? `Next time: a small single point on something between the rows, ${length(meantMm, unit)} away.`
        : `Next time: a small single point on ${possessive(spoken(target))} eye, clear of ${together(first.cause.ids, nameOf)}.`;
    case 'focusError':
      return 'Next time: refocus for each frame and shoot one extra, or stop down one stop.';
    case 'lensBias':
      return 'The call already allows for this. AF fine-tune would remove it.';
    case 'youMoved':
      return 'Next time: shoot as soon as it focuses, brace yourself, or use continuous AF.';
    case 'background':
      return `Next time: a small single point on ${target === null ? 'an eye' : `${possessive(spoken(target))} eye`}; in a large area the strongest contrast wins.`;
    case 'nose':
      return 'Next time: a smaller point on the eye itself, or eye detection; in a larger area the nose is nearest.';
    case 'recomposed':
      return 'Next time: move the AF point to the eye instead of recomposing.';
    case 'theyMoved':
      return first.cause.everybody
        ? 'Next time: refocus once you stand still, or use continuous AF.'
        : 'Next time: continuous AF on the eye, and shoot while it tracks.';
  }
}

/** "By the eyes of 6 people the camera stood 4.4 m away (4.2 m to 4.6 m), as planned." @param plannedMm lens to subject line */
export function distanceWords({ mm, low, high, faces }: DistanceFound, plannedMm: number, unit: LengthUnit): string {
  const who = faces === 1 ? 'one face' : `${faces} faces`;
  const range = formatLengthRange(low, high, unit);
  const planned =
    plannedMm >= low && plannedMm <= high ? ', as planned' : `; ${formatLength(plannedMm, unit)} was planned`;
  return `You stood ${formatLength(mm, unit)} away (${range}, from ${who})${planned}.`;
}

/** What speaks against the plan, and what to do about it. @param plannedMm lens to subject line */
export function contradictionWords(
  { mm }: DistanceFound,
  plannedMm: number,
  { focalLengthMm }: Pick<Frame, 'focalLengthMm'>,
  unit: LengthUnit
): string {
  const lens = focalLengthMm === null ? '' : ` at ${Number(focalLengthMm.toFixed(0))} mm`;
  return `The faces are as large as from ${formatLength(mm, unit)} away${lens}; ${formatLength(plannedMm, unit)} was planned. Either you stood elsewhere (set the distance in the setup), or the photo was cropped, or its focal length is wrong.`;
}

/** "The camera shook: 20 px down to the right." */
export const shakeTitle = ({ px, angle }: NonNullable<FrameJudged['shake']>): string =>
  `The camera shook: ${Math.round(px)} px ${directionWords(angle)}.`;

/** How much shorter the shutter would have had to be for a shake nobody sees: it grows with the time (optics/sharpness.ts). */
export function steadier({ shutterS }: Pick<Frame, 'shutterS'>, { px }: NonNullable<FrameJudged['shake']>): string {
  const stops = Math.max(1, Math.ceil(Math.log2(px / unseenPx)));
  const shorter = stops === 1 ? 'a stop' : `${stops} stops`;
  const to = shutterS === null ? '' : `, ${formatShutter(shutterS / 2 ** stops)}`;
  return `Next time: a shutter ${shorter} faster${to}, or brace yourself.`;
}

/** A track this short is lost among the pixels, pixels (common practice, no source). */
const unseenPx = 2;

/** "Sharpest spot in the frame: the fern wall, 3 m behind Ines." Empty where that is somebody's face, or not known. */
export function sharpestWords({ sharpest, meantMm }: FrameReading, { unit, target }: Said): string {
  if (!sharpest) return '';
  if (sharpest === 'unplanned') return 'Sharpest spot in the frame (square): something not in your plan.';
  const off = sharpest.depthMm - meantMm;
  const from = target === null ? 'where the plane was meant' : spoken(target);
  const name = sharpest.kind === 'background' ? lower(sharpest.name) : spoken(sharpest.name);
  return `Sharpest spot in the frame: ${name}, ${length(off, unit)} ${off < 0 ? 'in front of' : 'behind'} ${from}.`;
}

/** What no focusing could have mended. */
export const tooDeepWords = ({ fNumber }: Pick<Frame, 'fNumber'>): string =>
  `${fNumber === null ? 'At this aperture' : `At f/${Number(fNumber.toFixed(1))}`}, no focus point keeps them all sharp: the group is deeper than the depth of field.`;
