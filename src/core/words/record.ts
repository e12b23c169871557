/** The record in words: where the focus of each kit lands, and whether the predictions were right. */
import type { OwnFocus } from '../habits/habits';
import type { Honesty, FocusingGroup } from '../record/honesty';
import { distanceEnds } from '../record/honesty';
import { atDistanceMm, leastFocusings, type KitGroup, type PersonFigures } from '../record/groups';
import type { Estimate } from '../record/learn';
import type { PersonSway } from '../record/persons';
import { formatLength, type LengthUnit } from '../units/length';
import { focusMethodWords, focusModeWords } from '../setup/focusChoices';

/** All errors are brought to this distance to be compared, mm. */
export const comparedAtMm = 2000;

/** "main body, good point, recomposed". */
export const kitWords = ({ body, method, recomposed }: KitGroup): string =>
  [body, focusMethodWords[method], recomposed ? 'recomposed' : null].filter((part) => part !== null).join(', ');

/** "85 mm f/1.4 on Main body, good point: 27 µm behind, spread 10 µm; 62 frames". */
export function ownWords(own: OwnFocus, nameOf: (id: string) => string): string {
  const where = own.biasUm < 0 ? 'in front' : 'behind';
  const bias = Math.abs(own.biasUm) < 0.5 ? 'on target' : `${Math.abs(own.biasUm).toFixed(0)} µm ${where}`;
  const how = `${focusMethodWords[own.method]}${own.recomposed ? ', recomposed' : ''}`;
  const frames = Math.round(own.frames) === 1 ? 'one frame' : `${Math.round(own.frames)} frames`;
  const end = own.focalLengthMm === null ? '' : `, at ${Math.round(own.focalLengthMm)} mm`;
  const moved = own.stopShift.map(
    ({ fNumber, um }) => `${Math.abs(um).toFixed(0)} µm further ${um < 0 ? 'in front' : 'behind'} at f/${fNumber}`
  );
  return `${nameOf(own.lensId)} on ${nameOf(own.bodyId)}, ${how}${end}: ${bias}, scatter ${own.spreadUm.toFixed(0)} µm; ${frames}${moved.length === 0 ? '' : `; stopped down ${moved.join(', ')}`}`;
}

/** The focal length a kit is compared at, mm: that of most of its frames. */
export const focalLengthOf = ({ frames }: KitGroup): number => {
  const sorted = frames.map(({ focalLengthMm }) => focalLengthMm).sort((a, b) => a - b);
  return sorted[Math.floor(sorted.length / 2)] ?? 50;
};

/** An estimate on the sensor as one in front of the lens at a distance, mm. */
export function estimateAt({ value, low, high }: Estimate, focalLengthMm: number, distanceMm: number): Estimate {
  const at = (um: number) => atDistanceMm(um, focalLengthMm, distanceMm);
  return { value: at(value), low: at(low), high: at(high) };
}

export type BiasVerdict = 'few' | 'onTheMark' | 'front' | 'behind';

/** Whether a kit has a bias: its interval decides. */
export function biasVerdict({ learned }: KitGroup): BiasVerdict {
  if (learned.frames < leastFocusings) return 'few';
  if (learned.bias.low <= 0 && learned.bias.high >= 0) return 'onTheMark';
  return learned.bias.value > 0 ? 'behind' : 'front';
}

/** How far off a kit focuses, brought to the distance compared at. */
const offWords = (group: KitGroup, unit: LengthUnit): string =>
  formatLength(Math.abs(estimateAt(group.learned.bias, focalLengthOf(group), comparedAtMm).value), unit);

/** "14 mm behind", "on target". */
export function biasWords(group: KitGroup, unit: LengthUnit): { readonly title: string; readonly detail: string } {
  const f = focalLengthOf(group);
  const bias = estimateAt(group.learned.bias, f, comparedAtMm);
  const spread = atDistanceMm(group.learned.sd.value, f, comparedAtMm);
  const half = formatLength((bias.high - bias.low) / 2, unit);
  const scatter = `scatter ${formatLength(spread, unit)}`;
  const standing = biasVerdict(group);
  if (standing === 'few') {
    const left = Math.ceil(leastFocusings - group.learned.frames);
    return { title: 'too few frames', detail: `${left} more measurable frames needed` };
  }
  if (standing === 'onTheMark') return { title: 'on target', detail: `± ${half} · ${scatter}` };
  const where = `${offWords(group, unit)} ${standing === 'front' ? 'in front' : 'behind'}`;
  return { title: where, detail: `± ${half} · ${scatter}` };
}

/** "Your 85 mm f/1.4 back-focuses 14 mm at 2 m. The others are on target." */
export function recordTitle(groups: readonly KitGroup[], unit: LengthUnit): string {
  const told = groups.filter((group) => biasVerdict(group) !== 'few');
  if (told.length === 0) return 'Where does your focus land?';
  const off = told.filter((group) => ['front', 'behind'].includes(biasVerdict(group)));
  const [first] = off;
  if (!first) return told.length === 1 ? `Your ${told[0]?.lens ?? ''} is on target.` : 'All your lenses are on target.';
  const how = first.recomposed ? ', recomposed,' : '';
  const said = `Your ${first.lens}${how} ${biasVerdict(first) === 'front' ? 'front-focuses' : 'back-focuses'} ${offWords(first, unit)} at ${formatLength(comparedAtMm, unit)}.`;
  if (off.length > 1)
    return `${said} ${off.length === 2 ? 'One other lens is off too.' : `${off.length - 1} others are off too.`}`;
  return told.length > 1 ? `${said} The others are on target.` : said;
}

const per100 = (share: number): number => Math.round(share * 100);

/** "Predicted 80%, got 77% (77 of 100 sharp)". */
export function honestyTitle({ said, sharp }: Honesty): string {
  return `Predicted ${per100(said)}%, got ${per100(sharp.share)}% (${sharp.count} of ${sharp.of} sharp)`;
}

/** Whether that is honest, within what so many frames can tell. */
export function honestyWords({ said, sharp, frames }: Honesty): string {
  const counted = frames === 1 ? 'one frame' : `${frames} frames`;
  if (said > sharp.high)
    return `The predictions were too optimistic: at best ${per100(sharp.high)}%, allowing for chance.`;
  if (said < sharp.low)
    return `The predictions were too cautious: at least ${per100(sharp.low)}%, allowing for chance.`;
  return `The predictions were right, as far as ${counted} can show.`;
}

/** "Here 0.14; always predicting the average: 0.19." */
export const brierWords = ({ brier, brierOfAverage }: Honesty): string =>
  `Here ${brier.toFixed(2)}; always predicting the average: ${brierOfAverage.toFixed(2)}.`;

/** Whether a factor is told to be another than assumed. */
export const differs = ({ low, high }: Estimate): boolean => low > 1 || high < 1;

/** "1.3 times what is assumed (0.9 to 1.9)". */
export const swayFactorWords = ({ value, low, high }: Estimate): string =>
  `${value.toFixed(1)} times what is assumed (${low.toFixed(1)} to ${high.toFixed(1)})`;

/** "sways 11 mm in a second (8 to 15), not 4". */
export function ownSwayWords({ swayMm, usualMm, frames }: PersonSway): string {
  const mm = (value: number) => (value < 9.95 ? value.toFixed(1) : value.toFixed(0));
  return `sways ${mm(swayMm.value)} mm in a second (${mm(swayMm.low)} to ${mm(swayMm.high)} mm in ${frames} frames), not ${mm(usualMm)}`;
}

/** Whether somebody's sway is told to be another than is usual. */
export const swaysOtherwise = ({ swayMm, usualMm }: PersonSway): boolean =>
  swayMm.low > usualMm || swayMm.high < usualMm;

/** "moved across in 3 of 24 frames, about 180 mm/s (120 to 260)". The mean of a half-normal speed is its scale times √(2/π). */
export function movementWords({ moved, of, speed }: NonNullable<PersonFigures['movement']>): string {
  const mm = (scale: number) => Number((scale * Math.sqrt(2 / Math.PI)).toPrecision(2));
  return `moved in ${moved} of ${of} frames, on average ${mm(speed.value)} mm/s across (${mm(speed.low)} to ${mm(speed.high)})`;
}

export const wayWords: Readonly<Record<FocusingGroup, string>> = {
  lens: 'lens',
  stop: 'stop',
  distance: 'distance',
  mode: 'focus mode',
  stance: 'stance',
  person: 'person'
};

/** What the frames of one rate have in common. */
export function rateWords(way: FocusingGroup, key: string, unit: LengthUnit): string {
  switch (way) {
    case 'stop':
      return `f/${Number(key)}`;
    case 'distance': {
      const index = Number(key);
      const [from, to] = [distanceEnds[index - 1], distanceEnds[index]];
      if (from === undefined) return `under ${formatLength(to ?? 0, unit)}`;
      return to === undefined
        ? `beyond ${formatLength(from, unit)}`
        : `${formatLength(from, unit)} to ${formatLength(to, unit)}`;
    }
    case 'mode':
      return focusModeWords[key as keyof typeof focusModeWords] ?? key;
    default:
      return key;
  }
}
